package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;

class ToolWordsTest {
  @Test
  void aToolNamesTheCourseInItsOwnWords() {
    ToolWords w = new ToolWords("Tied to course {course}.");
    assertThat(w.course(" Tied to course cu-7a. ")).contains("cu-7a");
    assertThat(w.in("Tied to course cu-7a.")).isTrue();
    assertThat(w.course("Tied to nothing")).isEmpty();
    assertThat(w.course("Tied to course two words.")).isEmpty();
  }

  @Test
  void wordsAreTakenAsTheyStand() {
    ToolWords w = new ToolWords("Accepted (v1.0)");
    assertThat(w.in("Accepted (v1.0)")).isTrue();
    assertThat(w.in("Accepted (v1x0)")).isFalse();
    assertThat(w.course("Accepted (v1.0)")).isEmpty();
  }

  @Test
  void whatSaysNothingIsNeverSaid() {
    assertThat(ToolWords.NONE.in("")).isFalse();
    assertThat(ToolWords.NONE.course("")).isEmpty();
  }

  @Test
  void otherPartsThanTheCourseAreToldAtOnce() {
    assertThatThrownBy(() -> new ToolWords("{unit}")).hasMessage("Only {course} can stand in it.");
    assertThatThrownBy(() -> new ToolWords("{course} {course}"))
        .hasMessage("{course} stands in it twice.");
  }
}
