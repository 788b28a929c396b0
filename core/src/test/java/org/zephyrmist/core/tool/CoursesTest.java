package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

class CoursesTest {
  private static SectionPlace section(String id, String term) {
    return new SectionPlace(
        id, "LGT 110", "north", term, Map.of("section", id, "term", "Spring 2027"));
  }

  private static final List<SectionPlace> TWO = List.of(section("s1", "t1"), section("s2", "t1"));

  private static List<String> named(String pattern, Map<String, Set<String>> tied) {
    return Courses.named(new Template(pattern), TWO, tied);
  }

  @Test
  void eachSectionHasItsOwn() {
    assertThat(named("cu-{section}-{term}", Map.of()))
        .containsExactly("cu-s1-Spring-2027", "cu-s2-Spring-2027");
  }

  @Test
  void twoSectionsNeverShareOne() {
    assertThatThrownBy(() -> named("cu-{term}", Map.of()))
        .hasMessage("s1 and s2 would both come to cu-Spring-2027.");
  }

  @Test
  void aCourseThatAnotherSectionHasIsNotTaken() {
    assertThatThrownBy(() -> named("cu-{section}", Map.of("cu-s2", Set.of("s2", "s9"))))
        .hasMessage("s9 is tied to cu-s2 already.");
    assertThat(named("cu-{section}", Map.of("cu-s2", Set.of("s2")))).hasSize(2);
  }

  @Test
  void whatIsNotKnownNamesNothing() {
    assertThatThrownBy(() -> named("{mode}", Map.of())).hasMessageContaining("not known of s1");
    assertThatThrownBy(() -> named(" ", Map.of())).hasMessageContaining("1 to 200 signs");
  }
}
