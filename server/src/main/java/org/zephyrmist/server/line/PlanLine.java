package org.zephyrmist.server.line;

import java.util.Collection;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;

/** Plans lines of deliveries that are not confirmed yet. */
@Component
public class PlanLine implements Job {
  public static final String NAME = "plan-line";
  private final Lines lines;
  private final LineTurn turn;
  private final LinePlanner planner;

  PlanLine(Lines lines, LineTurn turn, LinePlanner planner) {
    this.lines = lines;
    this.turn = turn;
    this.planner = planner;
  }

  @Override
  public String name() {
    return NAME;
  }

  @Override
  public Outcome run(UUID line) {
    return turn.take(line, planner::plan);
  }

  @Override
  public Collection<UUID> strays() {
    return lines.strays(false);
  }
}
