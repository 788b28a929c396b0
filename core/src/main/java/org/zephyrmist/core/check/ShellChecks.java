package org.zephyrmist.core.check;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.zephyrmist.core.edit.Given;
import org.zephyrmist.core.edit.ShellNames;
import org.zephyrmist.core.edit.Subject;

/** All checks of one shell. */
public final class ShellChecks {
  private ShellChecks() {}

  /** What is looked at, with what was found so far. */
  static final class Round {
    final CheckedShell shell;
    final ShellNames names;
    final Map<String, CheckedShell.Item> byId = new HashMap<>();
    private final List<ShellFinding> found = new ArrayList<>();

    Round(CheckedShell shell) {
      this.shell = shell;
      Map<String, List<Given>> given = new HashMap<>();
      for (CheckedShell.Item i : shell.items()) {
        byId.put(i.held().id(), i);
        given.put(i.held().id(), i.given());
      }
      this.names = new ShellNames(given);
    }

    void add(Check check, CheckedShell.Item i, String evidence) {
      found.add(
          new ShellFinding(
              check, i.subject(), i.held().title(), evidence, Optional.of(i.held().id())));
    }

    void add(Check check, Subject about, String title, String evidence) {
      found.add(new ShellFinding(check, about, title, evidence, Optional.empty()));
    }

    boolean here(CheckedShell.Item from, String name) {
      return names.id(from.given(), name).isPresent();
    }
  }

  /**
   * What does not hold, in the order of the checks.
   *
   * @param on checks that the college looks at
   */
  public static List<ShellFinding> of(CheckedShell shell, Predicate<Check> on) {
    Round r = new Round(shell);
    WhatIsThere.look(r);
    FrontAndMenu.look(r);
    TasksAndGrades.look(r);
    ToolsAndDates.look(r);
    StudentsView.look(r);
    List<ShellFinding> all =
        new ArrayList<>(once(r.found).stream().filter(f -> on.test(f.check())).toList());
    open(shell, all, on);
    all.sort(Comparator.comparing(ShellFinding::check));
    return List.copyOf(all);
  }

  /** A check finds an item once, whatever speaks for it. */
  private static Collection<ShellFinding> once(List<ShellFinding> found) {
    Map<String, ShellFinding> all = new LinkedHashMap<>();
    found.forEach(
        f -> all.putIfAbsent(f.check() + " " + f.about().text() + " " + f.item().orElse(""), f));
    return all.values();
  }

  /** Whether students can enter, and whether they should. */
  private static void open(CheckedShell shell, List<ShellFinding> all, Predicate<Check> on) {
    if (shell.open().isEmpty()) {
      return;
    }
    boolean open = shell.open().get().on(shell.now().toLocalDate());
    long harm = all.stream().filter(f -> f.check().weight() == Weight.HARM).count();
    boolean begun =
        shell
            .days()
            .filter(d -> !shell.now().toLocalDate().isAfter(d.calendar().end()))
            .isPresent();
    if (!open && begun && on.test(Check.CLOSED)) {
      String when =
          shell.open().get().opens().map(d -> "It opens on " + d + ".").orElse("It was closed.");
      all.add(new ShellFinding(Check.CLOSED, Subject.SHELL, "", when, Optional.empty()));
    }
    if (open && harm > 0 && on.test(Check.OPEN_NOT_READY)) {
      String what = harm == 1 ? "1 finding" : harm + " findings";
      all.add(new ShellFinding(Check.OPEN_NOT_READY, Subject.SHELL, "", what, Optional.empty()));
    }
  }
}
