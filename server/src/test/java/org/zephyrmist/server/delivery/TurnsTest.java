package org.zephyrmist.server.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;

class TurnsTest {
  private static final UUID A = new UUID(0, 1);
  private static final UUID B = new UUID(0, 2);
  private static final UUID C = new UUID(0, 3);

  private static int most(Turns turns, UUID platform, List<UUID> all) {
    int n = 0;
    while (n < 100 && turns.begin(platform, all)) {
      n++;
    }
    return n;
  }

  @Test
  void anOnlyPlatformHasAllWorkers() {
    assertThat(most(new Turns(6), A, List.of(A))).isEqualTo(6);
  }

  @Test
  void oneWorkerIsLeftForEachOtherPlatform() {
    Turns turns = new Turns(6);
    assertThat(most(turns, A, List.of(A, B, C))).isEqualTo(4);
    assertThat(most(turns, B, List.of(A, B, C))).isEqualTo(1);
    assertThat(most(turns, C, List.of(A, B, C))).isEqualTo(1);
    turns.end(A);
    assertThat(turns.begin(B, List.of(A, B, C))).isTrue();
    assertThat(turns.begin(B, List.of(A, B, C))).isFalse();
  }

  @Test
  void whereThereAreMorePlatformsThanWorkersEachStillHasItsTurn() {
    Turns turns = new Turns(1);
    assertThat(most(turns, A, List.of(A, B, C))).isEqualTo(1);
    assertThat(turns.begin(B, List.of(A, B, C))).isTrue();
  }
}
