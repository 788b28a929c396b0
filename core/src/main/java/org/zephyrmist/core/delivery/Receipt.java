package org.zephyrmist.core.delivery;

import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;

/**
 * What the ledger notes of a step that is done. One rule, whoever asks: the run that carried the
 * step out, or the settlement after it broke off.
 *
 * @param base from which the next delivery starts
 * @param how the item came to be as it is
 * @param writes aspects that were written
 */
public record Receipt(Base base, How how, Set<Aspect> writes) {
  /** Stands for a text whose links could not all be written. */
  private static final Fingerprint UNFINISHED = Fingerprint.of("links unfinished");

  /** How an item came to be as it is. */
  public enum How {
    ADDED,
    UPDATED,
    ADOPTED,
    KEPT,
    RETIRED
  }

  /**
   * The receipt of a step.
   *
   * @param meant what the item becomes; none if it is no longer in the version
   * @param now the item as the shell shows it; none if it does not, for then it has not come
   * @param untouched whether nobody changed it between our write and the reading back; else what
   *     the shell shows is theirs, so of what we wrote counts what we meant
   * @param old what was delivered of it before
   * @return none if nothing of the item's base has moved
   */
  public static Optional<Receipt> of(
      Step s,
      Optional<Fingerprints> meant,
      Optional<Held> now,
      boolean untouched,
      Optional<Base> old) {
    if (s.kind() == StepKind.RETIRE) {
      return old.map(b -> new Receipt(b, How.RETIRED, Set.of()));
    }
    if (meant.isEmpty() || now.isEmpty()) {
      return Optional.empty();
    }
    Held left = untouched ? now.get() : asWeLeftIt(s, meant.get(), now.get());
    return of(s, meant.get(), left, old);
  }

  private static Held asWeLeftIt(Step s, Fingerprints meant, Held now) {
    Fingerprints f = now.aspects();
    for (Aspect a : s.writes()) {
      f = f.with(a, meant.get(a));
    }
    return now.with(f);
  }

  private static Optional<Receipt> of(Step s, Fingerprints meant, Held now, Optional<Base> old) {
    return switch (s.kind()) {
      case ADD ->
          Optional.of(
              new Receipt(
                  new Base(s.key(), s.itemKind(), s.title(), now.id(), meant, now.aspects()),
                  How.ADDED,
                  s.writes()));
      case TWIN ->
          s.reason() == Step.Reason.ALIKE_ADOPTED
              ? Optional.of(new Receipt(Base.adopted(s, meant, now), How.ADOPTED, s.writes()))
              : Optional.empty();
      case UPDATE, CLASH, KEEP, SAME ->
          old.flatMap(b -> moved(s, b, b.after(s, meant, now.aspects())));
      case BLOCKED, RETIRE -> Optional.empty();
    };
  }

  private static Optional<Receipt> moved(Step s, Base old, Base after) {
    boolean same = after.sent().equals(old.sent()) && after.shown().equals(old.shown());
    return same && s.writes().isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Receipt(after, s.writes().isEmpty() ? How.KEPT : How.UPDATED, s.writes()));
  }

  /** The same, but the next plan writes the text again: its links could not all be written. */
  public Receipt unfinished() {
    Base b =
        new Base(
            base.key(),
            base.kind(),
            base.title(),
            base.id(),
            base.sent().with(Aspect.WORDING, UNFINISHED),
            base.shown());
    return new Receipt(b, how, writes);
  }
}
