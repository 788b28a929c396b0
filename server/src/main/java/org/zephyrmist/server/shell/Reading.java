package org.zephyrmist.server.shell;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.StudentCounts;
import org.zephyrmist.core.shell.OpenDays;
import org.zephyrmist.server.ledger.Holding;
import org.zephyrmist.server.platform.PlatformException;

/**
 * A shell as it is at a moment, with our items in it recognised.
 *
 * @param byId its items by the platform's ids, in the order of the platform
 * @param forms of each item in our terms
 * @param revisions the platform's name for the state of each item
 * @param changes who changed each item last, and when, as the platform tells it
 * @param tag the platform's name for the state of the whole shell; empty if it has none
 * @param counts of what is the students' own, if the platform tells
 * @param holdings what the ledger has of the section
 * @param unread items that cannot be read; what of them is ours counts as it was known
 * @param open when students may enter, if the platform tells
 */
public record Reading(
    Map<String, Held> byId,
    Map<String, Map<Aspect, String>> forms,
    Map<String, String> revisions,
    Map<String, Change> changes,
    String tag,
    Optional<StudentCounts> counts,
    List<Holding> holdings,
    List<Unread> unread,
    Optional<OpenDays> open) {
  /** A shell that is not there. */
  public static final Reading OF_NOTHING =
      new Reading(
          Map.of(),
          Map.of(),
          Map.of(),
          Map.of(),
          "",
          Optional.empty(),
          List.of(),
          List.of(),
          Optional.empty());

  /** An item that cannot be read. */
  public record Unread(String id, String title, PlatformException why) {}

  /**
   * Makes sure that all that a master brought was read.
   *
   * @throws PlatformException about the first item that was not
   */
  public void complete(Collection<String> ids) {
    for (Unread u : unread) {
      if (ids.contains(u.id())) {
        throw u.why();
      }
    }
  }

  /**
   * The last change of an item.
   *
   * @param by empty if the platform does not tell
   */
  public record Change(String by, String at) {}

  public List<Held> items() {
    return List.copyOf(byId.values());
  }

  public Optional<Held> item(String id) {
    return Optional.ofNullable(byId.get(id));
  }

  /** The texts of these items. */
  List<String> texts(Iterable<String> ids) {
    List<String> texts = new ArrayList<>();
    for (String id : ids) {
      texts.addAll(forms.getOrDefault(id, Map.of()).values());
    }
    return texts;
  }
}
