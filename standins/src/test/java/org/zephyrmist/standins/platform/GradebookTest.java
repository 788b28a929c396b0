package org.zephyrmist.standins.platform;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** The grade book weighs categories and gives a grade of the shell's scale. */
class GradebookTest {
  private static Wire.Item category(String id, int weight) {
    return Items.of(id, "GRADE_CATEGORY", null, Map.of("weight", weight), Map.of(), null);
  }

  private static Map<String, BigDecimal> points(String item, int points, String other, int more) {
    return Map.of(item, BigDecimal.valueOf(points), other, BigDecimal.valueOf(more));
  }

  private static Optional<BigDecimal> percent(String percent) {
    return Optional.of(new BigDecimal(percent));
  }

  private final List<Wire.Item> items =
      new ArrayList<>(
          List.of(
              category("work", 75),
              category("tests", 25),
              Items.column("plot", 100, "work"),
              Items.column("quiz", 20, "tests")));

  @Test
  void categoriesCountByTheirWeightNotByTheirPoints() {
    Gradebook book = new Gradebook(items);
    assertThat(book.row("Ada Finch", points("plot", 80, "quiz", 10)).percent())
        .isEqualTo(percent("72.5"));
    assertThat(book.uneven()).isFalse();
  }

  @Test
  void onlyWhatIsGradedCounts() {
    Gradebook book = new Gradebook(items);
    Map<String, BigDecimal> quiz = Map.of("quiz", BigDecimal.valueOf(18));
    assertThat(book.row("Ada Finch", quiz).percent()).isEqualTo(percent("90.0"));
    assertThat(book.row("Ada Finch", Map.of()).percent()).isEmpty();
  }

  @Test
  void withoutWeightsPointsCount() {
    Gradebook book =
        new Gradebook(List.of(Items.column("a", 10, null), Items.column("b", 30, "gone")));
    assertThat(book.categories()).hasSize(1);
    assertThat(book.row("Ada Finch", points("a", 10, "b", 15)).percent())
        .isEqualTo(percent("62.5"));
  }

  @Test
  void weightsThatDoNotAddUpAreTold() {
    items.add(category("talk", 10));
    assertThat(new Gradebook(items).uneven()).isTrue();
  }

  @Test
  void theScaleGivesTheGrade() {
    items.add(
        new Wire.Item(
            "scale",
            "SETUP",
            null,
            "z",
            new Wire.Wording(
                "Scale",
                "",
                Map.of(
                    "subject",
                    "GRADE_SCALE",
                    "entries",
                    List.of(
                        Map.of("label", "Pass", "value", "50"),
                        Map.of("label", "Good", "value", "72.5")))),
            Map.of(),
            Map.of(),
            new Wire.Visibility(true, false, null, null),
            Map.of(),
            0,
            0,
            "Agnes Pell",
            null,
            1));
    Gradebook book = new Gradebook(items);
    assertThat(book.row("Ada Finch", points("plot", 80, "quiz", 10)).grade()).isEqualTo("Good");
    assertThat(book.row("Ben Moss", points("plot", 60, "quiz", 10)).grade()).isEqualTo("Pass");
    assertThat(book.row("Cy Ott", points("plot", 10, "quiz", 0)).grade()).isEmpty();
  }
}
