package org.zephyrmist.standins.platform;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** What a student sees of a shell on a day. */
class AsStudentTest {
  private static final LocalDate DAY = LocalDate.of(2026, 2, 3);
  private static final AsStudent.Deeds NOTHING = new AsStudent.Deeds(Set.of(), Set.of(), Map.of());

  private static List<String> closed(AsStudent.Deeds deeds, String id, Wire.Item... items) {
    return new AsStudent(List.of(items), DAY, deeds)
        .see(AsStudent.all(List.of(items))).stream()
            .filter(l -> l.item().id().equals(id))
            .findFirst()
            .orElseThrow()
            .closed();
  }

  private static AsStudent.Deeds graded(String item, int points) {
    return new AsStudent.Deeds(Set.of(), Set.of(item), Map.of(item, BigDecimal.valueOf(points)));
  }

  @Test
  void anItemIsOpenFromItsFirstDayToItsLast() {
    for (String day : List.of("2026-02-01T23:59:00", "2026-02-03T23:59:00")) {
      assertThat(closed(NOTHING, "a", Items.page("a", null, Map.of("opens", day)))).isEmpty();
    }
    assertThat(closed(NOTHING, "a", Items.page("a", null, Map.of("opens", "2026-02-04T00:00:00"))))
        .containsExactly("opens on 2026-02-04");
    assertThat(closed(NOTHING, "a", Items.page("a", null, Map.of("closes", "2026-02-02T09:00:00"))))
        .containsExactly("closed on 2026-02-02");
  }

  @Test
  void whatStandsInAClosedModuleIsClosed() {
    Wire.Item module =
        Items.of("m", "MODULE", null, Map.of(), Map.of("opens", "2026-03-01T08:00:00"), null);
    assertThat(closed(NOTHING, "p", module, Items.page("p", "m", Map.of())))
        .containsExactly("opens on 2026-03-01");
  }

  @Test
  void conditionsOpenAnItemOnceTheyAreMet() {
    Wire.Item quiz = Items.column("quiz", 20, null);
    Wire.Item read = Items.opening("a", Map.of("what", "READ", "item", "quiz"));
    assertThat(closed(NOTHING, "a", quiz, read)).containsExactly("opens after reading “quiz”");
    AsStudent.Deeds opened = new AsStudent.Deeds(Set.of("quiz"), Set.of(), Map.of());
    assertThat(closed(opened, "a", quiz, read)).isEmpty();

    Wire.Item work = Items.opening("a", Map.of("what", "HANDED_IN", "item", "quiz"));
    assertThat(closed(opened, "a", quiz, work)).hasSize(1);
    assertThat(closed(graded("quiz", 0), "a", quiz, work)).isEmpty();

    Wire.Item score = Items.opening("a", Map.of("what", "SCORE", "item", "quiz", "percent", 70));
    assertThat(closed(graded("quiz", 13), "a", quiz, score))
        .containsExactly("opens with 70 percent in “quiz”");
    assertThat(closed(graded("quiz", 14), "a", quiz, score)).isEmpty();

    Wire.Item day = Items.opening("a", Map.of("what", "DAY", "from", "2026-02-04T09:00:00"));
    assertThat(closed(NOTHING, "a", day)).containsExactly("opens on 2026-02-04");
  }

  @Test
  void aConditionThatNamesNothingIsNeverMet() {
    Wire.Item read = Items.opening("a", Map.of("what", "READ", "item", "gone"));
    assertThat(closed(NOTHING, "a", read))
        .containsExactly("opens after reading something that is not here");
  }
}
