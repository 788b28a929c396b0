package org.zephyrmist.core.check;

import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.check.CheckedShell.Item;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.edit.Subject;

/** Is it all there: missing, different, doubled, surplus, empty, in another order. */
final class WhatIsThere {
  private static final Set<Aspect> SAID =
      EnumSet.of(Aspect.WORDING, Aspect.LAUNCH, Aspect.VISIBILITY);

  private WhatIsThere() {}

  static void look(ShellChecks.Round r) {
    for (CheckedShell.Arrival a : r.shell.masters()) {
      Subject master = Subject.master(a.master());
      if (a.held().isEmpty()) {
        r.add(Check.NOT_ARRIVED, master, a.code(), "");
      } else if (a.expected().filter(e -> e > a.held().get()).isPresent()) {
        String what = "It holds version " + a.held().get() + " of " + a.expected().get() + ".";
        r.add(Check.BEHIND, master, a.code(), what);
      }
    }
    if (!r.shell.unread().isEmpty()) { // one line for the shell, whatever it is and how many
      r.add(Check.UNREADABLE, Subject.SHELL, "", String.join(" ", r.shell.unread()));
    }
    for (CheckedShell.Lack l : r.shell.lacks()) {
      String how = l.removed() ? "It was taken out of the shell." : "It never came.";
      r.add(Check.MISSING, Subject.of(l.given()), l.title(), how);
    }
    Set<String> parents =
        r.shell.items().stream()
            .flatMap(i -> i.held().parent().stream())
            .collect(Collectors.toSet());
    Map<String, List<Item>> delivered =
        r.shell.items().stream()
            .filter(i -> i.meant().isPresent())
            .collect(Collectors.groupingBy(WhatIsThere::called));
    for (Item i : r.shell.items()) {
      i.meant().ifPresent(m -> ofMaster(r, i, m));
      if (i.given().isEmpty() && doubled(i, delivered.getOrDefault(called(i), List.of()))) {
        r.add(Check.DOUBLED, i, "The one that nobody delivered can go.");
      }
      indented(r, i);
      if (i.held().kind() == Kind.MODULE && !parents.contains(i.held().id())) {
        r.add(Check.EMPTY_MODULE, i, "");
      }
    }
  }

  /** What came so from its master is left to it. */
  private static void indented(ShellChecks.Round r, Item i) {
    boolean theirs = i.meant().map(m -> m.own().contains(Aspect.WORDING)).orElse(true);
    String title = i.held().title();
    String plain = Titles.unindented(title);
    if (theirs && !plain.equals(title)) {
      r.add(Check.INDENTED, i, "“" + plain + "” says the same.");
    }
  }

  private static void ofMaster(ShellChecks.Round r, Item i, CheckedShell.Meant m) {
    Set<Aspect> changed = new HashSet<>(m.own());
    changed.retainAll(SAID);
    if (m.rule() == EditRule.FIXED && !changed.isEmpty()) {
      String what =
          changed.stream()
              .sorted()
              .map(a -> a.name().toLowerCase(java.util.Locale.ROOT))
              .collect(Collectors.joining(", "));
      r.add(Check.DIFFERENT, i, "Changed: " + what + ".");
    }
    if (!m.inVersion()) {
      r.add(Check.SURPLUS, i, i.held().studentWork() ? "Students have handed in work on it." : "");
    } else if (m.own().contains(Aspect.PLACE)) {
      r.add(Check.ORDER, i, "");
    }
  }

  private static String called(Item i) {
    return i.held().kind() + " " + Titles.folded(i.held().title());
  }

  /** Items of one title are usual; a copy stands in the same place, or says the same. */
  private static boolean doubled(Item own, List<Item> delivered) {
    return own.held().kind() != Kind.SETUP
        && delivered.stream()
            .anyMatch(
                d ->
                    d.held().parent().equals(own.held().parent())
                        || d.held()
                            .aspects()
                            .get(Aspect.WORDING)
                            .equals(own.held().aspects().get(Aspect.WORDING)));
  }
}
