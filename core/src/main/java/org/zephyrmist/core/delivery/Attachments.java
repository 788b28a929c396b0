package org.zephyrmist.core.delivery;

import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.tree.Node;

/**
 * Files attached to items, where a delivery does not bring them: what is new comes without, and
 * what a section has keeps those that came with it, whatever the version attaches now. Pictures of
 * questions are a part of these and always come.
 */
public final class Attachments {
  private Attachments() {}

  /** Whether anything may be attached to an item. */
  public static boolean mayStand(Node n) {
    return n.kind() == Kind.ASSIGNMENT || n.kind() == Kind.DISCUSSION;
  }

  /** Whether anything is attached to an item that says this. */
  public static boolean stand(Wording w) {
    return w.file().isEmpty() && !w.attached().isEmpty();
  }

  /**
   * What an item is to say where attachments are not brought.
   *
   * @param sent what was last delivered of it, if it was
   */
  public static Wording leftOut(Wording version, Optional<Wording> sent) {
    return version.withAttached(sent.map(Wording::attached).orElse(List.of()));
  }
}
