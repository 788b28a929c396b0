package org.zephyrmist.core.content;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Mentions.Mention;
import org.zephyrmist.core.content.Mentions.Why;

class MentionsTest {
  private static final ItemKey LABS = new ItemKey("labs");
  private static final ItemKey RUBRIC = new ItemKey("rubric");
  private static final ItemKey CREWS = new ItemKey("crews");
  private static final ItemKey TEAM = new ItemKey("team");
  private static final Item RUBRIC_ITEM =
      new Item(
          RUBRIC,
          "How a plot is graded",
          new Content.Rubric(
              List.of(
                  new Content.Criterion("Legible", BigDecimal.TEN),
                  new Content.Criterion("Made together", BigDecimal.ONE, Optional.of("team")))),
          Timing.NONE,
          new Place(Optional.empty(), "i"),
          Visibility.SHOWN,
          EditRule.ADAPTABLE);
  private static final ItemKey PAGE = new ItemKey("page");
  private static final Item PLOT =
      new Item(
          new ItemKey("plot"),
          "Paper plot",
          new Content.Assignment(
              "<p><a href=\"zref:item/page#top\">Read</a> and <a href=\"zref:item/page\">again</a></p>",
              Grading.points(BigDecimal.TEN)
                  .withCategory(Optional.of("labs"))
                  .withRubric(Optional.of("rubric"))
                  .withGroupSet(Optional.of("crews"))),
          Timing.NONE,
          new Place(Optional.empty(), "i"),
          Visibility.SHOWN.withConditions(List.of(Condition.read(PAGE))),
          EditRule.ADAPTABLE);

  private static Item menu(String value) {
    return new Item(
        new ItemKey("menu"),
        "Menu",
        new Content.Setup(
            Optional.of(SetupSubject.MENU),
            "",
            List.of(new Content.Entry("Read", value)),
            Optional.empty()),
        Timing.NONE,
        new Place(Optional.empty(), "i"),
        Visibility.SHOWN,
        EditRule.ADAPTABLE);
  }

  @Test
  void everyPlaceInWhichAnItemNamesAnotherIsKnown() {
    assertThat(Mentions.of(PLOT))
        .containsExactly(
            new Mention(RUBRIC, Why.RUBRIC),
            new Mention(LABS, Why.CATEGORY),
            new Mention(CREWS, Why.GROUPS),
            new Mention(PAGE, Why.CONDITION),
            new Mention(PAGE, Why.LINK));
    assertThat(Mentions.of(menu("zref:item/page"))).containsExactly(new Mention(PAGE, Why.ENTRY));
    assertThat(Mentions.of(menu("https://larkmoor.example/"))).isEmpty();
  }

  @Test
  void aLineOfARubricNamesItsOutcome() {
    assertThat(Mentions.of(RUBRIC_ITEM)).containsExactly(new Mention(TEAM, Why.OUTCOME));
    Aspects a = Mentions.renamed(Aspects.of(RUBRIC_ITEM), k -> Optional.empty());
    assertThat(Mentions.any(a.wording())).as("%s", a.wording()).isFalse();
    assertThat(a.wording().criteria()).hasSize(2);
    Aspects there = Mentions.renamed(Aspects.of(RUBRIC_ITEM), k -> Optional.of("here-" + k));
    assertThat(there.wording().criteria().get(1).outcome()).contains("here-team");
  }

  @Test
  void renamingThereAndBackChangesNothing() {
    Aspects there = Mentions.renamed(Aspects.of(PLOT), k -> Optional.of(k + "-x"));
    Item renamed = there.item(PLOT.key(), PLOT.kind(), PLOT.rule());
    assertThat(Mentions.of(renamed))
        .extracting(m -> m.to().value())
        .allMatch(k -> k.endsWith("-x"));
    Aspects back = Mentions.renamed(there, k -> Optional.of(k.substring(0, k.length() - 2)));
    assertThat(back.forms()).isEqualTo(AspectForms.of(PLOT));
  }

  @Test
  void whatHasNoOtherNameIsNotNamedAnyMoreButALinkStays() {
    Aspects a = Mentions.renamed(Aspects.of(PLOT), k -> Optional.empty());
    assertThat(Mentions.any(a.grading())).isFalse();
    assertThat(a.visibility().conditions()).isEmpty();
    assertThat(a.wording().html()).isEqualTo(PLOT.content().html());
  }

  @Test
  void aGradeOfAScaleIsNoAddress() {
    Wording scale =
        Wording.of("Scale", "")
            .withSetup(
                Optional.of(SetupSubject.GRADE_SCALE), List.of(new Content.Entry("A", "90")));
    assertThat(Mentions.addresses(scale, a -> "elsewhere")).isEqualTo(scale);
  }
}
