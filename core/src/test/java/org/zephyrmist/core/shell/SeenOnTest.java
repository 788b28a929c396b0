package org.zephyrmist.core.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.edit.ClassShell;

/** A shell as students see it on a day. */
class SeenOnTest {
  private static final LocalDateTime MONDAY = LocalDateTime.parse("2027-02-01T08:00");

  private final ClassShell shell =
      new ClassShell()
          .ours("w1", Kind.MODULE, "Week 1", null, "")
          .ours("page", Kind.PAGE, "Cue sheets", "w1", "")
          .ours("task", Kind.ASSIGNMENT, "Plot", "w1", "")
          .ours("bank", Kind.QUESTION_BANK, "Bank", null, "")
          .own("key", Kind.FILE, "Answers", null, "");

  private List<String> seen(LocalDateTime at, boolean diligent) {
    return SeenOn.of(
            shell.items().stream()
                .map(
                    i ->
                        new SeenOn.Item(
                            i.held(), i.aspects().timing(), i.aspects().visibility(), i.given()))
                .toList(),
            at,
            diligent)
        .stream()
        .map(
            l ->
                "  ".repeat(l.depth()) + l.title() + (l.closed().isEmpty() ? "" : " " + l.closed()))
        .toList();
  }

  @Test
  void whatIsHiddenIsNotThereAndNeitherIsWhatStandsInIt() {
    shell.with("key", a -> a.with(new Visibility(true, true)));
    assertThat(seen(MONDAY, false)).containsExactly("Week 1", "  Cue sheets", "  Plot");
    shell.with("w1", a -> a.with(new Visibility(false, false)));
    assertThat(seen(MONDAY, false)).isEmpty();
  }

  @Test
  void whatOpensLaterIsClosedWithAllThatStandsInIt() {
    shell.with("w1", a -> a.with(Timing.NONE.with(Point.OPENS, Optional.of(MONDAY))));
    assertThat(seen(MONDAY.minusMinutes(1), false))
        .startsWith(
            "Week 1 [opens Monday 1 February, 08:00]",
            "  Cue sheets [opens Monday 1 February, 08:00]");
    assertThat(seen(MONDAY, false)).startsWith("Week 1", "  Cue sheets");
  }

  @Test
  void whatWaitsForAnotherItemOpensToWhoHasDoneIt() {
    shell.with(
        "task",
        a -> a.with(Visibility.SHOWN.withConditions(List.of(Condition.read(new ItemKey("page"))))));
    assertThat(seen(MONDAY, false)).contains("  Plot [opens after “Cue sheets” was opened]");
    assertThat(seen(MONDAY, true)).contains("  Plot");
    shell.without("page");
    assertThat(seen(MONDAY, true)).contains("  Plot [waits for something that is not here]");
  }

  @Test
  void whatClosedIsClosed() {
    shell.with("task", a -> a.with(Timing.NONE.with(Point.CLOSES, Optional.of(MONDAY))));
    assertThat(seen(MONDAY.plusDays(1), true)).contains("  Plot [closed Monday 1 February, 08:00]");
  }
}
