package org.zephyrmist.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.zephyrmist.stage.Caller;

/** Each measurement runs, small; its figures are not judged here. */
class SmokeTest {
  private static void measured(List<Figure> figures) {
    for (Figure f : figures) {
      System.out.println(f.line());
      assertThat(f.ratio()).isPositive();
      assertThat(Caller.JSON.readTree(f.line()).path("unit").asString()).isNotEmpty();
    }
  }

  @Test
  void takingIn() throws Exception {
    measured(List.of(new TakeIn(60).time()));
  }

  @Test
  void heapOfTakingIn() throws Exception {
    measured(List.of(new TakeIn(40).heap()));
  }

  @Test
  void deliveringAndPlanning() throws Exception {
    measured(new Deliver(14, 20).run());
    measured(List.of(new Plan(4, 40).run()));
    measured(List.of(new Deliver(2, 10).tenTimes()));
  }

  @Test
  void driftAndPast() throws Exception {
    measured(new Drift(4, 20).run());
    measured(List.of(new PastOfTheLedger(12_000).run()));
  }

  @Test
  void coverage() throws Exception {
    measured(List.of(new Coverage(200, 3).run()));
  }

  @Test
  void input() throws Exception {
    measured(new Input(60, 4, 40).run());
  }

  @Test
  void inputOnCoverage() throws Exception {
    measured(new CoverageInput(60, 3).run());
  }

  @Test
  void datesAndTheNextTerm() throws Exception {
    measured(new Dates(8, 6).run());
    measured(new NextTerm(3, 20).run());
  }
}
