package org.zephyrmist.core.delivery;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;

/** What wordings become that both a section and the master changed since the last delivery. */
@FunctionalInterface
public interface Merges {
  /** Of which nothing can be said. */
  Merges NONE = three -> Optional.empty();

  /**
   * Three wordings of one item, by their fingerprints.
   *
   * @param base as it was last delivered
   */
  record Three(Fingerprint base, Fingerprint here, Fingerprint version) {}

  /**
   * @param becomes the wording of both
   * @param clean whether the two changes do not meet, so that nobody is asked
   */
  record Merged(Fingerprint becomes, boolean clean) {}

  /**
   * @return none where they cannot stand side by side, or are not known
   */
  Optional<Merged> of(Three three);

  /** Those that a plan may ask for: wordings that both sides moved, each in another way. */
  static Set<Three> wanted(Meant meant, List<Held> shell, Map<ItemKey, Base> bases) {
    Map<String, Held> byId = new HashMap<>();
    shell.forEach(h -> byId.put(h.id(), h));
    Set<Three> all = new HashSet<>();
    for (Node m : meant.items().nodes()) {
      Base b = bases.get(m.key());
      Held s = b == null ? null : byId.get(b.id());
      if (s != null) {
        wanted(m, b, s.aspects()).ifPresent(all::add);
      }
    }
    return all;
  }

  /** The same of one item. */
  static Optional<Three> wanted(Node m, Base b, Fingerprints here) {
    Fingerprint wanted = m.aspects().get(Aspect.WORDING);
    Three three = new Three(b.shown().get(Aspect.WORDING), here.get(Aspect.WORDING), wanted);
    boolean moved =
        !wanted.equals(b.sent().get(Aspect.WORDING))
            && !three.here().equals(three.base())
            && !three.here().equals(wanted);
    return m.rule(Aspect.WORDING) == EditRule.ADAPTABLE && moved
        ? Optional.of(three)
        : Optional.empty();
  }

  /** Those that are known. */
  static Merges of(Map<Three, Merged> known) {
    Map<Three, Merged> all = Map.copyOf(known);
    return three -> Optional.ofNullable(all.get(three));
  }
}
