package org.zephyrmist.core.coverage;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class SectionFilterTest {
  private static final SectionWords EVENING =
      new SectionWords(
          "110-04",
          "Stage Lighting, evening",
          "LGT 110",
          "Quayside",
          List.of("Ines Ott", "J. Rau"));

  private static boolean covers(String text, String course, String campus, String instructor) {
    return new SectionFilter(text, course, campus, instructor).covers(EVENING);
  }

  @Test
  void aFilterThatSaysNothingNamesEverySection() {
    assertThat(covers(" ", "", "", "")).isTrue();
    assertThat(new SectionFilter(" ", "", "", "").everything()).isTrue();
    assertThat(new SectionFilter("", "", "Quayside", "").everything()).isFalse();
  }

  @Test
  void wordsAreFoundInCodeTitleCourseAndThoseWhoTeachWhateverTheirCase() {
    assertThat(covers("EVENING", "", "", "")).isTrue();
    assertThat(covers("lgt 110", "", "", "")).isTrue();
    assertThat(covers("rau", "", "", "")).isTrue();
    assertThat(covers("quayside", "", "", "")).isFalse();
  }

  @Test
  void courseCampusAndInstructorAreWholeAndAllMustFit() {
    assertThat(covers("", "LGT 110", "Quayside", "J. Rau")).isTrue();
    assertThat(covers("", "LGT 11", "", "")).isFalse();
    assertThat(covers("", "LGT 110", "Old Mill", "")).isFalse();
    assertThat(covers("", "", "", "Ines")).isFalse();
  }
}
