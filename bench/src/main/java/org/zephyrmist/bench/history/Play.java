package org.zephyrmist.bench.history;

import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import org.zephyrmist.stage.Caller;

/**
 * One history: a master of its own and some shells, in which instructors, students, two designers
 * and a coordinator do what chance says.
 */
final class Play {
  private final Turn of;
  private final InShells shells;
  private final Designers designers;
  private final Coordinator coordinator;

  Play(Scene stage, List<String> shells, List<String> sections) {
    of = new Turn(stage, shells, sections);
    this.shells = new InShells(of);
    designers = new Designers(of);
    coordinator = new Coordinator(of, designers);
    designers.items();
    designers.freeze();
  }

  /** What was done, a line for each step. */
  List<String> log() {
    return of.log();
  }

  /**
   * Plays steps by their seeds.
   *
   * @throws Oracle.Broken if something does not hold
   */
  void play(List<Long> seeds, Map<String, Integer> counts) throws SQLException {
    for (long seed : seeds) {
      of.next(seed);
      String did;
      try {
        did = something();
      } catch (Caller.Failed e) {
        if (e.status >= 500 || e.status == 0) {
          throw new Oracle.Broken("the server answers " + e.status + ": " + e.getMessage());
        }
        did = "refused";
        of.log().add(of.step() + " refused: " + e.getMessage());
        if (Boolean.getBoolean("histories.told")) {
          System.out.println(of.log().get(of.log().size() - 1));
        }
      }
      counts.merge(did, 1, Integer::sum);
    }
    designers.draftEnds();
  }

  private String something() throws SQLException {
    int n = of.random().nextInt(100);
    if (n < 34) {
      return shells.instructor(of.random().nextInt(of.shells().size()));
    } else if (n < 42) {
      return shells.student(of.random().nextInt(of.shells().size()));
    } else if (n < 60) {
      return designers.designer();
    } else if (n < 86) {
      return coordinator.deliver();
    } else if (n < 97) {
      return coordinator.takeBack();
    }
    return coordinator.editAll();
  }
}
