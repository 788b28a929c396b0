package org.zephyrmist.core.edition;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Pairs that are worth weighing: of a few thousand items each has a handful of others that may be
 * it, found by identifier, form, title, rare words and by what is paired around it.
 */
final class Candidates {
  /** Items with one title or form beyond which these tell nothing. */
  private static final int CROWD = 40;

  /** Texts in which a word may stand and still be looked up. */
  private static final int RARE = 60;

  /** Of those that share rare words, how many are weighed. */
  private static final int BEST = 6;

  private final Side older;
  private final Side newer;
  private final Vocabulary vocabulary = new Vocabulary();
  private final List<Vocabulary.Profile> olderTexts;
  private final List<Vocabulary.Profile> newerTexts;
  private final List<TitleLikeness.Parts> olderTitles;
  private final List<TitleLikeness.Parts> newerTitles;
  private final Map<Long, Candidate> all = new LinkedHashMap<>();

  /** Two items by number, with what does not depend on the pairing of others. */
  record Candidate(
      int older, int newer, boolean identifier, boolean equal, double text, double title) {}

  Candidates(Side older, Side newer) {
    this.older = older;
    this.newer = newer;
    List<int[]> a = older.entries().stream().map(e -> vocabulary.add(e.words())).toList();
    List<int[]> b = newer.entries().stream().map(e -> vocabulary.add(e.words())).toList();
    olderTexts = a.stream().map(vocabulary::profile).toList();
    newerTexts = b.stream().map(vocabulary::profile).toList();
    olderTitles = older.entries().stream().map(e -> TitleLikeness.Parts.of(e.title())).toList();
    newerTitles = newer.entries().stream().map(e -> TitleLikeness.Parts.of(e.title())).toList();
    by(Entry::identifier);
    by(e -> e.form().hex());
    by(e -> e.kind() + " " + org.zephyrmist.core.content.Titles.folded(e.title()));
    byWords(b);
  }

  private void by(java.util.function.Function<Entry, String> what) {
    Map<String, List<Integer>> there = new HashMap<>();
    for (int n = 0; n < newer.size(); n++) {
      there.computeIfAbsent(what.apply(newer.get(n)), k -> new ArrayList<>()).add(n);
    }
    for (int o = 0; o < older.size(); o++) {
      List<Integer> found = there.getOrDefault(what.apply(older.get(o)), List.of());
      if (found.size() <= CROWD) {
        for (int n : found) {
          add(o, n);
        }
      }
    }
  }

  private void byWords(List<int[]> texts) {
    Map<Integer, List<Integer>> index = vocabulary.index(texts, RARE);
    for (int o = 0; o < older.size(); o++) {
      Map<Integer, Double> shared = new HashMap<>();
      for (int w : olderTexts.get(o).words()) {
        for (int n : index.getOrDefault(w, List.of())) {
          shared.merge(n, vocabulary.weight(w), Double::sum);
        }
      }
      int at = o;
      shared.entrySet().stream()
          .filter(e -> fits(at, e.getKey()))
          .sorted(
              Comparator.comparingDouble((Map.Entry<Integer, Double> e) -> -e.getValue())
                  .thenComparing(Map.Entry::getKey))
          .limit(BEST)
          .forEach(e -> add(at, e.getKey()));
    }
  }

  /** What stands in paired modules, or beside paired items, may be a pair too. */
  void addAround(int[] toNewer) {
    for (int o = 0; o < older.size(); o++) {
      int n = toNewer[o];
      if (n < 0) {
        continue;
      }
      beside(older.before(o), newer.before(n));
      beside(older.after(o), newer.after(n));
      beside(older.parent(o), newer.parent(n));
      if (older.isModule(o)) {
        within(older.below(o), newer.below(n), toNewer);
      }
    }
  }

  private void beside(int o, int n) {
    if (o >= 0 && n >= 0) {
      add(o, n);
    }
  }

  private void within(List<Integer> a, List<Integer> b, int[] toNewer) {
    List<Integer> open = a.stream().filter(o -> toNewer[o] < 0).toList();
    if (open.size() <= CROWD && b.size() <= CROWD) {
      for (int o : open) {
        b.forEach(n -> add(o, n));
      }
    }
  }

  private boolean fits(int o, int n) {
    return older.get(o).kind() == newer.get(n).kind();
  }

  private void add(int o, int n) {
    if (fits(o, n)) {
      all.computeIfAbsent(((long) o << 32) | n, k -> of(o, n));
    }
  }

  /** What is known of any two. */
  Candidate of(int o, int n) {
    Entry a = older.get(o);
    Entry b = newer.get(n);
    boolean equal = a.form().equals(b.form()) && !older.isModule(o);
    return new Candidate(
        o,
        n,
        a.identifier().equals(b.identifier()),
        equal,
        equal ? 1 : vocabulary.likeness(olderTexts.get(o), newerTexts.get(n)),
        TitleLikeness.of(olderTitles.get(o), newerTitles.get(n)));
  }

  Collection<Candidate> all() {
    return all.values();
  }
}
