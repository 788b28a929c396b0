package org.zephyrmist.core.tree;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;

/** Order, subtrees and places of items. */
class TreeTest {
  private static final Tree COURSE =
      Sample.tree(
          Sample.in(null, "week1", Kind.MODULE),
          Sample.in("week1", "loads", Kind.PAGE),
          Sample.in("week1", "part", Kind.MODULE),
          Sample.in("part", "circuits", Kind.PAGE),
          Sample.in(null, "week2", Kind.MODULE),
          Sample.in("week2", "dimmers", Kind.PAGE));

  private static List<String> keys(List<Node> nodes) {
    return nodes.stream().map(n -> n.key().value()).toList();
  }

  private static ItemKey key(String key) {
    return new ItemKey(key);
  }

  @Test
  void aModuleStandsBeforeWhatItHolds() {
    assertThat(keys(COURSE.nodes()))
        .containsExactly("week1", "loads", "part", "circuits", "week2", "dimmers");
  }

  @Test
  void aSubtreeIsAnItemAndAllBelowIt() {
    assertThat(keys(COURSE.subtree(key("week1"))))
        .containsExactly("week1", "loads", "part", "circuits");
    assertThat(COURSE.subtree(key("nowhere"))).isEmpty();
  }

  @Test
  void theModulesAnItemStandsInAreToldFromTheNearestUp() {
    assertThat(keys(COURSE.above(key("circuits")))).containsExactly("part", "week1");
    assertThat(COURSE.depth(key("week2"))).isZero();
  }

  @Test
  void whatStandsInAModuleThatDoesNotFitDoesNotFitEither() {
    assertThat(keys(COURSE.only(n -> !n.key().equals(key("week1"))).nodes()))
        .containsExactly("week2", "dimmers");
  }

  @Test
  void aPlaceIsBetweenItsNeighbours() {
    Place p = COURSE.place(key("new"), Optional.of(key("week1")), Optional.of(key("part")));
    assertThat(p.rank())
        .isGreaterThan(COURSE.get(key("loads")).orElseThrow().rank())
        .isLessThan(COURSE.get(key("part")).orElseThrow().rank());
  }

  @Test
  void aModuleGoesNeitherIntoItselfNorIntoWhatItHoldsNorIntoAPage() {
    assertThat(why("week1", "week1")).isEqualTo(NoSuchPlace.Why.INTO_ITSELF);
    assertThat(why("week1", "part")).isEqualTo(NoSuchPlace.Why.INTO_ITSELF);
    assertThat(why("week1", "dimmers")).isEqualTo(NoSuchPlace.Why.NOT_A_MODULE);
    assertThat(why("week1", "nowhere")).isEqualTo(NoSuchPlace.Why.NO_SUCH_MODULE);
  }

  private static NoSuchPlace.Why why(String item, String into) {
    try {
      COURSE.place(key(item), Optional.of(key(into)), Optional.empty());
      throw new AssertionError("It went there");
    } catch (NoSuchPlace e) {
      return e.why();
    }
  }

  @Test
  void nodesThatHaveNoPlaceAreRefused() {
    assertThatThrownBy(() -> Sample.tree(Sample.in("nowhere", "a", Kind.PAGE)))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(
            () -> Sample.tree(Sample.in("b", "a", Kind.MODULE), Sample.in("a", "b", Kind.MODULE)))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> Sample.tree(Sample.page("a"), Sample.page("a")))
        .isInstanceOf(IllegalArgumentException.class);
  }

  private static List<Node> random(Random random) {
    List<Node> all = new ArrayList<>();
    for (int i = 0; i < random.nextInt(20); i++) {
      String parent = all.isEmpty() || random.nextBoolean() ? null : "k" + random.nextInt(i);
      all.add(Sample.in(parent, "k" + i, Kind.MODULE));
    }
    return Sample.tree(all).nodes();
  }

  @Test
  void theOrderInWhichNodesAreGivenDoesNotMatter() {
    Laws.hold(
        random -> {
          List<Node> nodes = random(random);
          List<Node> mixed = new ArrayList<>(nodes);
          Collections.shuffle(mixed, random);
          assertThat(Tree.of(mixed).nodes()).isEqualTo(nodes);
        });
  }

  @Test
  void theSubtreesOfTheTopAreTheWholeTree() {
    Laws.hold(
        random -> {
          Tree t = Tree.of(random(random));
          List<Node> all = new ArrayList<>();
          t.in(Optional.empty()).forEach(n -> all.addAll(t.subtree(n.key())));
          assertThat(all).isEqualTo(t.nodes());
        });
  }

  @Test
  void aWalkMeetsEveryItemOfAnyTreeOnce() {
    Laws.hold(
        random -> {
          Tree a = Tree.of(random(random));
          Tree b = Tree.of(random(random));
          Tree c = Tree.of(random(random));
          List<Walk.Met> walk = Walk.through(a, b, c);
          Set<ItemKey> keys = new HashSet<>();
          List.of(a, b, c).forEach(t -> t.nodes().forEach(n -> keys.add(n.key())));
          assertThat(walk).extracting(Walk.Met::key).doesNotHaveDuplicates();
          assertThat(walk).hasSameSizeAs(keys);
          assertThat(walk)
              .allSatisfy(
                  m ->
                      assertThat(m.in())
                          .containsExactly(a.get(m.key()), b.get(m.key()), c.get(m.key())));
        });
  }

  @Test
  void whereNothingIsNamedEverySectionIsMeant() {
    assertThat(AppliesTo.EVERY_SECTION.covers("north", "", Set.of())).isTrue();
    AppliesTo online = new AppliesTo(Set.of(), Set.of("online"), Set.of("evening", "short"));
    assertThat(online.covers("north", "online", Set.of("short"))).isTrue();
    assertThat(online.covers("north", "online", Set.of())).isFalse();
    assertThat(online.covers("north", "", Set.of("short"))).isFalse();
  }
}
