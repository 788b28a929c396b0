package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Needs.Because;
import org.zephyrmist.core.delivery.Needs.Need;
import org.zephyrmist.core.delivery.Needs.Why;
import org.zephyrmist.core.delivery.PartsChoice.What;
import org.zephyrmist.core.tree.Tree;

class PartsChoiceTest {
  private static final Tree VERSION =
      Sample.tree(
          Sample.in(null, "week3", Kind.MODULE),
          Sample.in("week3", "reading", Kind.PAGE),
          Sample.in("week3", "quiz", Kind.QUIZ),
          Sample.in("week3", "bank", Kind.QUESTION_BANK),
          Sample.in(null, "week6", Kind.MODULE),
          Sample.in("week6", "exercise", Kind.ASSIGNMENT),
          Sample.in("week6", "rubric", Kind.RUBRIC),
          Sample.in("week6", "news", Kind.ANNOUNCEMENT),
          Sample.in(null, "how", Kind.PAGE));
  private static final Needs NEEDS =
      new Needs(
          Map.of(
              key("quiz"), List.of(new Need(key("bank"), Why.BANK)),
              key("exercise"), List.of(new Need(key("rubric"), Why.RUBRIC)),
              key("reading"), List.of(new Need(key("how"), Why.LINK)),
              key("how"), List.of(new Need(key("exercise"), Why.LINK))));

  private static ItemKey key(String k) {
    return new ItemKey(k);
  }

  private static Set<ItemKey> keys(String... all) {
    return java.util.Arrays.stream(all)
        .map(ItemKey::new)
        .collect(java.util.stream.Collectors.toSet());
  }

  private static PartsChoice some(String... items) {
    return new PartsChoice(What.SOME, Set.of(), keys(items), Set.of(), Set.of());
  }

  private static Base base(String k, Fingerprints sent) {
    return new Base(key(k), Kind.PAGE, k, "p-" + k, sent, sent);
  }

  private static Set<ItemKey> in(PartsChoice choice, Map<ItemKey, Base> bases, String... there) {
    Set<ItemKey> has = keys(there);
    return choice.in(VERSION, VERSION, NEEDS, bases, has::contains).keys().orElseThrow();
  }

  @Test
  void whatAnItemNeedsComesAlongAndSoDoesWhatThatNeeds() {
    assertThat(in(some("quiz"), Map.of())).isEqualTo(keys("quiz", "bank"));
    assertThat(in(some("reading"), Map.of()))
        .isEqualTo(keys("reading", "how", "exercise", "rubric"));
    assertThat(NEEDS.along(keys("quiz"), k -> false, k -> false))
        .isEqualTo(Map.of(key("bank"), new Because(key("quiz"), Why.BANK)));
  }

  @Test
  void whatIsOnlyLinkedComesWhereItIsMissingAndAPartComesAlways() {
    assertThat(in(some("reading"), Map.of(), "how")).isEqualTo(keys("reading"));
    assertThat(in(some("quiz"), Map.of(), "bank")).isEqualTo(keys("quiz", "bank"));
  }

  @Test
  void aModuleStandsForAllInItAndAKindForAllOfIt() {
    assertThat(in(some("week6"), Map.of())).isEqualTo(keys("week6", "exercise", "rubric", "news"));
    PartsChoice quizzes =
        new PartsChoice(What.SOME, Set.of(Kind.QUIZ), Set.of(), Set.of(), Set.of());
    assertThat(in(quizzes, Map.of())).isEqualTo(keys("quiz", "bank"));
  }

  @Test
  void whatIsLeftOutStaysOutThoughItIsNeededAndThatIsTold() {
    PartsChoice without =
        new PartsChoice(
            What.EVERYTHING, Set.of(), Set.of(), Set.of(Kind.ANNOUNCEMENT), keys("bank", "week6"));
    assertThat(in(without, Map.of())).isEqualTo(keys("week3", "reading", "quiz", "how"));
    assertThat(NEEDS.missed(keys("quiz"), without.leftOut(VERSION)))
        .isEqualTo(Map.of(key("bank"), new Because(key("quiz"), Why.BANK)));
  }

  @Test
  void whatChangedIsToldBySectionAndAStarterIsDeliveredOnce() {
    Tree version =
        Sample.tree(
            Sample.page("same"),
            Sample.page("moved"),
            Sample.page("new"),
            Sample.node(
                key("syllabus"),
                Kind.PAGE,
                "Syllabus",
                EditRule.STARTER,
                false,
                Optional.empty(),
                Sample.all("of the next version")));
    Map<ItemKey, Base> bases =
        Map.of(
            key("same"), base("same", Sample.all("same")),
            key("moved"), base("moved", Sample.all("old")),
            key("syllabus"), base("syllabus", Sample.all("old")),
            key("gone"), base("gone", Sample.all("old")));
    PartsChoice changed = new PartsChoice(What.CHANGED, Set.of(), Set.of(), Set.of(), Set.of());
    Parts parts = changed.in(version, version, Needs.NONE, bases, k -> true);
    assertThat(parts.keys().orElseThrow()).isEqualTo(keys("moved", "new", "gone"));
    assertThat(changed.in(version, version, Needs.NONE, Map.of(), k -> false).keys().orElseThrow())
        .as("a section that never got it")
        .isEqualTo(keys("same", "moved", "new", "syllabus"));
  }

  @Test
  void ofSomePartsNothingIsRetired() {
    Map<ItemKey, Base> bases = Map.of(key("gone"), base("gone", Sample.all("old")));
    assertThat(in(some("how"), bases)).doesNotContain(key("gone"));
  }
}
