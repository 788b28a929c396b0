package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.tree.Node;

/** What the frame brings is not doubled by an older course copy. */
class SuppliedTest {
  private static final Fingerprints FRAME = Sample.all("frame");
  private static final ItemKey HELP = new ItemKey("help");
  private static final ItemKey WEEK = new ItemKey("week");

  private static Node node(ItemKey key, Kind kind, Optional<ItemKey> in, Fingerprints says) {
    return Sample.node(key, kind, "Help", EditRule.ADAPTABLE, false, in, says);
  }

  private static Node meant(Kind kind, Fingerprints says) {
    return node(HELP, kind, Optional.empty(), says);
  }

  private static Held frames(Kind kind) {
    return new Held("f1", kind, "Help", Optional.empty(), FRAME, false, false);
  }

  private static List<Step> plan(List<Node> version, Held there, Decisions decisions) {
    return Planner.plan(
        Sample.meant(version),
        List.of(there),
        Map.of(),
        Choices.SAFE.with(decisions),
        false,
        new Alongside(Twins.NONE, Supplied.by(List.of(there), List.of(), Set.of()), Merges.NONE));
  }

  private static Step only(Kind kind, Fingerprints says) {
    return plan(List.of(meant(kind, says)), frames(kind), Decisions.NONE).get(0);
  }

  private static Decisions decided(Decisions.Take take) {
    return new Decisions(
        Map.of(
            new Decisions.About(HELP, Optional.empty()),
            new Decisions.Decision(take, Optional.empty())));
  }

  @Test
  void whatSaysTheSameIsNotBroughtASecondTime() {
    Step s = only(Kind.PAGE, FRAME);
    assertThat(s.reason()).isEqualTo(Reason.SUPPLIED);
    assertThat(s.moves()).isFalse();
    assertThat(s.id()).contains("f1");
    assertThat(Receipt.of(s, Optional.of(frames(Kind.PAGE)), true, Optional.empty())).isEmpty();
  }

  @Test
  void aPageThatTwoMastersShareComesOnceWhicheverIsDeliveredFirst() {
    Alongside after =
        new Alongside(
            Twins.NONE,
            Supplied.by(List.of(), List.of(frames(Kind.PAGE)), Set.of("f1")),
            Merges.NONE);
    assertThat(with(after, FRAME).reason()).isEqualTo(Reason.SUPPLIED);
    assertThat(with(after, Sample.all("course")).kind()).isEqualTo(StepKind.ADD);
  }

  private static Step with(Alongside alongside, Fingerprints says) {
    return Planner.plan(
            Sample.meant(List.of(meant(Kind.PAGE, says))),
            List.of(frames(Kind.PAGE)),
            Map.of(),
            Choices.SAFE,
            false,
            alongside)
        .get(0);
  }

  @Test
  void aLinkAnOutcomeOrASetupOfTheSameNameIsTheSameWhateverItSays() {
    for (Kind k : List.of(Kind.WEB_LINK, Kind.TOOL_LINK, Kind.OUTCOME, Kind.SETUP, Kind.RUBRIC)) {
      assertThat(only(k, Sample.all("course")).reason()).isEqualTo(Reason.SUPPLIED);
    }
  }

  @Test
  void aPageOfTheSameTitleThatSaysSomethingElseIsAskedAbout() {
    assertThat(only(Kind.PAGE, Sample.all("course")).reason()).isEqualTo(Reason.ALIKE_DOUBTFUL);
    List<Node> version = List.of(meant(Kind.PAGE, Sample.all("course")));
    assertThat(plan(version, frames(Kind.PAGE), decided(Decisions.Take.ADD)).get(0).kind())
        .isEqualTo(StepKind.ADD);
    assertThat(plan(version, frames(Kind.PAGE), decided(Decisions.Take.LEAVE)).get(0).reason())
        .isEqualTo(Reason.SUPPLIED);
  }

  @Test
  void aModuleInWhichNothingElseStandsIsNotMade() {
    Node week =
        Sample.node(
            WEEK,
            Kind.MODULE,
            "Week 1",
            EditRule.ADAPTABLE,
            false,
            Optional.empty(),
            Sample.all("week"));
    Node page = node(HELP, Kind.PAGE, Optional.of(WEEK), FRAME);
    assertThat(plan(List.of(week, page), frames(Kind.PAGE), Decisions.NONE))
        .extracting(Step::kind)
        .containsExactly(StepKind.TWIN);
  }

  @Test
  void whatIsStillToComeCountsAsMuchAsWhatIsThere() {
    Step add =
        Planner.plan(
                Sample.meant(List.of(meant(Kind.PAGE, FRAME))), List.of(), Map.of(), Choices.SAFE)
            .get(0);
    Step s = plan(List.of(meant(Kind.PAGE, FRAME)), Supplied.coming(add), Decisions.NONE).get(0);
    assertThat(s.reason()).isEqualTo(Reason.SUPPLIED);
    assertThat(s.id()).isEmpty();
  }

  @Test
  void whatAnotherMasterBroughtIsNeverTouched() {
    Laws.hold(
        random -> {
          World w = new World(random.nextLong());
          for (Step s : w.plan()) {
            if (s.moves()) {
              assertThat(s.id().filter(id -> id.startsWith("other"))).isEmpty();
            }
          }
        });
  }
}
