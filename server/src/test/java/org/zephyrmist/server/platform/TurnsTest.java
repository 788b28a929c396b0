package org.zephyrmist.server.platform;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;

class TurnsTest {
  private static final UUID A = new UUID(0, 1);
  private static final UUID B = new UUID(0, 2);
  private static final UUID C = new UUID(0, 3);

  private static int most(Turns turns, UUID platform) {
    int n = 0;
    while (n < 100 && turns.begin(platform)) {
      n++;
    }
    return n;
  }

  @Test
  void anOnlyPlatformHasAllWorkers() {
    assertThat(most(new Turns(6, () -> List.of(A)), A)).isEqualTo(6);
  }

  @Test
  void oneWorkerIsLeftForEachOtherPlatform() {
    Turns turns = new Turns(6, () -> List.of(A, B, C));
    assertThat(most(turns, A)).isEqualTo(4);
    assertThat(most(turns, B)).isEqualTo(1);
    assertThat(most(turns, C)).isEqualTo(1);
    turns.end(A);
    assertThat(turns.begin(B)).isTrue();
    assertThat(turns.begin(B)).isFalse();
  }

  @Test
  void whereThereAreMorePlatformsThanWorkersEachStillHasItsTurn() {
    Turns turns = new Turns(1, () -> List.of(A, B, C));
    assertThat(most(turns, A)).isEqualTo(1);
    assertThat(turns.begin(B)).isTrue();
  }
}
