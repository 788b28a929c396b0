package org.zephyrmist.server.line;

import static org.jooq.impl.DSL.any;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.DELIVERY_STEP;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.Sides;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.edition.Evidence;
import org.zephyrmist.server.content.CopyRows;
import org.zephyrmist.server.db.tables.records.DeliveryStepRecord;
import org.zephyrmist.server.platform.PlatformGateway.Written;
import org.zephyrmist.server.shell.Reading;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** The steps of lines as they are stored: planned, sent, written, recorded. */
@Component
public class PlannedSteps {
  private static final TypeReference<Map<Aspect, Step.AspectStep>> ASPECTS =
      new TypeReference<>() {};
  private final DSLContext db;
  private final Lines lines;
  private final JsonMapper json;
  private final Clock clock;

  PlannedSteps(DSLContext db, Lines lines, JsonMapper json, Clock clock) {
    this.db = db;
    this.lines = lines;
    this.json = json;
    this.clock = clock;
  }

  /** Puts a plan in the place of an older one; steps that were recorded already stay. */
  @Transactional
  public void plan(Line of, List<Step> steps, Reading shell, boolean emptied, LineState state) {
    lines.hold(of);
    UUID line = of.id();
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
        rows.add(row(line, n[0]++, s, shell));
        moving += s.moves() ? 1 : 0;
      }
    }
    store(rows);
    Map<String, Integer> named = new TreeMap<>();
    counts.forEach((k, c) -> named.put(k.name(), c));
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, state)
        .set(DELIVERY_LINE.STEPS, recorded.size() + moving)
        .set(DELIVERY_LINE.STEPS_DONE, recorded.size())
        .set(DELIVERY_LINE.SAME, counts.getOrDefault(StepKind.SAME, 0))
        .set(DELIVERY_LINE.COUNTS, JSONB.valueOf(json.writeValueAsString(named)))
        .set(DELIVERY_LINE.READ_AT, OffsetDateTime.now(clock))
        .set(DELIVERY_LINE.READ_TAG, shell.tag())
        .set(DELIVERY_LINE.EMPTIED, emptied)
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
            + " aspect_steps, base, here, meant, becomes, platform_item, sent, done, recorded,"
            + " seen_revision, evidence)",
        copy -> {
          for (DeliveryStepRecord r : rows) {
            copy.row(20).add(r.getLineId()).add(r.getN()).add(r.getItemKey());
            copy.add(r.getItemKind().name()).add(r.getTitle());
            copy.add(r.getKind().name()).add(r.getReason().name());
            copy.add(r.getMoves()).add(r.getWrites()).addJson(r.getAspectSteps().data());
            copy.orNothing(r.getBase()).orNothing(r.getHere());
            copy.orNothing(r.getMeant()).orNothing(r.getBecomes());
            copy.orNothing(r.getPlatformItem()).add(r.getSent()).add(r.getDone());
            copy.add(r.getRecorded()).orNothing(r.getSeenRevision());
            copy.orNoJson(r.getEvidence() == null ? null : r.getEvidence().data());
          }
        });
  }

  private DeliveryStepRecord row(UUID line, int n, Step s, Reading shell) {
    DeliveryStepRecord r = new DeliveryStepRecord();
    r.setLineId(line);
    r.setN(n);
    r.setItemKey(s.key().value());
    r.setItemKind(s.itemKind());
    r.setTitle(s.title());
    r.setKind(s.kind());
    r.setReason(s.reason());
    r.setMoves(s.moves());
    r.setWrites(Aspect.bits(s.writes()));
    r.setAspectSteps(JSONB.valueOf(json.writeValueAsString(new TreeMap<>(s.aspects()))));
    r.setBase(packed(s.sides().base()));
    r.setHere(packed(s.sides().here()));
    r.setMeant(packed(s.sides().version()));
    r.setBecomes(packed(s.sides().becomes()));
    r.setSeenRevision(s.id().map(shell.revisions()::get).orElse(null));
    r.setPlatformItem(s.id().orElse(null));
    r.setEvidence(s.evidence().map(e -> JSONB.valueOf(json.writeValueAsString(e))).orElse(null));
    r.setSent(false);
    r.setDone(false);
    r.setRecorded(false);
    return r;
  }

  private static byte[] packed(Optional<Fingerprints> side) {
    return side.map(Fingerprints::pack).orElse(null);
  }

  /** Whether its plan says that there is nothing at all to do. */
  boolean nothingPlanned(Line line) {
    return line.readTag().isPresent()
        && line.same() > 0
        && !db.fetchExists(DELIVERY_STEP, DELIVERY_STEP.LINE_ID.eq(line.id()));
  }

  /** Whether anything of a line was done already. */
  boolean begun(UUID line) {
    return db.fetchExists(
        DELIVERY_STEP,
        DELIVERY_STEP
            .LINE_ID
            .eq(line)
            .and(DELIVERY_STEP.RECORDED.isTrue().or(DELIVERY_STEP.SENT.isTrue())));
  }

  /** The steps of a line's plan, but for what is the same. */
  List<Step> steps(UUID line) {
    return db.selectFrom(DELIVERY_STEP)
        .where(DELIVERY_STEP.LINE_ID.eq(line))
        .orderBy(DELIVERY_STEP.N)
        .fetch(this::step);
  }

  /** The steps of a line that were not done yet. */
  List<Step> unrecorded(UUID line) {
    return db.selectFrom(DELIVERY_STEP)
        .where(DELIVERY_STEP.LINE_ID.eq(line))
        .and(DELIVERY_STEP.RECORDED.isFalse())
        .orderBy(DELIVERY_STEP.N)
        .fetch(this::step);
  }

  /** The steps of a line that were done and of which the ledger knows. */
  List<Step> recorded(UUID line) {
    return db.selectFrom(DELIVERY_STEP)
        .where(DELIVERY_STEP.LINE_ID.eq(line))
        .and(DELIVERY_STEP.RECORDED)
        .orderBy(DELIVERY_STEP.N)
        .fetch(this::step);
  }

  /** Steps of any line of the section that were sent and of which the ledger does not know. */
  List<StoredStep> unsettled(UUID section) {
    return db.select(DELIVERY_STEP.fields())
        .from(DELIVERY_STEP)
        .join(DELIVERY_LINE)
        .on(DELIVERY_LINE.ID.eq(DELIVERY_STEP.LINE_ID))
        .where(DELIVERY_LINE.SECTION_ID.eq(section))
        .and(DELIVERY_STEP.SENT)
        .and(DELIVERY_STEP.RECORDED.isFalse())
        .orderBy(DELIVERY_STEP.LINE_ID, DELIVERY_STEP.N)
        .fetch(r -> stored(r.into(DELIVERY_STEP)));
  }

  /** Notes that steps are about to be sent, under which keys. */
  @Transactional
  public void sending(Line line, Map<String, String> keyByItem) {
    lines.hold(line);
    db.query(
            "update delivery_step s set sent = true, sent_key = x.key"
                + " from unnest(?::text[], ?::text[]) as x (item, key)"
                + " where s.line_id = ? and s.item_key = x.item",
            keyByItem.keySet().toArray(String[]::new),
            keyByItem.values().toArray(String[]::new),
            line.id())
        .execute();
  }

  /** Notes that steps were sent and that nothing was done. */
  @Transactional
  public void notDone(Line line, Collection<String> items) {
    lines.hold(line);
    db.update(DELIVERY_STEP)
        .set(DELIVERY_STEP.SENT, false)
        .where(DELIVERY_STEP.LINE_ID.eq(line.id()))
        .and(DELIVERY_STEP.ITEM_KEY.in(items))
        .and(DELIVERY_STEP.DONE.isFalse())
        .execute();
  }

  /** Notes that steps are written, and as which items of the platform. */
  @Transactional
  public void written(Line line, Map<String, Written> byItem) {
    lines.hold(line);
    int done =
        db.query(
                "update delivery_step s set done = true, platform_item = x.id,"
                    + " left_revision = x.revision"
                    + " from unnest(?::text[], ?::text[], ?::text[]) as x (item, id, revision)"
                    + " where s.line_id = ? and s.item_key = x.item and not s.done",
                byItem.keySet().toArray(String[]::new),
                byItem.values().stream().map(Written::id).toArray(String[]::new),
                byItem.values().stream().map(Written::revision).toArray(String[]::new),
                line.id())
            .execute();
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STEPS_DONE, DELIVERY_LINE.STEPS_DONE.plus(done))
        .where(DELIVERY_LINE.ID.eq(line.id()))
        .execute();
  }

  /** What was written of a line has not come and will not: its steps are as if never sent. */
  @Transactional
  public void neverCame(UUID line) {
    db.update(DELIVERY_STEP)
        .set(DELIVERY_STEP.SENT, false)
        .set(DELIVERY_STEP.DONE, false)
        .where(DELIVERY_STEP.LINE_ID.eq(line))
        .and(DELIVERY_STEP.RECORDED.isFalse())
        .execute();
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.ALL_WRITTEN, false)
        .set(DELIVERY_LINE.STEPS_DONE, 0)
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

  /** What items became by their steps, as the shell shows them where a platform tidied them. */
  void became(UUID line, Map<ItemKey, Fingerprints> shown) {
    if (shown.isEmpty()) {
      return;
    }
    db.query(
            "update delivery_step s set becomes = x.shown from unnest(?::text[], ?::bytea[]) x"
                + " (item, shown) where s.line_id = ? and s.item_key = x.item",
            shown.keySet().stream().map(ItemKey::value).toArray(String[]::new),
            shown.values().stream().map(Fingerprints::pack).toArray(byte[][]::new),
            line)
        .execute();
  }

  /** How the shell shows items after a line that the ledger does not note. */
  void left(UUID line, Map<ItemKey, Fingerprints> shown) {
    db.query(
            "update delivery_step s set base = x.shown from unnest(?::text[], ?::bytea[]) x (item,"
                + " shown) where s.line_id = ? and s.item_key = x.item",
            shown.keySet().stream().map(ItemKey::value).toArray(String[]::new),
            shown.values().stream().map(Fingerprints::pack).toArray(byte[][]::new),
            line)
        .execute();
  }

  /** The steps of an item in all sections of a delivery, by line. */
  public Map<UUID, Step> ofItem(UUID delivery, ItemKey item) {
    Map<UUID, Step> all = new HashMap<>();
    db.select(DELIVERY_STEP.fields())
        .from(DELIVERY_STEP)
        .join(DELIVERY_LINE)
        .on(DELIVERY_LINE.ID.eq(DELIVERY_STEP.LINE_ID))
        .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
        .and(DELIVERY_STEP.ITEM_KEY.eq(item.value()))
        .forEach(r -> all.put(r.get(DELIVERY_STEP.LINE_ID), step(r.into(DELIVERY_STEP))));
    return all;
  }

  private StoredStep stored(DeliveryStepRecord r) {
    return new StoredStep(
        r.getLineId(),
        step(r),
        Optional.ofNullable(r.getPlatformItem()),
        r.getDone(),
        Optional.ofNullable(r.getSentKey()),
        Optional.ofNullable(r.getSeenRevision()),
        Optional.ofNullable(r.getLeftRevision()));
  }

  private Step step(DeliveryStepRecord r) {
    return new Step(
        new ItemKey(r.getItemKey()),
        r.getItemKind(),
        r.getTitle(),
        r.getKind(),
        Optional.ofNullable(r.getPlatformItem()),
        json.readValue(r.getAspectSteps().data(), ASPECTS),
        Aspect.set(r.getWrites()),
        r.getReason(),
        new Sides(side(r.getBase()), side(r.getHere()), side(r.getMeant()), side(r.getBecomes())),
        Optional.ofNullable(r.getEvidence()).map(e -> json.readValue(e.data(), Evidence.class)));
  }

  private static Optional<Fingerprints> side(byte[] packed) {
    return Optional.ofNullable(packed).map(Fingerprints::unpack);
  }
}
