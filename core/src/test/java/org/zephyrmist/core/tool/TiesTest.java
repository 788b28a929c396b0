package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.tool.Seen.Tie;
import org.zephyrmist.core.tool.Ties.Tied;

class TiesTest {
  private static final Tied OWN = new Tied("s1", "autumn", "cb-1");
  private static final Tied LAST_TERM = new Tied("s2", "spring", "cb-2");
  private static final Tied COPIED = new Tied("s3", "autumn", "cb-2");
  private static final Tied TWIN_A = new Tied("s4", "autumn", "cb-4");
  private static final Tied TWIN_B = new Tied("s5", "autumn", "cb-4");
  private static final Tied MASTERS = new Tied("s6", "autumn", "cb-master");
  private static final Tied NONE = new Tied("s7", "autumn", "");
  private static final Ties TIES =
      new Ties(List.of(OWN, LAST_TERM, COPIED, TWIN_A, TWIN_B, MASTERS, NONE), Set.of("cb-master"));

  @Test
  void aCourseOfItsOwnIsAsItShouldBe() {
    assertThat(TIES.of(OWN)).isEqualTo(Tie.OWN);
  }

  @Test
  void aCourseThatAnotherTermHasWouldMixStudents() {
    assertThat(TIES.of(COPIED)).isEqualTo(Tie.OTHER_TERM);
  }

  @Test
  void twoSectionsOnOneAreBothTold() {
    assertThat(List.of(TIES.of(TWIN_A), TIES.of(TWIN_B))).containsOnly(Tie.SHARED);
  }

  @Test
  void theMastersOwnCourseIsNobodys() {
    assertThat(TIES.of(MASTERS)).isEqualTo(Tie.MASTERS);
  }

  @Test
  void sectionsWithoutACourseShareNothing() {
    assertThat(TIES.of(NONE)).isEqualTo(Tie.NONE);
  }
}
