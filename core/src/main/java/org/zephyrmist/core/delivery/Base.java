package org.zephyrmist.core.delivery;

import java.util.HashSet;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;

/**
 * What was last delivered of an item, from its receipt.
 *
 * @param id the platform's own id of it
 * @param sent what the version said
 * @param shown what the shell showed after writing; later comparisons start from it, so a platform
 *     that tidies a text never looks like a change by an instructor
 * @param accepted aspects in which the section's own was accepted for good; only what is fixed is
 *     still written there
 */
public record Base(
    ItemKey key,
    Kind kind,
    String title,
    String id,
    Fingerprints sent,
    Fingerprints shown,
    Set<Aspect> accepted) {
  public Base {
    accepted = Set.copyOf(accepted);
  }

  /** Of which nothing of the section's own was accepted. */
  public Base(
      ItemKey key, Kind kind, String title, String id, Fingerprints sent, Fingerprints shown) {
    this(key, kind, title, id, sent, shown, Set.of());
  }

  /** The same, as if the version had said this of an aspect. */
  public Base saying(Aspect aspect, Fingerprint of) {
    return new Base(key, kind, title, id, sent.with(aspect, of), shown, accepted);
  }

  /** The same, of which nothing is accepted. */
  Base plain() {
    return new Base(key, kind, title, id, sent, shown);
  }

  /** The same, as if these aspects had been delivered like this. */
  Base asLeft(Set<Aspect> aspects, Fingerprints left) {
    return new Base(
        key, kind, title, id, sent.with(aspects, left), shown.with(aspects, left), accepted);
  }

  /** The same item, delivered as another that is one with it in the shell. */
  public Base as(Base other) {
    return new Base(key, kind, title, id, other.sent, other.shown, accepted);
  }

  /** The same, of which this is accepted as well. */
  public Base accepting(Set<Aspect> aspects) {
    Set<Aspect> all = new HashSet<>(accepted);
    all.addAll(aspects);
    return new Base(key, kind, title, id, sent, shown, all);
  }

  /**
   * The base of a twin taken as ours. Where it stands, when it is due and who sees it is the
   * section's from the start; wording, grading and launch that differ count as changed there.
   */
  static Base adopted(Step step, Held now) {
    Fingerprints meant = step.sides().version().orElseThrow();
    Fingerprints shown = meant.with(Aspect.OF_THE_SECTION, now.aspects());
    return new Base(step.key(), step.itemKind(), step.title(), now.id(), meant, shown);
  }

  /**
   * The base after a step on an item that was delivered before. What was written starts from what
   * the shell shows now. Where something of the section's own stays, kept or merged, the version's
   * side becomes the base: what differs from it is the section's own, for all versions to come.
   *
   * @param now the item as the shell shows it after writing
   */
  Base after(Step step, Fingerprints now) {
    Fingerprints meant = step.sides().version().orElseThrow();
    Fingerprints nextSent = sent;
    Fingerprints nextShown = shown;
    for (Aspect a : Aspect.values()) {
      Step.AspectStep did = step.aspects().getOrDefault(a, Step.AspectStep.SAME);
      boolean written = step.writes().contains(a);
      boolean equal = did == Step.AspectStep.SAME && meant.get(a).equals(now.get(a));
      boolean own = did.merges() && !meant.get(a).equals(becomes(step, a));
      if ((written || equal) && !own) {
        nextSent = nextSent.with(a, meant.get(a));
        nextShown = nextShown.with(a, now.get(a));
      } else if (own || did == Step.AspectStep.CLASH_KEPT) {
        nextSent = nextSent.with(a, meant.get(a));
        nextShown = nextShown.with(a, meant.get(a));
      }
    }
    return new Base(key, kind, step.title(), id, nextSent, nextShown, accepted);
  }

  private static Fingerprint becomes(Step step, Aspect a) {
    return step.sides().becomes().orElseThrow().get(a);
  }
}
