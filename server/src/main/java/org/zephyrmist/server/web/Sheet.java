package org.zephyrmist.server.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/** A table that is sent as a file, row by row as it is made. */
public enum Sheet {
  CSV {
    @Override
    void write(OutputStream out, List<String> head, Consumer<Row> rows) throws IOException {
      Writer w = new OutputStreamWriter(out, StandardCharsets.UTF_8);
      w.write('\ufeff'); // without it a spreadsheet takes the letters for others
      CSVPrinter p = new CSVPrinter(w, CSVFormat.RFC4180);
      p.printRecord(head);
      rows.accept(
          values -> {
            try {
              p.printRecord(values.stream().map(Sheet::harmless).toList());
            } catch (IOException e) {
              throw new UncheckedIOException(e);
            }
          });
      p.flush();
    }
  },
  XLSX {
    @Override
    void write(OutputStream out, List<String> head, Consumer<Row> rows) throws IOException {
      Workbook book = new Workbook(out, "Zephyrmist", "1.0");
      Worksheet sheet = book.newWorksheet("Table");
      for (int c = 0; c < head.size(); c++) {
        sheet.value(0, c, head.get(c));
        sheet.style(0, c).bold().set();
      }
      sheet.freezePane(0, 1);
      int[] at = {0};
      rows.accept(
          values -> {
            at[0]++;
            if (at[0] >= MOST) {
              throw Refusal.bad(
                  "A spreadsheet holds no more than " + MOST + " rows.",
                  "Ask for less at once, or for CSV.");
            }
            for (int c = 0; c < values.size(); c++) {
              put(sheet, at[0], c, values.get(c));
            }
            flushed(sheet, at[0]);
          });
      sheet.finish();
      book.finish();
    }
  };

  /** Rows of a sheet (ECMA-376, 18.3.1.73: up to 1,048,576). */
  private static final int MOST = 1_048_576;

  private static final int ROWS_AT_ONCE = 1_000;

  /** Takes the values of a row: texts, numbers, times; nothing for none. */
  public interface Row {
    void of(List<Object> values);
  }

  abstract void write(OutputStream out, List<String> head, Consumer<Row> rows) throws IOException;

  /** Sends a table. */
  public void send(HttpServletResponse response, String name, List<String> head, Consumer<Row> rows)
      throws IOException {
    Attachment.begin(response, name + "." + name().toLowerCase(Locale.ROOT));
    write(response.getOutputStream(), head, rows);
  }

  /** A word of ours as a table says it. */
  public static String words(Enum<?> word) {
    return word.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  /** Some words of ours. */
  public static String words(Collection<? extends Enum<?>> some) {
    return some.stream().map(Sheet::words).sorted().collect(Collectors.joining(", "));
  }

  private static void put(Worksheet sheet, int row, int column, Object value) {
    if (value instanceof Number n) {
      sheet.value(row, column, n);
    } else if (value != null) {
      sheet.value(row, column, text(value));
    }
  }

  private static void flushed(Worksheet sheet, int row) {
    if (row % ROWS_AT_ONCE == 0) {
      try {
        sheet.flush();
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
  }

  private static String text(Object value) {
    return value instanceof OffsetDateTime t
        ? t.withOffsetSameInstant(ZoneOffset.UTC).toString()
        : value.toString();
  }

  /** A text that a spreadsheet would take for a formula is none (CWE-1236). */
  private static Object harmless(Object value) {
    if (value == null) {
      return "";
    }
    String text = text(value);
    return !(value instanceof Number) && text.matches("(?s)[=+\\-@\t\r].*") ? "'" + text : text;
  }
}
