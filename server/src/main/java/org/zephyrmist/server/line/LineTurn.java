package org.zephyrmist.server.line;

import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.Turns;
import org.zephyrmist.server.queue.Outcome;
import org.zephyrmist.server.web.Outage;

/** Gives a line its turn: on its platform, then on its section; and says what became of it. */
@Component
class LineTurn {
  private static final Logger LOG = LoggerFactory.getLogger(LineTurn.class);
  private final Lines lines;
  private final LineEnds ends;
  private final Turns turns;
  private final Settings settings;
  private final NotYet notYet;

  LineTurn(Lines lines, LineEnds ends, Turns turns, Settings settings, NotYet notYet) {
    this.notYet = notYet;
    this.lines = lines;
    this.ends = ends;
    this.turns = turns;
    this.settings = settings;
  }

  Outcome take(UUID id, Consumer<Line> work) {
    Optional<Line> found = lines.find(id);
    if (found.isEmpty()) {
      return Outcome.ENDED; // its plan was thrown away
    }
    Line known = found.get();
    if (known.state() == LineState.STOPPED || known.state() == LineState.DONE) {
      return Outcome.ENDED;
    }
    UUID platform = known.shell().platform().orElse(Turns.NOWHERE);
    if (!turns.begin(platform)) {
      return Outcome.NOT_NOW;
    }
    try {
      return inSection(known, work);
    } finally {
      turns.end(platform);
    }
  }

  private Outcome inSection(Line known, Consumer<Line> work) {
    UUID token = UUID.randomUUID();
    if (!lines.claim(known, token)) {
      return Outcome.NOT_NOW;
    }
    Line line = lines.find(known.id()).orElse(known);
    try {
      if (!line.token().filter(token::equals).isPresent()) {
        throw new Lines.TakenOver();
      }
      work.accept(line);
      return Outcome.ENDED;
    } catch (Lines.TakenOver e) {
      LOG.info("Line {}: {}", line.id(), e.getMessage());
      return Outcome.ENDED;
    } catch (LinePlanner.TooEarly e) {
      return Outcome.NOT_NOW;
    } catch (PlatformException e) {
      return failed(line, e);
    } catch (RuntimeException e) {
      Outage.rethrow(e); // the queue tries again when the database is back
      LOG.error("Line {} failed", line.id(), e);
      return failed(
          line,
          PlatformException.passing(
              "Something went wrong in Zephyrmist itself: " + Outage.reason(e),
              "Go on; if it fails again, send the server's log to its administrator.",
              e));
    } finally {
      lines.release(known.section(), token);
      ends.check(line.delivery());
    }
  }

  /** Only failures that are this section's own count; a platform that is out of order is not. */
  private Outcome failed(Line line, PlatformException e) {
    if (e.kind() == PlatformException.Kind.ACCEPTED) {
      lines.accepted(line.id(), settings.looksIfThere(), e.getMessage(), e.remedy());
      return Outcome.after(settings.looksIfThere());
    }
    if (e.kind() == PlatformException.Kind.TO_BRING_IN) {
      notYet.packaged(line, e);
      return Outcome.ENDED;
    }
    boolean resting = e.kind() == PlatformException.Kind.RESTING;
    int attempts = line.attempts() + (resting ? 0 : 1);
    if (e.kind() == PlatformException.Kind.LASTING || attempts >= settings.tries()) {
      lines.needsPerson(line.id(), e.getMessage(), e.remedy());
      return Outcome.ENDED;
    }
    Duration backOff = settings.firstPause().multipliedBy(1L << Math.max(0, attempts - 1));
    Duration pause = resting ? e.pause() : backOff;
    lines.tryAgain(line.id(), attempts, pause, e.getMessage(), e.remedy());
    return Outcome.after(pause);
  }
}
