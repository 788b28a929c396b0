package org.zephyrmist.core.delivery;

import java.util.Map;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;

/**
 * How a delivery goes about it, as a person chose for all of it.
 *
 * @param byKind where a kind is treated otherwise than the rest
 * @param decisions of single clashes and twins, which count before the rest
 */
public record Choices(
    Clash clash,
    Twin twin,
    Arrival arrival,
    Dates dates,
    EmptiedShell emptied,
    Onto onto,
    Weeks weeks,
    ByKind byKind,
    Decisions decisions) {
  /** Without decisions of single steps; brings up to date, emptied shells are asked about. */
  public Choices(Clash clash, Twin twin, Arrival arrival, Dates dates) {
    this(
        clash,
        twin,
        arrival,
        dates,
        EmptiedShell.ASK,
        Onto.UP_TO_DATE,
        Weeks.ADD,
        ByKind.NONE,
        Decisions.NONE);
  }

  public Choices with(Decisions made) {
    return new Choices(clash, twin, arrival, dates, emptied, onto, weeks, byKind, made);
  }

  public Choices with(EmptiedShell emptied) {
    return new Choices(clash, twin, arrival, dates, emptied, onto, weeks, byKind, decisions);
  }

  public Choices with(Onto onto) {
    return new Choices(clash, twin, arrival, dates, emptied, onto, weeks, byKind, decisions);
  }

  public Choices with(Weeks weeks) {
    return new Choices(clash, twin, arrival, dates, emptied, onto, weeks, byKind, decisions);
  }

  public Choices with(ByKind byKind) {
    return new Choices(clash, twin, arrival, dates, emptied, onto, weeks, byKind, decisions);
  }

  /** What counts in a clash of an item of a kind. */
  public Clash clash(Kind kind) {
    return byKind.clash().getOrDefault(kind, clash);
  }

  /** What becomes of a twin of an item of a kind. */
  public Twin twin(Kind kind) {
    return byKind.twin().getOrDefault(kind, twin);
  }

  /** What is chosen for some kinds otherwise than for the rest. */
  public record ByKind(Map<Kind, Clash> clash, Map<Kind, Twin> twin) {
    public static final ByKind NONE = new ByKind(Map.of(), Map.of());

    public ByKind {
      clash = Map.copyOf(clash);
      twin = Map.copyOf(twin);
    }
  }

  /** The shell has fewer places for weeks than the version needs, see {@link WeekPlaces}. */
  public enum Weeks {
    /** Places are added. */
    ADD,
    /** Weeks without a place do not come. */
    LEAVE_OUT
  }

  /** What a shell is like when the delivery arrives. */
  public enum Onto {
    /** What is there is brought up to date, what is missing added. */
    UP_TO_DATE,
    /**
     * What no other master brought is cleared away first, and the version stands there as it is;
     * not where students have handed in work.
     */
    CLEAN,
    /** Nothing is done until the shell is empty, see {@link Emptiness}. */
    IF_EMPTY;

    /** Whether it is no matter that what was delivered before is gone from the shell. */
    public boolean anew() {
      return this != UP_TO_DATE;
    }
  }

  /** A shell from which what we brought is gone, see {@link Emptied}. */
  public enum EmptiedShell {
    /** Nothing is done there until a person says so. */
    ASK,
    /** All is delivered, as if it had never been there. */
    ANEW,
    /** It stays empty. */
    LEAVE
  }

  /** Nothing of the section's is overwritten, and all comes as the master has it. */
  public static final Choices SAFE =
      new Choices(Clash.KEEP_SECTION, Twin.ADOPT, Arrival.AS_IN_MASTER, Dates.ALONG);

  /** The form of a timing without dates. */
  public static final String NO_DATES = AspectForms.form(Timing.NONE);

  private static final Fingerprint WITHOUT_DATES = Fingerprint.of(NO_DATES);

  /** Both the section and the master changed an aspect of an adaptable item. */
  public enum Clash {
    KEEP_SECTION,
    TAKE_VERSION,
    /**
     * The version's is taken, and what the section alone changed or took out is put back; a starter
     * stays the section's.
     */
    PUT_BACK
  }

  /** The shell holds something alike that never came from us. */
  public enum Twin {
    /** Take it as ours without writing; what differs counts as changed in the section. */
    ADOPT,
    /** Add ours beside it. */
    ADD,
    /** Leave it and do not deliver the item. */
    LEAVE
  }

  /** Whether students see what is new in a section. */
  public enum Arrival {
    AS_IN_MASTER,
    HIDDEN,
    SHOWN;

    /** The visibility with which an item arrives that the master has with this one. */
    public Visibility of(Visibility v) {
      return this == AS_IN_MASTER ? v : v.withShown(this == SHOWN);
    }
  }

  /** What becomes of dates. */
  public enum Dates {
    /** They are an aspect like any other. */
    ALONG,
    /** What a section has stays as it is; what is new comes with the master's. */
    LEFT,
    /** What a section has stays as it is; what is new comes without. */
    AWAY
  }

  /** What an item is to say when it is new to a section. */
  Fingerprints arriving(Fingerprints version) {
    return dates == Dates.AWAY ? version.with(Aspect.TIMING, WITHOUT_DATES) : version;
  }

  /** Whether this delivery does not touch an aspect of what is there. */
  boolean leaves(Aspect a) {
    return a == Aspect.TIMING && dates != Dates.ALONG;
  }
}
