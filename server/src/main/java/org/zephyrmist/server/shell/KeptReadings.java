package org.zephyrmist.server.shell;

import static org.zephyrmist.server.db.Tables.SHELL_READING;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.shell.OpenDays;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.db.tables.records.ShellReadingRecord;
import org.zephyrmist.server.ledger.PackedShell;

/** What shells held when they were read last, so that they can be looked at without being read. */
@Component
public class KeptReadings {
  private final DSLContext db;
  private final PackedShell packed;
  private final Bodies bodies;
  private final Clock clock;

  KeptReadings(DSLContext db, PackedShell packed, Bodies bodies, Clock clock) {
    this.db = db;
    this.packed = packed;
    this.bodies = bodies;
    this.clock = clock;
  }

  /**
   * A shell as it was read last.
   *
   * @param items in the order of the platform
   */
  public record Kept(OffsetDateTime readAt, List<Held> items, Optional<OpenDays> open) {}

  /** Keeps the texts of everything that was read. */
  public void keepTexts(Reading r) {
    Map<Fingerprint, String> all = new HashMap<>();
    r.byId()
        .forEach(
            (id, held) ->
                r.forms().get(id).forEach((a, form) -> all.put(held.aspects().get(a), form)));
    bodies.keep(all);
  }

  /** Keeps a reading with its texts, in the place of an older one. */
  public void keep(UUID section, Reading r) {
    keepTexts(r);
    OffsetDateTime now = OffsetDateTime.now(clock);
    ShellReadingRecord row = new ShellReadingRecord();
    row.setSectionId(section);
    row.setReadAt(now);
    row.setItems(r.items().size());
    row.setReading(packed.pack(r.items()));
    row.setOpenKnown(r.open().isPresent());
    row.setOpens(r.open().flatMap(OpenDays::opens).orElse(null));
    row.setCloses(r.open().flatMap(OpenDays::closes).orElse(null));
    db.insertInto(SHELL_READING)
        .set(row)
        .onConflict(SHELL_READING.SECTION_ID)
        .doUpdate()
        .setAllToExcluded()
        .execute();
  }

  /** It was looked at, and is as it was read. */
  void again(UUID section) {
    db.update(SHELL_READING)
        .set(SHELL_READING.READ_AT, OffsetDateTime.now(clock))
        .where(SHELL_READING.SECTION_ID.eq(section))
        .execute();
  }

  public Optional<Kept> of(UUID section) {
    return Optional.ofNullable(of(List.of(section)).get(section));
  }

  /** Whether a reading of the section is kept. */
  boolean has(UUID section) {
    return db.fetchExists(SHELL_READING, SHELL_READING.SECTION_ID.eq(section));
  }

  /** Those of sections that were ever read; there are many, so they are unpacked side by side. */
  public Map<UUID, Kept> of(Collection<UUID> sections) {
    return db
        .selectFrom(SHELL_READING)
        .where(SHELL_READING.SECTION_ID.eq(DSL.any(sections.toArray(UUID[]::new))))
        .fetch()
        .parallelStream()
        .collect(Collectors.toMap(ShellReadingRecord::getSectionId, this::kept));
  }

  private Kept kept(ShellReadingRecord r) {
    Optional<OpenDays> open =
        r.getOpenKnown()
            ? Optional.of(
                new OpenDays(Optional.ofNullable(r.getOpens()), Optional.ofNullable(r.getCloses())))
            : Optional.empty();
    return new Kept(r.getReadAt(), packed.unpack(r.getReading()), open);
  }
}
