package org.zephyrmist.core.roster;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Enumeration;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/** A ZIP of CSV files (RFC 4180, UTF-8, with or without byte order mark), read row by row. */
final class CsvBundle implements Closeable {
  private static final CSVFormat FORMAT =
      CSVFormat.RFC4180
          .builder()
          .setHeader()
          .setSkipHeaderRecord(true)
          .setIgnoreHeaderCase(true)
          .setAllowMissingColumnNames(true)
          .setTrim(true)
          .get();

  private final ZipFile zip;

  private CsvBundle(ZipFile zip) {
    this.zip = zip;
  }

  static CsvBundle open(Path file) throws RosterException {
    try {
      return new CsvBundle(new ZipFile(file.toFile()));
    } catch (IOException e) {
      throw new RosterException(
          "This is not a ZIP archive, or it was cut off.",
          "Choose the ZIP with the OneRoster CSV files in it.");
    }
  }

  /** Passes every row of a file on; false if the bundle has no such file. */
  boolean rows(String file, Consumer<Row> each) throws IOException {
    Optional<ZipEntry> entry = find(file);
    if (entry.isEmpty()) {
      return false;
    }
    try (Reader in =
            new InputStreamReader(zip.getInputStream(entry.get()), StandardCharsets.UTF_8);
        CSVParser csv = FORMAT.parse(withoutMark(in))) {
      for (CSVRecord r : csv) {
        each.accept(new Row(r, csv.getCurrentLineNumber()));
      }
    } catch (UncheckedIOException e) {
      throw e.getCause();
    }
    return true;
  }

  private static Reader withoutMark(Reader in) throws IOException {
    java.io.PushbackReader back = new java.io.PushbackReader(in, 1);
    int first = back.read();
    if (first >= 0 && first != 0xFEFF) {
      back.unread(first);
    }
    return back;
  }

  private Optional<ZipEntry> find(String file) {
    for (Enumeration<? extends ZipEntry> e = zip.entries(); e.hasMoreElements(); ) {
      ZipEntry entry = e.nextElement();
      String name = entry.getName();
      if (name.substring(name.lastIndexOf('/') + 1).equalsIgnoreCase(file)) {
        return Optional.of(entry);
      }
    }
    return Optional.empty();
  }

  @Override
  public void close() throws IOException {
    zip.close();
  }

  /** A row by column names. */
  record Row(CSVRecord record, long line) {
    String text(String column) {
      return record.isMapped(column) && record.isSet(column) ? record.get(column) : "";
    }

    String required(String column) {
      String value = text(column);
      if (value.isEmpty()) {
        throw new BadRow(column + " is empty or missing.");
      }
      return value;
    }

    String first(String column, String otherwise) {
      String value = text(column);
      return value.isEmpty() ? required(otherwise) : value;
    }
  }

  /** A row that cannot be taken. */
  static final class BadRow extends RuntimeException {
    BadRow(String problem) {
      super(problem);
    }
  }
}
