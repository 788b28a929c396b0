package org.zephyrmist.core.check;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.zephyrmist.core.check.CheckedShell.Item;
import org.zephyrmist.core.check.CheckedShell.Meant;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Kind;

/** What students would meet in a shell. */
final class StudentsView {
  /** Titles of what only those who grade are to see. */
  private static final Pattern FOR_GRADERS =
      Pattern.compile(
          "\\b(answer keys?|test banks?|solutions? manual|instructor'?s? (guide|manual|notes?|only))\\b",
          Pattern.CASE_INSENSITIVE);

  private static final Pattern MAIL =
      Pattern.compile("([A-Za-z0-9._%+-]{1,64})@([A-Za-z0-9.-]{1,255})");

  private StudentsView() {}

  static void look(ShellChecks.Round r) {
    for (Item i : r.shell.items()) {
      if (i.seen()) {
        text(r, i);
        graders(r, i);
      }
      conditions(r, i);
      i.meant().ifPresent(m -> ofMaster(r, i, m));
    }
  }

  private static void text(ShellChecks.Round r, Item i) {
    i.text().note().ifPresent(n -> r.add(Check.BUILDER_NOTE, i, n));
    i.text()
        .perhaps()
        .filter(n -> i.meant().stream().flatMap(m -> m.blanks().stream()).noneMatch(n::contains))
        .ifPresent(n -> r.add(Check.PERHAPS_NOTE, i, n));
    long dead = i.text().addresses().stream().filter(a -> FrontAndMenu.nowhere(r, i, a)).count();
    if (dead > 0) {
      r.add(Check.DEAD_LINK, i, dead == 1 ? "1 link" : dead + " links");
    }
    stranger(r, i).ifPresent(w -> r.add(Check.OLD_WORDS, i, w));
  }

  /** Whom a master names is named on purpose; of terms nobody does. */
  private static Optional<String> stranger(ShellChecks.Round r, Item i) {
    String text = i.text().plain();
    String delivered = i.meant().map(m -> m.text().plain()).orElse("");
    for (String t : r.shell.strangers().terms()) {
      if (text.contains(t)) {
        return Optional.of(t);
      }
    }
    if (text.indexOf('@') < 0) {
      return Optional.empty();
    }
    Matcher m = MAIL.matcher(text);
    while (m.find()) {
      String host = r.shell.strangers().mails().get(m.group(1).toLowerCase(java.util.Locale.ROOT));
      if (host != null
          && !delivered.contains(m.group())
          && m.group(2).toLowerCase(java.util.Locale.ROOT).startsWith(host)) {
        return Optional.of(m.group(1) + "@" + host);
      }
    }
    return Optional.empty();
  }

  private static void graders(ShellChecks.Round r, Item i) {
    boolean meant = i.meant().filter(m -> m.visibility().instructorsOnly()).isPresent();
    boolean named =
        i.meant().isEmpty()
            && i.held().kind() != Kind.MODULE
            && FOR_GRADERS.matcher(i.held().title()).find();
    if (meant || named) {
      r.add(
          Check.INSTRUCTORS_IN_VIEW,
          i,
          meant ? "Its master has it for instructors only." : "Its title says so.");
    }
  }

  private static void conditions(ShellChecks.Round r, Item i) {
    List<Condition> lost =
        i.visibility().conditions().stream()
            .filter(c -> c.item().filter(n -> !r.here(i, n)).isPresent())
            .toList();
    if (!lost.isEmpty()) {
      r.add(
          Check.BROKEN_CONDITION,
          i,
          lost.size() == 1 ? "1 condition" : lost.size() + " conditions");
    }
  }

  private static void ofMaster(ShellChecks.Round r, Item i, Meant m) {
    LocalDateTime now = r.shell.now();
    String plain = i.text().plain();
    if (i.seen()) {
      String open = m.blanks().stream().filter(plain::contains).collect(Collectors.joining(", "));
      if (!open.isEmpty()) {
        r.add(Check.BLANK, i, open);
      }
      long lost = m.text().frames().stream().filter(f -> !i.text().frames().contains(f)).count();
      if (lost > 0 && !linked(i, m)) {
        r.add(Check.LOST_FRAME, i, lost == 1 ? "1 frame" : lost + " frames");
      }
      early(i, m, now).ifPresent(e -> r.add(Check.TOO_EARLY, i, e));
    } else if (m.visibility().shown()
        && !i.visibility().shown()
        && !i.visibility().instructorsOnly()) {
      i.timing()
          .opens()
          .or(() -> i.timing().due())
          .filter(now::isAfter)
          .ifPresent(d -> r.add(Check.HIDDEN_PAST, i, "Its day was " + d.toLocalDate() + "."));
    }
  }

  /** A frame of a host that is not approved goes out as a link, so that is as it was meant. */
  private static boolean linked(Item i, Meant m) {
    return m.text().frames().stream()
        .filter(f -> !i.text().frames().contains(f))
        .allMatch(i.text().addresses()::contains);
  }

  private static Optional<String> early(Item i, Meant m, LocalDateTime now) {
    if (!m.visibility().shown()) {
      return Optional.of("It was delivered hidden.");
    }
    Optional<LocalDateTime> meant = m.timing().opens().filter(now::isBefore);
    boolean sooner =
        meant.filter(o -> i.timing().opens().filter(h -> !h.isBefore(o)).isEmpty()).isPresent();
    return sooner ? meant.map(o -> "It was to open on " + o.toLocalDate() + ".") : Optional.empty();
  }
}
