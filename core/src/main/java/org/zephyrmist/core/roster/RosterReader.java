package org.zephyrmist.core.roster;

import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.zephyrmist.core.roster.CsvBundle.Mode;
import org.zephyrmist.core.roster.Roster.Known;

/** Reads a bundle (OneRoster 1.1 CSV tables; 1.2 CSV Binding), a ZIP of CSV files. */
public final class RosterReader {
  private final CsvBundle bundle;
  private final Known known;
  private final Map<String, Mode> modes;
  private final Remarks remarks = new Remarks();

  private RosterReader(CsvBundle bundle, Known known) throws RosterException, IOException {
    this.bundle = bundle;
    this.known = known;
    this.modes = bundle.modes();
  }

  /**
   * @param known what rows of a bundle of changes may refer to besides the bundle itself
   * @throws RosterException if it is not a ZIP of CSV files in UTF-8, or a file that is listed in
   *     full is absent
   */
  public static Roster read(Path zip, Known known) throws RosterException, IOException {
    try (CsvBundle bundle = CsvBundle.open(zip)) {
      return new RosterReader(bundle, known).read();
    }
  }

  private Roster read() throws RosterException, IOException {
    Table<Roster.Org> orgs = table("orgs.csv", true, RosterReader::org);
    Table<Roster.Term> terms = table("academicSessions.csv", true, RosterReader::term);
    Table<Roster.Course> courses = table("courses.csv", true, RosterReader::course);
    Table<ClassRow> classes = table("classes.csv", true, RosterReader::classRow);
    Table<Roster.Person> people = table("users.csv", false, RosterReader::person);
    Table<Roster.Enrollment> enrollments =
        table("enrollments.csv", false, RosterReader::enrollment);
    deletedButKept("orgs.csv", orgs);
    deletedButKept("academicSessions.csv", terms);
    deletedButKept("courses.csv", courses);
    deletedButKept("users.csv", people);
    Set<String> orgIds = with(known.orgs(), orgs.ids(Roster.Org::id));
    Set<String> termIds = with(known.terms(), terms.ids(Roster.Term::id));
    Set<String> courseIds = with(known.courses(), courses.ids(Roster.Course::id));
    List<Roster.Section> sections = sections(classes, courseIds, orgIds, termIds);
    Set<String> sectionIds = new HashSet<>(classes.delta() ? known.sections() : Set.of());
    sections.forEach(s -> sectionIds.add(s.id()));
    Set<String> gone = new HashSet<>();
    classes.deleted().forEach(l -> gone.add(l.row().section().id()));
    return new Roster(
        orgs.rows(),
        terms.rows(),
        courses.rows(),
        sections,
        people.rows(),
        tied(enrollments, sectionIds, people.ids(Roster.Person::id)),
        new Roster.Gone(
            modes.getOrDefault("classes.csv", Mode.BULK) == Mode.BULK,
            gone,
            enrollments.deleted().stream().map(Table.Line::row).toList()),
        remarks.list());
  }

  private <T> Table<T> table(String file, boolean required, Function<CsvBundle.Row, T> read)
      throws RosterException, IOException {
    Mode mode = modes.getOrDefault(file, Mode.BULK);
    return Table.read(bundle, file, mode, required, remarks, read);
  }

  private static Set<String> with(Set<String> known, Set<String> here) {
    Set<String> all = new HashSet<>(known);
    all.addAll(here);
    return all;
  }

  /** Only sections and enrollments go; the rest may still stand behind sections of the past. */
  private <T> void deletedButKept(String file, Table<T> table) {
    for (Table.Line<T> l : table.deleted()) {
      remarks.add(
          file, l.at(), "The row is to be deleted.", "It was left out; what is here of it stays.");
    }
  }

  /**
   * A class as it stands in its file.
   *
   * @param terms the sessions it names
   */
  private record ClassRow(Roster.Section section, List<String> terms) {}

  private List<Roster.Section> sections(
      Table<ClassRow> classes, Set<String> courses, Set<String> orgs, Set<String> terms) {
    List<Roster.Section> all = new ArrayList<>();
    for (Table.Line<ClassRow> l : classes.lines()) {
      Roster.Section s = l.row().section();
      if (!courses.contains(s.course())) {
        unknown("classes.csv", l.at(), "course " + s.course());
      } else if (!orgs.contains(s.school())) {
        unknown("classes.csv", l.at(), "school " + s.school());
      } else {
        all.add(s.in(term(l, terms)));
      }
    }
    return List.copyOf(all);
  }

  /** A class may meet in several sessions; it is shown in the first that is known. */
  private Optional<String> term(Table.Line<ClassRow> l, Set<String> terms) {
    List<String> named = l.row().terms();
    Optional<String> first = named.stream().filter(terms::contains).findFirst();
    if (first.isEmpty()) {
      remarks.add(
          "classes.csv",
          l.at(),
          named.isEmpty()
              ? "The class names no academic session."
              : "The class names academic session " + named.get(0) + ", which nothing explains.",
          "It was taken in without a term; name one in termSourcedIds and take it in again.");
    } else if (named.size() > 1) {
      remarks.add(
          "classes.csv",
          l.at(),
          "The class names " + named.size() + " academic sessions.",
          "It was put into " + first.get() + ".");
    }
    return first;
  }

  private List<Roster.Enrollment> tied(
      Table<Roster.Enrollment> enrollments, Set<String> sections, Set<String> people) {
    List<Roster.Enrollment> all = new ArrayList<>();
    for (Table.Line<Roster.Enrollment> l : enrollments.lines()) {
      Roster.Enrollment e = l.row();
      if (!sections.contains(e.section())) {
        unknown("enrollments.csv", l.at(), "class " + e.section());
      } else if (!enrollments.delta() && !people.contains(e.person())) {
        unknown("enrollments.csv", l.at(), "user " + e.person());
      } else {
        all.add(e);
      }
    }
    return List.copyOf(all);
  }

  private void unknown(String file, long line, String what) {
    remarks.add(
        file,
        line,
        "The row names " + what + ", which the bundle does not hold.",
        "The row was left out; export the bundle again with that record in it.");
  }

  private static Roster.Org org(CsvBundle.Row r) {
    return new Roster.Org(
        r.required("sourcedId"), r.required("name"), r.required("type"), r.text("identifier"));
  }

  private static Roster.Term term(CsvBundle.Row r) {
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

  private static ClassRow classRow(CsvBundle.Row r) {
    List<String> terms =
        List.of(r.text("termSourcedIds").split(",")).stream()
            .map(String::strip)
            .filter(t -> !t.isEmpty())
            .toList();
    return new ClassRow(
        new Roster.Section(
            r.required("sourcedId"),
            r.required("title"),
            r.first("classCode", "sourcedId"),
            r.required("courseSourcedId"),
            r.required("schoolSourcedId"),
            Optional.empty()),
        terms);
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
