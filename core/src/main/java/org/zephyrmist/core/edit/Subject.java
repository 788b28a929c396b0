package org.zephyrmist.core.edit;

import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.delivery.Held;

/**
 * What is called the same in many shells: an item of a master, or one that no master brought, by
 * its kind and title; or the shell itself.
 *
 * @param given the item of a master
 * @param kind of one that no master brought
 * @param title of it, see {@link Titles#folded}; empty for all else
 */
public record Subject(Optional<Given> given, Optional<Kind> kind, String title) {
  private static final String OURS = "ours ";
  private static final String OWN = "own ";
  private static final String SHELL_ITSELF = "shell";

  private static final ItemKey WHOLE = new ItemKey("-");

  /** The shell as a whole. */
  public static final Subject SHELL = new Subject(Optional.empty(), Optional.empty(), "");

  public static Subject of(Given given) {
    return new Subject(Optional.of(given), Optional.empty(), "");
  }

  /** All that a master brings. */
  public static Subject master(String master) {
    return of(new Given(master, WHOLE));
  }

  /** One that no master brought. */
  public static Subject own(Kind kind, String title) {
    return new Subject(Optional.empty(), Optional.of(kind), Titles.folded(title));
  }

  /** What an item is called. */
  public static Subject of(Held held, List<Given> given) {
    return given.stream()
        .findFirst()
        .map(Subject::of)
        .orElseGet(() -> own(held.kind(), held.title()));
  }

  /** Whether an item is called so. */
  public boolean is(Held held, List<Given> all) {
    return given
        .map(all::contains)
        .orElseGet(
            () ->
                all.isEmpty()
                    && kind.equals(Optional.of(held.kind()))
                    && title.equals(Titles.folded(held.title())));
  }

  /** As text that {@link #parse} reads. */
  public String text() {
    return given
        .map(g -> OURS + g.master() + " " + g.key())
        .or(() -> kind.map(k -> OWN + k + " " + title))
        .orElse(SHELL_ITSELF);
  }

  /** None if it is no such text. */
  public static Optional<Subject> parse(String text) {
    if (text.equals(SHELL_ITSELF)) {
      return Optional.of(SHELL);
    }
    String[] parts = text.split(" ", 3);
    if (text.startsWith(OURS) && parts.length == 3 && !parts[1].isEmpty()) {
      return ItemKey.of(parts[2]).map(k -> of(new Given(parts[1], k)));
    }
    if (text.startsWith(OWN) && parts.length >= 2) {
      return kind(parts[1]).map(k -> own(k, parts.length == 3 ? parts[2] : ""));
    }
    return Optional.empty();
  }

  private static Optional<Kind> kind(String name) {
    for (Kind k : Kind.values()) {
      if (k.name().equals(name)) {
        return Optional.of(k);
      }
    }
    return Optional.empty();
  }
}
