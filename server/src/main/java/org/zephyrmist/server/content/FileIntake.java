package org.zephyrmist.server.content;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.server.web.Workspace;

/**
 * Keeps the files of one package, some megabytes at a time, in the running transaction. Small files
 * wait in memory; large ones go through a temporary file, because the fingerprint is known only at
 * the end.
 */
public final class FileIntake implements AutoCloseable {
  /** Bytes of one row; the schema checks it. */
  static final int CHUNK = 262_144;

  private static final int SMALL = 4 * CHUNK;
  private static final int BATCH_BYTES = 8 << 20;
  private static final int BATCH_FILES = 1_000;
  private final DSLContext db;
  private final UUID tree;
  private final Workspace workspace;
  private final Consumer<Runnable> writer;
  private final Queue<Path> spools = new ConcurrentLinkedQueue<>();
  private final byte[] buffer = new byte[SMALL];
  private Map<Fingerprint, Small> waiting = new LinkedHashMap<>();
  private Map<String, Fingerprint> paths = new LinkedHashMap<>();
  private int bytes;

  private record Small(String mediaType, byte[] data) {}

  FileIntake(DSLContext db, UUID tree, Workspace workspace, Consumer<Runnable> writer) {
    this.workspace = workspace;
    this.writer = writer;
    this.db = db;
    this.tree = tree;
  }

  /** Keeps a file under its path in the package; to be followed by {@link #flush} at the end. */
  public synchronized FileRef keep(String path, String name, String mediaType, InputStream in)
      throws IOException {
    FileRef ref = loose(name, mediaType, in);
    paths.put(path, Fingerprint.parse(ref.sha256()));
    if (paths.size() >= BATCH_FILES) {
      flush();
    }
    return ref;
  }

  /** Keeps a file that stands in no package; to be followed by {@link #flush} at the end. */
  public synchronized FileRef loose(String name, String mediaType, InputStream in)
      throws IOException {
    int n = in.readNBytes(buffer, 0, SMALL);
    FileRef ref;
    if (n < SMALL) {
      MessageDigest digest = Fingerprint.sha256();
      digest.update(buffer, 0, n);
      Fingerprint f = Fingerprint.of(digest.digest());
      if (waiting.putIfAbsent(f, new Small(mediaType, Arrays.copyOf(buffer, n))) == null) {
        bytes += n;
      }
      ref = new FileRef(f.hex(), name, mediaType, n);
    } else {
      ref = large(name, mediaType, in);
    }
    if (bytes >= BATCH_BYTES) {
      flush();
    }
    return ref;
  }

  /** Keeps a file that stands nowhere in the package; for any thread. */
  public synchronized FileRef made(String name, String mediaType, byte[] content) {
    Fingerprint f = Fingerprint.of(Fingerprint.sha256().digest(content));
    if (waiting.putIfAbsent(f, new Small(mediaType, content)) == null) {
      bytes += content.length;
    }
    if (bytes >= BATCH_BYTES) {
      flush();
    }
    return new FileRef(f.hex(), name, mediaType, content.length);
  }

  private FileRef large(String name, String mediaType, InputStream in) throws IOException {
    Path spool = workspace.file("part");
    spools.add(spool);
    MessageDigest digest = Fingerprint.sha256();
    try (OutputStream out = new DigestOutputStream(Files.newOutputStream(spool), digest)) {
      out.write(buffer);
      in.transferTo(out);
    }
    Fingerprint f = Fingerprint.of(digest.digest());
    long size = Files.size(spool);
    writer.accept(() -> copyLarge(spool, f, mediaType, size));
    return new FileRef(f.hex(), name, mediaType, size);
  }

  private void copyLarge(Path spool, Fingerprint f, String mediaType, long size) {
    try {
      if (!unknown(List.of(f), Map.of(f, mediaType), Map.of(f, size)).isEmpty()) {
        CopyRows.into(db, "file_chunk (sha256, n, data)", rows -> chunks(rows, f, spool));
      }
      Files.delete(spool);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Deletes temporary files that were not written after all. */
  @Override
  public void close() {
    try {
      for (Path p : spools) {
        Files.deleteIfExists(p);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void chunks(CopyRows rows, Fingerprint f, Path spool)
      throws IOException, SQLException {
    byte[] chunk = new byte[CHUNK];
    try (InputStream again = Files.newInputStream(spool)) {
      int i = 0;
      for (int r; (r = again.readNBytes(chunk, 0, CHUNK)) > 0; ) {
        rows.row(3).add(f.bytes()).add(i++).add(chunk, r);
      }
    }
  }

  /** Hands over what waits. */
  public synchronized void flush() {
    Map<Fingerprint, Small> files = waiting;
    Map<String, Fingerprint> at = paths;
    waiting = new LinkedHashMap<>();
    paths = new LinkedHashMap<>();
    bytes = 0;
    writer.accept(() -> write(files, at));
  }

  private void write(Map<Fingerprint, Small> files, Map<String, Fingerprint> at) {
    Map<Fingerprint, String> types = new LinkedHashMap<>();
    Map<Fingerprint, Long> sizes = new LinkedHashMap<>();
    files.forEach(
        (f, s) -> {
          types.put(f, s.mediaType());
          sizes.put(f, (long) s.data().length);
        });
    Set<Fingerprint> unknown = unknown(files.keySet(), types, sizes);
    if (!unknown.isEmpty()) {
      CopyRows.into(db, "file_chunk (sha256, n, data)", rows -> chunks(rows, files, unknown));
    }
    if (!at.isEmpty()) {
      CopyRows.into(
          db,
          "package_file (tree_id, path, sha256)",
          rows -> {
            for (Map.Entry<String, Fingerprint> p : at.entrySet()) {
              rows.row(3).add(tree).add(p.getKey()).add(p.getValue().bytes());
            }
          });
    }
  }

  private static void chunks(CopyRows rows, Map<Fingerprint, Small> files, Set<Fingerprint> unknown)
      throws IOException, SQLException {
    for (Map.Entry<Fingerprint, Small> e : files.entrySet()) {
      byte[] data = e.getValue().data();
      if (unknown.contains(e.getKey())) {
        for (int at = 0, i = 0; at < data.length; at += CHUNK, i++) {
          int end = Math.min(data.length, at + CHUNK);
          rows.row(3).add(e.getKey().bytes()).add(i);
          rows.add(Arrays.copyOfRange(data, at, end));
        }
      }
    }
  }

  /** Enters files and gives those that were not here before; one statement. */
  private Set<Fingerprint> unknown(
      Collection<Fingerprint> files, Map<Fingerprint, String> types, Map<Fingerprint, Long> sizes) {
    if (files.isEmpty()) {
      return Set.of();
    }
    return db
        .fetch(
            "insert into file (sha256, size, media_type) select * from unnest(?::bytea[],"
                + " ?::bigint[], ?::text[]) order by 1 on conflict do nothing returning sha256",
            files.stream().map(Fingerprint::bytes).toArray(byte[][]::new),
            files.stream().map(sizes::get).toArray(Long[]::new),
            files.stream().map(types::get).toArray(String[]::new))
        .stream()
        .map(r -> Fingerprint.of(r.get(0, byte[].class)))
        .collect(Collectors.toSet());
  }
}
