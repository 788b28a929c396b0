package org.zephyrmist.core.shell;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.zephyrmist.core.cartridge.CartridgeWriter;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Mentions;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.edition.Entry;
import org.zephyrmist.core.edition.Pair;
import org.zephyrmist.core.edition.Pairing;
import org.zephyrmist.core.question.QuestionSet;

/**
 * What a shell holds, by a package that was exported from it. Items are known again by identifier,
 * form and likeness, whatever the platform calls them. What reads as it was known is as it was
 * known; what a package cannot say stays as it was known.
 *
 * @param items as they are now, by the keys under which they are known, or new ones
 * @param changed those that read otherwise than they were known
 * @param gone of what was known and could have been in the package
 * @param fresh those that were not known
 * @param doubtful how many are only perhaps what they were taken for
 */
public record Exported(
    List<Item> items, Set<ItemKey> changed, List<ItemKey> gone, List<ItemKey> fresh, int doubtful) {
  /** So few known items say nothing about whose package it is. */
  private static final int FEW = 3;

  /** Of the known items at least one in so many has to be found again. */
  private static final int ONE_IN = 4;

  /** So much of its text an item has at least that is only perhaps another. */
  private static final double ALIKE = 0.5;

  /**
   * Reads an exported package against what is known of the shell.
   *
   * @param known in outline order
   * @param there what the package holds, in outline order
   * @param questions of an item, where they can be read
   * @return none if the package is of another shell
   */
  public static Optional<Exported> of(
      List<Item> known, List<Item> there, Function<Item, Optional<QuestionSet>> questions) {
    List<Entry> older = known.stream().map(i -> entry(i, questions)).toList();
    List<Entry> newer = there.stream().map(i -> Entry.of(i, questions.apply(i))).toList();
    Set<ItemKey> modules = new HashSet<>();
    known.stream().filter(i -> i.kind() == Kind.MODULE).forEach(i -> modules.add(i.key()));
    List<Pair> pairs =
        Pairing.of(older, newer, Pairing.Decided.NOTHING).pairs().stream()
            .filter(p -> modules.contains(p.older()) || alike(p))
            .toList();
    return fits(known, pairs)
        ? Optional.of(new Run(known, there, older, newer, pairs).exported())
        : Optional.empty();
  }

  /** Neighbours alone make no item of a shell another. */
  private static boolean alike(Pair p) {
    boolean sure = p.certainty() != Pair.Certainty.DOUBTFUL;
    return sure || p.evidence().text() >= ALIKE || p.evidence().title() == 1;
  }

  private static Entry entry(Item i, Function<Item, Optional<QuestionSet>> questions) {
    Entry e = Entry.of(i, questions.apply(i));
    String identifier = CartridgeWriter.readAgain(i.key()).value();
    return new Entry(e.key(), identifier, e.kind(), e.title(), e.parent(), e.form(), e.words());
  }

  private static boolean packable(Item i) {
    return i.kind() == Kind.MODULE || PackageFormat.CC_1_3.holds(i.kind());
  }

  private static boolean fits(List<Item> known, List<Pair> pairs) {
    Set<ItemKey> content = new HashSet<>();
    known.stream()
        .filter(i -> i.kind() != Kind.MODULE && packable(i))
        .forEach(i -> content.add(i.key()));
    long found = pairs.stream().filter(p -> content.contains(p.older())).count();
    return content.size() < FEW || found * ONE_IN >= content.size();
  }

  private static final class Run {
    private final List<Item> known;
    private final List<Item> there;
    private final Map<ItemKey, Entry> entries = new HashMap<>();
    private final Map<ItemKey, ItemKey> was = new HashMap<>();
    private final Set<ItemKey> found = new HashSet<>();
    private final Map<String, String> titles = new HashMap<>();
    private final int doubtful;

    Run(
        List<Item> known,
        List<Item> there,
        List<Entry> older,
        List<Entry> newer,
        List<Pair> pairs) {
      this.known = known;
      this.there = there;
      older.forEach(e -> entries.put(e.key(), e));
      newer.forEach(e -> entries.put(e.key(), e));
      there.forEach(i -> titles.put(i.key().value(), Titles.folded(i.title())));
      known.forEach(i -> titles.put(i.key().value(), Titles.folded(i.title())));
      for (Pair p : pairs) {
        was.put(p.newer(), p.older());
        found.add(p.older());
      }
      this.doubtful =
          (int) pairs.stream().filter(p -> p.certainty() == Pair.Certainty.DOUBTFUL).count();
    }

    Exported exported() {
      Map<ItemKey, Item> byKey = new HashMap<>();
      known.forEach(i -> byKey.put(i.key(), i));
      Map<ItemKey, Item> now = new LinkedHashMap<>();
      Set<ItemKey> changed = new HashSet<>();
      List<ItemKey> fresh = new ArrayList<>();
      for (Item e : there) {
        Item named = named(e);
        Optional<Item> k = Optional.ofNullable(was.get(e.key())).map(byKey::get);
        if (k.isEmpty()) {
          fresh.add(named.key());
          now.put(named.key(), named);
        } else {
          boolean same = same(k.get(), e);
          Item is = same ? k.get() : read(k.get(), named);
          now.put(is.key(), standing(is, k.get(), named));
          if (!same) {
            changed.add(is.key());
          }
        }
      }
      List<ItemKey> gone = new ArrayList<>();
      known.forEach(i -> stays(i, now, gone));
      return new Exported(List.copyOf(now.values()), changed, gone, fresh, doubtful);
    }

    /** What no package says stays, with the modules it stands in. */
    private void stays(Item i, Map<ItemKey, Item> now, List<ItemKey> gone) {
      if (found.contains(i.key())) {
        return;
      }
      boolean holds =
          known.stream()
              .anyMatch(
                  x ->
                      !packable(x)
                          && x.place().parent().filter(i.key().value()::equals).isPresent());
      if (packable(i) && !holds) {
        gone.add(i.key());
      } else {
        boolean inside = i.place().parent().map(p -> now.containsKey(new ItemKey(p))).orElse(true);
        now.put(i.key(), inside ? i : i.withPlace(new Place(Optional.empty(), i.place().rank())));
      }
    }

    /** An item of the package under the keys by which the shell's items are known. */
    private Item named(Item e) {
      Aspects a = Mentions.renamed(Aspects.of(e), k -> Optional.of(key(new ItemKey(k)).value()));
      Optional<String> parent = e.place().parent().map(p -> key(new ItemKey(p)).value());
      return a.item(key(e.key()), e.kind(), e.rule())
          .withPlace(new Place(parent, e.place().rank()));
    }

    private ItemKey key(ItemKey there) {
      return was.getOrDefault(there, there);
    }

    private boolean same(Item k, Item e) {
      Entry a = entries.get(k.key());
      Entry b = entries.get(e.key());
      return a.title().equals(b.title()) && a.words().equals(b.words());
    }

    private static Item read(Item k, Item e) {
      Aspects a = Aspects.of(k);
      Wording w = a.wording().withTitle(e.title()).withHtml(e.content().html());
      if (e.content().madeOf().isPresent()) {
        w = w.withFile(e.content().madeOf());
      }
      return a.with(w).with(Aspects.of(e).launch()).item(k.key(), k.kind(), k.rule());
    }

    /**
     * Where it stands. A package that is brought in may make its modules a second time; a module of
     * the same name is no other place.
     */
    private Item standing(Item is, Item k, Item e) {
      boolean moved =
          !k.place().parent().equals(e.place().parent())
              && (k.place().parent().isEmpty()
                  || e.place().parent().isEmpty()
                  || !titles
                      .get(k.place().parent().get())
                      .equals(titles.get(e.place().parent().get())));
      return is.withPlace(moved ? e.place() : k.place());
    }
  }
}
