package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.tool.Connection.Entered;
import org.zephyrmist.core.tool.Seen.Data;
import org.zephyrmist.core.tool.Seen.Tie;

class SightingTest {
  private static final Instant MONDAY = Instant.parse("2026-08-31T08:00:00Z");
  private static final Duration TEN_MINUTES = Duration.ofMinutes(10);

  private static Connection connection(Pairing pairing) {
    return new Connection(
        "c",
        "Tool",
        Set.of("tool.example"),
        Way.KEY_AND_SECRET,
        Scope.COLLEGE,
        List.of(Stage.CREDENTIALS, Stage.PAIRING),
        Entered.FOR_SHELLS,
        pairing,
        true,
        Set.of());
  }

  private static Sighting sighting(Data data, boolean refused) {
    return new Sighting(
        true,
        data,
        Optional.empty(),
        Optional.empty(),
        Set.of(),
        refused,
        Seen.Tested.NOTHING_WRONG);
  }

  @Test
  void credentialsThatWereRefusedAreNoCredentials() {
    Connection c = connection(Pairing.BY_ANSWER);
    assertThat(sighting(Data.THERE, true).seen(c, Tie.NONE, TEN_MINUTES).data())
        .isEqualTo(Data.REFUSED);
    assertThat(sighting(Data.NONE, true).seen(c, Tie.NONE, TEN_MINUTES).data())
        .isEqualTo(Data.NONE);
  }

  @Test
  void credentialsAreThoseOfAConnectionAsItIsNowOrOfTheStateBeforeWhileBothAreTaken() {
    Connection c = connection(Pairing.BY_ANSWER);
    assertThat(new Written(Optional.of("c"), 3).isOf(c, 3, false)).isTrue();
    assertThat(new Written(Optional.of("c"), 2).isOf(c, 3, false)).isFalse();
    assertThat(new Written(Optional.of("c"), 2).isOf(c, 3, true)).isTrue();
    assertThat(new Written(Optional.of("c"), 1).isOf(c, 3, true)).isFalse();
    assertThat(new Written(Optional.of("another"), 3).isOf(c, 3, true)).isFalse();
    assertThat(new Written(Optional.empty(), 3).isOf(c, 3, true)).as("ended").isFalse();
  }

  @Test
  void whereNobodyHasToAnswerACourseComesWithTheCredentials() {
    for (Pairing p : List.of(Pairing.BY_RULE, Pairing.BY_CREDENTIALS)) {
      assertThat(sighting(Data.THERE, false).seen(connection(p), Tie.NONE, TEN_MINUTES).tie())
          .isEqualTo(Tie.OWN);
      assertThat(sighting(Data.NONE, false).seen(connection(p), Tie.NONE, TEN_MINUTES).tie())
          .isEqualTo(Tie.NONE);
      assertThat(sighting(Data.THERE, false).seen(connection(p), Tie.SHARED, TEN_MINUTES).tie())
          .isEqualTo(Tie.SHARED);
    }
    assertThat(
            sighting(Data.THERE, false)
                .seen(connection(Pairing.BY_ANSWER), Tie.NONE, TEN_MINUTES)
                .tie())
        .isEqualTo(Tie.NONE);
  }

  @Test
  void theWaitBeginsWithTheAgreement() {
    Sighting agreed =
        new Sighting(
            false,
            Data.NONE,
            Optional.of(MONDAY),
            Optional.of(MONDAY),
            Set.of(Stage.SUPPORT),
            false,
            Seen.Tested.NOTHING_WRONG);
    Seen seen = agreed.seen(connection(Pairing.BY_RULE), Tie.NONE, TEN_MINUTES);
    assertThat(seen.until()).contains(MONDAY.plus(TEN_MINUTES));
    assertThat(seen.reached())
        .containsExactlyInAnyOrder(Stage.SUPPORT, Stage.AGREEMENT, Stage.FIRST_OPENING);
  }
}
