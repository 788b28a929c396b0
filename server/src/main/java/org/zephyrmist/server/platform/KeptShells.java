package org.zephyrmist.server.platform;

import static org.zephyrmist.server.db.Tables.KEPT_ITEM;
import static org.zephyrmist.server.db.Tables.KEPT_SHELL;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.db.tables.records.KeptItemRecord;
import org.zephyrmist.server.platform.PlatformGateway.Contents;
import org.zephyrmist.server.platform.PlatformGateway.ShellItem;

/**
 * What shells hold that nobody can ask: as it was said or exported, and beside it, while a package
 * waits to be brought in, as it will be then.
 */
@Component
public class KeptShells {
  private final DSLContext db;
  private final Bodies bodies;
  private final Clock clock;

  KeptShells(DSLContext db, Bodies bodies, Clock clock) {
    this.db = db;
    this.bodies = bodies;
    this.clock = clock;
  }

  /** How it is known what a shell holds. */
  public enum Known {
    /** It is not: the shell is taken to be empty. */
    NOTHING,
    /** Somebody said that a package was brought in. */
    SAID,
    /** By a package that was exported from it. */
    EXPORTED
  }

  /**
   * What is known of a shell.
   *
   * @param packageAt since when a package waits to be brought in
   */
  public record State(Known known, OffsetDateTime knownAt, Optional<OffsetDateTime> packageAt) {}

  public Optional<State> state(UUID section) {
    return db.selectFrom(KEPT_SHELL)
        .where(KEPT_SHELL.SECTION_ID.eq(section))
        .fetchOptional(
            r ->
                new State(
                    Known.valueOf(r.getKnown()),
                    r.getKnownAt(),
                    Optional.ofNullable(r.getPackageAt())));
  }

  /** Whether the section's shell can be asked what it holds, or there is none. */
  public boolean asked(UUID section) {
    return !db.fetchExists(
        db.selectOne()
            .from(SECTION)
            .join(PLATFORM)
            .on(PLATFORM.ID.eq(SECTION.PLATFORM_ID))
            .where(SECTION.ID.eq(section))
            .and(PLATFORM.ADDRESS.isNull()));
  }

  boolean waits(UUID section) {
    return state(section).flatMap(State::packageAt).isPresent();
  }

  String tag(UUID section) {
    return db.select(KEPT_SHELL.STATE)
        .from(KEPT_SHELL)
        .where(KEPT_SHELL.SECTION_ID.eq(section))
        .fetchOptional(KEPT_SHELL.STATE)
        .orElse("");
  }

  /**
   * @param meant as it will be once the package that waits is brought in
   */
  Contents read(UUID section, boolean meant) {
    List<KeptItemRecord> rows =
        db.selectFrom(KEPT_ITEM)
            .where(KEPT_ITEM.SECTION_ID.eq(section))
            .and(KEPT_ITEM.MEANT.eq(meant))
            .orderBy(KEPT_ITEM.ITEM)
            .fetch();
    Set<Fingerprint> wanted = new HashSet<>();
    rows.forEach(r -> wanted.addAll(Fingerprints.unpack(r.getAspects()).asMap().values()));
    Map<Fingerprint, String> forms = bodies.get(wanted);
    List<ShellItem> items = new ArrayList<>();
    for (KeptItemRecord r : rows) {
      Map<Aspect, String> of = Fingerprints.unpack(r.getAspects()).forms(forms);
      items.add(
          new ShellItem(
              r.getItem(),
              r.getKind(),
              Optional.ofNullable(r.getParent()),
              of,
              false,
              "",
              "",
              r.getRevision()));
    }
    return new Contents(items, tag(section), Optional.empty(), Optional.empty());
  }

  /** The packages that wait were brought in, as somebody says; where none waits, nothing moves. */
  @Transactional
  public void broughtIn(Collection<UUID> sections) {
    List<UUID> waited = ends(sections, Known.SAID);
    db.deleteFrom(KEPT_ITEM)
        .where(KEPT_ITEM.SECTION_ID.in(waited))
        .and(KEPT_ITEM.MEANT.isFalse())
        .execute();
    db.update(KEPT_ITEM)
        .set(KEPT_ITEM.MEANT, false)
        .where(KEPT_ITEM.SECTION_ID.in(waited))
        .and(KEPT_ITEM.MEANT)
        .execute();
  }

  /** The package that waits will not be brought in. */
  @Transactional
  public void putAway(UUID section) {
    delete(section, true);
    db.update(KEPT_SHELL)
        .setNull(KEPT_SHELL.PACKAGE_AT)
        .where(KEPT_SHELL.SECTION_ID.eq(section))
        .execute();
  }

  /** Those of the sections for which a package had waited. */
  List<UUID> ends(Collection<UUID> sections, Known how) {
    return db.update(KEPT_SHELL)
        .set(KEPT_SHELL.STATE, UUID.randomUUID().toString())
        .set(KEPT_SHELL.KNOWN, how.name())
        .set(KEPT_SHELL.KNOWN_AT, OffsetDateTime.now(clock))
        .setNull(KEPT_SHELL.PACKAGE_AT)
        .where(KEPT_SHELL.SECTION_ID.in(sections))
        .and(KEPT_SHELL.PACKAGE_AT.isNotNull())
        .returning(KEPT_SHELL.SECTION_ID)
        .fetch(KEPT_SHELL.SECTION_ID);
  }

  void delete(UUID section, boolean meant) {
    db.deleteFrom(KEPT_ITEM)
        .where(KEPT_ITEM.SECTION_ID.eq(section))
        .and(KEPT_ITEM.MEANT.eq(meant))
        .execute();
  }
}
