package org.zephyrmist.server.line;

import java.util.List;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.tool.Reported;
import org.zephyrmist.server.tool.ConnectedHosts;

/**
 * What a platform calls failed of a delivery, in words; what waits for its tool is told as that.
 */
@Component
class CalledFailed {
  private static final int SHOWN = 3;
  private final ConnectedHosts connected;

  CalledFailed(ConnectedHosts connected) {
    this.connected = connected;
  }

  /** To be added to how a line ended; empty if nothing failed. */
  String of(Work w) {
    if (w.reported().isEmpty()) {
      return "";
    }
    Reported.Folded f = Reported.folded(w.reported(), connected.in(w.line().section()));
    StringBuilder b = new StringBuilder();
    f.toConnect()
        .forEach(
            (host, n) ->
                b.append("; ")
                    .append(n == 1 ? "1 link waits" : n + " links wait")
                    .append(" for ")
                    .append(host)
                    .append(" to be connected, see Tools"));
    if (!f.others().isEmpty()) {
      b.append("; the platform calls ").append(f.others().size()).append(" failed: ");
      b.append(String.join(", ", some(f.others())));
    }
    return b.toString();
  }

  private static List<String> some(List<Reported> all) {
    return all.stream().limit(SHOWN).map(r -> "“" + r.title() + "” (" + r.said() + ")").toList();
  }
}
