package org.zephyrmist.core.delivery;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;

/**
 * What people decided of single clashes and twins of a delivery. A decision is about an item in all
 * sections, or only where the same clashes with the same; the narrower one counts.
 *
 * @param made by what they are about
 */
public record Decisions(Map<About, Decision> made) {
  public static final Decisions NONE = new Decisions(Map.of());

  public Decisions {
    made = Map.copyOf(made);
  }

  /** Which side counts. */
  public enum Take {
    /** Of a clash: the section's stays. */
    SECTION,
    /** Of a clash: the version's is written. */
    VERSION,
    /** Of a clash of texts: what both become together. */
    TOGETHER,
    /** Of a twin: it is taken as ours. */
    ADOPT,
    /** Of a twin: ours is added beside it. */
    ADD,
    /** Of a twin: it is left, and ours is not delivered. */
    LEAVE
  }

  /**
   * What a decision is about.
   *
   * @param alike see {@link #alike}; none for every section
   */
  public record About(ItemKey item, Optional<Fingerprint> alike) {}

  /**
   * @param together fingerprint of the wording that both become; present for {@link Take#TOGETHER}
   */
  public record Decision(Take take, Optional<Fingerprint> together) {
    public Decision {
      if (together.isPresent() != (take == Take.TOGETHER)) {
        throw new IllegalArgumentException("A text of both goes with taking both, and only then");
      }
    }

    public static Decision of(Take take) {
      return new Decision(take, Optional.empty());
    }
  }

  /** Equal for sections where the same stands against the same, in the aspects that differ. */
  public static Fingerprint alike(Set<Aspect> differing, Fingerprints here, Fingerprints meant) {
    StringBuilder all = new StringBuilder();
    for (Aspect a : new TreeSet<>(differing)) {
      all.append(a).append(' ').append(here.get(a)).append(' ').append(meant.get(a)).append('\n');
    }
    return Fingerprint.of(all.toString());
  }

  Optional<Decision> of(
      ItemKey item, Set<Aspect> differing, Fingerprints here, Fingerprints meant) {
    if (made.isEmpty()) {
      return Optional.empty();
    }
    About narrow = new About(item, Optional.of(alike(differing, here, meant)));
    return Optional.ofNullable(made.get(narrow))
        .or(() -> Optional.ofNullable(made.get(new About(item, Optional.empty()))));
  }

  /** Whether somebody decided anywhere that the section's stays of an item. */
  boolean keeps(ItemKey item) {
    return made.entrySet().stream()
        .anyMatch(e -> e.getKey().item().equals(item) && e.getValue().take() == Take.SECTION);
  }
}
