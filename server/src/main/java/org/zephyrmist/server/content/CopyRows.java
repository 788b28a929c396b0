package org.zephyrmist.server.content;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.util.UUID;
import org.jooq.DSLContext;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyIn;

/** Rows on their way into a table by COPY in its binary form (PostgreSQL manual, COPY). */
public final class CopyRows {
  private static final byte[] SIGNATURE =
      "PGCOPY\n\377\r\n\0".getBytes(StandardCharsets.ISO_8859_1);
  private static final int SEND_AT = 1 << 16;
  private final ByteArrayOutputStream bytes = new ByteArrayOutputStream(SEND_AT * 2);
  private final DataOutputStream out = new DataOutputStream(bytes);
  private final CopyIn copy;

  /** Writes rows. */
  public interface Source {
    void write(CopyRows rows) throws IOException, SQLException;
  }

  private CopyRows(CopyIn copy) {
    this.copy = copy;
  }

  /**
   * Copies rows in the running transaction. What the database refuses is thrown on as any other
   * statement's failure is.
   *
   * @param table with its columns in brackets
   */
  public static void into(DSLContext db, String table, Source source) {
    db.connection(
        c -> {
          CopyIn copy =
              c.unwrap(PGConnection.class)
                  .getCopyAPI()
                  .copyIn("copy " + table + " from stdin (format binary)");
          try {
            CopyRows rows = new CopyRows(copy);
            rows.out.write(SIGNATURE);
            rows.out.writeLong(0);
            source.write(rows);
            rows.out.writeShort(-1);
            rows.send();
            copy.endCopy();
          } catch (IOException e) {
            throw new UncheckedIOException(e);
          } finally {
            if (copy.isActive()) {
              copy.cancelCopy();
            }
          }
        });
  }

  /** Begins a row of so many columns. */
  public CopyRows row(int columns) throws IOException, SQLException {
    if (bytes.size() >= SEND_AT) {
      send();
    }
    out.writeShort(columns);
    return this;
  }

  private void send() throws SQLException {
    copy.writeToCopy(bytes.toByteArray(), 0, bytes.size());
    bytes.reset();
  }

  public CopyRows add(byte[] value) throws IOException {
    return add(value, value.length);
  }

  /** The first bytes of an array. */
  public CopyRows add(byte[] value, int length) throws IOException {
    out.writeInt(length);
    out.write(value, 0, length);
    return this;
  }

  public CopyRows add(String value) throws IOException {
    return add(value.getBytes(StandardCharsets.UTF_8));
  }

  public CopyRows orNothing(byte[] value) throws IOException {
    return value == null ? nothing() : add(value);
  }

  public CopyRows orNothing(String value) throws IOException {
    return value == null ? nothing() : add(value);
  }

  /** JSON, or nothing. */
  public CopyRows orNoJson(String json) throws IOException {
    return json == null ? nothing() : addJson(json);
  }

  private CopyRows nothing() throws IOException {
    out.writeInt(-1);
    return this;
  }

  /** A value of type jsonb, which begins with the number of its format. */
  public CopyRows addJson(String json) throws IOException {
    byte[] text = json.getBytes(StandardCharsets.UTF_8);
    out.writeInt(text.length + 1);
    out.writeByte(1);
    out.write(text);
    return this;
  }

  public CopyRows add(int value) throws IOException {
    out.writeInt(4);
    out.writeInt(value);
    return this;
  }

  public CopyRows add(long value) throws IOException {
    out.writeInt(8);
    out.writeLong(value);
    return this;
  }

  public CopyRows add(boolean value) throws IOException {
    out.writeInt(1);
    out.writeByte(value ? 1 : 0);
    return this;
  }

  public CopyRows add(UUID value) throws IOException {
    out.writeInt(16);
    out.writeLong(value.getMostSignificantBits());
    out.writeLong(value.getLeastSignificantBits());
    return this;
  }
}
