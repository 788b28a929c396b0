package org.zephyrmist.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

class StressTest {
  @Test
  void oddCallsAndRacesAreAnsweredInTimeWithoutAFaultOfTheServersAndLoseNothing() throws Exception {
    long seed = Long.getLong("stress.seed", new Random().nextInt(1_000_000));
    System.out.println("Stress with seed " + seed);
    Map<String, Integer> answers = new Stress(seed, Duration.ofSeconds(10)).run();
    System.out.println("Answers: " + answers);
    assertThat(answers).containsKeys("200", "400", "401", "404");
  }
}
