package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.FILE;
import static org.zephyrmist.standins.db.Tables.FILE_CHUNK;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.server.ResponseStatusException;

/** Files, once each by fingerprint, however many shells hold them. */
@Component
class Files {
  private static final int CHUNK = 262_144;
  private final DSLContext db;

  Files(DSLContext db) {
    this.db = db;
  }

  List<String> missing(List<String> asked) {
    Set<String> here =
        new HashSet<>(
            db.select(FILE.SHA256).from(FILE).where(FILE.SHA256.in(asked)).fetch(FILE.SHA256));
    return asked.stream().distinct().filter(s -> !here.contains(s)).toList();
  }

  /** Keeps a file; refuses bytes that are not what the fingerprint says. */
  @Transactional
  void store(String sha256, String mediaType, InputStream in) throws IOException {
    boolean fresh =
        db.insertInto(FILE)
                .values(sha256, mediaType == null ? "application/octet-stream" : mediaType, 0L)
                .onConflictDoNothing()
                .execute()
            > 0;
    MessageDigest digest = sha256();
    byte[] buffer = new byte[CHUNK];
    long size = 0;
    int n = 0;
    for (int read; (read = in.readNBytes(buffer, 0, CHUNK)) > 0; n++) {
      digest.update(buffer, 0, read);
      size += read;
      if (fresh) {
        db.insertInto(FILE_CHUNK).values(sha256, n, Arrays.copyOf(buffer, read)).execute();
      }
    }
    if (!HexFormat.of().formatHex(digest.digest()).equals(sha256)) {
      throw new ResponseStatusException(HttpStatus.BAD_REQUEST, "These bytes are another file");
    }
    if (fresh) {
      db.update(FILE).set(FILE.SIZE, size).where(FILE.SHA256.eq(sha256)).execute();
    }
  }

  Optional<String> mediaType(String sha256) {
    return db.select(FILE.MEDIA_TYPE)
        .from(FILE)
        .where(FILE.SHA256.eq(sha256))
        .fetchOptional(FILE.MEDIA_TYPE);
  }

  /** Whether an item that students see, in modules that they see, holds the file or names it. */
  boolean forStudents(String sha256) {
    return db.resultQuery(
            "with recursive up (item, parent_id, seen) as ("
                + " select id, parent_id, shown and not instructors_only from item"
                + "   where kind not in ('QUIZ', 'QUESTION_BANK') and wording -> 'file' ->> 'sha256' = ?"
                + "   or html like ?"
                + "   or kind <> 'QUESTION_BANK' and wording -> 'attached' @> ?::jsonb"
                + " union all select up.item, p.parent_id, p.shown and not p.instructors_only"
                + "   from up join item p on p.id = up.parent_id)"
                + " select exists (select 1 from up group by item having bool_and(seen))",
            sha256,
            "%/files/" + sha256 + "%",
            "[{\"sha256\":\"" + sha256 + "\"}]")
        .fetchSingle(0, boolean.class);
  }

  void copy(String sha256, OutputStream out) throws IOException {
    for (int n = 0; ; n++) {
      byte[] data =
          db.select(FILE_CHUNK.DATA)
              .from(FILE_CHUNK)
              .where(FILE_CHUNK.SHA256.eq(sha256))
              .and(FILE_CHUNK.N.eq(n))
              .fetchOne(FILE_CHUNK.DATA);
      if (data == null) {
        return;
      }
      out.write(data);
    }
  }

  private static MessageDigest sha256() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
