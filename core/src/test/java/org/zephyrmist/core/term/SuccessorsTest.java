package org.zephyrmist.core.term;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.term.Successors.Pair;
import org.zephyrmist.core.term.Successors.Paired;
import org.zephyrmist.core.term.Successors.Why;

/** Which section follows which. */
class SuccessorsTest {
  private static TermSection section(String id, String course, String campus, String... who) {
    return new TermSection(id, id, course, campus, Set.of(who));
  }

  @Test
  void theSameInstructorGoesBeforeTheSameCampusAndThatBeforeTheCourseAlone() {
    Paired p =
        Successors.of(
            List.of(
                section("a1", "LD", "North", "Lena"),
                section("a2", "LD", "Mill", "Karl"),
                section("a3", "LD", "North", "Temi"),
                section("a4", "LD", "Quay", "Osei")),
            List.of(
                section("b1", "LD", "North", "Karl"),
                section("b2", "LD", "North", "Lena"),
                section("b3", "LD", "North", "Nadia"),
                section("b4", "LD", "Mill", "Bo")),
            Map.of());
    assertThat(p.pairs())
        .containsExactly(
            new Pair("a1", "b2", Why.INSTRUCTOR_AND_CAMPUS),
            new Pair("a2", "b1", Why.INSTRUCTOR),
            new Pair("a3", "b3", Why.CAMPUS),
            new Pair("a4", "b4", Why.COURSE));
  }

  @Test
  void aSectionOfAnotherCourseFollowsOnlyWhereAPersonSaysSo() {
    List<TermSection> from = List.of(section("a1", "LD", "North", "Lena"));
    List<TermSection> to = List.of(section("b1", "SN", "North", "Lena"));
    assertThat(Successors.of(from, to, Map.of()).without()).containsExactly("a1");
    assertThat(Successors.of(from, to, Map.of("a1", Optional.of("b1"))).pairs())
        .containsExactly(new Pair("a1", "b1", Why.BY_HAND));
  }

  @Test
  void whatAPersonLeavesAloneIsLeftAloneAndWhatIsNotThereAnyMoreIsNobodys() {
    List<TermSection> from = List.of(section("a1", "LD", "North"), section("a2", "LD", "North"));
    List<TermSection> to = List.of(section("b1", "LD", "North"));
    Paired p = Successors.of(from, to, Map.of("a1", Optional.empty()));
    assertThat(p.without()).containsExactly("a1");
    assertThat(p.pairs()).containsExactly(new Pair("a2", "b1", Why.CAMPUS));
    assertThat(Successors.of(from, to, Map.of("a1", Optional.of("gone"))).pairs())
        .containsExactly(new Pair("a1", "b1", Why.CAMPUS));
  }

  private static List<TermSection> drawn(Random random, String name) {
    List<TermSection> all = new ArrayList<>();
    for (int n = random.nextInt(12); n > 0; n--) {
      all.add(
          section(
              name + n, "C" + random.nextInt(3), "K" + random.nextInt(2), "I" + random.nextInt(4)));
    }
    return all;
  }

  @Test
  void everySectionIsThereOnceAndTheOrderInWhichTheyComeIsOfNoAccount() {
    Laws.hold(
        random -> {
          List<TermSection> from = drawn(random, "a");
          List<TermSection> to = drawn(random, "b");
          Map<String, Optional<String>> byHand = new HashMap<>();
          from.stream()
              .limit(random.nextInt(3))
              .forEach(
                  a ->
                      byHand.put(
                          a.id(),
                          random.nextBoolean()
                              ? Optional.of("b" + random.nextInt(12))
                              : Optional.empty()));
          Paired p = Successors.of(from, to, byHand);
          List<String> before = new ArrayList<>(p.without());
          List<String> after = new ArrayList<>(p.fresh());
          p.pairs()
              .forEach(
                  x -> {
                    before.add(x.from());
                    after.add(x.to());
                  });
          assertThat(before)
              .containsExactlyInAnyOrderElementsOf(from.stream().map(TermSection::id).toList());
          assertThat(after)
              .containsExactlyInAnyOrderElementsOf(to.stream().map(TermSection::id).toList());
          List<TermSection> shuffled = new ArrayList<>(to);
          Collections.shuffle(shuffled, random);
          assertThat(Successors.of(from, shuffled, byHand)).isEqualTo(p);
          assertThat(new HashSet<>(after)).hasSameSizeAs(after);
        });
  }
}
