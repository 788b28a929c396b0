package org.zephyrmist.core.roster;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Academic sessions: terms and semesters are terms; a grading period is part of one; a school year
 * holds several, so it is none (OneRoster 1.1, 4.13.9 SessionType).
 */
final class Sessions {
  /** A session of any kind. */
  record Session(
      String id, String title, String type, String parent, LocalDate first, LocalDate last) {
    boolean isTerm() {
      return type.equals("term") || type.equals("semester");
    }
  }

  private final Map<String, Session> all = new HashMap<>();
  private final Set<String> known;

  Sessions(Table<Session> table, Set<String> known) {
    table.lines().forEach(l -> all.put(l.id(), l.row()));
    this.known = known;
  }

  static Session read(CsvBundle.Row r) {
    LocalDate first = date(r, "startDate");
    LocalDate last = date(r, "endDate");
    if (last.isBefore(first)) {
      throw new CsvBundle.BadRow("endDate is before startDate.");
    }
    return new Session(
        r.required("sourcedId"),
        r.required("title"),
        r.required("type").toLowerCase(Locale.ROOT),
        r.text("parentSourcedId"),
        first,
        last);
  }

  private static LocalDate date(CsvBundle.Row r, String column) {
    String text = r.required(column);
    try {
      LocalDate day = LocalDate.parse(text);
      if (day.getYear() >= 1900 && day.getYear() <= 2200) {
        return day;
      }
    } catch (DateTimeParseException e) {
      // told below
    }
    throw new CsvBundle.BadRow(column + " is not a date like 2026-08-24: " + text);
  }

  List<Roster.Term> terms() {
    List<Roster.Term> terms = new ArrayList<>();
    all.values().stream()
        .filter(Session::isTerm)
        .forEach(s -> terms.add(new Roster.Term(s.id(), s.title(), s.first(), s.last())));
    terms.sort((x, y) -> x.id().compareTo(y.id()));
    return terms;
  }

  boolean isKnown(String session) {
    return all.containsKey(session) || known.contains(session);
  }

  /** The term that a session is or is part of. */
  Optional<String> term(String session) {
    Set<String> seen = new HashSet<>();
    String at = session;
    while (seen.add(at)) {
      Session s = all.get(at);
      if (s == null) {
        return known.contains(at) ? Optional.of(at) : Optional.empty();
      }
      if (s.isTerm()) {
        return Optional.of(at);
      }
      at = s.parent();
    }
    return Optional.empty();
  }

  /** The part of its term that a class is taught in, if all sessions that it names are one part. */
  Optional<Roster.Part> part(List<String> named) {
    List<String> once = named.stream().distinct().toList();
    Session s = once.size() == 1 ? all.get(once.get(0)) : null;
    return s == null || s.isTerm()
        ? Optional.empty()
        : term(s.id()).map(t -> new Roster.Part(t, s.title(), s.first(), s.last()));
  }
}
