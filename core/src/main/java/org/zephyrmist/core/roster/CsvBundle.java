package org.zephyrmist.core.roster;

import java.io.Closeable;
import java.io.FilterReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.PushbackReader;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.zephyrmist.core.archive.ZipDirectory;

/** A ZIP of CSV files (RFC 4180, UTF-8, with or without byte order mark), read row by row. */
final class CsvBundle implements Closeable {
  private static final int MOST_FILES = 1_000;
  private static final int LONGEST_ROW = 1 << 20;
  private static final long MOST = 2L << 30;
  private static final CSVFormat FORMAT =
      CSVFormat.RFC4180
          .builder()
          .setHeader()
          .setSkipHeaderRecord(true)
          .setIgnoreHeaderCase(true)
          .setAllowMissingColumnNames(true)
          .setIgnoreEmptyLines(true)
          .setTrim(true)
          .get();

  private final ZipFile zip;

  private CsvBundle(ZipFile zip) {
    this.zip = zip;
  }

  static CsvBundle open(Path file) throws RosterException, IOException {
    if (!ZipDirectory.holdsAtMost(file, MOST_FILES)) {
      throw new RosterException(
          "The archive holds more than " + MOST_FILES + " files, so it is no roster.",
          "Choose the ZIP with the OneRoster CSV files in it.");
    }
    try {
      return new CsvBundle(ZipFile.builder().setPath(file).get());
    } catch (IOException | IllegalArgumentException e) {
      throw new RosterException(
          "This is not a ZIP archive, or it was cut off.",
          "Choose the ZIP with the OneRoster CSV files in it.");
    }
  }

  boolean has(String file) {
    return find(file).isPresent();
  }

  /** Names of the files in it, without folders. */
  List<String> names() {
    return Collections.list(zip.getEntries()).stream().map(CsvBundle::name).toList();
  }

  /** Looks at the names of columns before the first row. */
  interface Header {
    void check(List<String> names) throws RosterException;
  }

  /**
   * Passes every row of a file on, one at a time.
   *
   * @return false if the bundle has no such file
   */
  boolean rows(String file, Header header, Consumer<Row> each) throws RosterException, IOException {
    Optional<ZipArchiveEntry> entry = find(file);
    if (entry.isEmpty()) {
      return false;
    }
    long line = 1;
    try (InputStream bytes = zip.getInputStream(entry.get());
        Reader in = new InputStreamReader(bytes, StandardCharsets.UTF_8.newDecoder());
        CSVParser csv = FORMAT.parse(new Bounded(withoutMark(in), file))) {
      header.check(csv.getHeaderNames());
      for (CSVRecord r : csv) {
        each.accept(new Row(r, line + 1));
        line = csv.getCurrentLineNumber();
      }
      return true;
    } catch (UncheckedIOException | IOException | IllegalArgumentException e) {
      throw unreadable(file, e instanceof UncheckedIOException u ? u.getCause() : e);
    }
  }

  private static RosterException unreadable(String file, Exception e) throws IOException {
    if (e instanceof TooLarge t) {
      return new RosterException(t.getMessage(), "Export the bundle again.");
    }
    return e instanceof CharacterCodingException
        ? new RosterException(file + " is not in UTF-8.", "Export the bundle as UTF-8.")
        : new RosterException(
            file + " is not well-formed CSV: " + e.getMessage(),
            "Check the quotation marks near that place, or export it again.");
  }

  private static Reader withoutMark(Reader in) throws IOException {
    PushbackReader back = new PushbackReader(in, 1);
    int first = back.read();
    if (first >= 0 && first != 0xFEFF) {
      back.unread(first);
    }
    return back;
  }

  private static String name(ZipArchiveEntry e) {
    return e.getName().substring(e.getName().lastIndexOf('/') + 1);
  }

  private Optional<ZipArchiveEntry> find(String file) {
    return Collections.list(zip.getEntries()).stream()
        .filter(e -> name(e).equalsIgnoreCase(file))
        .findFirst();
  }

  @Override
  public void close() throws IOException {
    zip.close();
  }

  private static final class TooLarge extends IOException {
    TooLarge(String problem) {
      super(problem);
    }
  }

  /** Neither endless rows nor endless files. */
  private static final class Bounded extends FilterReader {
    private final String file;
    private long all;
    private int row;

    Bounded(Reader in, String file) {
      super(in);
      this.file = file;
    }

    @Override
    public int read() throws IOException {
      char[] one = new char[1];
      return read(one, 0, 1) < 0 ? -1 : one[0];
    }

    @Override
    public int read(char[] c, int off, int len) throws IOException {
      int n = in.read(c, off, len);
      for (int i = off; i < off + n; i++) {
        row = c[i] == '\n' ? 0 : row + 1;
        if (row > LONGEST_ROW) {
          throw new TooLarge(file + " has a row of more than a million characters.");
        }
      }
      all += Math.max(0, n);
      if (all > MOST) {
        throw new TooLarge(file + " is larger than 2 GB.");
      }
      return n;
    }
  }

  /**
   * A row by column names.
   *
   * @param line where it begins; the header is line 1
   */
  record Row(CSVRecord record, long line) {
    private static final int LONGEST_VALUE = 1_000;

    String text(String column) {
      return record.isMapped(column) && record.isSet(column) ? record.get(column) : "";
    }

    boolean isDeleted() {
      return text("status").equalsIgnoreCase("tobedeleted");
    }

    String required(String column) {
      String value = text(column);
      if (value.isEmpty()) {
        throw new BadRow(column + " is empty or missing.");
      }
      if (value.length() > LONGEST_VALUE || value.indexOf('\0') >= 0) {
        throw new BadRow(column + " is no text that can be kept.");
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
