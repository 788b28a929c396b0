package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Step.AspectStep;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.tree.Node;

/** The three-way table, row by row. */
class PlannerTest {
  private static final ItemKey KEY = new ItemKey("loads");

  private static Fingerprints aspects(String... wordingGradingTiming) {
    EnumMap<Aspect, Fingerprint> map = new EnumMap<>(Aspect.class);
    for (Aspect a : Aspect.values()) {
      int i = a.ordinal();
      map.put(
          a, Fingerprint.of(i < wordingGradingTiming.length ? wordingGradingTiming[i] : "none"));
    }
    return Fingerprints.of(map);
  }

  private static Node meant(EditRule rule, Fingerprints m) {
    return Sample.node(KEY, Kind.PAGE, "Loads", rule, false, Optional.empty(), m);
  }

  private static Held held(Fingerprints s, boolean work) {
    return new Held("p1", Kind.PAGE, "Loads", Optional.empty(), s, work, true);
  }

  private static Base base(Fingerprints sent, Fingerprints shown) {
    return new Base(KEY, Kind.PAGE, "Loads", "p1", sent, shown);
  }

  private static Step plan(Node m, List<Held> shell, List<Base> bases, Choices choices) {
    return Planner.plan(
            Sample.meant(m == null ? List.of() : List.of(m)),
            shell,
            bases.stream().collect(Collectors.toMap(Base::key, b -> b)),
            choices)
        .get(0);
  }

  private static Step plan(EditRule rule, String b, String s, String m) {
    return plan(
        meant(rule, aspects(m)),
        List.of(held(aspects(s), false)),
        List.of(base(aspects(b), aspects(b))),
        Choices.SAFE);
  }

  @Test
  void sectionAndMasterEqualIsTheSame() {
    assertThat(plan(EditRule.ADAPTABLE, "old", "new", "new").kind()).isEqualTo(StepKind.SAME);
  }

  @Test
  void onlyTheMasterMovedIsAnUpdateOfThatAspect() {
    Step step = plan(EditRule.ADAPTABLE, "old", "old", "new");
    assertThat(step.kind()).isEqualTo(StepKind.UPDATE);
    assertThat(step.writes()).containsExactly(Aspect.WORDING);
  }

  @Test
  void onlyTheSectionMovedIsKept() {
    Step step = plan(EditRule.ADAPTABLE, "old", "mine", "old");
    assertThat(step.kind()).isEqualTo(StepKind.KEEP);
    assertThat(step.moves()).isFalse();
  }

  @Test
  void aFixedItemChangedInTheSectionIsPutBack() {
    Step step = plan(EditRule.FIXED, "old", "mine", "old");
    assertThat(step.kind()).isEqualTo(StepKind.UPDATE);
    assertThat(step.reason()).isEqualTo(Reason.FIXED_PUT_BACK);
  }

  @Test
  void bothMovedOnAnAdaptableItemIsAClashThatKeepsTheSection() {
    Step step = plan(EditRule.ADAPTABLE, "old", "mine", "new");
    assertThat(step.kind()).isEqualTo(StepKind.CLASH);
    assertThat(step.aspects()).containsEntry(Aspect.WORDING, AspectStep.CLASH_KEPT);
    assertThat(step.moves()).isFalse();
  }

  @Test
  void bothMovedOnAFixedItemIsAClashThatOverwritesAndSaysSo() {
    Step step = plan(EditRule.FIXED, "old", "mine", "new");
    assertThat(step.kind()).isEqualTo(StepKind.CLASH);
    assertThat(step.aspects()).containsEntry(Aspect.WORDING, AspectStep.CLASH_OVERWRITTEN);
    assertThat(step.moves()).isTrue();
  }

  @Test
  void bothMovedOnAStarterBelongsToTheSection() {
    assertThat(plan(EditRule.STARTER, "old", "mine", "new").kind()).isEqualTo(StepKind.KEEP);
    assertThat(plan(EditRule.STARTER, "old", "old", "new").moves()).isFalse();
  }

  @Test
  void theDeliveryMayChooseTheVersionInAClash() {
    Choices take =
        new Choices(
            Choices.Clash.TAKE_VERSION,
            Choices.Twin.ADOPT,
            Choices.Arrival.AS_IN_MASTER,
            Choices.Dates.ALONG);
    Step step =
        plan(
            meant(EditRule.ADAPTABLE, aspects("new")),
            List.of(held(aspects("mine"), false)),
            List.of(base(aspects("old"), aspects("old"))),
            take);
    assertThat(step.writes()).containsExactly(Aspect.WORDING);
  }

  @Test
  void aKindMayBeTreatedOtherwiseThanTheRest() {
    Choices pages =
        Choices.SAFE.with(
            new Choices.ByKind(
                Map.of(Kind.PAGE, Choices.Clash.TAKE_VERSION),
                Map.of(Kind.PAGE, Choices.Twin.LEAVE)));
    Choices quizzes =
        Choices.SAFE.with(
            new Choices.ByKind(
                Map.of(Kind.QUIZ, Choices.Clash.TAKE_VERSION),
                Map.of(Kind.QUIZ, Choices.Twin.LEAVE)));
    for (Choices c : List.of(pages, quizzes)) {
      Step clash =
          plan(
              meant(EditRule.ADAPTABLE, aspects("new")),
              List.of(held(aspects("mine"), false)),
              List.of(base(aspects("old"), aspects("old"))),
              c);
      assertThat(clash.overwrites()).isEqualTo(c == pages);
      Step twin =
          plan(
              meant(EditRule.ADAPTABLE, aspects("same")),
              List.of(held(aspects("same"), false)),
              List.of(),
              c);
      assertThat(twin.kind()).isEqualTo(StepKind.TWIN);
      assertThat(twin.adopts()).isEqualTo(c == quizzes);
    }
  }

  @Test
  void aChangedDueDateStillGetsTheCorrectedText() {
    Step step =
        plan(
            meant(EditRule.ADAPTABLE, aspects("new", "g", "monday")),
            List.of(held(aspects("old", "g", "friday"), false)),
            List.of(base(aspects("old", "g", "monday"), aspects("old", "g", "monday"))),
            Choices.SAFE);
    assertThat(step.kind()).isEqualTo(StepKind.UPDATE);
    assertThat(step.writes()).containsExactly(Aspect.WORDING);
    assertThat(step.aspects()).containsEntry(Aspect.TIMING, AspectStep.KEEP);
  }

  @Test
  void aPlatformThatTidiesTextsNeverLooksLikeAChange() {
    Step step =
        plan(
            meant(EditRule.ADAPTABLE, aspects("text")),
            List.of(held(aspects("tidied"), false)),
            List.of(base(aspects("text"), aspects("tidied"))),
            Choices.SAFE);
    assertThat(step.kind()).isEqualTo(StepKind.SAME);
  }

  @Test
  void nothingAlikeInTheShellIsAnAddition() {
    Step step = plan(meant(EditRule.ADAPTABLE, aspects("new")), List.of(), List.of(), Choices.SAFE);
    assertThat(step.kind()).isEqualTo(StepKind.ADD);
  }

  @Test
  void somethingAlikeInTheShellIsATwinAndIsAdoptedWithoutWriting() {
    Step step =
        plan(
            meant(EditRule.ADAPTABLE, aspects("new")),
            List.of(held(aspects("new").with(Aspect.TIMING, Fingerprint.of("theirs")), false)),
            List.of(),
            Choices.SAFE);
    assertThat(step.adopts()).isTrue();
    assertThat(step.id()).contains("p1");
    assertThat(step.moves()).isFalse();
  }

  @Test
  void whatHasTheTitleAloneIsAskedAboutWhateverIsChosenForAll() {
    for (Choices.Twin t : Choices.Twin.values()) {
      Choices all =
          new Choices(
              Choices.Clash.KEEP_SECTION, t, Choices.Arrival.AS_IN_MASTER, Choices.Dates.ALONG);
      Node ours = meant(EditRule.ADAPTABLE, aspects("new"));
      List<Held> theirs = List.of(held(aspects("theirs"), false));
      Step asked = plan(ours, theirs, List.of(), all);
      assertThat(asked.reason()).isEqualTo(Reason.ALIKE_DOUBTFUL);
      assertThat(asked.moves()).isFalse();
      Decisions adopt =
          new Decisions(
              Map.of(
                  new Decisions.About(KEY, Optional.empty()),
                  new Decisions.Decision(Decisions.Take.ADOPT, Optional.empty())));
      assertThat(plan(ours, theirs, List.of(), all.with(adopt)).adopts()).isTrue();
    }
  }

  @Test
  void twoOfOursNeverAdoptTheSameTwin() {
    Node other =
        Sample.node(
            new ItemKey("again"),
            Kind.PAGE,
            "Loads",
            EditRule.ADAPTABLE,
            false,
            Optional.empty(),
            aspects("new"));
    List<Step> steps =
        Planner.plan(
            Sample.meant(List.of(meant(EditRule.ADAPTABLE, aspects("new")), other)),
            List.of(held(aspects("new"), false)),
            Map.of(),
            Choices.SAFE);
    assertThat(steps).extracting(Step::kind).containsExactly(StepKind.TWIN, StepKind.ADD);
  }

  @Test
  void aPageAndAnAssignmentOfOneTitleAreNoTwins() {
    Held assignment =
        new Held("p1", Kind.ASSIGNMENT, "Loads", Optional.empty(), aspects("x"), false, true);
    Step step =
        plan(meant(EditRule.ADAPTABLE, aspects("y")), List.of(assignment), List.of(), Choices.SAFE);
    assertThat(step.kind()).isEqualTo(StepKind.ADD);
  }

  @Test
  void whatTheSectionRemovedStaysRemoved() {
    Base b = base(aspects("old"), aspects("old"));
    Step step =
        plan(meant(EditRule.ADAPTABLE, aspects("new")), List.of(), List.of(b), Choices.SAFE);
    assertThat(step.reason()).isEqualTo(Reason.REMOVED_HERE);
    assertThat(step.moves()).isFalse();
  }

  @Test
  void aFixedItemThatTheSectionRemovedIsPutBack() {
    Base b = base(aspects("old"), aspects("old"));
    Step step = plan(meant(EditRule.FIXED, aspects("old")), List.of(), List.of(b), Choices.SAFE);
    assertThat(step.kind()).isEqualTo(StepKind.ADD);
  }

  @Test
  void whatLeftTheVersionIsRetiredIfUntouched() {
    Base b = base(aspects("old"), aspects("old"));
    assertThat(plan(null, List.of(held(aspects("old"), false)), List.of(b), Choices.SAFE).kind())
        .isEqualTo(StepKind.RETIRE);
    assertThat(plan(null, List.of(held(aspects("mine"), false)), List.of(b), Choices.SAFE).reason())
        .isEqualTo(Reason.GONE_BUT_CHANGED_HERE);
  }

  @Test
  void studentWorkBlocksRemovalAndChangedGradingButNotACorrectedText() {
    Base b = base(aspects("old", "10"), aspects("old", "10"));
    List<Held> shell = List.of(held(aspects("old", "10"), true));
    assertThat(plan(null, shell, List.of(b), Choices.SAFE).kind()).isEqualTo(StepKind.BLOCKED);
    Node grading = meant(EditRule.ADAPTABLE, aspects("old", "20"));
    assertThat(plan(grading, shell, List.of(b), Choices.SAFE).kind()).isEqualTo(StepKind.BLOCKED);
    Node text = meant(EditRule.ADAPTABLE, aspects("new", "10"));
    assertThat(plan(text, shell, List.of(b), Choices.SAFE).kind()).isEqualTo(StepKind.UPDATE);
  }

  @Test
  void anEmptyModuleIsNotCreated() {
    Node week =
        Sample.node(
            new ItemKey("week"),
            Kind.MODULE,
            "Week 1",
            EditRule.ADAPTABLE,
            false,
            Optional.empty(),
            aspects("w"));
    assertThat(Planner.plan(Sample.meant(List.of(week)), List.of(), Map.of(), Choices.SAFE))
        .isEmpty();
  }

  @Test
  void aModuleThatStillHoldsAnInstructorsItemIsNotRetired() {
    Base week =
        new Base(new ItemKey("week"), Kind.MODULE, "Week 1", "m1", aspects("w"), aspects("w"));
    List<Held> shell = new ArrayList<>();
    shell.add(new Held("m1", Kind.MODULE, "Week 1", Optional.empty(), aspects("w"), false, true));
    shell.add(new Held("x", Kind.PAGE, "My notes", Optional.of("m1"), aspects("n"), false, true));
    Step step = plan(null, shell, List.of(week), Choices.SAFE);
    assertThat(step.reason()).isEqualTo(Reason.GONE_BUT_HOLDS_OTHERS);
  }

  private static Fingerprints seen(String visibility) {
    return aspects("same").with(Aspect.VISIBILITY, Fingerprint.of(visibility));
  }

  @ParameterizedTest
  @EnumSource(EditRule.class)
  void whatIsForInstructorsOnlyIsHiddenAgainUnderAnyRule(EditRule rule) {
    Node key =
        Sample.node(KEY, Kind.PAGE, "Answers", rule, true, Optional.empty(), seen("instructors"));
    Base base = base(seen("instructors"), seen("instructors"));
    Step s = plan(key, List.of(held(seen("all"), false)), List.of(base), Choices.SAFE);
    assertThat(s.kind()).isEqualTo(StepKind.UPDATE);
    assertThat(s.writes()).containsExactly(Aspect.VISIBILITY);
    assertThat(s.reason()).isEqualTo(Reason.FIXED_PUT_BACK);
  }

  @Test
  void aTwinOfWhatIsForInstructorsOnlyIsHiddenWhenItIsAdopted() {
    Node key =
        Sample.node(
            KEY,
            Kind.PAGE,
            "Answers",
            EditRule.ADAPTABLE,
            true,
            Optional.empty(),
            seen("instructors"));
    Step s = plan(key, List.of(held(seen("all"), false)), List.of(), Choices.SAFE);
    assertThat(s.reason()).isEqualTo(Reason.ALIKE_ADOPTED);
    assertThat(s.writes()).containsExactly(Aspect.VISIBILITY);
  }
}
