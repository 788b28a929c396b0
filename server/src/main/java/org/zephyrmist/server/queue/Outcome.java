package org.zephyrmist.server.queue;

import java.time.Duration;
import java.util.Optional;

/**
 * What became of a piece of work.
 *
 * @param again after which it is done again; none if it has ended
 */
public record Outcome(Optional<Duration> again) {
  public static final Outcome ENDED = new Outcome(Optional.empty());

  /** Something else has to end first. */
  public static final Outcome NOT_NOW = after(Duration.ofSeconds(1));

  public static Outcome after(Duration pause) {
    return new Outcome(Optional.of(pause));
  }
}
