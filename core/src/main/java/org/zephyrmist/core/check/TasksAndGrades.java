package org.zephyrmist.core.check;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.check.CheckedShell.Item;
import org.zephyrmist.core.check.CheckedShell.Meant;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.edit.Subject;

/** What students do, and how it counts. */
final class TasksAndGrades {
  private static final BigDecimal ALL = new BigDecimal(100);

  private TasksAndGrades() {}

  static void look(ShellChecks.Round r) {
    for (Item i : r.shell.items()) {
      i.meant().ifPresent(m -> ofMaster(r, i, m));
      named(r, i);
      if (i.held().kind() == Kind.QUIZ && i.wording().questions() == 0) {
        r.add(Check.NO_BANK, i, "It asks nothing.");
      }
      if (i.seen() && i.grading().points().filter(p -> p.signum() == 0).isPresent()) {
        r.add(Check.NO_POINTS, i, "");
      }
    }
    weights(r);
  }

  private static void ofMaster(ShellChecks.Round r, Item i, Meant m) {
    Grading meant = m.grading();
    boolean own = m.own().contains(Aspect.GRADING);
    if (own && !meant.points().equals(i.grading().points())) {
      r.add(Check.POINTS, i, points(i.grading()) + " here, " + points(meant) + " delivered.");
    }
    if (own && meant.rubric().isPresent() && i.grading().rubric().isEmpty()) {
      r.add(Check.NO_RUBRIC, i, "It has none.");
    }
    if (own && !meant.groupSet().equals(i.grading().groupSet())) {
      r.add(Check.GROUP_SET, i, i.grading().groupSet().isEmpty() ? "It has none." : "");
    }
    if (own && meant.category().isPresent() && i.grading().category().isEmpty()) {
      r.add(Check.NO_CATEGORY, i, "It has none.");
    }
    if (m.banks().stream().anyMatch(b -> !r.here(i, b.value()))) {
      r.add(Check.NO_BANK, i, "A bank that it draws from is not here.");
    }
  }

  /** What it names and is not here. */
  private static void named(ShellChecks.Round r, Item i) {
    gone(r, i, i.grading().rubric(), Check.NO_RUBRIC);
    gone(r, i, i.grading().groupSet(), Check.GROUP_SET);
    gone(r, i, i.grading().category(), Check.NO_CATEGORY);
  }

  private static void gone(ShellChecks.Round r, Item i, Optional<String> name, Check check) {
    name.filter(n -> !r.here(i, n))
        .ifPresent(n -> r.add(check, i, "The one it names is not here."));
  }

  private static String points(Grading g) {
    return g.points().map(BigDecimal::toPlainString).orElse("none");
  }

  private static void weights(ShellChecks.Round r) {
    List<BigDecimal> all =
        r.shell.items().stream().flatMap(i -> i.grading().weight().stream()).toList();
    BigDecimal sum = all.stream().reduce(BigDecimal.ZERO, BigDecimal::add);
    if (!all.isEmpty() && sum.compareTo(ALL) != 0) {
      String n = sum.toPlainString();
      r.add(Check.WEIGHTS, Subject.own(Kind.GRADE_CATEGORY, n), n, all.size() + " categories");
    }
  }
}
