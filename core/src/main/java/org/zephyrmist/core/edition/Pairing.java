package org.zephyrmist.core.edition;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.ItemKey;

/**
 * Which item of an older edition is which of a newer one: one to one, each pair with its evidence.
 * Identifiers, equal forms, words, titles and neighbours are weighed together, and neighbours again
 * once a first pairing is known.
 *
 * @param pairs in the order of the older edition
 * @param gone items of the older edition that none of the newer is
 * @param fresh items of the newer edition that were none of the older
 */
public record Pairing(List<Pair> pairs, List<ItemKey> gone, List<ItemKey> fresh) {
  /** Weights of text, title, neighbours and identifier; measured by {@code bench matching}. */
  private static final double TEXT = 0.50;

  private static final double TITLE = 0.22;
  private static final double NEIGHBOURS = 0.18;
  private static final double IDENTIFIER = 0.10;

  /** Less than this together is no pair. */
  private static final double LEAST = 0.27;

  /** Less than this of text and title, and everything else says nothing. */
  private static final double LEAST_ALIKE = 0.15;

  /** A pair is sure from here, if no other is nearly as good. */
  private static final double SURE = 0.40;

  private static final double MARGIN = 0.08;
  private static final int ROUNDS = 3;

  /**
   * Decisions of people.
   *
   * @param pairs an item of the older edition and what it became; none: it is gone
   */
  public record Decided(Map<ItemKey, Optional<ItemKey>> pairs) {
    public static final Decided NOTHING = new Decided(Map.of());

    public Decided {
      pairs = Map.copyOf(pairs);
    }
  }

  public Pairing {
    pairs = List.copyOf(pairs);
    gone = List.copyOf(gone);
    fresh = List.copyOf(fresh);
  }

  /**
   * Pairs two editions, each given in outline order.
   *
   * @param decided is kept to, whatever is alike
   */
  public static Pairing of(List<Entry> older, List<Entry> newer, Decided decided) {
    return new Run(new Side(older), new Side(newer), decided).pairing();
  }

  /** A candidate pair by the places of its items in their editions. */
  private record Scored(int older, int newer, Evidence evidence) {
    double together() {
      return evidence.together();
    }
  }

  private static final class Run {
    private final Side older;
    private final Side newer;
    private final Candidates candidates;
    private final Decided decided;
    private int[] toNewer;
    private int[] toOlder;

    Run(Side older, Side newer, Decided decided) {
      this.older = older;
      this.newer = newer;
      this.decided = decided;
      this.candidates = new Candidates(older, newer);
    }

    Pairing pairing() {
      toNewer = none(older.size());
      toOlder = none(newer.size());
      Map<Integer, Optional<Integer>> fixed = fixed();
      List<Scored> scored = List.of();
      for (int round = 0; round < ROUNDS; round++) {
        if (round > 0) {
          candidates.addAround(toNewer);
        }
        scored = scores(fixed);
        assign(scored, fixed);
      }
      return result(scored, fixed);
    }

    private static int[] none(int n) {
      int[] all = new int[n];
      java.util.Arrays.fill(all, -1);
      return all;
    }

    private Map<Integer, Optional<Integer>> fixed() {
      Map<Integer, Optional<Integer>> fixed = new HashMap<>();
      decided
          .pairs()
          .forEach(
              (o, n) -> {
                Integer at = older.place(o);
                if (at != null) {
                  fixed.put(at, n.map(newer::place));
                }
              });
      return fixed;
    }

    private List<Scored> scores(Map<Integer, Optional<Integer>> fixed) {
      Set<Integer> taken = new HashSet<>();
      fixed.values().forEach(n -> n.ifPresent(taken::add));
      Neighbours around = new Neighbours(older, newer, toNewer);
      List<Scored> all = new ArrayList<>();
      for (Candidates.Candidate c : candidates.all()) {
        if (!fixed.containsKey(c.older()) && !taken.contains(c.newer())) {
          Evidence e = weigh(c, around);
          if (e.together() >= LEAST) {
            all.add(new Scored(c.older(), c.newer(), e));
          }
        }
      }
      all.sort(
          Comparator.comparingDouble(Scored::together)
              .reversed()
              .thenComparingInt(Scored::older)
              .thenComparingInt(Scored::newer));
      return all;
    }

    private Evidence weigh(Candidates.Candidate c, Neighbours around) {
      double near = around.of(c.older(), c.newer());
      boolean module = older.isModule(c.older());
      double text = module ? around.children(c.older(), c.newer()) : c.text();
      boolean silent = !module && older.silent(c.older()) && newer.silent(c.newer());
      double alike = silent ? c.title() : (TEXT * text + TITLE * c.title()) / (TEXT + TITLE);
      double together =
          c.equal() || alike >= LEAST_ALIKE
              ? (TEXT + TITLE) * alike + NEIGHBOURS * near + (c.identifier() ? IDENTIFIER : 0)
              : 0;
      return new Evidence(c.identifier(), c.equal(), text, c.title(), near, together);
    }

    /** The best first; what is taken is not taken again. */
    private void assign(List<Scored> scored, Map<Integer, Optional<Integer>> fixed) {
      toNewer = none(older.size());
      toOlder = none(newer.size());
      fixed.forEach((o, n) -> n.ifPresent(x -> join(o, x)));
      for (Scored s : scored) {
        if (toNewer[s.older()] < 0 && toOlder[s.newer()] < 0) {
          join(s.older(), s.newer());
        }
      }
    }

    private void join(int o, int n) {
      toNewer[o] = n;
      toOlder[n] = o;
    }

    private Pairing result(List<Scored> scored, Map<Integer, Optional<Integer>> fixed) {
      Map<Integer, Scored> chosen = new HashMap<>();
      double[] secondOlder = new double[older.size()];
      double[] secondNewer = new double[newer.size()];
      for (Scored s : scored) {
        if (toNewer[s.older()] == s.newer()) {
          chosen.put(s.older(), s);
        } else {
          secondOlder[s.older()] = Math.max(secondOlder[s.older()], s.together());
          secondNewer[s.newer()] = Math.max(secondNewer[s.newer()], s.together());
        }
      }
      List<Pair> pairs = new ArrayList<>();
      List<ItemKey> gone = new ArrayList<>();
      for (int o = 0; o < older.size(); o++) {
        int n = toNewer[o];
        if (n < 0) {
          gone.add(older.get(o).key());
        } else {
          pairs.add(pair(o, n, Optional.ofNullable(chosen.get(o)), secondOlder, secondNewer));
        }
      }
      List<ItemKey> fresh = new ArrayList<>();
      for (int n = 0; n < newer.size(); n++) {
        if (toOlder[n] < 0) {
          fresh.add(newer.get(n).key());
        }
      }
      return new Pairing(pairs, gone, fresh);
    }

    private Pair pair(
        int o, int n, Optional<Scored> s, double[] secondOlder, double[] secondNewer) {
      Evidence e =
          s.map(Scored::evidence)
              .orElseGet(() -> weigh(candidates.of(o, n), new Neighbours(older, newer, toNewer)));
      Pair.Certainty certainty = Pair.Certainty.DECIDED;
      if (s.isPresent()) {
        double second = Math.max(secondOlder[o], secondNewer[n]);
        boolean sure = e.together() >= SURE && e.together() - second >= MARGIN;
        certainty = sure ? Pair.Certainty.SURE : Pair.Certainty.DOUBTFUL;
      }
      return new Pair(older.get(o).key(), newer.get(n).key(), e, certainty);
    }
  }
}
