package org.zephyrmist.server.line;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.Emptiness;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.ShellReader;
import org.zephyrmist.server.shell.Shells;

/**
 * Looks at shells that were to be cleared, if they have moved at all; lines that waited for it then
 * wait for their turn.
 */
@Component
class LookIfEmpty implements Job {
  private final LineTurn turn;
  private final Lines lines;
  private final NotYet notYet;
  private final GoingOn goingOn;
  private final Shells shells;
  private final ShellReader reader;

  LookIfEmpty(
      LineTurn turn,
      Lines lines,
      NotYet notYet,
      GoingOn goingOn,
      Shells shells,
      ShellReader reader) {
    this.turn = turn;
    this.lines = lines;
    this.notYet = notYet;
    this.goingOn = goingOn;
    this.shells = shells;
    this.reader = reader;
  }

  @Override
  public String name() {
    return "look-if-empty";
  }

  @Override
  public Outcome run(UUID id) {
    return lines.find(id).filter(l -> l.state() == LineState.NOT_YET).isPresent()
        ? turn.take(id, this::look)
        : Outcome.ENDED;
  }

  private void look(Line line) {
    PlatformGateway gateway = shells.gateway(line.shell());
    if (gateway.unchanged(line.shell().there(), line.readTag().orElse(""))) {
      notYet.stillNot(line);
      return;
    }
    Reading now = reader.read(gateway, line.shell());
    int holds = Emptiness.holds(now.items());
    if (holds > 0) {
      notYet.empty(line, holds, now.tag());
    } else {
      goingOn.waiting(List.of(line.id()));
    }
  }

  @Override
  public Collection<UUID> strays() {
    return goingOn.toLookAt();
  }
}
