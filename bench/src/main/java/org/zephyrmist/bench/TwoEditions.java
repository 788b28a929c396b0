package org.zephyrmist.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.edition.Entry;

/**
 * An edition and the next one, with the truth of which item is which: renamed, moved, rewritten,
 * with other identifiers or identifiers used again for something else, titles swapped, modules
 * split and joined, near-twins.
 *
 * @param truth newer key of each older item that lives on
 */
record TwoEditions(List<Entry> older, List<Entry> newer, Map<ItemKey, ItemKey> truth) {
  private static final int MODULE = 9;
  private static final Kind[] KINDS = {
    Kind.PAGE, Kind.PAGE, Kind.QUIZ, Kind.DISCUSSION, Kind.ASSIGNMENT, Kind.TOOL_LINK, Kind.FILE
  };

  /** What becomes of identifiers. */
  enum Identifiers {
    KEPT,
    NEW,
    /** Some are used again for something else. */
    REUSED
  }

  /** An item while an edition is made of it. */
  private static final class Draft {
    int id;
    String identifier;
    Kind kind;
    String title;
    List<String> words;
    int module;

    Draft copy() {
      Draft d = new Draft();
      d.id = id;
      d.identifier = identifier;
      d.kind = kind;
      d.title = title;
      d.words = new ArrayList<>(words);
      d.module = module;
      return d;
    }
  }

  private static final class Maker {
    private final Random r;
    private final List<String> common = new ArrayList<>();
    private int next;

    Maker(Random r) {
      this.r = r;
      for (int i = 0; i < 2_500; i++) {
        common.add(word());
      }
    }

    private String word() {
      String[] parts = {
        "lam", "cue", "rig", "gel", "to", "ne", "ra", "vi", "sol", "ber", "kan", "du"
      };
      StringBuilder s = new StringBuilder();
      for (int n = 2 + r.nextInt(2); n > 0; n--) {
        s.append(parts[r.nextInt(parts.length)]);
      }
      return s.toString();
    }

    /** Frequent words more often, as in any language. */
    String drawn() {
      double u = r.nextDouble();
      return common.get((int) (common.size() * u * u * u));
    }

    List<String> text(int n) {
      List<String> all = new ArrayList<>();
      for (int i = 0; i < n; i++) {
        all.add(drawn());
      }
      return all;
    }

    String topic() {
      return common.get(r.nextInt(common.size())) + " " + common.get(r.nextInt(common.size()));
    }

    Draft item(int module, int number) {
      Draft d = new Draft();
      d.id = next++;
      d.identifier = "res-" + d.id;
      d.kind = KINDS[r.nextInt(KINDS.length)];
      String topic = topic();
      d.title =
          switch (d.kind) {
            case PAGE -> "Reading: " + topic;
            case QUIZ -> "Quiz " + number;
            case DISCUSSION -> "Talk: " + topic;
            case ASSIGNMENT -> "Exercise " + number + ": " + topic;
            case FILE -> topic + " sheet";
            default -> "Practice " + number;
          };
      int words =
          switch (d.kind) {
            case FILE -> 4;
            case TOOL_LINK -> 8;
            default -> 40 + r.nextInt(160);
          };
      d.words = text(words);
      d.module = module;
      return d;
    }
  }

  /**
   * @param items of the older edition, modules not counted
   * @param rewritten share of the words of a text that become others, in half of the items
   */
  static TwoEditions drawn(long seed, int items, double rewritten, Identifiers identifiers) {
    Random r = new Random(seed);
    Maker maker = new Maker(r);
    int modules = Math.max(2, items / MODULE);
    List<String> names = new ArrayList<>();
    List<Draft> old = new ArrayList<>();
    for (int m = 0; m < modules; m++) {
      names.add("Unit " + (m + 1) + " " + maker.topic());
      for (int i = 0; i < MODULE && old.size() < items; i++) {
        Draft d = maker.item(m, old.size() / 3 + 1);
        boolean twin = d.kind == Kind.QUIZ && r.nextInt(4) == 0;
        if (twin) {
          twinOf(old, d, r);
        }
        old.add(d);
      }
    }
    List<String> newNames = new ArrayList<>(names);
    List<Draft> now = new ArrayList<>();
    old.forEach(d -> now.add(d.copy()));
    change(now, maker, r, rewritten, modules);
    identify(now, identifiers, maker, r);
    int split = split(now, newNames, modules);
    return editions(old, names, now, newNames, split);
  }

  /** Nearly the text of an earlier quiz, under the next number. */
  private static void twinOf(List<Draft> old, Draft d, Random r) {
    old.stream()
        .filter(o -> o.kind == Kind.QUIZ)
        .reduce((a, b) -> b)
        .ifPresent(
            o -> {
              d.words = new ArrayList<>(o.words);
              for (int i = 0; i < d.words.size() / 10; i++) {
                d.words.set(r.nextInt(d.words.size()), "twin" + d.id + "x" + i);
              }
            });
  }

  private static void change(
      List<Draft> now, Maker maker, Random r, double rewritten, int modules) {
    now.removeIf(d -> r.nextInt(20) == 0);
    for (Draft d : now) {
      if (r.nextBoolean()) {
        for (int i = 0; i < d.words.size(); i++) {
          if (r.nextDouble() < rewritten) {
            d.words.set(i, maker.drawn());
          }
        }
      }
      if (r.nextInt(6) == 0) {
        String number = d.title.replaceAll("\\D+", "");
        d.title = maker.topic() + (number.isEmpty() ? "" : " " + number);
      }
      if (r.nextInt(12) == 0) {
        d.module = r.nextInt(modules);
      }
    }
    for (int i = 0; i + 1 < now.size(); i += 60) {
      Draft a = now.get(i);
      Draft b = now.get(i + 1);
      if (a.kind == b.kind) {
        String title = a.title;
        a.title = b.title;
        b.title = title;
      }
    }
    for (int n = now.size() / 20; n > 0; n--) {
      now.add(r.nextInt(now.size()), maker.item(r.nextInt(modules), 900 + n));
    }
  }

  private static void identify(List<Draft> now, Identifiers how, Maker maker, Random r) {
    if (how == Identifiers.NEW) {
      now.forEach(d -> d.identifier = "new-" + d.id);
    } else if (how == Identifiers.REUSED) {
      List<Draft> some = new ArrayList<>(now.stream().filter(d -> r.nextInt(10) == 0).toList());
      List<String> ids = new ArrayList<>(some.stream().map(d -> d.identifier).toList());
      Collections.rotate(ids, 1);
      for (int i = 0; i < some.size(); i++) {
        some.get(i).identifier = ids.get(i);
      }
    }
  }

  /** The first module becomes two, the last two become one. */
  private static int split(List<Draft> now, List<String> names, int modules) {
    int second = names.size();
    names.add("More of " + names.get(0));
    boolean later = false;
    for (Draft d : now) {
      if (d.module == 0) {
        later |= d.id >= MODULE / 2;
        d.module = later ? second : 0;
      } else if (d.module == modules - 1 && modules > 2) {
        d.module = modules - 2;
      }
    }
    return second;
  }

  private static TwoEditions editions(
      List<Draft> old, List<String> names, List<Draft> now, List<String> newNames, int split) {
    Map<Integer, ItemKey> keys = new HashMap<>();
    List<Entry> older = entries("o", old, names, keys);
    Map<Integer, ItemKey> newKeys = new HashMap<>();
    List<Entry> newer = entries("n", now, newNames, newKeys);
    Map<ItemKey, ItemKey> truth = new HashMap<>();
    keys.forEach(
        (id, key) -> {
          if (newKeys.containsKey(id)) {
            truth.put(key, newKeys.get(id));
          }
        });
    return new TwoEditions(older, newer, truth);
  }

  private static List<Entry> entries(
      String prefix, List<Draft> drafts, List<String> names, Map<Integer, ItemKey> keys) {
    List<Entry> all = new ArrayList<>();
    for (int m = 0; m < names.size(); m++) {
      int module = m;
      ItemKey at = new ItemKey(prefix + "m" + m);
      List<Draft> in = drafts.stream().filter(d -> d.module == module).toList();
      if (in.isEmpty()) {
        continue;
      }
      String id = prefix + "module-" + m;
      all.add(
          new Entry(
              at,
              id,
              Kind.MODULE,
              names.get(m),
              Optional.empty(),
              Fingerprint.of(names.get(m)),
              ""));
      for (Draft d : in) {
        ItemKey key = new ItemKey(prefix + d.id);
        keys.put(d.id, key);
        String words = String.join(" ", d.words);
        all.add(
            new Entry(
                key,
                d.identifier,
                d.kind,
                d.title,
                Optional.of(at),
                Fingerprint.of(d.title + words),
                words));
      }
    }
    return all;
  }

  /** Shares of rewritten words that are measured. */
  static List<Double> rewritings() {
    return Arrays.asList(0.1, 0.3, 0.6);
  }
}
