package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalDateTime;
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
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.edition.Entry;
import org.zephyrmist.core.tree.Node;

/** Twins with another title, and twins from an earlier term. */
class TwinsTest {
  private static final String LOADS =
      "A circuit of the grid carries two thousand four hundred watts; count every lamp before you"
          + " hang it, and write the sum on the plot.";
  private static final ItemKey KEY = new ItemKey("loads");
  private static final LocalDate BEGINS = LocalDate.of(2026, 9, 7);

  private static Entry entry(ItemKey key, String title, String words) {
    return new Entry(
        key, key.value(), Kind.PAGE, title, Optional.empty(), Fingerprint.of(words), words);
  }

  private static Node meant() {
    return Sample.node(
        KEY,
        Kind.PAGE,
        "Reading: load and power",
        EditRule.ADAPTABLE,
        false,
        Optional.empty(),
        Sample.all("version"));
  }

  private static Held held(String title) {
    return new Held("p1", Kind.PAGE, title, Optional.empty(), Sample.all("section"), false, true);
  }

  private static List<Step> plan(Held held, Twins twins, Choices choices) {
    return Planner.plan(
        Sample.meant(List.of(meant())),
        List.of(held),
        Map.of(),
        choices,
        false,
        new Alongside(twins, Supplied.NOTHING, Merges.NONE));
  }

  private static Twins alike(String words, boolean earlier) {
    return Twins.among(
        List.of(
            entry(KEY, "Reading: load and power", LOADS),
            entry(new ItemKey("paint"), "Paint", "Red lead primer is banned in every workshop.")),
        List.of(
            entry(CleanStart.own("p1"), "Week three notes", words),
            entry(CleanStart.own("p2"), "Hello", "Good morning everybody, I am glad to be here.")),
        earlier);
  }

  @Test
  void aTwinWithAnotherTitleIsFoundByItsTextAndAdoptedWithItsEvidence() {
    Step s = plan(held("Week three notes"), alike(LOADS + " Ask me.", false), Choices.SAFE).get(0);
    assertThat(s.reason()).isEqualTo(Reason.ALIKE_ADOPTED);
    assertThat(s.id()).contains("p1");
    assertThat(s.evidence().orElseThrow().text()).isGreaterThan(0.8);
    assertThat(s.evidence().orElseThrow().title()).isLessThan(0.3);
  }

  @Test
  void whatIsHardlyAlikeIsNoTwin() {
    assertThat(
            plan(
                    held("Week three notes"),
                    alike("Bring gloves and a torch on Monday.", false),
                    Choices.SAFE)
                .get(0)
                .kind())
        .isEqualTo(StepKind.ADD);
  }

  @Test
  void titleAndPlaceDoNotMakeUpForAnotherText() {
    Twins found =
        Twins.among(
            List.of(entry(KEY, "Reading: load and power", LOADS)),
            List.of(
                entry(
                    CleanStart.own("p1"),
                    "Reading: load and power",
                    "Bring gloves and a torch on Monday.")),
            false);
    assertThat(found.of(KEY).filter(Twins.Match::sure)).isEmpty();
    Step s = plan(held("Reading: load and power"), found, Choices.SAFE).get(0);
    assertThat(s.reason()).isEqualTo(Reason.ALIKE_DOUBTFUL);
  }

  @Test
  void aDoubtfulTwinIsLeftUntilAPersonDecides() {
    Twins.Match sure = alike(LOADS, false).of(KEY).orElseThrow();
    Twins doubtful =
        new Twins(Map.of(KEY, new Twins.Match(sure.there(), sure.evidence(), false)), false);
    Step asked = plan(held("Notes"), doubtful, Choices.SAFE).get(0);
    assertThat(asked.reason()).isEqualTo(Reason.ALIKE_DOUBTFUL);
    assertThat(asked.moves()).isFalse();
    Decisions adopt =
        new Decisions(
            Map.of(
                new Decisions.About(KEY, Optional.empty()),
                new Decisions.Decision(Decisions.Take.ADOPT, Optional.empty())));
    assertThat(plan(held("Notes"), doubtful, Choices.SAFE.with(adopt)).get(0).adopts()).isTrue();
  }

  @Test
  void aModuleThatIsPerhapsAlikeIsAddedSinceWhatStandsInItNeedsOne() {
    Node week =
        Sample.node(
            KEY,
            Kind.MODULE,
            "Week 3",
            EditRule.ADAPTABLE,
            false,
            Optional.empty(),
            Sample.all("version"));
    Node page =
        Sample.node(
            new ItemKey("page"),
            Kind.PAGE,
            "Page",
            EditRule.ADAPTABLE,
            false,
            Optional.of(KEY),
            Sample.all("page"));
    Held theirs =
        new Held("p1", Kind.MODULE, "Third", Optional.empty(), Sample.all("s"), false, true);
    Twins.Match sure = alike(LOADS, false).of(KEY).orElseThrow();
    Twins doubtful =
        new Twins(Map.of(KEY, new Twins.Match(sure.there(), sure.evidence(), false)), false);
    assertThat(
            Planner.plan(
                Sample.meant(List.of(week, page)),
                List.of(theirs),
                Map.of(),
                Choices.SAFE,
                false,
                new Alongside(doubtful, Supplied.NOTHING, Merges.NONE)))
        .allMatch(s -> s.kind() == StepKind.ADD);
  }

  @Test
  void datesAndToolTiesOfAnEarlierTermAreNotTheSectionsWishes() {
    Fingerprint text = Sample.all("version").get(Aspect.WORDING);
    Held tied = held("Reading: load and power");
    Held same = tied.with(tied.aspects().with(Aspect.WORDING, text));
    Step s = plan(same, new Twins(Map.of(), true), Choices.SAFE).get(0);
    assertThat(s.reason()).isEqualTo(Reason.ALIKE_EARLIER_TERM);
    assertThat(s.adopts()).isTrue();
    assertThat(s.writes()).containsExactlyInAnyOrder(Aspect.TIMING, Aspect.LAUNCH);
  }

  @Test
  void aShellIsOfAnEarlierTermIfNearlyAllItsDatesAre() {
    Timing old = due(LocalDateTime.of(2026, 3, 2, 23, 59));
    Timing now = due(LocalDateTime.of(2026, 10, 2, 23, 59));
    assertThat(Twins.ofEarlierTerm(List.of(old, Timing.NONE), BEGINS)).isTrue();
    assertThat(Twins.ofEarlierTerm(List.of(old, now), BEGINS)).isFalse();
    assertThat(Twins.ofEarlierTerm(List.of(Timing.NONE), BEGINS)).isFalse();
  }

  private static Timing due(LocalDateTime at) {
    return new Timing(Optional.empty(), Optional.of(at), Optional.empty());
  }
}
