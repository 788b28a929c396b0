package org.zephyrmist.core.tool;

import java.util.Optional;

/**
 * What state the links of a host are in, in a section.
 *
 * @param stuck the first stage that is not reached; none if it works, or no connection serves it
 * @param whose next step it is
 * @param connection that serves it
 */
public record LinkState(
    Standing standing,
    Reason reason,
    Optional<Stage> stuck,
    Stage.Whose whose,
    Optional<Connection> connection) {

  /** How far it is, from the left to the right. */
  public enum Standing {
    NOT_CONNECTED,
    /** Somebody has to act, or the tool takes its time. */
    WAITS,
    TIED_WRONGLY,
    NOT_OPENED,
    WORKS
  }

  /** Why. */
  public enum Reason {
    /** The link leads to no host. */
    NO_HOST,
    NO_CONNECTION,
    /** Two connections serve the host, and neither is the narrower. */
    TWO_CONNECTIONS,
    SUPPORT_OFF,
    NO_CREDENTIALS,
    /** They are entered, and not written into the shell yet. */
    NOT_IN_SHELL,
    PLACEHOLDER,
    REFUSED,
    NOT_APPROVED,
    NOT_AGREED,
    TOOL_TAKES_TIME,
    NOT_PAIRED,
    OTHER_TERM,
    MASTERS_COURSE,
    SHARED_COURSE,
    NEVER_OPENED,
    /** It works for the instructor alone. */
    STUDENTS_SHUT_OUT,
    /** All is done, and the tool did not answer when it was last tested. */
    NO_ANSWER,
    WORKS
  }
}
