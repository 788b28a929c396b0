package org.zephyrmist.core.roster;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * One file of a bundle.
 *
 * @param delta it holds only changes (OneRoster 1.1 CSV tables, "manifest.csv")
 * @param deleted rows with status tobedeleted
 */
record Table<T>(boolean delta, List<Line<T>> lines, List<Line<T>> deleted) {

  /** A row that could be read, and where it stands. */
  record Line<T>(long at, T row) {}

  /** Reads a file; a row that cannot be read is remarked and left out. */
  static <T> Table<T> read(
      CsvBundle bundle,
      String file,
      CsvBundle.Mode mode,
      boolean required,
      Remarks remarks,
      Function<CsvBundle.Row, T> read)
      throws RosterException, IOException {
    Table<T> table =
        new Table<>(mode == CsvBundle.Mode.DELTA, new ArrayList<>(), new ArrayList<>());
    if (mode == CsvBundle.Mode.ABSENT) {
      return table;
    }
    Set<String> seen = new HashSet<>();
    Optional<Integer> columns =
        bundle.rows(
            file,
            row -> {
              try {
                String id = row.required("sourcedId");
                boolean first = seen.add(id);
                if (!first) {
                  throw new CsvBundle.BadRow("sourcedId " + id + " stands here twice.");
                }
                Line<T> line = new Line<>(row.line(), read.apply(row));
                if (!row.text("status").equalsIgnoreCase("tobedeleted")) {
                  table.lines.add(line);
                } else {
                  table.deleted.add(line);
                }
              } catch (CsvBundle.BadRow e) {
                remarks.leftOut(file, row.line(), e.getMessage());
              }
            });
    if (columns.isEmpty() && required && mode == CsvBundle.Mode.BULK) {
      throw new RosterException(
          "The bundle has no " + file + ".",
          "Export orgs, academicSessions, courses and classes too.");
    }
    if (columns.filter(n -> n == 0).isPresent()) {
      remarks.add(file, 0, "The file is empty; it has not even a header.", "Export it again.");
    }
    return table;
  }

  List<T> rows() {
    return lines.stream().map(Line::row).toList();
  }

  Set<String> ids(Function<T, String> id) {
    Set<String> all = new HashSet<>();
    lines.forEach(l -> all.add(id.apply(l.row())));
    return all;
  }
}
