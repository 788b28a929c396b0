package org.zephyrmist.core.delivery;

import java.util.Collection;
import java.util.EnumSet;
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
  /** Stands for an aspect whose links could not all be written. */
  private static final Fingerprint UNFINISHED = Fingerprint.of("links unfinished");

  /** How an item came to be as it is. */
  public enum How {
    ADDED,
    UPDATED,
    ADOPTED,
    KEPT,
    RETIRED,
    /** Taken as ours once, and the section's own again; it stays in the shell. */
    GIVEN_BACK;

    /** Whether the section holds the item no more, as far as the ledger is concerned. */
    public boolean ends() {
      return this == RETIRED || this == GIVEN_BACK;
    }
  }

  /**
   * The receipt of a step.
   *
   * @param now the item as the shell shows it; none if it does not, for then it has not come
   * @param untouched whether nobody changed it between our write and the reading back; else what
   *     the shell shows is theirs, so of what we wrote counts what it was to become
   * @param old what was delivered of it before
   * @return none if nothing of the item's base has moved
   */
  public static Optional<Receipt> of(
      Step s, Optional<Held> now, boolean untouched, Optional<Base> old) {
    if (s.kind() == StepKind.RETIRE) {
      return old.map(b -> new Receipt(b, How.RETIRED, Set.of()));
    }
    if (s.reason() == Step.Reason.HIDDEN_INSTEAD && s.moves()) {
      return old.map(b -> new Receipt(b, How.KEPT, s.writes()));
    }
    if (s.sides().version().isEmpty() || now.isEmpty()) {
      return Optional.empty();
    }
    return of(s, untouched ? now.get() : asWeLeftIt(s, now.get()), old);
  }

  /**
   * The receipt of a step that was broken off and settled. What names other items may have been
   * written before they were there.
   *
   * @param refers aspects that name other items
   */
  public static Optional<Receipt> settled(
      Step s, Optional<Held> now, boolean untouched, Optional<Base> old, Set<Aspect> refers) {
    Optional<Receipt> r = of(s, now, untouched, old);
    return r.map(x -> x.unfinished(s.writes().stream().filter(refers::contains).toList()));
  }

  /** Of a front page that is one with another master's, which says all that this one's says. */
  public static Receipt met(Base theirs) {
    return new Receipt(theirs, How.ADOPTED, Set.of());
  }

  private static Held asWeLeftIt(Step s, Held now) {
    return s.sides()
        .becomes()
        .map(becomes -> now.with(now.aspects().with(s.writes(), becomes)))
        .orElse(now);
  }

  private static Optional<Receipt> of(Step s, Held now, Optional<Base> old) {
    return switch (s.kind()) {
      case ADD -> Optional.of(new Receipt(added(s, now), How.ADDED, s.writes()));
      case TWIN ->
          s.adopts()
              ? Optional.of(new Receipt(Base.adopted(s, now), How.ADOPTED, s.writes()))
              : Optional.empty();
      case UPDATE, CLASH, KEEP, SAME -> old.flatMap(b -> moved(s, b, b.after(s, now.aspects())));
      case BLOCKED, RETIRE -> Optional.empty();
    };
  }

  private static Base added(Step s, Held now) {
    Fingerprints sent = s.sides().version().orElseThrow();
    return new Base(s.key(), s.itemKind(), s.title(), now.id(), sent, now.aspects());
  }

  private static Optional<Receipt> moved(Step s, Base old, Base after) {
    boolean same = after.sent().equals(old.sent()) && after.shown().equals(old.shown());
    return same && s.writes().isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Receipt(after, s.writes().isEmpty() ? How.KEPT : How.UPDATED, s.writes()));
  }

  /** Aspects that the next plan writes again. */
  Set<Aspect> unfinished() {
    return unfinished(base, writes);
  }

  /** Of these aspects, those whose links could not all be written. */
  static Set<Aspect> unfinished(Base base, Set<Aspect> of) {
    Set<Aspect> all = EnumSet.noneOf(Aspect.class);
    for (Aspect a : of) {
      if (base.sent().get(a).equals(UNFINISHED)) {
        all.add(a);
      }
    }
    return all;
  }

  /** The same, but the next plan writes these again: their links could not all be written. */
  private Receipt unfinished(Collection<Aspect> again) {
    Fingerprints sent = base.sent();
    for (Aspect a : again) {
      sent = sent.with(a, UNFINISHED);
    }
    Base b =
        new Base(
            base.key(), base.kind(), base.title(), base.id(), sent, base.shown(), base.accepted());
    return new Receipt(b, how, writes);
  }
}
