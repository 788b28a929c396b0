package org.zephyrmist.core.delivery;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Titles;

/**
 * Finds, among the items of a shell that are not ours, the one that an item of ours is alike to:
 * first the same wording and launch, then the same title, kind by kind. One to one: what is taken
 * is not found again.
 */
final class Likeness {
  private record Exact(Kind kind, Fingerprint wording, Fingerprint launch) {}

  private record Titled(Kind kind, String title) {}

  private final Map<Exact, LinkedHashMap<String, Held>> exact = new HashMap<>();
  private final Map<Titled, LinkedHashMap<String, Held>> titled = new HashMap<>();

  Likeness(List<Held> others) {
    for (Held h : others) {
      exact.computeIfAbsent(exact(h), k -> new LinkedHashMap<>()).put(h.id(), h);
      titled
          .computeIfAbsent(titled(h.kind(), h.title()), k -> new LinkedHashMap<>())
          .put(h.id(), h);
    }
  }

  Optional<Held> take(Meant m) {
    Exact same =
        new Exact(m.kind(), m.aspects().get(Aspect.WORDING), m.aspects().get(Aspect.LAUNCH));
    Optional<Held> found = first(exact.get(same));
    if (found.isEmpty()) {
      found = first(titled.get(titled(m.kind(), m.title())));
    }
    found.ifPresent(
        h -> {
          exact.get(exact(h)).remove(h.id());
          titled.get(titled(h.kind(), h.title())).remove(h.id());
        });
    return found;
  }

  private static Optional<Held> first(LinkedHashMap<String, Held> found) {
    return found == null ? Optional.empty() : found.values().stream().findFirst();
  }

  private static Exact exact(Held h) {
    return new Exact(h.kind(), h.aspects().get(Aspect.WORDING), h.aspects().get(Aspect.LAUNCH));
  }

  private static Titled titled(Kind kind, String title) {
    return new Titled(kind, Titles.folded(title));
  }
}
