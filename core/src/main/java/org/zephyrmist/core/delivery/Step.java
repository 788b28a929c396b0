package org.zephyrmist.core.delivery;

import java.util.Collections;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.edition.Evidence;

/**
 * What a delivery does with one item in one section.
 *
 * @param kind of the step
 * @param id the platform's id of the item, where the shell holds it
 * @param aspects what happens to each aspect; empty for a step that is not about aspects
 * @param writes the aspects that are written
 * @param reason why, in one sentence
 * @param sides the item as it was, as it is, as it is meant, and as it becomes
 * @param evidence of a twin that was found by what it says
 */
public record Step(
    ItemKey key,
    Kind itemKind,
    String title,
    StepKind kind,
    Optional<String> id,
    Map<Aspect, AspectStep> aspects,
    Set<Aspect> writes,
    Reason reason,
    Sides sides,
    Optional<Evidence> evidence) {
  /** A step that needs no evidence. */
  public Step(
      ItemKey key,
      Kind itemKind,
      String title,
      StepKind kind,
      Optional<String> id,
      Map<Aspect, AspectStep> aspects,
      Set<Aspect> writes,
      Reason reason,
      Sides sides) {
    this(key, itemKind, title, kind, id, aspects, writes, reason, sides, Optional.empty());
  }

  /** The same with what speaks for it. */
  Step with(Optional<Evidence> because) {
    return new Step(key, itemKind, title, kind, id, aspects, writes, reason, sides, because);
  }

  public Step {
    aspects = Map.copyOf(aspects);
    writes = Collections.unmodifiableSet(new TreeSet<>(writes));
    if (!writes.isEmpty() && sides.becomes().isEmpty()) {
      throw new IllegalArgumentException("What is written must be known: " + key);
    }
  }

  /** The same, not done because of what students left. */
  Step blocked(Reason because) {
    return new Step(
        key,
        itemKind,
        title,
        StepKind.BLOCKED,
        id,
        aspects,
        Set.of(),
        because,
        new Sides(sides.base(), sides.here(), sides.version(), sides.here()));
  }

  /** The same of a clash, as an update that nobody is asked about. */
  Step overwriting(Reason because) {
    Map<Aspect, AspectStep> all = new EnumMap<>(aspects);
    all.replaceAll((a, did) -> did.bothMoved() ? AspectStep.UPDATE : did);
    return new Step(
        key, itemKind, title, StepKind.UPDATE, id, all, writes, because, sides, evidence);
  }

  /** The same for another reason. */
  Step because(Reason other) {
    return new Step(key, itemKind, title, kind, id, aspects, writes, other, sides, evidence);
  }

  /** Whether an item of the shell is taken as ours by this step. */
  public boolean adopts() {
    return kind == StepKind.TWIN
        && (reason == Reason.ALIKE_ADOPTED || reason == Reason.ALIKE_EARLIER_TERM);
  }

  /** Whether something of the section's own is overwritten by this step. */
  public boolean overwrites() {
    return moves()
        && (kind == StepKind.CLASH
            || reason == Reason.FIXED_PUT_BACK
            || reason == Reason.PUT_BACK
            || reason == Reason.CLEARED);
  }

  /** Whether running the step changes the shell. */
  public boolean moves() {
    return switch (kind) {
      case ADD, RETIRE -> true;
      case UPDATE, CLASH, TWIN -> !writes.isEmpty();
      case SAME, KEEP, BLOCKED -> false;
    };
  }

  /** Aspects that both sides moved, whatever became of that. */
  public Set<Aspect> bothMoved() {
    return ThreeWay.bothMoved(aspects);
  }

  /** Whether a person is asked, or was, because of what students left on it. */
  public boolean work() {
    return reason == Reason.STUDENT_WORK
        || reason == Reason.HIDDEN_INSTEAD
        || reason == Reason.LEFT_WITH_WORK;
  }

  /** What is equal in every section where the same is to be decided; none if nothing is. */
  public Optional<Fingerprint> alike() {
    if (work()) {
      return sides.here().map(here -> Decisions.work(here, sides.version()));
    }
    if (kind != StepKind.TWIN && bothMoved().isEmpty()) {
      return Optional.empty();
    }
    return sides
        .here()
        .flatMap(
            here ->
                sides
                    .version()
                    .map(
                        meant ->
                            Decisions.alike(
                                kind == StepKind.TWIN ? meant.differing(here) : bothMoved(),
                                here,
                                meant)));
  }

  /** What happens to one aspect. */
  public enum AspectStep {
    SAME,
    UPDATE,
    KEEP,
    CLASH_KEPT,
    CLASH_OVERWRITTEN,
    /** Both moved the same words, and a person said that both stay. */
    CLASH_TOGETHER,
    /** Both moved, each at other places: the section's own stays within the version's. */
    MERGED,
    BLOCKED,
    /** Other than the version says, and not touched by this delivery. */
    LEFT;

    /** Whether the section and the master moved the same of it. */
    public boolean clash() {
      return this == CLASH_KEPT || this == CLASH_OVERWRITTEN || this == CLASH_TOGETHER;
    }

    /** Whether the section and the master moved it. */
    boolean bothMoved() {
      return clash() || this == MERGED;
    }

    /** Whether something of both is what it becomes. */
    boolean merges() {
      return this == CLASH_TOGETHER || this == MERGED;
    }
  }

  /** Why a step is what it is. */
  public enum Reason {
    EQUAL,
    NEW_IN_VERSION,
    VERSION_MOVED,
    CHANGED_HERE,
    BOTH_MOVED,
    /** Both changed it, each at other places; both changes stand in what it becomes. */
    MERGED,
    FIXED_PUT_BACK,
    /** The section's change is undone, because this delivery puts things back. */
    PUT_BACK,
    /** The section's own was accepted for good. */
    ACCEPTED_HERE,
    STARTER_BELONGS_TO_SECTION,
    ALIKE_ADOPTED,
    /** Alike and from an earlier term: taken as ours, with the version's dates and tool ties. */
    ALIKE_EARLIER_TERM,
    /** Perhaps alike; nothing is done until a person decides. */
    ALIKE_DOUBTFUL,
    ALIKE_LEFT,
    /** Another master, which stands before this one, has it there or brings it. */
    SUPPLIED,
    /** The shell has no such place as this delivery names. */
    NO_PLACE,
    /** The shell has no place for the week in which it stands. */
    NO_WEEK,
    /** Places for weeks are added to the shell's own. */
    WEEKS_ADDED,
    /** Front pages of several masters are one page here, with what all of them say. */
    MEETS,
    ALIKE_ADDED_BESIDE,
    REMOVED_HERE,
    GONE_FROM_VERSION,
    GONE_BUT_CHANGED_HERE,
    GONE_BUT_HOLDS_OTHERS,
    ALREADY_GONE,
    STUDENT_WORK,
    /** It was to go, but students left something on it, so it is hidden. */
    HIDDEN_INSTEAD,
    /** It was to go, but students left something on it, and a person said that it stays. */
    LEFT_WITH_WORK,
    /** The dates are another's, and this delivery leaves them. */
    DATES_LEFT,
    /** Nearly all of ours is gone from the shell; nothing is done there. */
    EMPTIED,
    /** As it was before the delivery that is taken back. */
    TAKEN_BACK,
    /** A change that is made alike in all chosen sections. */
    EDITED,
    /** Cleared away for a clean start. */
    CLEARED,
    /** The shell is not cleared: students have handed in work there. */
    NOT_CLEARED
  }
}
