package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.tree.Node;

/** A single item goes into a named place of each shell. */
class IntoTest {
  private static final List<Into.Standing> SHELL =
      List.of(
          module("w4", "Week 4", "h"),
          module("w5", "Week 5: Loads", "p"),
          page("a", "Reading", "c"),
          page("b", "Talk", "m"));

  private static Into.Standing module(String id, String title, String rank) {
    return new Into.Standing(id, Kind.MODULE, title, Optional.empty(), rank);
  }

  private static Into.Standing page(String id, String title, String rank) {
    return new Into.Standing(id, Kind.PAGE, title, Optional.of("w5"), rank);
  }

  private static Into.Gap gap(String module, int nth, Into.Side side, String neighbour) {
    return new Into(module, nth, side, neighbour).in(SHELL).orElseThrow();
  }

  @Test
  void aModuleIsFoundByItsNameHoweverItIsWrittenOrByItsNumber() {
    assertThat(gap("week 5 – loads", 0, Into.Side.END, "").module()).isEqualTo("w5");
    assertThat(gap("", 2, Into.Side.END, "").module()).isEqualTo("w5");
    assertThat(new Into("Week 6", 0, Into.Side.END, "").in(SHELL)).isEmpty();
    assertThat(new Into("", 3, Into.Side.END, "").in(SHELL)).isEmpty();
    assertThat(new Into("", 2, Into.Side.BEFORE, "Quiz").in(SHELL)).isEmpty();
  }

  @Test
  void whatIsPutThereStandsWhereItWasAsked() {
    assertThat(gap("", 2, Into.Side.BEGINNING, "").next()).isLessThan("c");
    assertThat(gap("", 2, Into.Side.END, "").next()).isGreaterThan("m");
    assertThat(gap("", 2, Into.Side.AFTER, "reading").next()).isBetween("c", "m");
    assertThat(gap("", 2, Into.Side.BEFORE, "Talk").next()).isBetween("c", "m");
    Into.Gap g = gap("", 2, Into.Side.AFTER, "Reading");
    assertThat(g.behind(g.next()).next()).isBetween(g.next(), "m");
  }

  private static Step only(Meant meant) {
    return Planner.plan(meant, List.of(), Map.of(), Choices.SAFE).get(0);
  }

  @Test
  void theItemArrivesThereWithoutItsModuleAndTheVersionsPlaceCountsAsSent() {
    ItemKey week = new ItemKey("week");
    Node module =
        Sample.node(
            week,
            Kind.MODULE,
            "Week 1",
            EditRule.ADAPTABLE,
            false,
            Optional.empty(),
            Sample.all("w"));
    Node page =
        Sample.node(
            new ItemKey("p"),
            Kind.PAGE,
            "Ropes",
            EditRule.ADAPTABLE,
            false,
            Optional.of(week),
            Sample.all("v"));
    Fingerprint there = Fingerprint.of("in week 5");
    Meant meant = Sample.meant(List.of(module, page)).placed(Map.of(page.key(), there));
    assertThat(Planner.plan(meant, List.of(), Map.of(), Choices.SAFE)).hasSize(1);
    Step s = only(meant);
    assertThat(s.kind()).isEqualTo(StepKind.ADD);
    assertThat(s.sides().becomes().orElseThrow().get(Aspect.PLACE)).isEqualTo(there);
    Held now =
        new Held(
            "p1", Kind.PAGE, "Ropes", Optional.of("w5"), s.sides().becomes().get(), false, true);
    Base base = Receipt.of(s, Optional.of(now), true, Optional.empty()).orElseThrow().base();
    Step again =
        Planner.plan(
                Sample.meant(List.of(module, page)),
                List.of(now),
                Map.of(page.key(), base),
                Choices.SAFE)
            .get(1);
    assertThat(again.moves()).as("it is not moved into its module by the next delivery").isFalse();
  }

  @Test
  void whereThereIsNoSuchPlaceNothingIsBrought() {
    Node page = Sample.page("p");
    Step s = only(Sample.meant(List.of(page)).placed(Map.of()));
    assertThat(s.kind()).isEqualTo(StepKind.BLOCKED);
    assertThat(s.reason()).isEqualTo(Reason.NO_PLACE);
  }
}
