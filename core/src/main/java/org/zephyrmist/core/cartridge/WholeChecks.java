package org.zephyrmist.core.cartridge;

import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Wording;

/**
 * What an archive of a source may hold. It may come from anybody, so its sizes are bounded before
 * anything is read, and each tree is one that could have been made here.
 */
final class WholeChecks {
  static final int MOST_STATES = 1_000;
  static final int MOST_ITEMS = 50_000;
  static final int MOST_ITEMS_OF_ALL = 500_000;
  static final int HIGHEST_NUMBER = 9_999;
  private static final int MOST_LETTERS = 2_000;
  private static final int MOST_DEPTH = Limits.DEFAULT.depth();
  private static final String REMEDY = "Make the archive again where it came from.";

  private final OffsetDateTime latest;
  private final Set<Integer> numbers = new HashSet<>();
  private long items;

  /**
   * @param now nothing may be from later than a day after it
   */
  WholeChecks(OffsetDateTime now) {
    this.latest = now.plusDays(1);
  }

  static CartridgeException broken(String place, String problem) {
    return new CartridgeException(place, problem, REMEDY);
  }

  void states(int count) throws CartridgeException {
    if (count > MOST_STATES) {
      throw broken("source.json", "It names " + count + " states; at most " + MOST_STATES + ".");
    }
  }

  /**
   * @param count of its items
   */
  void state(WholeSource.State s, int count) throws CartridgeException {
    String at = "source.json";
    if (s.number() < 0 || s.number() > HIGHEST_NUMBER) {
      throw broken(at, "A state has the number " + s.number() + ".");
    }
    if (!numbers.add(s.number())) {
      throw broken(at, "Two states have the number " + s.number() + ".");
    }
    if (s.at().isAfter(latest)) {
      throw broken(at, "State " + s.number() + " is from a day that has not come yet.");
    }
    text(s.note(), at);
    text(s.by(), at);
    items += count;
    if (items > MOST_ITEMS_OF_ALL) {
      throw broken(at, "Its states hold more than %,d items.".formatted(MOST_ITEMS_OF_ALL));
    }
  }

  /** One line, as titles and notes are. */
  static String text(String line, String at) throws CartridgeException {
    if (line.length() > MOST_LETTERS || line.indexOf('\0') >= 0) {
      throw broken(
          at, "A title or note is longer than " + MOST_LETTERS + " letters, or holds NUL.");
    }
    return line;
  }

  /**
   * A tree that an outline has room for. Files that an item is made of are there; a file that a
   * text alone names may be missing, as in any draft.
   *
   * @param files fingerprints of those in the archive
   */
  static void tree(List<Item> items, Set<String> files, String at) throws CartridgeException {
    if (items.size() > MOST_ITEMS) {
      throw broken(at, "It holds more than %,d items.".formatted(MOST_ITEMS));
    }
    Map<ItemKey, Item> by = new HashMap<>();
    for (Item i : items) {
      if (by.put(i.key(), i) != null) {
        throw broken(at, "Two items have the key " + i.key() + ".");
      }
      item(i, files, at);
    }
    Set<Place> places = new HashSet<>();
    for (Item i : items) {
      if (!Rank.is(i.place().rank()) || !places.add(i.place())) {
        throw broken(
            at, "“" + i.title() + "” stands at no place, or at the place of another item.");
      }
      depth(i, by, at);
    }
  }

  private static void item(Item i, Set<String> files, String at) throws CartridgeException {
    Wording w = Wording.of(i);
    Set<String> named = new HashSet<>();
    w.file().ifPresent(f -> named.add(f.sha256()));
    w.attached().forEach(f -> named.add(f.sha256()));
    if (!files.containsAll(named)) {
      throw broken(at, "“" + i.title() + "” names a file that is not in the archive.");
    }
  }

  private static void depth(Item i, Map<ItemKey, Item> by, String at) throws CartridgeException {
    Item up = i;
    int depth = 0;
    while (up.place().parent().isPresent()) {
      Item module = by.get(new ItemKey(up.place().parent().get()));
      if (module == null || module.kind() != Kind.MODULE) {
        throw broken(at, "“" + up.title() + "” stands in a module that is not here.");
      }
      if (++depth > MOST_DEPTH) {
        throw broken(
            at,
            "“%s” stands in itself, or more than %d levels deep.".formatted(i.title(), MOST_DEPTH));
      }
      up = module;
    }
  }
}
