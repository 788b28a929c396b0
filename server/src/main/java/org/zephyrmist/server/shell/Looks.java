package org.zephyrmist.server.shell;

import static org.zephyrmist.server.db.Tables.OWN_ITEM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SHELL_UNREAD;

import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Query;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.server.platform.PlatformException;

/** When shells were looked at last, in which state they were, and what was their sections' own. */
@Component
public class Looks {
  private static final Duration AFTER_TROUBLE = Duration.ofHours(1);
  private final DSLContext db;
  private final Clock clock;

  Looks(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** An item that no master brought. */
  public record OwnItem(Kind kind, String title, String by, String at) {}

  /** The platform's name for the state in which a shell was when it was read; empty if none. */
  String tag(UUID section) {
    return db.select(SECTION.STATE_TAG)
        .from(SECTION)
        .where(SECTION.ID.eq(section))
        .fetchOptional(SECTION.STATE_TAG)
        .orElse("");
  }

  /** It was looked at, and is still in the state in which it was read. */
  void again(UUID section) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.update(SECTION).set(SECTION.LOOKED_AT, now).where(SECTION.ID.eq(section)).execute();
    db.query("update standing set read_at = ?::timestamptz where section_id = ?", now, section)
        .execute();
  }

  /** It could not be looked at, and is left alone for a while. */
  @Transactional
  public void failed(UUID section, Duration every, PlatformException why) {
    db.batch(unread(section, "", "", why)).execute();
    db.update(SECTION)
        .set(SECTION.LOOKED_AT, OffsetDateTime.now(clock).minus(every).plus(AFTER_TROUBLE))
        .where(SECTION.ID.eq(section))
        .execute();
  }

  private Query unread(UUID section, String item, String title, PlatformException why) {
    return db.insertInto(SHELL_UNREAD)
        .set(SHELL_UNREAD.SECTION_ID, section)
        .set(SHELL_UNREAD.PLATFORM_ITEM, item)
        .set(SHELL_UNREAD.TITLE, title)
        .set(SHELL_UNREAD.WHY, why.getMessage())
        .set(SHELL_UNREAD.REMEDY, why.remedy())
        .set(SHELL_UNREAD.SINCE, OffsetDateTime.now(clock))
        .set(SHELL_UNREAD.PASSES, why.kind() != PlatformException.Kind.LASTING)
        .onConflict(SHELL_UNREAD.SECTION_ID, SHELL_UNREAD.PLATFORM_ITEM)
        .doUpdate()
        .set(SHELL_UNREAD.WHY, DSL.excluded(SHELL_UNREAD.WHY))
        .set(SHELL_UNREAD.REMEDY, DSL.excluded(SHELL_UNREAD.REMEDY));
  }

  /**
   * What of a shell cannot be read.
   *
   * @param item its title; empty: nothing of the shell can
   */
  public record Unread(
      @NotNull String item,
      @NotNull String why,
      @NotNull String remedy,
      @NotNull OffsetDateTime since) {}

  /** What of sections' shells could not be read when they were looked at last. */
  public Map<UUID, List<Unread>> unread(Collection<UUID> sections) {
    return db.selectFrom(SHELL_UNREAD)
        .where(SHELL_UNREAD.SECTION_ID.eq(DSL.any(sections.toArray(UUID[]::new))))
        .and(lasts())
        .orderBy(SHELL_UNREAD.TITLE, SHELL_UNREAD.PLATFORM_ITEM)
        .fetchGroups(
            SHELL_UNREAD.SECTION_ID,
            r -> new Unread(r.getTitle(), r.getWhy(), r.getRemedy(), r.getSince()));
  }

  /** Whether something of a shell could not be read when it was looked at last. */
  boolean lacks(UUID section) {
    return db.fetchExists(SHELL_UNREAD, SHELL_UNREAD.SECTION_ID.eq(section));
  }

  /** Sections of a term whose shells could not be read, all of it or items. */
  public List<UUID> unreadIn(UUID term) {
    return db.selectDistinct(SHELL_UNREAD.SECTION_ID)
        .from(SHELL_UNREAD)
        .join(SECTION)
        .on(SECTION.ID.eq(SHELL_UNREAD.SECTION_ID))
        .where(SECTION.TERM_ID.eq(term))
        .and(lasts())
        .fetch(SHELL_UNREAD.SECTION_ID);
  }

  /** What passes by itself is told when it is still so at the next look. */
  private Condition lasts() {
    OffsetDateTime before = OffsetDateTime.now(clock).minus(AFTER_TROUBLE.dividedBy(2));
    return SHELL_UNREAD.PASSES.isFalse().or(SHELL_UNREAD.SINCE.lt(before));
  }

  /** It was read. */
  @Transactional
  public void read(UUID section, Reading r) {
    List<String> still = r.unread().stream().map(Reading.Unread::id).toList();
    db.deleteFrom(SHELL_UNREAD)
        .where(SHELL_UNREAD.SECTION_ID.eq(section))
        .and(SHELL_UNREAD.PLATFORM_ITEM.notIn(still))
        .execute();
    db.batch(r.unread().stream().map(u -> unread(section, u.id(), u.title(), u.why())).toList())
        .execute();
    db.update(SECTION)
        .set(SECTION.LOOKED_AT, OffsetDateTime.now(clock))
        .set(SECTION.STATE_TAG, r.tag())
        .where(SECTION.ID.eq(section))
        .execute();
    db.deleteFrom(OWN_ITEM).where(OWN_ITEM.SECTION_ID.eq(section)).execute();
    List<Held> own = r.items().stream().filter(Held::free).toList();
    db.batch(own.stream().map(h -> insert(section, h, r.changes().get(h.id()))).toList()).execute();
  }

  private Query insert(UUID section, Held h, Reading.Change c) {
    return db.insertInto(OWN_ITEM)
        .set(OWN_ITEM.SECTION_ID, section)
        .set(OWN_ITEM.PLATFORM_ITEM, h.id())
        .set(OWN_ITEM.KIND, h.kind().name())
        .set(OWN_ITEM.TITLE, h.title())
        .set(OWN_ITEM.CHANGED_BY, c == null ? "" : c.by())
        .set(OWN_ITEM.CHANGED_AT, c == null ? "" : c.at());
  }

  /** What a section's shell held of its own when it was read last. */
  public List<OwnItem> own(UUID section) {
    return db.selectFrom(OWN_ITEM)
        .where(OWN_ITEM.SECTION_ID.eq(section))
        .orderBy(OWN_ITEM.TITLE, OWN_ITEM.PLATFORM_ITEM)
        .fetch(
            r ->
                new OwnItem(
                    Kind.valueOf(r.getKind()), r.getTitle(), r.getChangedBy(), r.getChangedAt()));
  }

  /**
   * An item that stands in several shells and that no master brought, by what it is called.
   *
   * @param sections in which it was when they were read last
   */
  public record Added(Kind kind, String title, List<UUID> sections) {}

  /** What sections added by hand, what most of them have first. */
  public List<Added> added(Collection<UUID> sections, int most) {
    Map<Called, Added> all = new LinkedHashMap<>();
    db.fetch(
            "select kind, title, array_agg(distinct section_id) from own_item"
                + " where section_id = any(?) and kind <> 'SETUP' group by kind, title order by title",
            (Object) sections.toArray(new UUID[0]))
        .forEach(
            r -> {
              Kind kind = Kind.valueOf(r.get(0, String.class));
              String title = r.get(1, String.class);
              List<UUID> in = List.of(r.get(2, UUID[].class));
              all.merge(
                  new Called(kind, Titles.folded(title)),
                  new Added(kind, title, in),
                  Looks::together);
            });
    return all.values().stream()
        .sorted(Comparator.comparingInt((Added a) -> a.sections().size()).reversed())
        .limit(most)
        .toList();
  }

  private record Called(Kind kind, String title) {}

  private static Added together(Added a, Added b) {
    Set<UUID> both = new LinkedHashSet<>(a.sections());
    both.addAll(b.sections());
    return new Added(a.kind(), a.title(), List.copyOf(both));
  }

  /**
   * Sections whose shells are to be looked at again, those that wait longest first.
   *
   * @param every zero: none is by itself
   */
  public List<UUID> due(Duration every, int most) {
    return every.isZero()
        ? List.of()
        : db.select(SECTION.ID)
            .from(SECTION)
            .where(SECTION.SHELL.isNotNull())
            .and(SECTION.IN_ROSTER)
            .and(
                SECTION
                    .LOOKED_AT
                    .isNull()
                    .or(SECTION.LOOKED_AT.lt(OffsetDateTime.now(clock).minus(every))))
            .and(
                "not exists (select 1 from scheduled_tasks t where t.task_name = 'read-section'"
                    + " and t.task_instance = section.id::text)")
            .orderBy(SECTION.LOOKED_AT.asc().nullsFirst())
            .limit(most)
            .fetch(SECTION.ID);
  }
}
