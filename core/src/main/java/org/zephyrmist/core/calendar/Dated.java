package org.zephyrmist.core.calendar;

import java.util.List;
import org.zephyrmist.core.content.Timing;

/**
 * The real dates of an item, and what is to be told of them.
 *
 * @param timing without patterns
 */
public record Dated(Timing timing, List<Remark> remarks) {
  public Dated {
    remarks = List.copyOf(remarks);
  }
}
