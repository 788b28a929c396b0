package org.zephyrmist.core.roster;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.zephyrmist.core.roster.BundleManifest.Mode;

/**
 * What is kept of one file of a bundle.
 *
 * @param mode how the file is meant; ABSENT where it is not there
 * @param lines rows that stand
 * @param deleted rows that are said to be deleted
 */
record Table<T>(Mode mode, List<Line<T>> lines, List<Line<T>> deleted) {
  private static final int MOST = 500_000;

  /** A row that is kept, and where it stands. */
  record Line<T>(long at, String id, T row) {}

  /**
   * Reads a file row by row; one that cannot be read is remarked and left out, one that is not
   * wanted is passed over and costs nothing.
   *
   * @param read the row; empty for what is not wanted
   */
  static <T> Table<T> read(
      CsvBundle bundle,
      BundleManifest manifest,
      Columns columns,
      boolean required,
      Remarks remarks,
      Function<CsvBundle.Row, Optional<T>> read)
      throws RosterException, IOException {
    String file = columns.file();
    Mode mode = manifest.of(file);
    Table<T> table = new Table<>(mode, new ArrayList<>(), new ArrayList<>());
    if (mode == Mode.ABSENT) {
      return table;
    }
    Rows<T> rows = new Rows<>(file, table, remarks, read);
    if (!bundle.rows(file, h -> columns.check(h, remarks), rows::take)) {
      if (required) {
        throw new RosterException(
            "The bundle has no " + file + ".",
            "Export orgs, academicSessions, courses and classes too.");
      }
      return new Table<>(Mode.ABSENT, table.lines, table.deleted);
    }
    rows.end();
    return table;
  }

  /** Takes the rows of one file. */
  private static final class Rows<T> {
    private final String file;
    private final Table<T> table;
    private final Remarks remarks;
    private final Function<CsvBundle.Row, Optional<T>> read;
    private final Set<String> seen = new HashSet<>();
    private long stated;
    private long firstStated;

    Rows(String file, Table<T> table, Remarks remarks, Function<CsvBundle.Row, Optional<T>> read) {
      this.file = file;
      this.table = table;
      this.remarks = remarks;
      this.read = read;
    }

    void take(CsvBundle.Row row) {
      try {
        if (table.mode == Mode.BULK && !row.text("status").isEmpty()) {
          firstStated = stated++ == 0 ? row.line() : firstStated;
        }
        Optional<T> kept = read.apply(row);
        if (kept.isEmpty()) {
          return;
        }
        String id = row.required("sourcedId");
        if (!seen.add(id)) {
          throw new CsvBundle.BadRow("sourcedId " + id + " stands here twice.");
        }
        if (seen.size() > MOST) {
          throw new TooMany(file);
        }
        (row.isDeleted() ? table.deleted : table.lines).add(new Line<>(row.line(), id, kept.get()));
      } catch (CsvBundle.BadRow e) {
        remarks.leftOut(file, row.line(), row.text("sourcedId"), e.getMessage());
      }
    }

    /** A status has a meaning only among changes (1.1 CSV Tables, 3.3). */
    void end() {
      boolean noted = table.mode == Mode.BULK && stated > 0 && stated > table.deleted.size();
      if (noted || table.mode == Mode.BULK && !table.deleted.isEmpty()) {
        remarks.add(
            file,
            firstStated,
            "",
            stated + " rows have a status, though the file is in full.",
            "Rows with status tobedeleted are taken as ended, the others as they stand.");
      }
    }
  }

  /** More rows are to be kept than any college has. */
  static final class TooMany extends RuntimeException {
    TooMany(String file) {
      super(file + " has more than " + MOST + " rows that would be kept.");
    }
  }

  List<T> rows() {
    return lines.stream().map(Line::row).toList();
  }

  Set<String> ids() {
    Set<String> all = new HashSet<>();
    lines.forEach(l -> all.add(l.id()));
    return all;
  }
}
