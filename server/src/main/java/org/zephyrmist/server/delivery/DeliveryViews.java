package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.DELIVERY_STEP;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.ItemView;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.DeliveryStepRecord;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.section.Instructors;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Deliveries as the interface shows them. */
@Component
class DeliveryViews {
  private final DSLContext db;
  private final JsonMapper json;
  private final Trees trees;
  private final Bodies bodies;
  private final Reach reach;
  private final Instructors instructors;

  DeliveryViews(
      DSLContext db,
      JsonMapper json,
      Trees trees,
      Bodies bodies,
      Reach reach,
      Instructors instructors) {
    this.db = db;
    this.json = json;
    this.trees = trees;
    this.bodies = bodies;
    this.reach = reach;
    this.instructors = instructors;
  }

  record DeliverySummary(
      @NotNull UUID id,
      @NotNull UUID master,
      @NotNull String masterCode,
      @NotNull String masterTitle,
      @NotNull UUID version,
      int number,
      @NotNull String state,
      @NotNull String clash,
      @NotNull String twin,
      @NotNull String madeBy,
      @NotNull OffsetDateTime madeAt,
      OffsetDateTime confirmedAt,
      OffsetDateTime finishedAt,
      @NotNull Map<String, Integer> lines) {}

  record DeliveryLine(
      @NotNull UUID id,
      @NotNull UUID section,
      @NotNull String code,
      @NotNull String campus,
      @NotNull String instructors,
      @NotNull String state,
      @NotNull String activity,
      int steps,
      int stepsDone,
      int same,
      int attempts,
      OffsetDateTime nextTry,
      String reason,
      String remedy,
      @NotNull Map<String, Integer> counts,
      OffsetDateTime readAt) {}

  record DeliveryDetail(@NotNull DeliverySummary delivery, @NotNull List<DeliveryLine> lines) {}

  /**
   * A row of the plan.
   *
   * @param inVersion false for what is to be retired
   */
  record PlanRow(
      @NotNull String key,
      @NotNull String kind,
      @NotNull String title,
      String parent,
      boolean inVersion) {}

  /** What a step may be; a plan has few of them and very many steps. */
  record StepCode(@NotNull String kind, @NotNull String reason, boolean moves) {}

  /**
   * A plan; what is the same has no step in it.
   *
   * @param steps for each line, in the order of the lines: row, code, row, code, …, both by their
   *     place in the lists
   */
  record DeliveryPlan(
      @NotNull List<PlanRow> rows,
      @NotNull List<UUID> lines,
      @NotNull List<StepCode> codes,
      @NotNull List<List<Integer>> steps) {}

  record StepSides(
      @NotNull String kind,
      @NotNull String reason,
      @NotNull Map<String, String> aspects,
      ItemView before,
      ItemView here,
      ItemView version) {}

  List<DeliverySummary> list(SignedIn who, int most) {
    return summaries(reach.masters(who), most);
  }

  List<DeliverySummary> running(SignedIn who) {
    return summaries(reach.masters(who).and(DELIVERY.STATE.in("RUNNING", "PLANNING")), 20);
  }

  private List<DeliverySummary> summaries(Condition which, int most) {
    var made = PERSON.as("made");
    List<DeliverySummary> all =
        db.select(DELIVERY.fields())
            .select(MASTER.ID, MASTER.CODE, MASTER.TITLE, VERSION.NUMBER, made.NAME)
            .from(DELIVERY)
            .join(VERSION)
            .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
            .join(MASTER)
            .on(MASTER.ID.eq(VERSION.MASTER_ID))
            .join(made)
            .on(made.ID.eq(DELIVERY.MADE_BY))
            .where(which)
            .orderBy(DELIVERY.MADE_AT.desc())
            .limit(most)
            .fetch(
                r ->
                    new DeliverySummary(
                        r.get(DELIVERY.ID),
                        r.get(MASTER.ID),
                        r.get(MASTER.CODE),
                        r.get(MASTER.TITLE),
                        r.get(DELIVERY.VERSION_ID),
                        r.get(VERSION.NUMBER),
                        r.get(DELIVERY.STATE),
                        r.get(DELIVERY.CLASH),
                        r.get(DELIVERY.TWIN),
                        r.get(made.NAME),
                        r.get(DELIVERY.MADE_AT),
                        r.get(DELIVERY.CONFIRMED_AT),
                        r.get(DELIVERY.FINISHED_AT),
                        new LinkedHashMap<>()));
    Map<UUID, DeliverySummary> byId = new HashMap<>();
    all.forEach(s -> byId.put(s.id(), s));
    var n = org.jooq.impl.DSL.count();
    db.select(DELIVERY_LINE.DELIVERY_ID, DELIVERY_LINE.STATE, n)
        .from(DELIVERY_LINE)
        .where(DELIVERY_LINE.DELIVERY_ID.in(byId.keySet()))
        .groupBy(DELIVERY_LINE.DELIVERY_ID, DELIVERY_LINE.STATE)
        .forEach(r -> byId.get(r.value1()).lines().put(r.value2(), r.value3()));
    return all;
  }

  /** The lines are those of sections within reach. */
  DeliveryDetail detail(UUID id, SignedIn who) {
    return new DeliveryDetail(summaries(DELIVERY.ID.eq(id), 1).get(0), lines(id, who));
  }

  private List<DeliveryLine> lines(UUID delivery, SignedIn who) {
    Map<UUID, String> names = instructors.ofDelivery(delivery);
    return db.select(DELIVERY_LINE.fields())
        .select(SECTION.CODE, CAMPUS.NAME)
        .from(DELIVERY_LINE)
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
        .and(reach.sections(who))
        .orderBy(SECTION.CODE, SECTION.ID)
        .fetch(
            r ->
                new DeliveryLine(
                    r.get(DELIVERY_LINE.ID),
                    r.get(DELIVERY_LINE.SECTION_ID),
                    r.get(SECTION.CODE),
                    r.get(CAMPUS.NAME),
                    names.getOrDefault(r.get(DELIVERY_LINE.SECTION_ID), ""),
                    r.get(DELIVERY_LINE.STATE),
                    r.get(DELIVERY_LINE.ACTIVITY),
                    r.get(DELIVERY_LINE.STEPS),
                    r.get(DELIVERY_LINE.STEPS_DONE),
                    r.get(DELIVERY_LINE.SAME),
                    r.get(DELIVERY_LINE.ATTEMPTS),
                    r.get(DELIVERY_LINE.NEXT_TRY),
                    r.get(DELIVERY_LINE.REASON),
                    r.get(DELIVERY_LINE.REMEDY),
                    json.readValue(
                        r.get(DELIVERY_LINE.COUNTS).data(),
                        new TypeReference<Map<String, Integer>>() {}),
                    r.get(DELIVERY_LINE.READ_AT)));
  }

  DeliveryPlan plan(UUID delivery, UUID version, SignedIn who) {
    UUID tree =
        db.select(VERSION.TREE_ID)
            .from(VERSION)
            .where(VERSION.ID.eq(version))
            .fetchSingle()
            .value1();
    List<PlanRow> rows = new ArrayList<>();
    Map<String, Integer> rowOf = new HashMap<>();
    for (Trees.Node n : trees.nodes(tree)) {
      rowOf.put(n.key().value(), rows.size());
      rows.add(
          new PlanRow(
              n.key().value(),
              n.kind().name(),
              n.title(),
              n.parent().map(ItemKey::value).orElse(null),
              true));
    }
    List<UUID> lines = lines(delivery, who).stream().map(DeliveryLine::id).toList();
    Map<UUID, Integer> lineOf = new HashMap<>();
    lines.forEach(l -> lineOf.put(l, lineOf.size()));
    Map<StepCode, Integer> codes = new LinkedHashMap<>();
    List<List<Integer>> steps = new ArrayList<>();
    lines.forEach(l -> steps.add(new ArrayList<>()));
    db.select(
            DELIVERY_STEP.LINE_ID,
            DELIVERY_STEP.ITEM_KEY,
            DELIVERY_STEP.ITEM_KIND,
            DELIVERY_STEP.TITLE,
            DELIVERY_STEP.KIND,
            DELIVERY_STEP.REASON,
            DELIVERY_STEP.MOVES)
        .from(DELIVERY_STEP)
        .where(DELIVERY_STEP.LINE_ID.in(lines))
        .orderBy(DELIVERY_STEP.LINE_ID, DELIVERY_STEP.N)
        .forEach(
            r -> {
              Integer row = rowOf.get(r.value2());
              if (row == null) {
                row = rows.size();
                rowOf.put(r.value2(), row);
                rows.add(new PlanRow(r.value2(), r.value3(), r.value4(), null, false));
              }
              StepCode code = new StepCode(r.value5(), r.value6(), r.value7());
              List<Integer> line = steps.get(lineOf.get(r.value1()));
              line.add(row);
              line.add(codes.computeIfAbsent(code, c -> codes.size()));
            });
    return new DeliveryPlan(rows, lines, List.copyOf(codes.keySet()), steps);
  }

  /** Delivered before, in the section, in the version: the three sides of one step. */
  StepSides sides(UUID delivery, UUID line, String key, SignedIn who) {
    DeliveryStepRecord s =
        db.select(DELIVERY_STEP.fields())
            .from(DELIVERY_STEP)
            .join(DELIVERY_LINE)
            .on(DELIVERY_LINE.ID.eq(DELIVERY_STEP.LINE_ID))
            .join(SECTION)
            .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
            .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
            .and(reach.sections(who))
            .and(DELIVERY_STEP.LINE_ID.eq(line))
            .and(DELIVERY_STEP.ITEM_KEY.eq(key))
            .fetchOptional(r -> r.into(DELIVERY_STEP))
            .orElseThrow(() -> Refusal.notFound("step"));
    return new StepSides(
        s.getKind(),
        s.getReason(),
        json.readValue(s.getAspectSteps().data(), new TypeReference<Map<String, String>>() {}),
        side(s, s.getBase()),
        side(s, s.getHere()),
        side(s, s.getMeant()));
  }

  private ItemView side(DeliveryStepRecord s, byte[] packed) {
    if (packed == null) {
      return null;
    }
    Fingerprints f = Fingerprints.unpack(packed);
    Map<Fingerprint, String> forms = bodies.get(f.asMap().values());
    Map<Aspect, String> byAspect = new java.util.EnumMap<>(Aspect.class);
    f.asMap().forEach((a, print) -> byAspect.put(a, forms.get(print)));
    Item item =
        AspectForms.item(
            new ItemKey(s.getItemKey()),
            Kind.valueOf(s.getItemKind()),
            EditRule.ADAPTABLE,
            byAspect);
    return ItemView.of(item);
  }
}
