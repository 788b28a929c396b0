package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/** What a delivery means for one section. */
class MeantTest {
  private static final SectionFacts NORTH = new SectionFacts("north", "", Set.of());
  private static final SectionFacts HARBOUR = new SectionFacts("harbour", "", Set.of());
  private static final Tree COURSE =
      Sample.tree(
          Sample.in(null, "week1", Kind.MODULE),
          Sample.in("week1", "loads", Kind.PAGE),
          only("harbour", Sample.in(null, "slipway", Kind.MODULE)),
          Sample.in("slipway", "rigging", Kind.PAGE),
          Sample.in(null, "week2", Kind.MODULE),
          Sample.in("week2", "dimmers", Kind.PAGE));

  private static Node only(String campus, Node n) {
    return new Node(
        n.key(),
        n.kind(),
        n.title(),
        n.parent(),
        n.rank(),
        n.rule(),
        n.visibility(),
        new AppliesTo(Set.of(campus), Set.of(), Set.of()),
        n.aspects());
  }

  private static List<String> keys(Meant m) {
    return m.items().nodes().stream().map(n -> n.key().value()).toList();
  }

  @Test
  void whatIsMeantForAnotherCampusIsNotMeantHere() {
    assertThat(keys(Meant.of(COURSE, Parts.EVERYTHING, NORTH)))
        .containsExactly("week1", "loads", "week2", "dimmers");
    assertThat(keys(Meant.of(COURSE, Parts.EVERYTHING, HARBOUR))).contains("slipway", "rigging");
  }

  @Test
  void aChosenItemComesWithTheModuleItStandsIn() {
    Parts parts = Parts.only(Set.of(new ItemKey("dimmers")));
    assertThat(keys(Meant.of(COURSE, parts, NORTH))).containsExactly("week2", "dimmers");
  }

  @Test
  void whatNoLongerAppliesIsRetiredButWhatWasNotChosenIsLeft() {
    Node rigging = COURSE.get(new ItemKey("rigging")).orElseThrow();
    Base base =
        new Base(rigging.key(), Kind.PAGE, "rigging", "p", rigging.aspects(), rigging.aspects());
    Held held =
        new Held("p", Kind.PAGE, "rigging", Optional.empty(), rigging.aspects(), false, false);
    assertThat(plan(Meant.of(COURSE, Parts.EVERYTHING, NORTH), held, base))
        .anyMatch(s -> s.kind() == StepKind.RETIRE && s.key().equals(rigging.key()));
    Parts others = Parts.only(Set.of(new ItemKey("loads")));
    assertThat(plan(Meant.of(COURSE, others, NORTH), held, base))
        .noneMatch(s -> s.key().equals(rigging.key()));
  }

  private static List<Step> plan(Meant meant, Held held, Base base) {
    return Planner.plan(meant, List.of(held), Map.of(base.key(), base), Choices.SAFE);
  }
}
