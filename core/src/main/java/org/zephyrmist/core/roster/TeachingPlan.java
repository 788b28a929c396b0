package org.zephyrmist.core.roster;

import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.zephyrmist.core.roster.Roster.Teaching;

/**
 * Who teaches what from now on.
 *
 * @param teach who begins
 * @param leave who ends
 * @param stripped sections that had teachers and have none from now on
 */
record TeachingPlan(Set<Teaching> teach, Set<Teaching> leave, Set<String> stripped) {
  /**
   * @param taken sections that the roster may change
   * @param ended sections that it ends; their teachers stay with them
   */
  static TeachingPlan of(Roster roster, Present present, Set<String> taken, Set<String> ended) {
    Map<String, Set<Teaching>> now = new HashMap<>();
    for (Teaching t : roster.teaching()) {
      if (taken.contains(t.section())) {
        now.computeIfAbsent(t.section(), s -> new HashSet<>()).add(t);
      }
    }
    Set<String> told = new HashSet<>();
    roster.sections().forEach(s -> told.add(s.id()));
    Set<String> gone = new HashSet<>();
    roster.gone().teaching().forEach(t -> gone.add(name(t)));
    TeachingPlan plan =
        new TeachingPlan(new LinkedHashSet<>(), new LinkedHashSet<>(), new TreeSet<>());
    for (String section : taken) {
      Set<Teaching> before =
          Optional.ofNullable(present.sections().get(section))
              .map(Present.Kept::teaching)
              .orElse(Set.of());
      boolean whole =
          roster.gone().otherTeaching() && told.contains(section) && !ended.contains(section);
      plan.section(section, before, now.getOrDefault(section, Set.of()), whole, gone);
    }
    return plan;
  }

  private static String name(Teaching t) {
    return t.section() + "\n" + t.person();
  }

  /**
   * @param whole whether who is not named any more teaches it no longer
   * @param gone who teaches no longer in so many words
   */
  private void section(
      String section, Set<Teaching> before, Set<Teaching> after, boolean whole, Set<String> gone) {
    Set<String> stay = new HashSet<>();
    after.forEach(t -> stay.add(t.person()));
    after.stream().filter(t -> !before.contains(t)).forEach(teach::add);
    Set<Teaching> left = new HashSet<>();
    for (Teaching t : before) {
      if (!stay.contains(t.person()) && (whole || gone.contains(name(t)))) {
        left.add(t);
      }
    }
    leave.addAll(left);
    if (!left.isEmpty() && left.size() == before.size() && after.isEmpty()) {
      stripped.add(section);
    }
  }
}
