package org.zephyrmist.server.shell;

import static org.jooq.impl.DSL.any;
import static org.zephyrmist.server.db.Tables.FILE;
import static org.zephyrmist.server.db.Tables.SENT_QUESTIONS;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Collection;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.question.Assessment;
import org.zephyrmist.core.question.QtiWriter;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.platform.ShellAddresses;

/**
 * Questions with pictures as a platform needs them: a file of its own, in which the platform's
 * addresses stand. Which file was made of which is kept, so that they are known when they are read.
 */
@Component
public class ShellQuestions {
  private static final int REMEMBERED = 10_000;
  private final DSLContext db;
  private final Files files;
  private final Questions questions;
  private final TransactionTemplate transaction;

  private record Made(String kept, ShellAddresses addresses) {}

  private final Cache<Made, FileRef> made = Caffeine.newBuilder().maximumSize(REMEMBERED).build();
  private final Cache<String, Optional<FileRef>> known =
      Caffeine.newBuilder().maximumSize(REMEMBERED).build();

  ShellQuestions(DSLContext db, Files files, Questions questions, TransactionTemplate transaction) {
    this.db = db;
    this.files = files;
    this.questions = questions;
    this.transaction = transaction;
  }

  /** The file to send for one that is kept; the same one if it cannot be read as questions. */
  public FileRef sent(FileRef kept, ShellAddresses addresses) {
    FileRef f = made.get(new Made(kept.sha256(), addresses), m -> make(kept, addresses));
    return new FileRef(f.sha256(), kept.name(), f.mediaType(), f.size());
  }

  private FileRef make(FileRef kept, ShellAddresses addresses) {
    return questions.assessment(kept).map(a -> make(kept, a, addresses)).orElse(kept);
  }

  private FileRef make(FileRef kept, Assessment a, ShellAddresses addresses) {
    Assessment there =
        new Assessment(
            a.ident(),
            a.title(),
            a.presentation(),
            a.attempts(),
            a.minutes(),
            a.bank(),
            a.set().map(t -> References.resolve(t, addresses::file, i -> References.NOWHERE)),
            a.remarks());
    byte[] qti = QtiWriter.withDraws(there);
    return transaction.execute(t -> keep(kept, qti));
  }

  private FileRef keep(FileRef kept, byte[] qti) {
    try {
      FileRef sent = files.keep(kept.name(), kept.mediaType(), new ByteArrayInputStream(qti));
      db.insertInto(SENT_QUESTIONS)
          .set(SENT_QUESTIONS.SENT, Fingerprint.parse(sent.sha256()).bytes())
          .set(SENT_QUESTIONS.KEPT, Fingerprint.parse(kept.sha256()).bytes())
          .onConflictDoNothing()
          .execute();
      return sent;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Looks up which files these were made of, in one query. */
  void lookUp(Collection<String> sent) {
    Set<String> open = new HashSet<>(sent);
    open.removeAll(known.asMap().keySet());
    if (open.isEmpty()) {
      return;
    }
    byte[][] wanted = open.stream().map(s -> Fingerprint.parse(s).bytes()).toArray(byte[][]::new);
    db.select(SENT_QUESTIONS.SENT, FILE.SHA256, FILE.MEDIA_TYPE, FILE.SIZE)
        .from(SENT_QUESTIONS)
        .join(FILE)
        .on(FILE.SHA256.eq(SENT_QUESTIONS.KEPT))
        .where(SENT_QUESTIONS.SENT.eq(any(wanted)))
        .forEach(
            r -> {
              String sha = Fingerprint.of(r.value1()).hex();
              open.remove(sha);
              String kept = Fingerprint.of(r.value2()).hex();
              known.put(sha, Optional.of(new FileRef(kept, "questions", r.value3(), r.value4())));
            });
    open.forEach(s -> known.put(s, Optional.empty()));
  }

  /** The kept file of one that was read; the same one if it was made of none. */
  FileRef kept(FileRef sent) {
    Optional<FileRef> k = known.getIfPresent(sent.sha256());
    if (k == null) {
      lookUp(Set.of(sent.sha256()));
      k = known.getIfPresent(sent.sha256());
    }
    return k == null
        ? sent
        : k.map(f -> new FileRef(f.sha256(), sent.name(), f.mediaType(), f.size())).orElse(sent);
  }
}
