package org.zephyrmist.server.delivery;

import static org.jooq.impl.DSL.any;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.DELIVERY_STEP;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.content.CopyRows;
import org.zephyrmist.server.db.tables.records.DeliveryLineRecord;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.db.tables.records.DeliveryStepRecord;
import org.zephyrmist.server.db.tables.records.SectionRecord;
import org.zephyrmist.server.platform.PlatformGateway.Written;
import tools.jackson.databind.json.JsonMapper;

/** Lines and their steps as they are stored. */
@Component
class Lines {
  private final DSLContext db;
  private final JsonMapper json;
  private final Clock clock;

  Lines(DSLContext db, JsonMapper json, Clock clock) {
    this.db = db;
    this.json = json;
    this.clock = clock;
  }

  /** A line with all that belongs to it. */
  record Open(DeliveryLineRecord line, DeliveryRecord delivery, SectionRecord section) {}

  Open open(UUID line) {
    return db.select()
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .where(DELIVERY_LINE.ID.eq(line))
        .fetchSingle(r -> new Open(r.into(DELIVERY_LINE), r.into(DELIVERY), r.into(SECTION)));
  }

  /** A line that waits for its turn and has no task on the queue. */
  record Stray(UUID line, boolean confirmed) {}

  List<Stray> strays() {
    return db.resultQuery(
            "select l.id, d.confirmed_at is not null as confirmed from delivery_line l"
                + " join delivery d on d.id = l.delivery_id"
                + " where l.state in ('TO_PLAN', 'WAITING', 'RUNNING', 'TRYING_AGAIN')"
                + " and not exists (select 1 from scheduled_tasks t"
                + "   where t.task_instance = l.id::text and t.task_name in"
                + "     ('plan-line', 'run-line'))")
        .fetch(r -> new Stray(r.get(0, UUID.class), r.get(1, Boolean.class)));
  }

  /**
   * Takes the section for this line; false while another line has it. A worker that took it for the
   * same line before, and was thought dead, can write no more.
   */
  boolean claim(UUID section, UUID line, UUID token) {
    return db.update(SECTION)
            .set(SECTION.BUSY_LINE, line)
            .set(SECTION.BUSY_TOKEN, token)
            .where(SECTION.ID.eq(section))
            .and(SECTION.BUSY_LINE.isNull().or(SECTION.BUSY_LINE.eq(line)))
            .execute()
        > 0;
  }

  void release(UUID section, UUID token) {
    db.update(SECTION)
        .setNull(SECTION.BUSY_LINE)
        .setNull(SECTION.BUSY_TOKEN)
        .where(SECTION.ID.eq(section))
        .and(SECTION.BUSY_TOKEN.eq(token))
        .execute();
  }

  /** Frees sections whose worker died after its line had ended. */
  void releaseLeft() {
    db.query(
            "update section set busy_line = null, busy_token = null where busy_line is not null"
                + " and not exists (select 1 from scheduled_tasks t"
                + "   where t.task_instance = busy_line::text)")
        .execute();
  }

  /** Another worker has taken over; whatever this one was about to note is not its business. */
  static final class TakenOver extends RuntimeException {
    TakenOver() {
      super("Another server has taken this line over");
    }
  }

  /** Makes sure, within the running transaction, that the section is still this worker's. */
  void hold(SectionRecord section) {
    boolean mine =
        db.selectOne()
            .from(SECTION)
            .where(SECTION.ID.eq(section.getId()))
            .and(SECTION.BUSY_TOKEN.eq(section.getBusyToken()))
            .forUpdate()
            .fetchOptional()
            .isPresent();
    if (!mine) {
      throw new TakenOver();
    }
  }

  void activity(UUID line, LineState state, String activity) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, state.name())
        .set(DELIVERY_LINE.ACTIVITY, activity)
        .setNull(DELIVERY_LINE.REASON)
        .setNull(DELIVERY_LINE.REMEDY)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void tryAgain(UUID line, int attempts, Duration pause, String reason, String remedy) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.TRYING_AGAIN.name())
        .set(DELIVERY_LINE.ATTEMPTS, attempts)
        .set(DELIVERY_LINE.NEXT_TRY, OffsetDateTime.now(clock).plus(pause))
        .set(DELIVERY_LINE.REASON, reason)
        .set(DELIVERY_LINE.REMEDY, remedy)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void needsPerson(UUID line, String reason, String remedy) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.NEEDS_PERSON.name())
        .set(DELIVERY_LINE.ACTIVITY, "")
        .set(DELIVERY_LINE.ATTEMPTS, 0)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .set(DELIVERY_LINE.REASON, reason)
        .set(DELIVERY_LINE.REMEDY, remedy)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void done(UUID line, String activity) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.DONE.name())
        .set(DELIVERY_LINE.ACTIVITY, activity)
        .set(DELIVERY_LINE.ATTEMPTS, 0)
        .setNull(DELIVERY_LINE.REASON)
        .setNull(DELIVERY_LINE.REMEDY)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .set(DELIVERY_LINE.FINISHED_AT, OffsetDateTime.now(clock))
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  /** Puts a plan in the place of an older one; steps that were recorded already stay. */
  @Transactional
  public void plan(
      Open open,
      List<Step> steps,
      Map<ItemKey, Base> bases,
      ShellReader.Reading shell,
      Map<ItemKey, Meant> meant,
      LineState state) {
    hold(open.section());
    UUID line = open.line().getId();
    db.deleteFrom(DELIVERY_STEP)
        .where(DELIVERY_STEP.LINE_ID.eq(line))
        .and(DELIVERY_STEP.RECORDED.isFalse())
        .execute();
    Set<String> recorded = new HashSet<>();
    int[] n = {0};
    db.selectFrom(DELIVERY_STEP)
        .where(DELIVERY_STEP.LINE_ID.eq(line))
        .forEach(
            r -> {
              recorded.add(r.getItemKey());
              n[0] = Math.max(n[0], r.getN() + 1);
            });
    EnumMap<StepKind, Integer> counts = new EnumMap<>(StepKind.class);
    List<DeliveryStepRecord> rows = new ArrayList<>();
    int moving = 0;
    for (Step s : steps) {
      counts.merge(s.kind(), 1, Integer::sum);
      if (s.kind() != StepKind.SAME && !recorded.contains(s.key().value())) {
        rows.add(row(line, n[0]++, s, bases, shell, meant));
        moving += s.moves() ? 1 : 0;
      }
    }
    store(rows);
    Map<String, Integer> named = new TreeMap<>();
    counts.forEach((k, c) -> named.put(k.name(), c));
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, state.name())
        .set(DELIVERY_LINE.STEPS, recorded.size() + moving)
        .set(DELIVERY_LINE.STEPS_DONE, recorded.size())
        .set(DELIVERY_LINE.SAME, counts.getOrDefault(StepKind.SAME, 0))
        .set(DELIVERY_LINE.COUNTS, JSONB.valueOf(json.writeValueAsString(named)))
        .set(DELIVERY_LINE.READ_AT, OffsetDateTime.now(clock))
        .set(DELIVERY_LINE.READ_TAG, shell.tag())
        .set(DELIVERY_LINE.ACTIVITY, "")
        .setNull(DELIVERY_LINE.REASON)
        .setNull(DELIVERY_LINE.REMEDY)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  private void store(List<DeliveryStepRecord> rows) {
    if (rows.isEmpty()) {
      return;
    }
    CopyRows.into(
        db,
        "delivery_step (line_id, n, item_key, item_kind, title, kind, reason, moves, writes,"
            + " aspect_steps, base, here, meant, platform_item, sent, done, recorded,"
            + " seen_revision)",
        copy -> {
          for (DeliveryStepRecord r : rows) {
            copy.row(18).add(r.getLineId()).add(r.getN()).add(r.getItemKey());
            copy.add(r.getItemKind()).add(r.getTitle()).add(r.getKind()).add(r.getReason());
            copy.add(r.getMoves()).add(r.getWrites()).addJson(r.getAspectSteps().data());
            copy.orNothing(r.getBase()).orNothing(r.getHere()).orNothing(r.getMeant());
            copy.orNothing(r.getPlatformItem()).add(r.getSent()).add(r.getDone());
            copy.add(r.getRecorded()).orNothing(r.getSeenRevision());
          }
        });
  }

  private DeliveryStepRecord row(
      UUID line,
      int n,
      Step s,
      Map<ItemKey, Base> bases,
      ShellReader.Reading shell,
      Map<ItemKey, Meant> meant) {
    DeliveryStepRecord r = new DeliveryStepRecord();
    r.setLineId(line);
    r.setN(n);
    r.setItemKey(s.key().value());
    r.setItemKind(s.itemKind().name());
    r.setTitle(s.title());
    r.setKind(s.kind().name());
    r.setReason(s.reason().name());
    r.setMoves(s.moves());
    r.setWrites(Ledger.mask(s.writes()));
    Map<String, String> aspects = new TreeMap<>();
    s.aspects().forEach((a, did) -> aspects.put(a.name(), did.name()));
    r.setAspectSteps(JSONB.valueOf(json.writeValueAsString(aspects)));
    Base b = bases.get(s.key());
    r.setBase(b == null ? null : b.shown().pack());
    r.setHere(
        s.id().map(shell.byId()::get).map(Held::aspects).map(Fingerprints::pack).orElse(null));
    r.setSeenRevision(s.id().map(shell.revisions()::get).orElse(null));
    Meant m = meant.get(s.key());
    r.setMeant(m == null ? null : m.aspects().pack());
    r.setPlatformItem(s.id().orElse(null));
    r.setSent(false);
    r.setDone(false);
    r.setRecorded(false);
    return r;
  }

  /** Whether its plan says that there is nothing at all to do. */
  boolean nothingPlanned(Open open) {
    return open.line().getReadTag() != null
        && open.line().getSame() > 0
        && !db.fetchExists(DELIVERY_STEP, DELIVERY_STEP.LINE_ID.eq(open.line().getId()));
  }

  List<DeliveryStepRecord> steps(UUID line) {
    return db.selectFrom(DELIVERY_STEP)
        .where(DELIVERY_STEP.LINE_ID.eq(line))
        .orderBy(DELIVERY_STEP.N)
        .fetch();
  }

  /** Steps of any line of the section that were sent and of which the ledger does not know. */
  List<DeliveryStepRecord> unsettled(UUID section) {
    return db.select(DELIVERY_STEP.fields())
        .from(DELIVERY_STEP)
        .join(DELIVERY_LINE)
        .on(DELIVERY_LINE.ID.eq(DELIVERY_STEP.LINE_ID))
        .where(DELIVERY_LINE.SECTION_ID.eq(section))
        .and(DELIVERY_STEP.SENT)
        .and(DELIVERY_STEP.RECORDED.isFalse())
        .orderBy(DELIVERY_STEP.LINE_ID, DELIVERY_STEP.N)
        .fetchInto(DELIVERY_STEP);
  }

  /** Notes that steps are about to be sent, under which keys. */
  @Transactional
  public void sending(Open open, Map<String, String> keyByItem) {
    hold(open.section());
    db.query(
            "update delivery_step s set sent = true, sent_key = x.key"
                + " from unnest(?::text[], ?::text[]) as x (item, key)"
                + " where s.line_id = ? and s.item_key = x.item",
            keyByItem.keySet().toArray(String[]::new),
            keyByItem.values().toArray(String[]::new),
            open.line().getId())
        .execute();
  }

  /** Notes that steps were sent and that nothing was done. */
  @Transactional
  public void notDone(Open open, Collection<String> items) {
    hold(open.section());
    db.update(DELIVERY_STEP)
        .set(DELIVERY_STEP.SENT, false)
        .where(DELIVERY_STEP.LINE_ID.eq(open.line().getId()))
        .and(DELIVERY_STEP.ITEM_KEY.in(items))
        .and(DELIVERY_STEP.DONE.isFalse())
        .execute();
  }

  /** Notes that steps are written, and as which items of the platform. */
  @Transactional
  public void written(Open open, Map<String, Written> byItem) {
    hold(open.section());
    UUID line = open.line().getId();
    int done =
        db.query(
                "update delivery_step s set done = true, platform_item = x.id,"
                    + " left_revision = x.revision"
                    + " from unnest(?::text[], ?::text[], ?::text[]) as x (item, id, revision)"
                    + " where s.line_id = ? and s.item_key = x.item and not s.done",
                byItem.keySet().toArray(String[]::new),
                byItem.values().stream().map(Written::id).toArray(String[]::new),
                byItem.values().stream().map(Written::revision).toArray(String[]::new),
                line)
            .execute();
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STEPS_DONE, DELIVERY_LINE.STEPS_DONE.plus(done))
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void recorded(UUID line, List<String> items) {
    db.update(DELIVERY_STEP)
        .set(DELIVERY_STEP.RECORDED, true)
        .set(DELIVERY_STEP.DONE, true)
        .where(DELIVERY_STEP.LINE_ID.eq(line))
        .and(DELIVERY_STEP.ITEM_KEY.eq(any(items.toArray(String[]::new))))
        .execute();
  }

  static Set<Aspect> writes(DeliveryStepRecord r) {
    Set<Aspect> all = new java.util.TreeSet<>();
    for (Aspect a : Aspect.values()) {
      if ((r.getWrites() & 1 << a.ordinal()) != 0) {
        all.add(a);
      }
    }
    return all;
  }
}
