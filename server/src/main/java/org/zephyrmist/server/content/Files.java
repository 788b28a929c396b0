package org.zephyrmist.server.content;

import static org.jooq.impl.DSL.any;
import static org.zephyrmist.server.db.Tables.FILE;
import static org.zephyrmist.server.db.Tables.FILE_CHUNK;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.function.Consumer;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.server.web.Workspace;

/** Files in chunks of 256 KiB, once each by SHA-256, read and written as streams. */
@Component
public class Files {
  private static final UUID NO_TREE = new UUID(0, 0);
  private final DSLContext db;
  private final Workspace workspace;

  Files(DSLContext db, Workspace workspace) {
    this.workspace = workspace;
    this.db = db;
  }

  /**
   * Keeps the files of a package that becomes this tree.
   *
   * @param writer runs what is to be written, in its order
   */
  public FileIntake intake(UUID tree, Consumer<Runnable> writer) {
    return new FileIntake(db, tree, workspace, writer);
  }

  /** Keeps files that stand in no package, in the running transaction. */
  public FileIntake loose() {
    return new FileIntake(db, NO_TREE, workspace, Runnable::run);
  }

  /** Keeps one file, in the running transaction. */
  public FileRef keep(String name, String mediaType, InputStream in) throws IOException {
    try (FileIntake one = loose()) {
      FileRef ref = one.loose(name, mediaType, in);
      one.flush();
      return ref;
    }
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

  /** Those of the files that are here, by fingerprint; in one query. */
  public Map<String, FileRef> refs(Map<String, String> names) {
    byte[][] wanted =
        names.keySet().stream().map(s -> Fingerprint.parse(s).bytes()).toArray(byte[][]::new);
    Map<String, FileRef> found = new HashMap<>();
    db.selectFrom(FILE)
        .where(FILE.SHA256.eq(any(wanted)))
        .forEach(
            r -> {
              String sha = Fingerprint.of(r.getSha256()).hex();
              found.put(sha, new FileRef(sha, names.get(sha), r.getMediaType(), r.getSize()));
            });
    return found;
  }

  /** Whole files by fingerprint, in one query; for small ones. */
  Map<String, byte[]> contents(Set<String> sha256) {
    byte[][] wanted = sha256.stream().map(s -> Fingerprint.parse(s).bytes()).toArray(byte[][]::new);
    Map<String, ByteArrayOutputStream> all = new HashMap<>();
    db.select(FILE_CHUNK.SHA256, FILE_CHUNK.DATA)
        .from(FILE_CHUNK)
        .where(FILE_CHUNK.SHA256.eq(any(wanted)))
        .orderBy(FILE_CHUNK.SHA256, FILE_CHUNK.N)
        .forEach(
            r ->
                all.computeIfAbsent(
                        Fingerprint.of(r.value1()).hex(), s -> new ByteArrayOutputStream())
                    .writeBytes(r.value2()));
    Map<String, byte[]> contents = new HashMap<>();
    all.forEach((sha, bytes) -> contents.put(sha, bytes.toByteArray()));
    return contents;
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

    /** Whole chunks are passed over without being fetched. */
    @Override
    public long skip(long n) {
      long left = n;
      if (data != null && at < data.length) {
        int here = (int) Math.min(left, data.length - at);
        at += here;
        left -= here;
      }
      if (left > 0 && data != null) {
        this.n += (int) (left / FileIntake.CHUNK);
        left %= FileIntake.CHUNK;
        if (left > 0 && more()) {
          at = (int) Math.min(left, data.length);
        }
      }
      return n;
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
