package org.zephyrmist.bench;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyIn;

/** COPY in its binary form, bytea and int columns only: the raw way for rows into a table. */
final class RawCopy implements AutoCloseable {
  private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
  private final DataOutputStream out = new DataOutputStream(bytes);
  private final CopyIn copy;

  RawCopy(Connection db, String table) throws SQLException, IOException {
    copy =
        db.unwrap(PGConnection.class).getCopyAPI().copyIn("copy " + table + " from stdin binary");
    out.write("PGCOPY\n\377\r\n\0".getBytes(StandardCharsets.ISO_8859_1));
    out.writeLong(0);
  }

  void row(Object... values) throws IOException, SQLException {
    out.writeShort(values.length);
    for (Object v : values) {
      if (v instanceof Integer i) {
        out.writeInt(4);
        out.writeInt(i);
      } else {
        byte[] b = (byte[]) v;
        out.writeInt(b.length);
        out.write(b);
      }
    }
    if (bytes.size() > 1 << 16) {
      send();
    }
  }

  private void send() throws SQLException {
    copy.writeToCopy(bytes.toByteArray(), 0, bytes.size());
    bytes.reset();
  }

  @Override
  public void close() throws SQLException, IOException {
    out.writeShort(-1);
    send();
    copy.endCopy();
  }
}
