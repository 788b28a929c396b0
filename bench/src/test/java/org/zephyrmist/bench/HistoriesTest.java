package org.zephyrmist.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.zephyrmist.bench.history.Histories;

/** A minute of random histories; {@code ./zephyrmist histories} plays as many as one likes. */
class HistoriesTest {
  @Test
  void nothingThatAPersonWroteIsLostThroughAnyHistory() throws Exception {
    long seed = Long.getLong("histories.seed", new Random().nextInt(1_000_000));
    Duration time = Duration.ofSeconds(Integer.getInteger("histories.seconds", 60));
    System.out.println("Histories are played with seed " + seed);
    Map<String, Integer> did = new Histories(seed, time).run();
    System.out.println("All held: " + did);
    assertThat(did.get("histories")).isPositive();
  }
}
