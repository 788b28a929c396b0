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
import org.zephyrmist.core.tree.Node;
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
    return new PartsChoice(What.SOME, PartSet.of(keys(items)));
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
    PartsChoice quizzes = new PartsChoice(What.SOME, PartSet.of(Kind.QUIZ));
    assertThat(in(quizzes, Map.of())).isEqualTo(keys("quiz", "bank"));
  }

  @Test
  void whatIsLeftOutStaysOutThoughItIsNeededAndThatIsTold() {
    PartsChoice without =
        new PartsChoice(
            What.EVERYTHING,
            PartSet.NONE,
            new PartSet(Set.of(Kind.ANNOUNCEMENT), keys("bank", "week6")));
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
    PartsChoice changed = new PartsChoice(What.CHANGED, PartSet.NONE);
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

  private static final PartSet OWN =
      new PartSet(Set.of(Kind.ANNOUNCEMENT), Set.of(), Set.of("how", "week 6"));
  private static final Tree TITLED =
      Sample.tree(
          titled(null, "w6", Kind.MODULE, "Week 6: colour"),
          titled("w6", "exercise", Kind.ASSIGNMENT, "Exercise"),
          titled(null, "news", Kind.ANNOUNCEMENT, "News"),
          titled(null, "how", Kind.PAGE, "How the weeks go"),
          titled(null, "show", Kind.PAGE, "Show week 61"));

  private static Node titled(String module, String key, Kind kind, String title) {
    return Sample.node(
        key(key),
        kind,
        title,
        EditRule.ADAPTABLE,
        false,
        Optional.ofNullable(module).map(ItemKey::new),
        Sample.all(key));
  }

  @Test
  void aSetByKindsAndTitlesServesEveryMaster() {
    assertThat(OWN.in(TITLED))
        .as("words begin with what is said; a module stands for all in it")
        .isEqualTo(keys("w6", "exercise", "news", "how", "show"));
    assertThat(new PartSet(Set.of(), Set.of(), Set.of("HOW the")).in(TITLED))
        .isEqualTo(keys("how"));
    assertThat(new PartSet(Set.of(), Set.of(), Set.of("—", "eek", "ow")).in(TITLED)).isEmpty();
  }

  @Test
  void whatIsSparedByASetIsNeitherBroughtNorRetired() {
    PartsChoice spared = new PartsChoice(What.EVERYTHING, PartSet.NONE, OWN);
    Map<ItemKey, Base> bases =
        Map.of(
            key("old"),
            new Base(key("old"), Kind.PAGE, "How it was", "p", Sample.all("x"), Sample.all("x")));
    assertThat(spared.in(TITLED, TITLED, Needs.NONE, bases, k -> false).keys().orElseThrow())
        .isEmpty();
    assertThat(spared.ofOthers().leftOut(TITLED).test(key("how"))).isTrue();
    assertThat(some("how").ofOthers()).isEqualTo(PartsChoice.EVERYTHING);
  }
}
