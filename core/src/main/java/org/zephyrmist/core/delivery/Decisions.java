package org.zephyrmist.core.delivery;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Visibility;

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
    /**
     * Of a twin: it is left, and ours is not delivered. Of what students left something on: it
     * stays as it is.
     */
    LEAVE,
    /** Of what students left something on: its grading changes all the same. */
    CHANGE_GRADING,
    /** Of what students left something on and is to go: it is hidden instead. */
    HIDE
  }

  /** What becomes of an item that is hidden instead of removed. */
  public static final String HIDDEN = AspectForms.form(new Visibility(false, false));

  private static final Fingerprint ANY_WORK = Fingerprint.of("what students left, in any section");

  /** About an item on which students left something, in all sections. */
  public static About anyWork(ItemKey item) {
    return new About(item, Optional.of(ANY_WORK));
  }

  /** Equal for sections where the same that students left something on would become the same. */
  public static Fingerprint work(Fingerprints here, Optional<Fingerprints> meant) {
    return Fingerprint.of("work " + here + " " + meant);
  }

  /** What was decided of an item on which students left something. */
  public Optional<Take> ofWork(ItemKey item, Fingerprints here, Optional<Fingerprints> meant) {
    if (made.isEmpty()) {
      return Optional.empty();
    }
    return Optional.ofNullable(made.get(new About(item, Optional.of(work(here, meant)))))
        .or(() -> Optional.ofNullable(made.get(anyWork(item))))
        .map(Decision::take);
  }

  /**
   * What a decision is about.
   *
   * @param alike see {@link #alike}; none for every section
   */
  public record About(ItemKey item, Optional<Fingerprint> alike) {}

  /**
   * @param text of both as a person put it together, where the same stands against the same; else
   *     {@link Take#TOGETHER} merges each section's text with its own words
   */
  public record Decision(Take take, Optional<Fingerprint> text) {
    public Decision {
      if (text.isPresent() && take != Take.TOGETHER) {
        throw new IllegalArgumentException("A text of both goes with taking both alone");
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
        .or(
            () ->
                Optional.ofNullable(made.get(new About(item, Optional.empty())))
                    .map(d -> Decision.of(d.take())));
  }

  /** Whether somebody decided anywhere that the section's own stays of an item. */
  boolean keeps(ItemKey item) {
    return made.entrySet().stream()
        .filter(e -> e.getKey().item().equals(item))
        .map(e -> e.getValue().take())
        .anyMatch(t -> t == Take.SECTION || t == Take.TOGETHER);
  }
}
