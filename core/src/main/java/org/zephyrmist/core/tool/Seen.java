package org.zephyrmist.core.tool;

import java.time.Instant;
import java.util.Optional;
import java.util.Set;

/**
 * What is known of a host in a section. A stage that was reached once serves all links of the host
 * there, later ones too.
 *
 * @param reached stages of the section itself, seen or said to be done
 * @param data credentials in the shell
 * @param tie to a course on the tool's side
 * @param until when the tool's own wait ends, if one has begun
 * @param tested what the last test launches found
 */
public record Seen(Set<Stage> reached, Data data, Tie tie, Optional<Instant> until, Tested tested) {
  public static final Seen NOTHING =
      new Seen(Set.of(), Data.NONE, Tie.NONE, Optional.empty(), Tested.NOTHING_WRONG);

  public Seen {
    reached = Set.copyOf(reached);
  }

  /** Credentials that stand in the shell. */
  public enum Data {
    NONE,
    /** They came with a package and were never meant to work. */
    PLACEHOLDER,
    /** The tool refused them. */
    REFUSED,
    /** They are of another connection, of one that was ended, or from before a change of this. */
    OTHERS,
    /** They stand there, and nothing speaks against them. */
    THERE
  }

  /** What the last test launches found, if credentials were not refused. */
  public enum Tested {
    /** Nothing, or there was no test. */
    NOTHING_WRONG,
    /** An instructor was let in, and a student was not. */
    STUDENTS_SHUT_OUT,
    /** The tool did not answer, or with an error. */
    NO_ANSWER
  }

  /** The course on the tool's side. */
  public enum Tie {
    NONE,
    OWN,
    /** Of an earlier term, whose students would mix with these. */
    OTHER_TERM,
    /** The master's own, which every section would share. */
    MASTERS,
    /** Another section is tied to it too. */
    SHARED;

    public boolean wrong() {
      return this == OTHER_TERM || this == MASTERS || this == SHARED;
    }
  }
}
