package org.zephyrmist.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

class SurvivalTest {
  @Test
  void ledgerAndPlatformAgreeAfterKillsFaultsAndEdits() throws Exception {
    long seed = Long.getLong("survival.seed", new Random().nextInt(1_000_000));
    System.out.println("Survival with seed " + seed);
    Map<String, Integer> did = new Survival(seed, 6, Duration.ofSeconds(10)).run();
    System.out.println("Ledger and platform agree after " + did);
    assertThat(did).isNotEmpty();
  }
}
