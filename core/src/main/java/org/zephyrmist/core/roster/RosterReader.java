package org.zephyrmist.core.roster;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.zephyrmist.core.roster.BundleManifest.Mode;
import org.zephyrmist.core.roster.Roster.Teaching;

/**
 * Reads a bundle (OneRoster 1.1 CSV Tables; 1.2 Rostering CSV Binding), a ZIP of CSV files, as a
 * stream: of millions of students no row is kept.
 */
public final class RosterReader {
  /** Files of the standard that tell nothing that is needed here. */
  private static final Set<String> NOT_USED =
      Set.of(
          "categories.csv",
          "classresources.csv",
          "courseresources.csv",
          "demographics.csv",
          "lineitems.csv",
          "lineitemscoresids.csv",
          "lineitemlearningobjectiveids.csv",
          "resources.csv",
          "results.csv",
          "resultlearningobjectiveids.csv",
          "resultscoreids.csv",
          "scorescales.csv",
          "userprofiles.csv",
          "userresources.csv");

  private final CsvBundle bundle;
  private final Present present;
  private final Remarks remarks = new Remarks();
  private final BundleManifest manifest;

  private RosterReader(CsvBundle bundle, Present present) throws RosterException, IOException {
    this.bundle = bundle;
    this.present = present;
    this.manifest = BundleManifest.read(bundle, remarks);
  }

  /**
   * @param present what rows of a bundle of changes may refer to besides the bundle itself
   * @throws RosterException if it is not a ZIP of CSV files as the standard has them
   */
  public static Roster read(Path zip, Present present) throws RosterException, IOException {
    try (CsvBundle bundle = CsvBundle.open(zip)) {
      return new RosterReader(bundle, present).read();
    } catch (Table.TooMany e) {
      throw new RosterException(e.getMessage(), "Send it term by term.");
    }
  }

  /** A class as it stands in its file, with the sessions it names. */
  private record ClassRow(Roster.Section section, List<String> sessions) {}

  private Roster read() throws RosterException, IOException {
    Orgs orgs = new Orgs(table(Columns.ORGS, true, Orgs::read));
    Table<Sessions.Session> sessionRows = table(Columns.SESSIONS, true, Sessions::read);
    Table<Roster.Course> courses = table(Columns.COURSES, true, RosterReader::course);
    Table<ClassRow> classes = table(Columns.CLASSES, true, RosterReader::classRow);
    orgs.others(remarks);
    withoutDepartment(courses, with(present.programs().keySet(), orgs.programIds()));
    Sessions sessions = new Sessions(sessionRows, present.terms().keySet());
    List<Roster.Section> sections =
        sections(
            classes,
            with(present.courses().keySet(), courses.ids()),
            with(present.campuses().keySet(), orgs.campusIds()),
            sessions);
    Set<String> sectionIds =
        new HashSet<>(classes.mode() == Mode.DELTA ? present.sections().keySet() : Set.of());
    sections.forEach(s -> sectionIds.add(s.id()));
    Enrollments enrollments = new Enrollments(bundle, manifest, sectionIds, remarks);
    Set<String> wanted = with(present.people().keySet(), enrollments.teachers());
    Set<String> disabled = new HashSet<>();
    Table<Roster.Person> people =
        Table.read(
            bundle, manifest, Columns.USERS, false, remarks, r -> person(r, wanted, disabled));
    Roles.check(bundle, manifest, enrollments.teachers(), remarks);
    deletedButKept(orgs.table(), Columns.ORGS);
    deletedButKept(sessionRows, Columns.SESSIONS);
    deletedButKept(courses, Columns.COURSES);
    deletedButKept(people, Columns.USERS);
    notUsed();
    Set<String> gone = new TreeSet<>();
    classes.deleted().forEach(l -> gone.add(l.id()));
    Set<Teaching> ended = new HashSet<>();
    enrollments.table().deleted().forEach(l -> ended.add(l.row()));
    return new Roster(
        orgs.programs(),
        orgs.campuses(),
        sessions.terms(),
        courses.rows(),
        sections,
        people.rows(),
        teaching(enrollments.table(), people, disabled),
        enrollments.students(),
        parts(classes, sections, sessions),
        new Roster.Gone(
            classes.mode() == Mode.BULK, enrollments.table().mode() == Mode.BULK, gone, ended),
        remarks.list());
  }

  private interface RowReader<T> {
    T read(CsvBundle.Row row);
  }

  private <T> Table<T> table(Columns columns, boolean required, RowReader<T> read)
      throws RosterException, IOException {
    return Table.read(bundle, manifest, columns, required, remarks, r -> Optional.of(read.read(r)));
  }

  private static Set<String> with(Set<String> known, Set<String> here) {
    Set<String> all = new HashSet<>(known);
    all.addAll(here);
    return all;
  }

  private void withoutDepartment(Table<Roster.Course> courses, Set<String> departments) {
    for (Table.Line<Roster.Course> l : courses.lines()) {
      if (!departments.contains(l.row().program())) {
        remarks.add(
            Columns.COURSES.file(),
            l.at(),
            l.id(),
            "Course " + l.row().code() + " names no department.",
            "It is put under “Whole college”; name one in orgSourcedId.");
      }
    }
  }

  /** Only sections and teaching end; the rest may still stand behind sections of the past. */
  private void deletedButKept(Table<?> table, Columns columns) {
    table
        .deleted()
        .forEach(
            l ->
                remarks.add(
                    columns.file(),
                    l.at(),
                    l.id(),
                    "The row is to be deleted.",
                    "It was left out; what is here of it stays."));
  }

  private void notUsed() {
    Set<String> here = new TreeSet<>();
    bundle.names().stream()
        .filter(n -> NOT_USED.contains(n.toLowerCase(Locale.ROOT)))
        .forEach(here::add);
    if (!here.isEmpty()) {
      remarks.file(
          String.join(", ", here),
          "Nothing of this is needed here.",
          "It was left out: results, line items and demographics stay where they are.");
    }
  }

  private List<Roster.Section> sections(
      Table<ClassRow> classes, Set<String> courses, Set<String> campuses, Sessions sessions) {
    List<Roster.Section> all = new ArrayList<>();
    for (Table.Line<ClassRow> l : classes.lines()) {
      Roster.Section s = l.row().section();
      if (!courses.contains(s.course())) {
        unknown(Columns.CLASSES, l, "course " + s.course());
      } else if (!campuses.contains(s.campus())) {
        unknown(Columns.CLASSES, l, "school " + s.campus());
      } else {
        all.add(
            new Roster.Section(
                s.id(), s.title(), s.code(), s.course(), s.campus(), term(l, sessions)));
      }
    }
    return List.copyOf(all);
  }

  private static Map<String, Roster.Part> parts(
      Table<ClassRow> classes, List<Roster.Section> sections, Sessions sessions) {
    Set<String> taken = new HashSet<>();
    sections.forEach(s -> taken.add(s.id()));
    Map<String, Roster.Part> all = new TreeMap<>();
    for (Table.Line<ClassRow> l : classes.lines()) {
      if (taken.contains(l.row().section().id())) {
        sessions.part(l.row().sessions()).ifPresent(p -> all.put(l.row().section().id(), p));
      }
    }
    return all;
  }

  /** A class may meet in several sessions; it is shown in the first that is part of a term. */
  private Optional<String> term(Table.Line<ClassRow> l, Sessions sessions) {
    List<String> named = l.row().sessions();
    List<String> terms = named.stream().flatMap(s -> sessions.term(s).stream()).distinct().toList();
    String file = Columns.CLASSES.file();
    if (terms.isEmpty()) {
      String why =
          named.isEmpty()
              ? "The class names no academic session."
              : sessions.isKnown(named.get(0))
                  ? "The class names academic session " + named.get(0) + ", which is no term."
                  : "The class names academic session "
                      + named.get(0)
                      + ", which nothing explains.";
      remarks.add(
          file,
          l.at(),
          l.id(),
          why,
          "It was taken in without a term; name one in termSourcedIds and take it in again.");
      return Optional.empty();
    }
    if (terms.size() > 1) {
      remarks.add(
          file,
          l.at(),
          l.id(),
          "The class names " + terms.size() + " terms.",
          "It was put into " + terms.get(0) + ".");
    }
    return Optional.of(terms.get(0));
  }

  /** Who is disabled does not teach. */
  private List<Teaching> teaching(
      Table<Teaching> table, Table<Roster.Person> people, Set<String> disabled) {
    Set<String> known = with(present.people().keySet(), people.ids());
    Map<String, Teaching> all = new TreeMap<>();
    for (Table.Line<Teaching> l : table.lines()) {
      Teaching t = l.row();
      if (disabled.contains(t.person())) {
        remarks.add(
            Columns.ENROLLMENTS.file(),
            l.at(),
            l.id(),
            "User " + t.person() + " is disabled, so teaches nothing.",
            "The row was left out; enable the user, or name another teacher.");
      } else if (!known.contains(t.person())) {
        unknown(Columns.ENROLLMENTS, l, "user " + t.person());
      } else {
        all.merge(t.section() + "\n" + t.person(), t, (x, y) -> x.primary() ? x : y);
      }
    }
    return List.copyOf(all.values());
  }

  private void unknown(Columns columns, Table.Line<?> l, String what) {
    remarks.add(
        columns.file(),
        l.at(),
        l.id(),
        "The row names " + what + ", which the bundle does not hold.",
        "The row was left out; export the bundle again with that record in it.");
  }

  private static Roster.Course course(CsvBundle.Row r) {
    return new Roster.Course(
        r.required("sourcedId"),
        r.first("courseCode", "sourcedId"),
        r.required("title"),
        r.text("orgSourcedId"));
  }

  private static ClassRow classRow(CsvBundle.Row r) {
    List<String> sessions =
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
        sessions);
  }

  /** Of millions of users only those who teach. */
  private static Optional<Roster.Person> person(
      CsvBundle.Row r, Set<String> wanted, Set<String> disabled) {
    String id = r.required("sourcedId");
    if (!wanted.contains(id)) {
      return Optional.empty();
    }
    if (r.text("enabledUser").equalsIgnoreCase("false")) {
      disabled.add(id);
    }
    return Optional.of(
        new Roster.Person(
            id,
            r.required("givenName") + " " + r.required("familyName"),
            r.text("email").toLowerCase(Locale.ROOT),
            r.line()));
  }
}
