package org.zephyrmist.core.coverage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.core.coverage.Expectation.NEWEST;
import static org.zephyrmist.core.coverage.Expectation.NONE;
import static org.zephyrmist.core.coverage.Expectation.Scope.COURSE;
import static org.zephyrmist.core.coverage.Expectation.Scope.EVERY_SECTION;
import static org.zephyrmist.core.coverage.Expectation.Scope.SET;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.coverage.Expectation.Rule;
import org.zephyrmist.core.coverage.Expectation.Scope;

class ExpectationTest {
  private static Rule rule(Scope scope, int pinned, int... sections) {
    return new Rule(scope, pinned, sections);
  }

  @Test
  void aSectionThatNoRuleNamesIsNotExpected() {
    assertThat(Expectation.of(2, List.of(rule(COURSE, NEWEST, 1)))).containsExactly(NONE, NEWEST);
  }

  @Test
  void theNarrowestRuleCounts() {
    assertThat(
            Expectation.of(
                3,
                List.of(
                    rule(SET, 2, 2), rule(EVERY_SECTION, NEWEST, 0, 1, 2), rule(COURSE, 3, 1, 2))))
        .containsExactly(NEWEST, 3, 2);
  }

  @Test
  void ofEquallyNarrowRulesTheLaterVersionCounts() {
    assertThat(Expectation.of(1, List.of(rule(SET, 4, 0), rule(SET, 2, 0)))).containsExactly(4);
    assertThat(Expectation.of(1, List.of(rule(SET, 4, 0), rule(SET, NEWEST, 0))))
        .containsExactly(NEWEST);
  }

  @Test
  void theOrderOfRulesIsNoMatter() {
    Laws.hold(
        random -> {
          List<Rule> rules = new ArrayList<>();
          for (int i = random.nextInt(6); i > 0; i--) {
            Scope scope = Scope.values()[random.nextInt(3)];
            rules.add(rule(scope, random.nextInt(4), random.nextInt(3)));
          }
          int[] wanted = Expectation.of(3, rules);
          Collections.shuffle(rules, random);
          assertThat(Expectation.of(3, rules)).isEqualTo(wanted);
        });
  }
}
