package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/** A version with more weeks than a shell has places for. */
class WeekPlacesTest {
  private static Node node(String key, Kind kind, String title, Optional<String> in) {
    return Sample.node(
        new ItemKey(key),
        kind,
        title,
        EditRule.ADAPTABLE,
        false,
        in.map(ItemKey::new),
        Sample.all(key));
  }

  private static Tree modules(String... titles) {
    List<Node> all = new ArrayList<>();
    for (String t : titles) {
      String key = "m" + all.size();
      all.add(node(key, Kind.MODULE, t, Optional.empty()));
      all.add(node("p" + all.size(), Kind.PAGE, "Reading", Optional.of(key)));
    }
    return Tree.of(all);
  }

  private static WeekPlaces places(String... names) {
    Wording w =
        Wording.of("Weeks", "")
            .withSetup(
                Optional.of(SetupSubject.WEEK_PLACES),
                Arrays.stream(names).map(n -> new Content.Entry(n, "")).toList());
    return WeekPlaces.of("w", w).orElseThrow();
  }

  private static List<Integer> numbers(Tree t) {
    return WeekPlaces.weeks(t).stream().map(WeekPlaces.Week::n).toList();
  }

  private static List<Step> plan(Tree t, Set<ItemKey> withoutWeek) {
    Meant meant = Sample.meant(t.nodes()).withoutWeek(withoutWeek);
    return Planner.plan(meant, List.of(), Map.of(), Choices.SAFE);
  }

  @Test
  void weeksAreTheLongestNumberedSeriesAtTheTopHoweverItIsCalled() {
    assertThat(numbers(modules("Start here", "Week 1", "Week 02 · Loads", "Week 3: Knots")))
        .containsExactlyInAnyOrder(1, 2, 3);
    assertThat(numbers(modules("Act 1", "Woche 1", "Woche 2", "Summer 2026")))
        .containsExactlyInAnyOrder(1, 2);
    assertThat(numbers(modules("Weeks 1–2", "Week 3", "Week 4/5")))
        .containsExactlyInAnyOrder(2, 3, 5);
    assertThat(numbers(modules("Start here", "Resources"))).isEmpty();
    assertThat(WeekPlaces.last(List.of("Start here", "Week 2", "Weeks 9–10"))).isEqualTo(10);
    assertThat(WeekPlaces.last(List.of("Start here"))).isZero();
  }

  @Test
  void onlyWeeksThatComeAndStandBeyondTheLastPlaceHaveNone() {
    Tree t = modules("Start here", "Week 1", "Week 2", "Week 3", "Week 4");
    List<WeekPlaces.Week> weeks = WeekPlaces.weeks(t);
    List<Step> steps = plan(t, Set.of());
    assertThat(places("Week 1", "Week 2").without(weeks, steps))
        .extracting(WeekPlaces.Week::n)
        .containsExactlyInAnyOrder(3, 4);
    assertThat(places("1", "2", "3", "4").without(weeks, steps)).isEmpty();
    assertThat(places("Week 1").without(weeks, List.of())).isEmpty();
  }

  @Test
  void whereNoneAreAddedTheWeekDoesNotComeNorWhatStandsInIt() {
    Tree t = modules("Week 1", "Week 2", "Week 3");
    List<WeekPlaces.Week> lacking =
        places("Week 1", "Week 2").without(WeekPlaces.weeks(t), plan(t, Set.of()));
    List<Step> steps = plan(t, WeekPlaces.in(t, lacking));
    assertThat(steps).filteredOn(s -> s.reason() == Reason.NO_WEEK).hasSize(2);
    assertThat(steps).filteredOn(Step::moves).hasSize(4);
    assertThat(steps).filteredOn(s -> s.reason() == Reason.NO_WEEK).noneMatch(Step::moves);
  }

  @Test
  void placesThatAreAddedAreCalledAsTheVersionCallsThemOrElseAsTheOthersThere() {
    List<WeekPlaces.Week> lacking = List.of(new WeekPlaces.Week(4, new ItemKey("m")));
    WeekPlaces there = places("Semaine 1", "Semaine 2");
    assertThat(there.withPlacesFor(lacking, List.of()).entries())
        .extracting(Content.Entry::label)
        .containsExactly("Semaine 1", "Semaine 2", "Semaine 3", "Semaine 4");
    List<Content.Entry> called =
        Stream.of("a", "b", "Rigging").map(l -> new Content.Entry(l, "")).toList();
    assertThat(there.withPlacesFor(lacking, called).entries())
        .extracting(Content.Entry::label)
        .containsExactly("Semaine 1", "Semaine 2", "Rigging", "Semaine 4");
  }

  @Test
  void addingThemIsAStepOnTheShellsOwnSetupWhichStaysItsOwn() {
    Held here = new Held("w", Kind.SETUP, "Weeks", Optional.empty(), Sample.all("h"), false, true);
    Fingerprint more = Fingerprint.of("15 weeks");
    Step s = places("Week 1").adding(here, more);
    assertThat(s.moves()).isTrue();
    assertThat(s.overwrites()).isFalse();
    assertThat(s.sides().becomes().orElseThrow().get(Aspect.WORDING)).isEqualTo(more);
    assertThat(Receipt.of(s, Optional.of(here), true, Optional.empty())).isEmpty();
  }

  @Test
  void aSetupIsTheTwinOfTheOneThatIsAboutTheSameWhateverItIsCalled() {
    ItemKey ours = new ItemKey("weeks");
    Node m = node("weeks", Kind.SETUP, "Week places", Optional.empty());
    Held there = new Held("w", Kind.SETUP, "Weeks", Optional.empty(), Sample.all("h"), false, true);
    Twins twins =
        Twins.NONE.withSetups(
            Map.of(ours, SetupSubject.WEEK_PLACES),
            Map.of(CleanStart.own("w"), SetupSubject.WEEK_PLACES));
    Choices beside =
        new Choices(
            Choices.Clash.KEEP_SECTION,
            Choices.Twin.ADD,
            Choices.Arrival.AS_IN_MASTER,
            Choices.Dates.ALONG);
    for (Choices c : List.of(Choices.SAFE, beside, Choices.SAFE.with(Choices.Onto.CLEAN))) {
      List<Step> steps =
          Planner.plan(
              Sample.meant(List.of(m)),
              List.of(there),
              Map.of(),
              c,
              false,
              new Alongside(twins, Supplied.NOTHING, Merges.NONE));
      assertThat(steps).as(c.toString()).hasSize(1);
      assertThat(steps.get(0).kind()).isEqualTo(StepKind.TWIN);
      assertThat(steps.get(0).moves()).isEqualTo(c.onto() == Choices.Onto.CLEAN);
    }
  }

  @Test
  void aCleanStartLeavesTheShellItsSetup() {
    Held own = new Held("w", Kind.SETUP, "Menu", Optional.empty(), Sample.all("h"), false, true);
    List<Step> steps =
        Planner.plan(
            Sample.meant(List.of(Sample.page("p"))),
            List.of(own),
            Map.of(),
            Choices.SAFE.with(Choices.Onto.CLEAN));
    assertThat(steps).extracting(Step::kind).containsExactly(StepKind.ADD);
  }
}
