package org.zephyrmist.server.delivery;

import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.min;
import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.DELIVERY_STEP;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Decisions;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.edition.Evidence;
import org.zephyrmist.core.merge.Runs;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.ItemView;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.DeliveryStepRecord;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;
import org.zephyrmist.server.web.Sheet;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Plans as the interface shows them. */
@Component
public class PlanViews {
  private final DSLContext db;
  private final JsonMapper json;
  private final Trees trees;
  private final Bodies bodies;
  private final StepDecisions decisions;
  private final Reach reach;

  PlanViews(
      DSLContext db,
      JsonMapper json,
      Trees trees,
      Bodies bodies,
      StepDecisions decisions,
      Reach reach) {
    this.decisions = decisions;
    this.db = db;
    this.json = json;
    this.trees = trees;
    this.bodies = bodies;
    this.reach = reach;
  }

  /**
   * A row of the plan.
   *
   * @param inVersion false for what is to be retired
   */
  record PlanRow(
      @NotNull String key,
      @NotNull Kind kind,
      @NotNull String title,
      String parent,
      boolean inVersion) {}

  /** What a step may be; a plan has few of them and very many steps. */
  record StepCode(@NotNull StepKind kind, @NotNull Step.Reason reason, boolean moves) {}

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
      @NotNull List<int[]> steps) {}

  /** Words of a text, and whose they are: the section's (OURS) or the version's (THEIRS). */
  record SideRun(@NotNull Runs.Whose whose, @NotNull String text) {}

  /**
   * What can be decided.
   *
   * @param alike sections in which the same stands against the same, this one too
   * @param all sections in which the item clashes or has a twin
   * @param take what was decided; absent if the delivery's choice counts
   * @param together both texts merged; absent where they cannot be
   * @param clean whether nothing in them is both sides' at once
   */
  record ToDecide(
      int alike,
      int all,
      Decisions.Take take,
      List<SideRun> together,
      String html,
      boolean clean) {}

  /** How alike a twin is, each from 0 to 1. */
  record TwinEvidence(double text, double title, double neighbours) {}

  record StepSides(
      @NotNull StepKind kind,
      @NotNull Step.Reason reason,
      @NotNull Map<Aspect, Step.AspectStep> aspects,
      ItemView before,
      ItemView here,
      ItemView version,
      TwinEvidence evidence,
      ToDecide decide) {}

  /** The plan of one moment; the database gathers the steps of a line in one row. */
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public DeliveryPlan plan(UUID delivery, UUID version, SignedIn who) {
    UUID[] lines = lines(delivery, who);
    List<PlanRow> rows = rows(ofVersion(delivery) ? Optional.of(version) : Optional.empty(), lines);
    List<StepCode> codes =
        db.selectDistinct(DELIVERY_STEP.KIND, DELIVERY_STEP.REASON, DELIVERY_STEP.MOVES)
            .from(DELIVERY_STEP)
            .where(DELIVERY_STEP.LINE_ID.eq(any(lines)))
            .fetch(r -> new StepCode(r.value1(), r.value2(), r.value3()));
    joinInBulk();
    Map<UUID, int[]> steps = new HashMap<>();
    db.resultQuery(
            "select s.line_id, array_agg(r.at::int - 1 order by s.n), array_agg(c.at::int - 1 order"
                + " by s.n) from delivery_step s"
                + " join unnest(?::text[]) with ordinality r (item, at) on r.item = s.item_key"
                + " join unnest(?::text[], ?::text[], ?::boolean[]) with ordinality"
                + "   c (kind, reason, moves, at)"
                + "   on c.kind = s.kind and c.reason = s.reason and c.moves = s.moves"
                + " where s.line_id = any(?) group by s.line_id",
            rows.stream().map(PlanRow::key).toArray(String[]::new),
            codes.stream().map(c -> c.kind().name()).toArray(String[]::new),
            codes.stream().map(c -> c.reason().name()).toArray(String[]::new),
            codes.stream().map(StepCode::moves).toArray(Boolean[]::new),
            lines)
        .forEach(
            r ->
                steps.put(
                    r.get(0, UUID.class),
                    pairs(r.get(1, Integer[].class), r.get(2, Integer[].class))));
    return new DeliveryPlan(
        rows,
        List.of(lines),
        codes,
        Stream.of(lines).map(l -> steps.getOrDefault(l, new int[0])).toList());
  }

  /**
   * Steps that were just planned have no statistics yet: PostgreSQL then takes them for few and
   * goes through all items for each of them, for minutes. For the rest of the transaction it may
   * not.
   */
  public void joinInBulk() {
    db.execute("set local enable_nestloop = off");
  }

  private static int[] pairs(Integer[] rows, Integer[] codes) {
    int[] all = new int[rows.length * 2];
    for (int i = 0; i < rows.length; i++) {
      all[2 * i] = rows[i];
      all[2 * i + 1] = codes[i];
    }
    return all;
  }

  /** Lines within reach, in the order in which a delivery shows them. */
  private UUID[] lines(UUID delivery, SignedIn who) {
    return db.select(DELIVERY_LINE.ID)
        .from(DELIVERY_LINE)
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
        .and(reach.sections(who))
        .orderBy(SECTION.CODE, SECTION.ID)
        .fetchArray(DELIVERY_LINE.ID);
  }

  /** Whether it brings a version; else it makes a change of its own, or takes one back. */
  private boolean ofVersion(UUID delivery) {
    var back = DELIVERY.as("back");
    return !db.fetchExists(
        db.selectOne()
            .from(DELIVERY)
            .leftJoin(back)
            .on(back.ID.eq(DELIVERY.TAKES_BACK))
            .where(DELIVERY.ID.eq(delivery))
            .and(DELIVERY.EDIT.isNotNull().or(back.EDIT.isNotNull())));
  }

  /** The items of the version, then those that are to be retired or are in none. */
  private List<PlanRow> rows(Optional<UUID> version, UUID[] lines) {
    Map<String, PlanRow> rows = new LinkedHashMap<>();
    version.ifPresent(v -> ofVersion(v, rows));
    db.select(DELIVERY_STEP.ITEM_KEY, min(DELIVERY_STEP.ITEM_KIND), min(DELIVERY_STEP.TITLE))
        .from(DELIVERY_STEP)
        .where(DELIVERY_STEP.LINE_ID.eq(any(lines)))
        .groupBy(DELIVERY_STEP.ITEM_KEY)
        .orderBy(min(DELIVERY_STEP.N), DELIVERY_STEP.ITEM_KEY)
        .forEach(
            r ->
                rows.putIfAbsent(
                    r.value1(), new PlanRow(r.value1(), r.value2(), r.value3(), null, false)));
    return List.copyOf(rows.values());
  }

  private void ofVersion(UUID version, Map<String, PlanRow> rows) {
    UUID tree =
        db.select(VERSION.TREE_ID)
            .from(VERSION)
            .where(VERSION.ID.eq(version))
            .fetchSingle()
            .value1();
    for (Node n : trees.tree(tree).nodes()) {
      String parent = n.parent().map(ItemKey::value).orElse(null);
      String key = n.key().value();
      rows.put(key, new PlanRow(key, n.kind(), n.title(), parent, true));
    }
  }

  private static final List<String> HEAD =
      List.of("section", "campus", "kind", "item", "step", "why", "moves", "writes");

  /** The plan as a table, without what is the same. */
  @Transactional(readOnly = true)
  public void table(UUID delivery, SignedIn who, Sheet.Row rows) {
    try (var cursor =
        db.select(SECTION.CODE, CAMPUS.NAME)
            .select(DELIVERY_STEP.fields())
            .from(DELIVERY_STEP)
            .join(DELIVERY_LINE)
            .on(DELIVERY_LINE.ID.eq(DELIVERY_STEP.LINE_ID))
            .join(SECTION)
            .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
            .join(CAMPUS)
            .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
            .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
            .and(reach.sections(who))
            .orderBy(SECTION.CODE, SECTION.ID, DELIVERY_STEP.N)
            .fetchSize(1000)
            .fetchLazy()) {
      cursor.forEach(
          r ->
              rows.of(
                  Arrays.asList(
                      r.get(SECTION.CODE),
                      r.get(CAMPUS.NAME),
                      Sheet.words(r.get(DELIVERY_STEP.ITEM_KIND)),
                      r.get(DELIVERY_STEP.TITLE),
                      Sheet.words(r.get(DELIVERY_STEP.KIND)),
                      Sheet.words(r.get(DELIVERY_STEP.REASON)),
                      r.get(DELIVERY_STEP.MOVES) ? "yes" : "no",
                      Sheet.words(Aspect.set(r.get(DELIVERY_STEP.WRITES))))));
    }
  }

  static List<String> head() {
    return HEAD;
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
        json.readValue(
            s.getAspectSteps().data(), new TypeReference<Map<Aspect, Step.AspectStep>>() {}),
        side(s, s.getBase()),
        side(s, s.getHere()),
        side(s, s.getMeant()),
        evidence(s),
        decisions.open(delivery, line, new ItemKey(key)).map(PlanViews::toDecide).orElse(null));
  }

  private TwinEvidence evidence(DeliveryStepRecord s) {
    if (s.getEvidence() == null) {
      return null;
    }
    Evidence e = json.readValue(s.getEvidence().data(), Evidence.class);
    return new TwinEvidence(e.text(), e.title(), e.neighbours());
  }

  private static ToDecide toDecide(StepDecisions.Open o) {
    return new ToDecide(
        o.alike(),
        o.all(),
        o.take().orElse(null),
        o.merge()
            .map(m -> m.runs().stream().map(r -> new SideRun(r.whose(), r.text())).toList())
            .orElse(null),
        o.merge().map(StepDecisions.Merged::html).orElse(null),
        o.merge().map(StepDecisions.Merged::clean).orElse(true));
  }

  private ItemView side(DeliveryStepRecord s, byte[] packed) {
    if (packed == null) {
      return null;
    }
    Fingerprints f = Fingerprints.unpack(packed);
    Map<Fingerprint, String> forms = bodies.get(f.asMap().values());
    Item item =
        AspectForms.item(
            new ItemKey(s.getItemKey()), s.getItemKind(), EditRule.ADAPTABLE, f.forms(forms));
    return ItemView.of(item);
  }
}
