package org.zephyrmist.bench;

import java.util.ArrayList;
import java.util.List;
import org.zephyrmist.core.edition.Pair;
import org.zephyrmist.core.edition.Pairing;

/** How well items of two editions are matched, against the truth; and how long it takes. */
final class Matching {
  private static final double SECONDS = 2.0;
  private static final double GOAL = 0.98;
  private final int items;

  Matching(int items) {
    this.items = items;
  }

  /**
   * How well a pairing is.
   *
   * @param precision of the pairs found, how many are right
   * @param recall of the right pairs, how many are found
   * @param sure of the pairs taken without asking, how many are right
   * @param asked share of pairs that a person is asked about
   */
  record Quality(double precision, double recall, double sure, double asked) {}

  static Quality quality(TwoEditions two) {
    Pairing p = Pairing.of(two.older(), two.newer(), Pairing.Decided.NOTHING);
    int found = 0;
    int right = 0;
    int sure = 0;
    int surelyRight = 0;
    for (Pair pair : p.pairs()) {
      boolean module = pair.older().value().startsWith("om");
      if (module) {
        continue;
      }
      boolean is = pair.newer().equals(two.truth().get(pair.older()));
      found++;
      right += is ? 1 : 0;
      if (pair.certainty() == Pair.Certainty.SURE) {
        sure++;
        surelyRight += is ? 1 : 0;
      }
    }
    return new Quality(
        (double) right / found,
        (double) right / two.truth().size(),
        (double) surelyRight / Math.max(1, sure),
        (double) (found - sure) / found);
  }

  List<Figure> run() throws Exception {
    List<Figure> all = new ArrayList<>();
    for (double rewritten : TwoEditions.rewritings()) {
      for (TwoEditions.Identifiers ids : TwoEditions.Identifiers.values()) {
        Quality q = quality(TwoEditions.drawn(7, items, rewritten, ids));
        double worse = Math.min(q.precision(), q.recall());
        all.add(
            Figure.of(
                    "matching, " + Math.round(rewritten * 100) + " % rewritten, identifiers " + ids,
                    1 - worse,
                    1 - GOAL,
                    1.0,
                    "wrong or missed, of those allowed")
                .with("precision", round(q.precision()))
                .with("recall", round(q.recall()))
                .with("precision of the sure", round(q.sure()))
                .with("asked", round(q.asked())));
      }
    }
    all.add(time());
    return all;
  }

  private Figure time() throws Exception {
    TwoEditions two = TwoEditions.drawn(8, items, 0.3, TwoEditions.Identifiers.NEW);
    for (int i = 0; i < 3; i++) {
      Pairing.of(two.older(), two.newer(), Pairing.Decided.NOTHING);
    }
    double seconds =
        Stopwatch.seconds(() -> Pairing.of(two.older(), two.newer(), Pairing.Decided.NOTHING));
    return Figure.of("matching " + items + " x " + items, seconds, SECONDS, 1.0, "s");
  }

  private static double round(double d) {
    return Math.round(d * 10_000) / 10_000.0;
  }
}
