package org.zephyrmist.server.line;

import java.util.Optional;
import java.util.UUID;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.PartsChoice;
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.server.ledger.Origin;
import org.zephyrmist.server.shell.Shell;

/**
 * A line with what its delivery says.
 *
 * @param person who confirmed the delivery, or else who made it
 * @param attempts how often it failed in a row
 * @param takesBack the delivery that is taken back by this one
 * @param edit the change that it makes, instead of what its version says
 * @param editBack whether what is taken back is such a change
 * @param atOnce how many lines of its delivery may be in work at the same time
 * @param order that its delivery belongs to, with others
 * @param place of its delivery in the order
 * @param emptied whether its shell was found emptied before it began
 * @param readTag the platform's name for the state of the shell that its plan was made from
 * @param token of the worker that has the section just now
 */
record Line(
    UUID id,
    UUID delivery,
    UUID version,
    PartsChoice parts,
    Choices choices,
    UUID person,
    Optional<UUID> takesBack,
    Optional<Edit> edit,
    boolean editBack,
    Optional<Integer> atOnce,
    Optional<UUID> order,
    int place,
    LineState state,
    int attempts,
    int same,
    boolean emptied,
    Optional<String> readTag,
    Optional<UUID> token,
    Shell shell) {
  UUID section() {
    return shell.section();
  }

  /** Whether it makes a change, or takes one back, without a version. */
  boolean edits() {
    return edit.isPresent() || editBack;
  }

  Origin origin(UUID master) {
    return new Origin(section(), master, version, delivery, person);
  }

  /** The same, worked on by the worker that has its section for another line. */
  Line takenBy(Line other) {
    return new Line(
        id,
        delivery,
        version,
        parts,
        choices,
        person,
        takesBack,
        edit,
        editBack,
        atOnce,
        order,
        place,
        state,
        attempts,
        same,
        emptied,
        readTag,
        other.token,
        shell);
  }
}
