package org.zephyrmist.server.platform;

import java.time.Duration;

/** A platform did not do what it was asked. Says what happened and what to do. */
public final class PlatformException extends RuntimeException {
  /** What may be done about it. */
  public enum Kind {
    /** The same call may go through later. */
    PASSING,
    /** The platform as a whole is out of order; later, and it is nobody's doing here. */
    RESTING,
    /** It has taken what it was sent, and has not done it yet; sent again later it says more. */
    ACCEPTED,
    /** It has no interface, and somebody has to bring a package in. */
    TO_BRING_IN,
    /** An item is not as it was read: nothing was done; read again. */
    CONFLICT,
    /** A person has to do something first. */
    LASTING
  }

  private final Kind kind;
  private final String remedy;
  private final Duration pause;

  private PlatformException(
      Kind kind, String problem, String remedy, Duration pause, Throwable cause) {
    super(problem, cause);
    this.kind = kind;
    this.remedy = remedy;
    this.pause = pause;
  }

  /** May go through by itself. */
  public static PlatformException passing(String problem, String remedy, Throwable cause) {
    return new PlatformException(Kind.PASSING, problem, remedy, Duration.ZERO, cause);
  }

  static PlatformException accepted() {
    return new PlatformException(
        Kind.ACCEPTED,
        "Accepted by the platform, not there yet.",
        "It is looked at again by itself; look whether the platform's queue is paused.",
        Duration.ZERO,
        null);
  }

  static PlatformException toBringIn() {
    return new PlatformException(
        Kind.TO_BRING_IN,
        "Its package waits to be brought in.",
        "Bring it in as its sheet says, then say so, or upload the shell's export.",
        Duration.ZERO,
        null);
  }

  static PlatformException conflict(String problem) {
    return new PlatformException(Kind.CONFLICT, problem, "It is read again.", Duration.ZERO, null);
  }

  /** A person has to do something first. */
  public static PlatformException lasting(String problem, String remedy) {
    return new PlatformException(Kind.LASTING, problem, remedy, Duration.ZERO, null);
  }

  static PlatformException resting(String problem, Duration pause, Throwable cause) {
    return new PlatformException(
        Kind.RESTING,
        problem,
        "Look whether the platform is up. Nothing is lost; it goes on by itself.",
        pause,
        cause);
  }

  public Kind kind() {
    return kind;
  }

  public String remedy() {
    return remedy;
  }

  /** How long the platform is to be left alone at the least. */
  public Duration pause() {
    return pause;
  }
}
