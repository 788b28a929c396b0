package org.zephyrmist.server.tool;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.zephyrmist.core.tool.LaunchAnswer;
import org.zephyrmist.core.tool.LaunchAnswer.Outcome;
import org.zephyrmist.server.tool.ToolLaunches.Answered;

/**
 * Tools that do not answer in a round of tests: after some launches in a row that nothing came of,
 * the others of that tool are not sent any more, so that one tool that is down does not hold up all
 * others for as long as each of its launches takes.
 */
final class SilentTools {
  private final int most;
  private final Map<String, Integer> inARow = new ConcurrentHashMap<>();

  SilentTools(int most) {
    this.most = most;
  }

  /** What comes of a launch, or that it was not sent. */
  Answered asked(String host, Supplier<Answered> launch) {
    if (inARow.getOrDefault(host, 0) >= most) {
      return new Answered(
          new LaunchAnswer(
              Outcome.NO_ANSWER, "Not sent: it did not answer " + most + " launches before."),
          0);
    }
    Answered a = launch.get();
    if (a.answer().outcome() == Outcome.NO_ANSWER) {
      inARow.merge(host, 1, Integer::sum);
    } else {
      inARow.put(host, 0);
    }
    return a;
  }
}
