package org.zephyrmist.core.roster;

import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.roster.BundleManifest.Mode;
import org.zephyrmist.core.roster.Roster.Teaching;

/** Who teaches what, and how many learn it. Rows of students are counted and not kept. */
final class Enrollments {
  private final Map<String, Integer> students = new HashMap<>();
  private final Set<String> teachers = new HashSet<>();
  private final Table<Teaching> table;

  Enrollments(CsvBundle bundle, BundleManifest manifest, Set<String> sections, Remarks remarks)
      throws RosterException, IOException {
    table =
        Table.read(
            bundle, manifest, Columns.ENROLLMENTS, false, remarks, r -> row(r, sections, remarks));
  }

  private Optional<Teaching> row(CsvBundle.Row r, Set<String> sections, Remarks remarks) {
    String section = r.required("classSourcedId");
    String role = r.required("role");
    boolean teaches = role.equalsIgnoreCase("teacher");
    if (!sections.contains(section)) {
      if (teaches) {
        remarks.add(
            Columns.ENROLLMENTS.file(),
            r.line(),
            r.text("sourcedId"),
            "The row names class " + section + ", which the bundle does not hold.",
            "The row was left out; export the bundle again with that record in it.");
      }
      return Optional.empty();
    }
    if (role.equalsIgnoreCase("student") && !r.isDeleted()) {
      students.merge(section, 1, Integer::sum);
    }
    if (!teaches) {
      return Optional.empty();
    }
    String person = r.required("userSourcedId");
    teachers.add(person);
    return Optional.of(new Teaching(section, person, r.text("primary").equalsIgnoreCase("true")));
  }

  /** Everybody who is named as a teacher. */
  Set<String> teachers() {
    return teachers;
  }

  Table<Teaching> table() {
    return table;
  }

  /** Nothing where only changes came: they say nothing of all who are enrolled. */
  Map<String, Integer> students() {
    return table.mode() == Mode.BULK ? Map.copyOf(students) : Map.of();
  }
}
