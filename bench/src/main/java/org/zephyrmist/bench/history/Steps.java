package org.zephyrmist.bench.history;

import java.util.List;
import java.util.Map;
import org.zephyrmist.stage.Caller;

/** Goes through the steps of a history; what the server refuses is no step. */
final class Steps {
  private Steps() {}

  /**
   * @param seeds one for each step: a step that is left out changes no other
   * @param counts what was done how often is added to
   */
  static void play(History history, List<Long> seeds, Map<String, Integer> counts)
      throws Exception {
    Turn turn = history.turn();
    for (long seed : seeds) {
      turn.next(seed);
      String did;
      try {
        did = history.step();
      } catch (Caller.Failed e) {
        if (e.status >= 500 || e.status == 0) {
          throw new Oracle.Broken("the server answers " + e.status + ": " + e.getMessage());
        }
        did = "refused";
        turn.log().add(turn.step() + " refused: " + e.getMessage());
      }
      counts.merge(did, 1, Integer::sum);
    }
    history.ended();
  }
}
