package org.zephyrmist.server.content;

import static org.zephyrmist.server.db.Tables.FILE;
import static org.zephyrmist.server.db.Tables.FILE_CHUNK;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Path;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.server.db.tables.records.FileChunkRecord;

/** Files in chunks of 256 KiB, once each by SHA-256, read and written as streams. */
@Component
public class Files {
  private static final int CHUNK = 262_144;
  private static final int IN_MEMORY = 8 * CHUNK;
  private final DSLContext db;

  Files(DSLContext db) {
    this.db = db;
  }

  /**
   * Keeps a file. Small ones are read into memory, large ones through a temporary file, because the
   * fingerprint is known only at the end.
   */
  public FileRef keep(String name, String mediaType, InputStream in) throws IOException {
    byte[] head = in.readNBytes(IN_MEMORY);
    if (head.length < IN_MEMORY) {
      Fingerprint f = Fingerprint.of(Fingerprint.sha256().digest(head));
      if (isNew(f, head.length, mediaType)) {
        chunks(f, new java.io.ByteArrayInputStream(head));
      }
      return new FileRef(f.hex(), name, mediaType, head.length);
    }
    Path spool = java.nio.file.Files.createTempFile("zephyrmist", ".part");
    try {
      MessageDigest digest = Fingerprint.sha256();
      try (OutputStream out =
          new DigestOutputStream(java.nio.file.Files.newOutputStream(spool), digest)) {
        out.write(head);
        in.transferTo(out);
      }
      long size = java.nio.file.Files.size(spool);
      Fingerprint f = Fingerprint.of(digest.digest());
      if (isNew(f, size, mediaType)) {
        try (InputStream again = java.nio.file.Files.newInputStream(spool)) {
          chunks(f, again);
        }
      }
      return new FileRef(f.hex(), name, mediaType, size);
    } finally {
      java.nio.file.Files.delete(spool);
    }
  }

  private boolean isNew(Fingerprint f, long size, String mediaType) {
    return db.insertInto(FILE).values(f.bytes(), size, mediaType).onConflictDoNothing().execute()
        > 0;
  }

  private void chunks(Fingerprint f, InputStream in) throws IOException {
    byte[] buffer = new byte[CHUNK];
    List<FileChunkRecord> batch = new ArrayList<>();
    int n = 0;
    for (int read; (read = in.readNBytes(buffer, 0, CHUNK)) > 0; n++) {
      batch.add(new FileChunkRecord(f.bytes(), n, Arrays.copyOf(buffer, read)));
      if (batch.size() == 16) {
        db.batchInsert(batch).execute();
        batch.clear();
      }
    }
    db.batchInsert(batch).execute();
  }

  public boolean has(String sha256) {
    return db.fetchExists(
        db.selectFrom(FILE).where(FILE.SHA256.eq(Fingerprint.parse(sha256).bytes())));
  }

  /** Media type and size as kept. */
  public FileRef ref(String sha256, String name) {
    return db.selectFrom(FILE)
        .where(FILE.SHA256.eq(Fingerprint.parse(sha256).bytes()))
        .fetchSingle(r -> new FileRef(sha256, name, r.getMediaType(), r.getSize()));
  }

  /** A stream over the chunks; each is fetched when it is reached. */
  public InputStream open(String sha256) {
    return new Chunks(Fingerprint.parse(sha256).bytes());
  }

  private final class Chunks extends InputStream {
    private final byte[] key;
    private byte[] data = new byte[0];
    private int at;
    private int n;

    Chunks(byte[] key) {
      this.key = key;
    }

    private boolean more() {
      if (data != null && at == data.length) {
        data =
            db.select(FILE_CHUNK.DATA)
                .from(FILE_CHUNK)
                .where(FILE_CHUNK.SHA256.eq(key))
                .and(FILE_CHUNK.N.eq(n++))
                .fetchOne(FILE_CHUNK.DATA);
        at = 0;
      }
      return data != null;
    }

    @Override
    public int read() {
      return more() ? data[at++] & 0xff : -1;
    }

    @Override
    public int read(byte[] b, int off, int len) {
      if (len == 0) {
        return 0;
      }
      if (!more()) {
        return -1;
      }
      int take = Math.min(len, data.length - at);
      System.arraycopy(data, at, b, off, take);
      at += take;
      return take;
    }
  }
}
