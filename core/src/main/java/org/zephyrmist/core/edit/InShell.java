package org.zephyrmist.core.edit;

import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;

/**
 * An item of a shell with all that it says.
 *
 * @param given what it is of masters; empty if no master brought it
 * @param base what was last delivered of it
 * @param delivered a wording that the edit asks for: that of what was delivered, or what the
 *     section before this one had made of it
 */
public record InShell(
    Held held,
    Aspects aspects,
    List<Given> given,
    Optional<Base> base,
    Optional<Wording> delivered) {
  public InShell {
    given = List.copyOf(given);
  }

  String id() {
    return held.id();
  }

  Subject subject() {
    return Subject.of(held, given);
  }

  boolean is(List<Subject> any) {
    return any.stream().anyMatch(s -> s.is(held, given));
  }
}
