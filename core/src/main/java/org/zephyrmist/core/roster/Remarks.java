package org.zephyrmist.core.roster;

import java.util.ArrayList;
import java.util.List;
import org.zephyrmist.core.roster.Roster.Remark;

/** The report of a reading: all is counted, the first thousand are told. */
final class Remarks {
  private static final int MOST = 1_000;
  private final List<Remark> all = new ArrayList<>();
  private int more;

  void add(String file, long line, String problem, String remedy) {
    if (all.size() < MOST) {
      all.add(new Remark(file, line, problem, remedy));
    } else {
      more++;
    }
  }

  void leftOut(String file, long line, String problem) {
    add(file, line, problem, "The row was left out; mend it and take the bundle in again.");
  }

  List<Remark> list() {
    List<Remark> list = new ArrayList<>(all);
    if (more > 0) {
      list.add(new Remark("…", 0, more + " more rows have problems.", "Mend those above first."));
    }
    return List.copyOf(list);
  }
}
