package org.zephyrmist.bench.history;

import java.util.List;
import java.util.Map;
import org.zephyrmist.stage.Caller;

/** Goes through the steps of a history; what the server refuses is no step. */
final class Steps {
  private Steps() {}

  /** One step of a history. */
  interface Something {
    /** Gives what was done, in a word or two. */
    String next() throws Exception;
  }

  static void play(Turn of, List<Long> seeds, Map<String, Integer> counts, Something something)
      throws Exception {
    for (long seed : seeds) {
      of.next(seed);
      String did;
      try {
        did = something.next();
      } catch (Caller.Failed e) {
        if (e.status >= 500 || e.status == 0) {
          throw new Oracle.Broken("the server answers " + e.status + ": " + e.getMessage());
        }
        did = "refused";
        of.log().add(of.step() + " refused: " + e.getMessage());
      }
      counts.merge(did, 1, Integer::sum);
    }
  }
}
