package org.zephyrmist.server.shell;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.platform.PlatformException;

class ItemTimeTest {
  @Test
  void anItemThatTakesTooLongWaitsForAPerson() {
    Instant start = Instant.now();
    PlatformException e =
        catchThrowableOfType(
            PlatformException.class,
            () ->
                ItemTime.within(
                    Duration.ofMillis(200),
                    "Endless",
                    1_000_000,
                    () -> {
                      Thread.sleep(60_000);
                      return 1;
                    }));
    assertThat(e.kind()).isEqualTo(PlatformException.Kind.LASTING);
    assertThat(e.getMessage()).contains("Endless");
    assertThat(Duration.between(start, Instant.now())).isLessThan(Duration.ofSeconds(30));
  }

  @Test
  void whatItGivesAndWhatIsWrongWithItPassesThrough() {
    assertThat(ItemTime.<Integer>within(Duration.ofSeconds(20), "t", 1_000_000, () -> 7))
        .isEqualTo(7);
    PlatformException e =
        catchThrowableOfType(
            PlatformException.class,
            () ->
                ItemTime.within(
                    Duration.ofSeconds(20),
                    "Odd",
                    3,
                    () -> {
                      throw new IllegalArgumentException("no such number");
                    }));
    assertThat(e.getMessage()).isEqualTo("“Odd” cannot be read: no such number");
  }
}
