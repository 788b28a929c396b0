package org.zephyrmist.core.roster;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.zephyrmist.core.roster.Roster.Remark;

/** The report of a reading: all is counted, the first thousand are told. */
final class Remarks {
  private static final int MOST = 1_000;
  private final List<Remark> all = new ArrayList<>();
  private final Map<String, Integer> more = new TreeMap<>();

  /** About a file as a whole. */
  void file(String file, String problem, String remedy) {
    add(file, 0, "", problem, remedy);
  }

  void add(String file, long line, String sourcedId, String problem, String remedy) {
    if (all.size() < MOST) {
      all.add(new Remark(file, line, sourcedId, problem, remedy));
    } else {
      more.merge(file, 1, Integer::sum);
    }
  }

  void leftOut(String file, long line, String sourcedId, String problem) {
    add(
        file,
        line,
        sourcedId,
        problem,
        "The row was left out; mend it and take the bundle in again.");
  }

  List<Remark> list() {
    List<Remark> list = new ArrayList<>(all);
    more.forEach(
        (file, n) ->
            list.add(
                new Remark(
                    file, 0, "", n + " more rows have problems.", "Mend those above first.")));
    return List.copyOf(list);
  }
}
