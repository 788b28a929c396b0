package org.zephyrmist.core.check;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.calendar.CountedDays;
import org.zephyrmist.core.calendar.Remark;
import org.zephyrmist.core.check.CheckedShell.Item;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.edit.Subject;

/** External tools, and dates against the section's calendar. */
final class ToolsAndDates {
  private ToolsAndDates() {}

  static void look(ShellChecks.Round r) {
    for (CheckedShell.ToolTrouble t : r.shell.tools()) {
      check(t).ifPresent(c -> r.add(c, Subject.own(Kind.TOOL_LINK, t.host()), t.name(), ""));
    }
    for (Item i : r.shell.items()) {
      order(r, i);
      byPattern(r, i);
      r.shell.days().ifPresent(d -> inTerm(r, i, d));
      i.meant()
          .filter(m -> m.own().contains(Aspect.TIMING))
          .filter(m -> m.timing().due().isPresent() && i.timing().due().isEmpty())
          .ifPresent(
              m -> r.add(Check.DATE_LOST, i, "It was due " + day(m.timing().due().get()) + "."));
    }
    together(r);
  }

  /** Once for each item, the first of its remarks; other checks look at where its dates are. */
  private static void byPattern(ShellChecks.Round r, Item i) {
    i.meant()
        .filter(m -> !m.own().contains(Aspect.TIMING))
        .flatMap(m -> m.remarks().stream().filter(x -> check(x.kind()).isPresent()).findFirst())
        .ifPresent(x -> r.add(check(x.kind()).orElseThrow(), i, evidence(x.kind())));
  }

  private static Optional<Check> check(Remark.Kind k) {
    return switch (k) {
      case NO_MEETINGS, NOTHING_TO_FOLLOW, CIRCLE -> Optional.of(Check.NO_DATE);
      case NO_SUCH_DAY, AFTER_END, TOO_FEW_MEETINGS, NO_FINALS, IN_ORDER ->
          Optional.of(Check.OTHER_DATE);
      case MOVED_OFF_DAY, ON_DAY_OFF, OUTSIDE, TWO_ON_ONE_DAY -> Optional.empty();
    };
  }

  private static String evidence(Remark.Kind k) {
    return switch (k) {
      case NO_MEETINGS -> "It goes by meetings, and when the section meets is not known.";
      case NOTHING_TO_FOLLOW -> "It follows the date of an item that has none.";
      case CIRCLE -> "Its dates follow each other in a circle.";
      case NO_SUCH_DAY -> "Its week has no such day in this term; the nearest is taken.";
      case AFTER_END -> "It leads beyond the end; the last teaching day is taken.";
      case TOO_FEW_MEETINGS -> "The section does not meet so often; its last meeting is taken.";
      case NO_FINALS -> "It goes by finals, and the calendar has none; the last day is taken.";
      case IN_ORDER -> "It was moved so that it opens, then is due, then closes.";
      case MOVED_OFF_DAY, ON_DAY_OFF, OUTSIDE, TWO_ON_ONE_DAY -> "";
    };
  }

  private static Optional<Check> check(CheckedShell.ToolTrouble t) {
    return switch (t.standing()) {
      case NOT_CONNECTED -> Optional.of(Check.NOT_CONNECTED);
      case TIED_WRONGLY -> Optional.of(Check.TIED_WRONGLY);
      case WAITS -> Optional.of(Check.TOOL_WAITS);
      case NOT_OPENED -> Optional.of(Check.NOT_OPENED);
      case WORKS -> Optional.empty();
    };
  }

  private static void order(ShellChecks.Round r, Item i) {
    LocalDateTime last = LocalDateTime.MIN;
    for (Point p : Point.values()) {
      Optional<LocalDateTime> at = i.timing().at(p);
      if (at.isPresent() && at.get().isBefore(last)) {
        r.add(
            Check.DISORDER, i, p.word() + " " + day(at.get()) + ", before that " + day(last) + ".");
        return;
      }
      last = at.orElse(last);
    }
  }

  /** Something may open before the term; it is neither due nor closed then. */
  private static void inTerm(ShellChecks.Round r, Item i, CountedDays days) {
    LocalDate end = days.calendar().end();
    LocalDate first = days.calendar().teaching().first();
    for (Point p : Point.values()) {
      Optional<LocalDate> at = i.timing().at(p).map(LocalDateTime::toLocalDate);
      boolean early = p != Point.OPENS && at.filter(d -> d.isBefore(first)).isPresent();
      if (early || at.filter(d -> d.isAfter(end)).isPresent()) {
        String bound = early ? "the term begins " + first : "the term ends " + end;
        r.add(Check.OUTSIDE_TERM, i, p.word() + " " + at.get() + "; " + bound + ".");
        return;
      }
    }
    i.timing()
        .due()
        .map(LocalDateTime::toLocalDate)
        .flatMap(days.calendar()::off)
        .ifPresent(
            o -> r.add(Check.ON_DAY_OFF, i, day(i.timing().due().get()) + ", " + o.name() + "."));
  }

  /** Told once for the later of them. */
  private static void together(ShellChecks.Round r) {
    Map<LocalDate, List<Item>> byDay = new HashMap<>();
    for (Item i : r.shell.items()) {
      boolean counts = i.grading().points().filter(p -> p.signum() > 0).isPresent();
      i.timing()
          .due()
          .filter(d -> counts && i.meant().isPresent())
          .ifPresent(d -> byDay.computeIfAbsent(d.toLocalDate(), k -> new ArrayList<>()).add(i));
    }
    byDay.forEach(
        (day, all) -> {
          for (int n = 1; n < all.size(); n++) {
            Item i = all.get(n);
            Item before = all.get(n - 1);
            if (!meant(i).equals(meant(before))) {
              r.add(Check.DUE_TOGETHER, i, "With “" + before.held().title() + "”, on " + day + ".");
            }
          }
        });
  }

  private static Optional<LocalDate> meant(Item i) {
    return i.meant().flatMap(m -> m.timing().due()).map(LocalDateTime::toLocalDate);
  }

  private static String day(LocalDateTime at) {
    return at.toLocalDate().toString();
  }
}
