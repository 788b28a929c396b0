package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.tool.Connection.Entered;
import org.zephyrmist.core.tool.LinkState.Reason;
import org.zephyrmist.core.tool.LinkState.Standing;
import org.zephyrmist.core.tool.Stage.Whose;

class ResolutionTest {
  private static final Instant NOW = Instant.parse("2026-11-02T10:00:00Z");
  private static final String HOST = "cuebench.example";
  private static final SectionPlace SECTION =
      new SectionPlace("s3", "LGT 110", "quay", "t1", Map.of());

  private static Connection connection(
      String id, Scope scope, boolean credentials, boolean approved, Stage... stages) {
    return new Connection(
        id,
        id,
        Set.of(HOST),
        Way.KEY_AND_SECRET,
        scope,
        List.of(stages),
        credentials ? Entered.CENTRAL : Entered.NOT_YET,
        Pairing.BY_ANSWER,
        approved,
        Set.of());
  }

  private static Seen seen(Seen.Data data, Seen.Tie tie, Stage... reached) {
    return new Seen(Set.of(reached), data, tie, Optional.empty(), Seen.Tested.NOTHING_WRONG);
  }

  private static LinkState of(Seen seen, Connection... all) {
    return new Resolution(List.of(all), NOW).of(HOST, SECTION, seen);
  }

  @Test
  void withoutAConnectionNothingWorks() {
    assertThat(of(Seen.NOTHING).reason()).isEqualTo(Reason.NO_CONNECTION);
    assertThat(of(seen(Seen.Data.PLACEHOLDER, Seen.Tie.NONE)).reason())
        .isEqualTo(Reason.PLACEHOLDER);
    assertThat(new Resolution(List.of(), NOW).of("", SECTION, Seen.NOTHING).reason())
        .isEqualTo(Reason.NO_HOST);
  }

  @Test
  void aNarrowerConnectionWinsOnceItIsApproved() {
    Connection college = connection("college", Scope.COLLEGE, true, true, Stage.APPROVAL);
    Scope quay = new Scope(Scope.Level.CAMPUS, "quay");
    Connection asked = connection("quay", quay, true, false, Stage.APPROVAL);
    Connection approved = connection("quay", quay, true, true, Stage.APPROVAL);
    assertThat(of(Seen.NOTHING, college, asked).connection()).contains(college);
    assertThat(of(Seen.NOTHING, college, approved).connection()).contains(approved);
    assertThat(of(Seen.NOTHING, asked).reason()).isEqualTo(Reason.NOT_APPROVED);
    Connection mill = connection("mill", new Scope(Scope.Level.CAMPUS, "mill"), true, true);
    assertThat(of(Seen.NOTHING, mill, college).connection()).contains(college);
  }

  @Test
  void twoOfOneScopeAreFound() {
    Connection one = connection("one", Scope.COLLEGE, true, true);
    Connection two = connection("two", Scope.COLLEGE, true, true);
    assertThat(of(Seen.NOTHING, one, two).reason()).isEqualTo(Reason.TWO_CONNECTIONS);
  }

  @Test
  void aConnectionHoldsInItsTermsAlone() {
    Connection old =
        new Connection(
            "old",
            "old",
            Set.of(HOST),
            Way.OPEN,
            Scope.COLLEGE,
            List.of(),
            Entered.NOT_YET,
            Pairing.BY_ANSWER,
            false,
            Set.of("t0"));
    assertThat(of(Seen.NOTHING, old).reason()).isEqualTo(Reason.NO_CONNECTION);
  }

  @Test
  void theFirstOfItsOwnStagesThatIsNotReachedCounts() {
    Connection c =
        connection(
            "c",
            Scope.COLLEGE,
            true,
            true,
            Stage.SUPPORT,
            Stage.CREDENTIALS,
            Stage.APPROVAL,
            Stage.PAIRING,
            Stage.FIRST_OPENING);
    LinkState off = of(Seen.NOTHING, c);
    assertThat(off.stuck()).contains(Stage.SUPPORT);
    assertThat(off.whose()).isEqualTo(Whose.ADMINISTRATOR);
    LinkState unpaired = of(seen(Seen.Data.NONE, Seen.Tie.NONE, Stage.SUPPORT), c);
    assertThat(unpaired.reason()).isEqualTo(Reason.NOT_PAIRED);
    LinkState old = of(seen(Seen.Data.NONE, Seen.Tie.OTHER_TERM, Stage.SUPPORT), c);
    assertThat(old.standing()).isEqualTo(Standing.TIED_WRONGLY);
    assertThat(old.whose()).isEqualTo(Whose.COORDINATOR);
    LinkState unopened = of(seen(Seen.Data.NONE, Seen.Tie.OWN, Stage.SUPPORT), c);
    assertThat(unopened.standing()).isEqualTo(Standing.NOT_OPENED);
    assertThat(unopened.whose()).isEqualTo(Whose.INSTRUCTOR);
    Seen all = seen(Seen.Data.NONE, Seen.Tie.OWN, Stage.SUPPORT, Stage.FIRST_OPENING);
    assertThat(of(all, c).standing()).isEqualTo(Standing.WORKS);
    Seen shut =
        new Seen(all.reached(), all.data(), all.tie(), all.until(), Seen.Tested.STUDENTS_SHUT_OUT);
    assertThat(of(shut, c).reason()).isEqualTo(Reason.STUDENTS_SHUT_OUT);
    Seen silent =
        new Seen(all.reached(), all.data(), all.tie(), all.until(), Seen.Tested.NO_ANSWER);
    assertThat(of(silent, c).reason()).isEqualTo(Reason.NO_ANSWER);
    assertThat(of(silent, c).whose()).as("it is tested again by itself").isEqualTo(Whose.NOBODY);
  }

  @Test
  void whatCameWithAPackageIsLeftOutWhereACentralConnectionStands() {
    Connection central = connection("c", Scope.COLLEGE, true, true, Stage.CREDENTIALS);
    Connection each = connection("c", Scope.COLLEGE, false, true, Stage.CREDENTIALS);
    Seen placeholder = seen(Seen.Data.PLACEHOLDER, Seen.Tie.NONE);
    assertThat(of(placeholder, central).standing()).isEqualTo(Standing.WORKS);
    assertThat(of(placeholder, each).reason()).isEqualTo(Reason.PLACEHOLDER);
    assertThat(of(seen(Seen.Data.THERE, Seen.Tie.NONE), each).standing()).isEqualTo(Standing.WORKS);
    assertThat(of(seen(Seen.Data.REFUSED, Seen.Tie.NONE), central).reason())
        .isEqualTo(Reason.REFUSED);
  }

  @Test
  void aWaitEndsByItself() {
    Connection c = connection("c", Scope.COLLEGE, true, true, Stage.AGREEMENT, Stage.WAIT);
    Set<Stage> agreed = Set.of(Stage.AGREEMENT);
    Seen ends =
        new Seen(
            agreed, Seen.Data.NONE, Seen.Tie.NONE, Optional.of(NOW), Seen.Tested.NOTHING_WRONG);
    assertThat(of(ends, c).standing()).isEqualTo(Standing.WORKS);
    LinkState before = new Resolution(List.of(c), NOW.minusSeconds(1)).of(HOST, SECTION, ends);
    assertThat(before.standing()).isEqualTo(Standing.WAITS);
    assertThat(before.whose()).isEqualTo(Whose.NOBODY);
  }

  private static <T> T pick(Random random, T[] of) {
    return of[random.nextInt(of.length)];
  }

  private static Seen any(Random random) {
    EnumSet<Stage> reached = EnumSet.noneOf(Stage.class);
    Arrays.stream(Stage.values()).filter(s -> random.nextBoolean()).forEach(reached::add);
    return new Seen(
        reached,
        pick(random, Seen.Data.values()),
        pick(random, Seen.Tie.values()),
        Optional.empty(),
        Seen.Tested.NOTHING_WRONG);
  }

  private static Connection any(Random random, String id) {
    List<Stage> stages = new ArrayList<>(List.of(Stage.values()));
    Collections.shuffle(stages, random);
    Scope scope =
        switch (pick(random, Scope.Level.values())) {
          case COLLEGE -> Scope.COLLEGE;
          case CAMPUS -> new Scope(Scope.Level.CAMPUS, random.nextBoolean() ? "quay" : "mill");
          case COURSE -> new Scope(Scope.Level.COURSE, "LGT 110");
          case SECTION -> new Scope(Scope.Level.SECTION, "s3");
        };
    return connection(
        id,
        scope,
        random.nextBoolean(),
        random.nextBoolean(),
        stages.subList(0, random.nextInt(stages.size() + 1)).toArray(Stage[]::new));
  }

  @Test
  void aStageThatAConnectionDoesNotHaveNeverCounts() {
    Laws.hold(
        random -> {
          Connection c = any(random, "c");
          Seen seen = any(random);
          LinkState s = of(seen, c);
          s.stuck().ifPresent(x -> assertThat(c.stages()).contains(x));
          EnumSet<Stage> others = EnumSet.allOf(Stage.class);
          others.removeAll(c.stages());
          EnumSet<Stage> less = EnumSet.noneOf(Stage.class);
          less.addAll(seen.reached());
          less.removeAll(others);
          Seen same =
              new Seen(less, seen.data(), seen.tie(), seen.until(), Seen.Tested.NOTHING_WRONG);
          assertThat(of(same, c)).isEqualTo(s);
        });
  }

  @Test
  void reachingAStageNeverLeadsBack() {
    Laws.hold(
        random -> {
          Connection c = any(random, "c");
          Seen seen = any(random);
          EnumSet<Stage> more = EnumSet.noneOf(Stage.class);
          more.addAll(seen.reached());
          more.add(pick(random, Stage.values()));
          Seen further =
              new Seen(more, seen.data(), seen.tie(), seen.until(), Seen.Tested.NOTHING_WRONG);
          assertThat(at(c, of(further, c))).isGreaterThanOrEqualTo(at(c, of(seen, c)));
        });
  }

  private static int at(Connection c, LinkState s) {
    return s.connection().isEmpty()
        ? -1
        : s.stuck().map(c.stages()::indexOf).orElse(c.stages().size());
  }

  @Test
  void theNarrowestThatMayServeIsTheOneWhateverTheirOrder() {
    Laws.hold(
        random -> {
          List<Connection> all = new ArrayList<>();
          for (int i = random.nextInt(5); i >= 0; i--) {
            all.add(any(random, "c" + i));
          }
          Seen seen = any(random);
          LinkState s = new Resolution(all, NOW).of(HOST, SECTION, seen);
          s.connection()
              .ifPresent(
                  c -> {
                    assertThat(c.scope().covers(SECTION)).isTrue();
                    all.stream()
                        .filter(x -> x.scope().covers(SECTION) && x.mayServe() && !x.equals(c))
                        .forEach(x -> assertThat(x.scope().level()).isLessThan(c.scope().level()));
                  });
          Collections.shuffle(all, random);
          assertThat(new Resolution(all, NOW).of(HOST, SECTION, seen)).isEqualTo(s);
        });
  }

  @Test
  void whatIsEnteredForShellsIsTheCoordinatorsToApply() {
    Connection c =
        new Connection(
            "c",
            "CueBench",
            Set.of(HOST),
            Way.KEY_AND_SECRET,
            Scope.COLLEGE,
            List.of(Stage.CREDENTIALS),
            Entered.FOR_SHELLS,
            Pairing.BY_ANSWER,
            false,
            Set.of());
    LinkState s = of(seen(Seen.Data.PLACEHOLDER, Seen.Tie.NONE), c);
    assertThat(s.reason()).isEqualTo(Reason.NOT_IN_SHELL);
    assertThat(s.whose()).isEqualTo(Whose.COORDINATOR);
    assertThat(of(seen(Seen.Data.THERE, Seen.Tie.NONE), c).standing()).isEqualTo(Standing.WORKS);
  }

  @Test
  void linksAreOnlyWhereTheirConnectionCanBeStuck() {
    Laws.hold(
        random -> {
          Connection c = any(random, "c");
          assertThat(new Resolution(List.of(c), NOW).of(HOST, SECTION, any(random)).standing())
              .satisfiesAnyOf(
                  standing -> assertThat(c.serves(HOST, SECTION)).isFalse(),
                  standing -> assertThat(c.standings()).contains(standing));
        });
  }
}
