package org.zephyrmist.core.merge;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.merge.TextMerge.Passage;

/**
 * Merges blocks of which both sides changed some, put some in and took some out: first it is found
 * which block became which, by the words that they share.
 */
final class BlockMerge {
  /** Blocks that share less of their words are not the same one changed. */
  private static final double ALIKE = 0.4;

  /** More pairs of blocks than this are not compared; then the stretch is one clash. */
  private static final int MOST = 40_000;

  private final Merge.Stretch<String> stretch;
  private final int[] ours;
  private final int[] theirs;
  private final List<Passage> all = new ArrayList<>();
  private int atOurs;
  private int atTheirs;

  private BlockMerge(Merge.Stretch<String> s) {
    stretch = s;
    ours = partners(s.base(), s.ours());
    theirs = partners(s.base(), s.theirs());
  }

  static List<Passage> of(Merge.Stretch<String> s) {
    boolean large = s.base().size() * Math.max(s.ours().size(), s.theirs().size()) > MOST;
    return s.base().isEmpty() || large ? List.of(clash(s)) : new BlockMerge(s).passages();
  }

  private static Passage clash(Merge.Stretch<String> s) {
    String mine = String.join("", s.ours());
    String others = String.join("", s.theirs());
    return new Passage(Merge.From.CLASH, String.join("", s.base()), mine, others, mine + others);
  }

  private List<Passage> passages() {
    for (int i = 0; i < stretch.base().size(); i++) {
      between(ours[i] < 0 ? atOurs : ours[i], theirs[i] < 0 ? atTheirs : theirs[i]);
      block(i);
      atOurs = ours[i] < 0 ? atOurs : ours[i] + 1;
      atTheirs = theirs[i] < 0 ? atTheirs : theirs[i] + 1;
    }
    between(stretch.ours().size(), stretch.theirs().size());
    return all;
  }

  /** What was put in before a block; by both at one place, somebody says in which order. */
  private void between(int endOurs, int endTheirs) {
    String mine = String.join("", stretch.ours().subList(atOurs, endOurs));
    String others = String.join("", stretch.theirs().subList(atTheirs, endTheirs));
    if (mine.equals(others)) {
      add(Merge.From.BOTH, "", mine, others, mine);
    } else if (others.isEmpty()) {
      add(Merge.From.OURS, "", mine, "", mine);
    } else if (mine.isEmpty()) {
      add(Merge.From.THEIRS, "", "", others, others);
    } else {
      add(Merge.From.CLASH, "", mine, others, mine + others);
    }
  }

  private void block(int i) {
    String b = stretch.base().get(i);
    String mine = ours[i] < 0 ? "" : stretch.ours().get(ours[i]);
    String others = theirs[i] < 0 ? "" : stretch.theirs().get(theirs[i]);
    if (ours[i] >= 0 && theirs[i] >= 0) {
      all.add(TextMerge.words(b, mine, others));
    } else if (ours[i] < 0 && theirs[i] < 0) {
      add(Merge.From.BOTH, b, "", "", "");
    } else if (mine.equals(b)) {
      add(Merge.From.THEIRS, b, mine, "", "");
    } else if (others.equals(b)) {
      add(Merge.From.OURS, b, "", others, "");
    } else { // one changed what the other took out
      add(Merge.From.CLASH, b, mine, others, mine + others);
    }
  }

  private void add(Merge.From from, String b, String mine, String others, String merged) {
    if (!(b + mine + others).isEmpty()) {
      all.add(new Passage(from, b, mine, others, merged));
    }
  }

  /** For each block of the first its partner in the second, or -1; partners rise. */
  private static int[] partners(List<String> base, List<String> side) {
    int n = base.size();
    int m = side.size();
    double[][] best = new double[n + 1][m + 1];
    double[][] alike = new double[n][m];
    List<Map<String, Integer>> words = side.stream().map(BlockMerge::words).toList();
    for (int i = n - 1; i >= 0; i--) {
      Map<String, Integer> of = words(base.get(i));
      for (int j = m - 1; j >= 0; j--) {
        double a = base.get(i).equals(side.get(j)) ? 2 : alike(of, words.get(j));
        alike[i][j] = a;
        double with = a < ALIKE ? 0 : a + best[i + 1][j + 1];
        best[i][j] = Math.max(with, Math.max(best[i + 1][j], best[i][j + 1]));
      }
    }
    int[] partner = new int[n];
    Arrays.fill(partner, -1);
    for (int i = 0, j = 0; i < n && j < m; ) {
      boolean with = alike[i][j] >= ALIKE && best[i][j] == alike[i][j] + best[i + 1][j + 1];
      if (with) {
        partner[i++] = j++;
      } else if (best[i][j] == best[i + 1][j]) {
        i++;
      } else {
        j++;
      }
    }
    return partner;
  }

  private static Map<String, Integer> words(String block) {
    Map<String, Integer> all = new HashMap<>();
    for (String w : Html.text(block).split("\\s+")) {
      all.merge(w, 1, Integer::sum);
    }
    return all;
  }

  /** Shared words among all of both (Dice's coefficient). */
  private static double alike(Map<String, Integer> a, Map<String, Integer> b) {
    int shared = 0;
    int all = 0;
    for (Map.Entry<String, Integer> e : a.entrySet()) {
      shared += Math.min(e.getValue(), b.getOrDefault(e.getKey(), 0));
      all += e.getValue();
    }
    for (int n : b.values()) {
      all += n;
    }
    return all == 0 ? 0 : 2.0 * shared / all;
  }
}
