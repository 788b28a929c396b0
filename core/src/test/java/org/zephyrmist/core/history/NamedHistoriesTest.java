package org.zephyrmist.core.history;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.Decisions;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/** Histories in which words were lost once, each by name. */
class NamedHistoriesTest {
  private static final Choices CLEAN = Choices.SAFE.with(Choices.Onto.CLEAN);
  private static final Choices BACK =
      new Choices(
          Choices.Clash.KEEP_SECTION,
          Choices.Twin.ADD,
          Choices.Arrival.AS_IN_MASTER,
          Choices.Dates.ALONG);
  private final Texts texts = new Texts();
  private final Section section = new Section(texts, false);

  private Tree version(Said... items) {
    List<Node> nodes = new ArrayList<>();
    for (Said s : items) {
      nodes.add(
          new Node(
              key(s),
              s.kind(),
              s.title(),
              s.in().isEmpty() ? Optional.empty() : Optional.of(new ItemKey(s.in())),
              Rank.nth(nodes.size()),
              EditRule.ADAPTABLE,
              Visibility.SHOWN,
              AppliesTo.EVERY_SECTION,
              s.aspects(texts)));
    }
    return Tree.of(nodes);
  }

  private static ItemKey key(Said s) {
    return ItemKey.named(s.kind() == Kind.MODULE ? "week" : "loads" + s.points());
  }

  private static Said loads(String html) {
    return Said.page("Loads", html, "");
  }

  private static Said another(int n) {
    return Said.page("Another " + n, "<p>Text " + n + ".</p>", "").withPoints(n);
  }

  /** The one item that is about loads. */
  private String id() {
    return section.bases().get(key(loads(""))).id();
  }

  private Said here() {
    return section.shell.get(id());
  }

  private void instructor(String html) {
    section.shell.put(id(), here().withHtml(html));
  }

  private Step planned(Tree version, Choices choices) {
    return section.plan(version, choices).stream()
        .filter(s -> s.key().equals(key(loads(""))))
        .findFirst()
        .orElseThrow();
  }

  private static Choices takingBoth() {
    return Choices.SAFE.with(
        new Decisions(
            Map.of(
                new Decisions.About(key(loads("")), Optional.empty()),
                Decisions.Decision.of(Decisions.Take.TOGETHER))));
  }

  private void takeBackTheLast() {
    section.takeBack(section.deliveries.get(section.deliveries.size() - 1), BACK);
  }

  @Test
  void whatDoesNotMeetIsMergedByItselfAndStaysTheSectionsOwnThroughAllVersions() {
    section.deliver(version(loads("<p>It carries 2400 watts.</p><p>Ask first.</p>")), Choices.SAFE);
    instructor("<p>It carries 2400 watts.</p><p>Ask Karl first.</p>");
    Tree second = version(loads("<p>It carries 1920 watts.</p><p>Ask first.</p>"));
    assertThat(planned(second, Choices.SAFE).reason()).isEqualTo(Step.Reason.MERGED);
    section.deliver(second, Choices.SAFE);
    assertThat(here().html()).contains("1920").contains("Karl");
    assertThat(planned(second, Choices.SAFE).reason()).isEqualTo(Step.Reason.CHANGED_HERE);
    section.deliver(version(loads("<p>It carries 1800 watts.</p><p>Ask first.</p>")), Choices.SAFE);
    assertThat(here().html()).contains("1800").contains("Karl");
  }

  @Test
  void afterTakingBothTheNextVersionsKeepEveryWordAndTheTitle() {
    section.deliver(version(loads("<p>It carries 2400 watts.</p>")), Choices.SAFE);
    instructor("<p>It carries 2300 watts.</p>");
    section.shell.put(id(), here().withTitle("Loads and Karl"));
    section.deliver(version(loads("<p>It carries 1920 watts.</p>")), takingBoth());
    assertThat(here().html()).contains("2300").contains("1920");
    Tree third = version(loads("<p>It carries 1920 watts.</p><p>Mind the bar.</p>"));
    assertThat(planned(third, Choices.SAFE).reason()).isEqualTo(Step.Reason.MERGED);
    section.deliver(third, Choices.SAFE);
    assertThat(here().html()).contains("2300").contains("1920").contains("Mind");
    assertThat(here().title()).isEqualTo("Loads and Karl");
  }

  @Test
  void whatIsDecidedForAllSectionsGivesEachItsOwnWords() {
    Section other = new Section(texts, true);
    Tree first = version(loads("<p>It carries 2400 watts.</p>"));
    Tree second = version(loads("<p>It carries 1920 watts.</p>"));
    section.deliver(first, Choices.SAFE);
    other.deliver(first, Choices.SAFE);
    instructor("<p>It carries 2300 watts.</p>");
    String there = other.shell.keySet().iterator().next();
    other.shell.put(there, other.shell.get(there).withHtml("<p>It carries 2200 watts.</p>"));
    section.deliver(second, takingBoth());
    other.shell.put(there, other.shell.get(there).withHtml("<p>It carries 2100 watts.</p>"));
    other.deliver(second, takingBoth());
    assertThat(here().html()).contains("2300").doesNotContain("2200").doesNotContain("2100");
    assertThat(other.shell.get(there).html()).contains("2100").doesNotContain("2300");
  }

  @Test
  void aMergeThatIsTakenBackLeavesWhatTheInstructorHadAndIsMergedAgain() {
    section.deliver(version(loads("<p>It carries 2400 watts.</p><p>Ask first.</p>")), Choices.SAFE);
    instructor("<p>It carries 2400 watts.</p><p>Ask Karl first.</p>");
    Tree second = version(loads("<p>It carries 1920 watts.</p><p>Ask first.</p>"));
    section.deliver(second, Choices.SAFE);
    String merged = here().html();
    takeBackTheLast();
    assertThat(here().html()).contains("2400").contains("Karl");
    takeBackTheLast();
    assertThat(here().html()).isEqualTo(merged);
    takeBackTheLast();
    section.deliver(second, Choices.SAFE);
    assertThat(here().html()).isEqualTo(merged);
  }

  @Test
  void startingCleanLeavesNoMergedWordsAndTakingItBackBringsThemAgain() {
    section.deliver(version(loads("<p>It carries 2400 watts.</p><p>Ask first.</p>")), Choices.SAFE);
    instructor("<p>It carries 2400 watts.</p><p>Ask Karl first.</p>");
    Tree second = version(loads("<p>It carries 1920 watts.</p><p>Ask first.</p>"));
    section.deliver(second, Choices.SAFE);
    List<String> before = section.seen();
    section.deliver(second, CLEAN);
    assertThat(here().html()).doesNotContain("Karl");
    takeBackTheLast();
    assertThat(section.seen()).isEqualTo(before);
  }

  @Test
  void nobodyIsAskedAboutAClashThatStartingCleanClears() {
    section.deliver(version(loads("<p>It carries 2400 watts.</p>")), Choices.SAFE);
    instructor("<p>It carries 2300 watts.</p>");
    Tree second = version(loads("<p>It carries 1920 watts.</p>"));
    Step s = planned(second, takingBoth().with(Choices.Onto.CLEAN));
    assertThat(s.kind()).isEqualTo(StepKind.UPDATE);
    assertThat(s.reason()).isEqualTo(Step.Reason.CLEARED);
    assertThat(s.alike()).isEmpty();
  }

  @Test
  void ownPagesThatWereClearedComeAgainAndGoAgainWithTheTakeBacks() {
    section.add(Said.page("Own", "<p>Karl.</p>", ""));
    section.deliver(version(another(1), another(2), another(3)), CLEAN);
    List<String> cleared = section.seen();
    takeBackTheLast();
    assertThat(section.seen()).hasSize(1);
    takeBackTheLast();
    assertThat(section.seen()).isEqualTo(cleared);
    takeBackTheLast();
    assertThat(section.seen()).hasSize(1);
  }

  @Test
  void whatAnInstructorTookOutAndADeliveryPutBackGoesAndComesWithTheTakeBacks() {
    Tree all = version(loads("<p>It carries.</p>"), another(1), another(2));
    section.deliver(all, Choices.SAFE);
    section.shell.remove(id());
    Choices putsBack =
        new Choices(
            Choices.Clash.PUT_BACK,
            Choices.Twin.ADOPT,
            Choices.Arrival.AS_IN_MASTER,
            Choices.Dates.ALONG);
    section.deliver(all, putsBack);
    assertThat(section.shell).hasSize(3);
    takeBackTheLast();
    assertThat(section.shell).hasSize(2);
    takeBackTheLast();
    assertThat(section.shell).hasSize(3);
  }

  @Test
  void aModuleThatADeliveryMadeGoesWithItThoughSomethingWasMovedIntoIt() {
    section.deliver(version(loads("<p>It carries.</p>"), another(1)), Choices.SAFE);
    Said week = new Said(Kind.MODULE, "Week", "", 0, 1, "", true);
    section.deliver(
        version(week, loads("<p>It carries.</p>").standingIn(key(week).value()), another(1)),
        Choices.SAFE);
    assertThat(section.shell.get(here().in()).title()).isEqualTo("Week");
    takeBackTheLast();
    assertThat(section.shell.values()).noneMatch(s -> s.kind() == Kind.MODULE);
    assertThat(here().in()).isEmpty();
  }

  @Test
  void whatMustEqualTheMasterIsSaidToBeOverwrittenAlsoWhereTheMasterMovedSomethingElse() {
    Tree first = fixed(loads("<p>It carries.</p>"));
    section.deliver(first, Choices.SAFE);
    instructor("<p>It carries Karl.</p>");
    Step s = planned(fixed(loads("<p>It carries.</p>").withDue(9)), Choices.SAFE);
    assertThat(s.overwrites()).isTrue();
  }

  private Tree fixed(Said s) {
    return Tree.of(version(s).nodes().stream().map(n -> n.withRule(EditRule.FIXED)).toList());
  }
}
