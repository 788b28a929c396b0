package org.zephyrmist.core.roster;

import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.zephyrmist.core.roster.Roster.Remark;

/** Reads a bundle (OneRoster 1.1 CSV tables; 1.2 CSV Binding), a ZIP of CSV files. */
public final class RosterReader {
  private final CsvBundle bundle;
  private final List<Remark> remarks = new ArrayList<>();

  private RosterReader(CsvBundle bundle) {
    this.bundle = bundle;
  }

  /**
   * @throws RosterException if it is not a ZIP of CSV files, or classes.csv or courses.csv is
   *     absent
   */
  public static Roster read(Path zip) throws RosterException, IOException {
    try (CsvBundle bundle = CsvBundle.open(zip)) {
      return new RosterReader(bundle).read();
    }
  }

  private Roster read() throws RosterException, IOException {
    List<Roster.Org> orgs = table("orgs.csv", true, RosterReader::org);
    List<Roster.Term> terms = table("academicSessions.csv", true, this::term);
    List<Roster.Course> courses = table("courses.csv", true, RosterReader::course);
    List<Roster.Section> sections = table("classes.csv", true, RosterReader::section);
    List<Roster.Person> people = table("users.csv", false, RosterReader::person);
    List<Roster.Enrollment> enrollments = table("enrollments.csv", false, RosterReader::enrollment);
    Set<String> courseIds = ids(courses, Roster.Course::id);
    Set<String> schoolIds = ids(orgs, Roster.Org::id);
    List<Roster.Section> known = new ArrayList<>();
    for (Roster.Section s : sections) {
      if (!courseIds.contains(s.course())) {
        unknown("classes.csv", s.id(), "course " + s.course());
      } else if (!schoolIds.contains(s.school())) {
        unknown("classes.csv", s.id(), "school " + s.school());
      } else {
        known.add(s);
      }
    }
    Set<String> sectionIds = ids(known, Roster.Section::id);
    Set<String> personIds = ids(people, Roster.Person::id);
    List<Roster.Enrollment> tied = new ArrayList<>();
    for (Roster.Enrollment e : enrollments) {
      if (!sectionIds.contains(e.section())) {
        unknown("enrollments.csv", e.person(), "class " + e.section());
      } else if (!personIds.contains(e.person())) {
        unknown("enrollments.csv", e.person(), "user " + e.person());
      } else {
        tied.add(e);
      }
    }
    return new Roster(orgs, terms, courses, known, people, tied, List.copyOf(remarks));
  }

  private void unknown(String file, String row, String what) {
    remarks.add(
        new Remark(
            file,
            0,
            "Row " + row + " names " + what + ", which the bundle does not hold.",
            "The row was left out; export the bundle again with that record in it."));
  }

  private static <T> Set<String> ids(List<T> rows, Function<T, String> id) {
    Set<String> all = new HashSet<>();
    rows.forEach(r -> all.add(id.apply(r)));
    return all;
  }

  /** Reads the rows of one file; a row that cannot be read is remarked and left out. */
  private <T> List<T> table(String file, boolean required, Function<CsvBundle.Row, T> read)
      throws RosterException, IOException {
    List<T> rows = new ArrayList<>();
    Set<String> seen = new HashSet<>();
    boolean present =
        bundle.rows(
            file,
            row -> {
              try {
                if (row.text("status").equalsIgnoreCase("tobedeleted")) {
                  return;
                }
                String id = row.required("sourcedId");
                if (!seen.add(id)) {
                  throw new CsvBundle.BadRow("sourcedId " + id + " stands here twice.");
                }
                rows.add(read.apply(row));
              } catch (CsvBundle.BadRow e) {
                remarks.add(
                    new Remark(
                        file,
                        row.line(),
                        e.getMessage(),
                        "The row was left out; mend it and take the bundle in again."));
              }
            });
    if (!present && required) {
      throw new RosterException(
          "The bundle has no " + file + ".",
          "Export orgs, academicSessions, courses and classes too.");
    }
    return rows;
  }

  private static Roster.Org org(CsvBundle.Row r) {
    return new Roster.Org(
        r.required("sourcedId"), r.required("name"), r.required("type"), r.text("identifier"));
  }

  private Roster.Term term(CsvBundle.Row r) {
    LocalDate first = date(r, "startDate");
    LocalDate last = date(r, "endDate");
    if (last.isBefore(first)) {
      throw new CsvBundle.BadRow("endDate is before startDate.");
    }
    return new Roster.Term(r.required("sourcedId"), r.required("title"), first, last);
  }

  private static Roster.Course course(CsvBundle.Row r) {
    return new Roster.Course(
        r.required("sourcedId"),
        r.first("courseCode", "sourcedId"),
        r.required("title"),
        r.text("orgSourcedId"));
  }

  private static Roster.Section section(CsvBundle.Row r) {
    Optional<String> term =
        List.of(r.text("termSourcedIds").split(",")).stream()
            .map(String::strip)
            .filter(t -> !t.isEmpty())
            .findFirst();
    return new Roster.Section(
        r.required("sourcedId"),
        r.required("title"),
        r.first("classCode", "sourcedId"),
        r.required("courseSourcedId"),
        r.required("schoolSourcedId"),
        term);
  }

  private static Roster.Person person(CsvBundle.Row r) {
    return new Roster.Person(
        r.required("sourcedId"),
        r.required("givenName"),
        r.required("familyName"),
        r.text("email"),
        r.text("role"));
  }

  private static Roster.Enrollment enrollment(CsvBundle.Row r) {
    return new Roster.Enrollment(
        r.required("classSourcedId"), r.required("userSourcedId"), r.required("role"));
  }

  private static LocalDate date(CsvBundle.Row r, String column) {
    try {
      return LocalDate.parse(r.required(column));
    } catch (DateTimeParseException e) {
      throw new CsvBundle.BadRow(column + " is not a date like 2026-08-24: " + r.text(column));
    }
  }
}
