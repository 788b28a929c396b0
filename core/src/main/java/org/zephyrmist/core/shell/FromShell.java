package org.zephyrmist.core.shell;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Mentions;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Timing;

/**
 * What of a shell becomes a master. Students' work never comes along; announcements of a term,
 * dates that do not become patterns, what ties tool links to a course of that term, and what is
 * taken fresh from its source each term stay out and are named. Items that a source has keep their
 * key and are known as the source's.
 *
 * @param items each after the module that holds it
 * @param origins of recognised items, by their key in the master
 * @param left what stays out
 */
public record FromShell(List<Item> items, Map<ItemKey, Known> origins, List<Left> left) {

  /**
   * An item of a shell.
   *
   * @param item with the shell's own id as its key; what it names within the shell is named by that
   *     id, the module it stands in also as {@code here:ID}
   * @param studentWork whether students handed something in
   */
  public record There(Item item, boolean studentWork) {}

  /**
   * An item of a source that one of the shell is.
   *
   * @param source by which the caller knows it
   * @param item as the source has it
   * @param fresh whether the source is taken anew each term
   */
  public record Known(String source, Item item, boolean fresh) {}

  /** Something that stays out. */
  public record Left(Why why, String title) {}

  /** Why something stays out. */
  public enum Why {
    /** Work, grades and posts of students. */
    STUDENT_WORK,
    /** An announcement to the students of that term. */
    ANNOUNCEMENT,
    /** Dates of that term; the item itself comes along. */
    DATES,
    /** What tied a tool link to a course of that term; the link itself comes along. */
    TOOL_TIE,
    /** An item of a source that is taken anew each term, and never from a shell. */
    FRESH_EACH_TERM,
    /** A module in which nothing is left. */
    EMPTY_MODULE
  }

  /**
   * @param shell in outline order
   * @param known the item of a source that one of the shell is; none if it is the shell's own
   */
  public static FromShell of(List<There> shell, Function<Item, Optional<Known>> known) {
    return of(shell, known, t -> t);
  }

  /**
   * @param patterns makes patterns of the real dates of that term; dates that stay real stay out
   */
  public static FromShell of(
      List<There> shell, Function<Item, Optional<Known>> known, UnaryOperator<Timing> patterns) {
    Run run = new Run(known, patterns);
    shell.forEach(run::key);
    shell.forEach(run::take);
    run.dropEmptyModules();
    return new FromShell(List.copyOf(run.items), run.origins, List.copyOf(run.left));
  }

  private static final class Run {
    private final Function<Item, Optional<Known>> known;
    private final UnaryOperator<Timing> patterns;
    private final Map<String, ItemKey> keys = new HashMap<>();
    private final Map<String, Known> sources = new HashMap<>();
    private final Set<ItemKey> taken = new HashSet<>();
    private final List<Item> items = new ArrayList<>();
    private final Map<ItemKey, Known> origins = new HashMap<>();
    private final List<Left> left = new ArrayList<>();

    Run(Function<Item, Optional<Known>> known, UnaryOperator<Timing> patterns) {
      this.known = known;
      this.patterns = patterns;
    }

    /** A source's key is used once, however often its item was copied within the shell. */
    void key(There t) {
      String id = t.item().key().value();
      Optional<Known> source = known.apply(t.item()).filter(k -> taken.add(k.item().key()));
      source.ifPresent(k -> sources.put(id, k));
      keys.put(id, source.map(k -> k.item().key()).orElseGet(ItemKey::fresh));
    }

    void take(There t) {
      Item i = t.item();
      if (t.studentWork()) {
        left.add(new Left(Why.STUDENT_WORK, i.title()));
      }
      if (i.kind() == Kind.ANNOUNCEMENT) {
        left.add(new Left(Why.ANNOUNCEMENT, i.title()));
        return;
      }
      Optional<Known> source = Optional.ofNullable(sources.get(i.key().value()));
      boolean fresh = known.apply(i).filter(Known::fresh).isPresent();
      if (fresh && i.kind() != Kind.MODULE) {
        left.add(new Left(Why.FRESH_EACH_TERM, i.title()));
        return;
      }
      Aspects a = Aspects.of(i);
      if (!i.timing().equals(Timing.NONE)) {
        Timing anew = patterns.apply(i.timing());
        Timing kept = Timing.NONE.with(anew.patterns());
        if (!kept.equals(anew)) {
          left.add(new Left(Why.DATES, i.title()));
        }
        a = a.with(kept);
      }
      a = launched(a, i, source);
      a = Mentions.renamed(a, this::named);
      ItemKey key = keys.get(i.key().value());
      Item item = a.item(key, i.kind(), source.map(k -> k.item().rule()).orElse(i.rule()));
      Optional<String> parent =
          i.place()
              .parent()
              .map(p -> p.replaceFirst("^here:", ""))
              .map(keys::get)
              .map(ItemKey::value);
      items.add(item.withPlace(new Place(parent, i.place().rank())));
      source.ifPresent(k -> origins.put(key, k));
    }

    /** The source's parameters, where there is one; else none, since they may name a course. */
    private Aspects launched(Aspects a, Item i, Optional<Known> source) {
      if (i.kind() != Kind.TOOL_LINK && i.kind() != Kind.ASSIGNMENT) {
        return a;
      }
      var wanted =
          source.map(k -> k.item().content().launch().parameters()).orElseGet(TreeMap::new);
      if (wanted.equals(a.launch().parameters())) {
        return a;
      }
      left.add(new Left(Why.TOOL_TIE, i.title()));
      return a.with(a.launch().withParameters(wanted));
    }

    /** By its key in the master; none for what does not come along. */
    private Optional<String> named(String id) {
      return Optional.ofNullable(keys.get(id)).map(ItemKey::value);
    }

    private void dropEmptyModules() {
      for (int i = items.size() - 1; i >= 0; i--) {
        Item m = items.get(i);
        boolean empty =
            m.kind() == Kind.MODULE
                && items.stream()
                    .noneMatch(x -> x.place().parent().equals(Optional.of(m.key().value())));
        if (empty) {
          items.remove(i);
          origins.remove(m.key());
          left.add(new Left(Why.EMPTY_MODULE, m.title()));
        }
      }
    }
  }
}
