package org.zephyrmist.server.line;

import java.util.Collection;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.ledger.RestorePoints;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;

/** Runs lines of confirmed deliveries. */
@Component
public class RunLine implements Job {
  public static final String NAME = "run-line";
  private final Lines lines;
  private final LineEnds ends;
  private final LineTurn turn;
  private final LineRunner runner;
  private final GoingOn goingOn;
  private final RestorePoints restorePoints;

  RunLine(
      Lines lines,
      LineEnds ends,
      LineTurn turn,
      LineRunner runner,
      GoingOn goingOn,
      RestorePoints restorePoints) {
    this.goingOn = goingOn;
    this.restorePoints = restorePoints;
    this.lines = lines;
    this.ends = ends;
    this.turn = turn;
    this.runner = runner;
  }

  @Override
  public String name() {
    return NAME;
  }

  @Override
  public Outcome run(UUID line) {
    return turn.take(line, runner::run);
  }

  @Override
  public Collection<UUID> strays() {
    return lines.strays(true);
  }

  /** Sections that are still taken, deliveries whose last line has ended, lines that may begin. */
  @Override
  public void sweep() {
    lines.releaseLeft();
    ends.checkAll();
    goingOn.ready();
    restorePoints.sweep();
  }
}
