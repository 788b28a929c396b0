package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;

/**
 * In what a shell differs from what is looked for.
 *
 * @param missing what is not there
 * @param different what is there and differs
 * @param surplus what is there besides
 */
public record Differences(List<Held> missing, List<Different> different, List<Held> surplus) {
  /** An item that is there in another form, and in which aspects. */
  public record Different(Held item, Set<Aspect> aspects) {}

  /** Between a shell at two moments, item by item as the platform names them. */
  public static Differences between(List<Held> then, List<Held> now) {
    Map<String, Held> there = new LinkedHashMap<>();
    now.forEach(h -> there.put(h.id(), h));
    List<Held> missing = new ArrayList<>();
    List<Different> different = new ArrayList<>();
    for (Held h : then) {
      Held other = there.remove(h.id());
      if (other == null) {
        missing.add(h);
      } else if (!other.aspects().equals(h.aspects())) {
        different.add(new Different(other, h.aspects().differing(other.aspects())));
      }
    }
    return new Differences(missing, different, List.copyOf(there.values()));
  }
}
