package org.zephyrmist.server.roster;

import java.util.Map;
import org.zephyrmist.core.roster.Roster;

/** What becomes of it that a roster says in which parts of their terms sections are taught. */
public interface TaughtInParts {
  /**
   * Within the running transaction, when the sections are there.
   *
   * @param parts by the roster's id of the section
   */
  void take(Map<String, Roster.Part> parts);
}
