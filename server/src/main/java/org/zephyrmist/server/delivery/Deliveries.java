package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.DeliveryState;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.PartsChoice;
import org.zephyrmist.server.db.tables.records.DeliveryLineRecord;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.line.ChosenParts;
import org.zephyrmist.server.line.LineEnds;
import org.zephyrmist.server.line.PlanLine;
import org.zephyrmist.server.line.RunLine;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Orders deliveries, starts, stops and goes on with them. */
@Component
public class Deliveries {
  private static final int MOST_SECTIONS = 5000;
  private final DSLContext db;
  private final Queue queue;
  private final LineEnds ends;
  private final Versions versions;
  private final JsonMapper json;
  private final Reach reach;
  private final Clock clock;
  private final Events events;

  Deliveries(
      DSLContext db,
      Queue queue,
      LineEnds ends,
      Versions versions,
      Reach reach,
      Clock clock,
      JsonMapper json,
      Events events) {
    this.versions = versions;
    this.json = json;
    this.db = db;
    this.queue = queue;
    this.ends = ends;
    this.reach = reach;
    this.clock = clock;
    this.events = events;
  }

  /** A new delivery; its lines are planned in the background. */
  @Transactional
  public UUID make(
      UUID version, List<UUID> sections, PartsChoice parts, Choices choices, SignedIn who) {
    List<UUID> reached = reached(version, sections, who);
    something(version, parts);
    UUID id = UUID.randomUUID();
    db.insertInto(DELIVERY)
        .set(DELIVERY.ID, id)
        .set(DELIVERY.VERSION_ID, version)
        .set(DELIVERY.STATE, DeliveryState.PLANNING)
        .set(DELIVERY.CLASH, choices.clash())
        .set(DELIVERY.TWIN, choices.twin())
        .set(DELIVERY.ARRIVAL, choices.arrival())
        .set(DELIVERY.DATES, choices.dates())
        .set(DELIVERY.EMPTIED, choices.emptied())
        .set(DELIVERY.PARTS, json(parts))
        .set(DELIVERY.MADE_BY, who.id())
        .set(DELIVERY.MADE_AT, OffsetDateTime.now(clock))
        .execute();
    List<DeliveryLineRecord> lines =
        reached.stream()
            .map(
                s -> {
                  DeliveryLineRecord l = new DeliveryLineRecord();
                  l.setId(UUID.randomUUID());
                  l.setDeliveryId(id);
                  l.setSectionId(s);
                  l.setState(LineState.TO_PLAN);
                  return l;
                })
            .toList();
    db.batchInsert(lines).execute();
    queue.put(PlanLine.NAME, lines.stream().map(DeliveryLineRecord::getId).toList());
    return id;
  }

  /** Notes the recipe that a new delivery was made by; one of another master is none. */
  void madeBy(UUID delivery, UUID recipe) {
    db.query(
            "update delivery d set recipe_id = r.id from recipe r, version v where d.id = ? and r.id"
                + " = ? and v.id = d.version_id and r.master_id = v.master_id",
            delivery,
            recipe)
        .execute();
  }

  /** The sections, all of which this person reaches, as the version's master. */
  List<UUID> reached(UUID version, List<UUID> sections, SignedIn who) {
    if (sections.isEmpty() || sections.size() > MOST_SECTIONS) {
      throw Refusal.bad(
          "A delivery goes to 1 to " + MOST_SECTIONS + " sections.", "Choose sections first.");
    }
    if (!db.fetchExists(
        db.selectOne()
            .from(VERSION)
            .join(MASTER)
            .on(MASTER.ID.eq(VERSION.MASTER_ID))
            .where(VERSION.ID.eq(version))
            .and(reach.masters(who)))) {
      throw Refusal.notFound("version");
    }
    List<UUID> reached =
        db.select(SECTION.ID)
            .from(SECTION)
            .where(SECTION.ID.in(sections))
            .and(reach.sections(who))
            .fetch(SECTION.ID);
    if (reached.size() < sections.stream().distinct().count()) {
      throw Refusal.notFound("section");
    }
    return reached;
  }

  private void something(UUID version, PartsChoice parts) {
    Versions.Version v = versions.get(version);
    if (parts.chosen(v.tree(), Map.of()).isEmpty()) {
      throw Refusal.bad(
          "No item of version " + v.number() + " is chosen.", "Choose what is to be brought.");
    }
  }

  /** A delivery this person may see: of a master within reach. */
  public DeliveryRecord get(UUID id, SignedIn who) {
    return db.select(DELIVERY.fields())
        .from(DELIVERY)
        .join(VERSION)
        .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
        .join(MASTER)
        .on(MASTER.ID.eq(VERSION.MASTER_ID))
        .where(DELIVERY.ID.eq(id))
        .and(reach.masters(who))
        .fetchOptional(r -> r.into(DELIVERY))
        .orElseThrow(() -> Refusal.notFound("delivery"));
  }

  /** A delivery this person may act on: every section of it is within reach. */
  DeliveryRecord own(UUID id, SignedIn who) {
    DeliveryRecord d = get(id, who);
    boolean others =
        db.fetchExists(
            db.selectOne()
                .from(DELIVERY_LINE)
                .join(SECTION)
                .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
                .where(DELIVERY_LINE.DELIVERY_ID.eq(id))
                .andNot(reach.sections(who)));
    if (others) {
      throw new Refusal(
          HttpStatus.FORBIDDEN,
          "This delivery goes to sections that are not yours.",
          "Ask a coordinator who reaches all of them.");
    }
    return d;
  }

  /** Other choices: everything is planned anew. */
  @Transactional
  public void choose(UUID id, Optional<PartsChoice> parts, Choices choices, SignedIn who) {
    DeliveryRecord d = own(id, who);
    parts.ifPresent(p -> something(d.getVersionId(), p));
    if (d.getConfirmedAt() != null) {
      throw new Refusal(
          HttpStatus.CONFLICT, "This delivery has started.", "Make a new one with other choices.");
    }
    int changed =
        db.update(DELIVERY)
            .set(DELIVERY.CLASH, choices.clash())
            .set(DELIVERY.TWIN, choices.twin())
            .set(DELIVERY.ARRIVAL, choices.arrival())
            .set(DELIVERY.DATES, choices.dates())
            .set(DELIVERY.EMPTIED, choices.emptied())
            .set(DELIVERY.PARTS, parts.map(this::json).orElse(d.getParts()))
            .set(DELIVERY.STATE, DeliveryState.PLANNING)
            .where(DELIVERY.ID.eq(id))
            .and(DELIVERY.STATE.eq(DeliveryState.PLANNED))
            .execute();
    if (changed == 0) {
      throw new Refusal(
          HttpStatus.CONFLICT, "The plan is still being made.", "Choose when it is there.");
    }
    queue.put(
        PlanLine.NAME, move(id, LineState.TO_PLAN, LineState.PLANNED, LineState.NEEDS_PERSON));
  }

  /** Makes sure, within the running transaction, that there is a plan which nobody confirmed. */
  void stillPlanned(UUID id) {
    DeliveryRecord d = db.selectFrom(DELIVERY).where(DELIVERY.ID.eq(id)).forUpdate().fetchSingle();
    if (d.getState() != DeliveryState.PLANNED || d.getConfirmedAt() != null) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          d.getConfirmedAt() == null
              ? "The plan is still being made."
              : "This delivery has started already.",
          "Look at its page.");
    }
  }

  /** Some lines are planned anew, before the delivery is confirmed. */
  int planAnew(UUID id, Collection<UUID> lines) {
    List<UUID> moved =
        db.update(DELIVERY_LINE)
            .set(DELIVERY_LINE.STATE, LineState.TO_PLAN)
            .set(DELIVERY_LINE.ATTEMPTS, 0)
            .where(DELIVERY_LINE.DELIVERY_ID.eq(id))
            .and(DELIVERY_LINE.ID.in(lines))
            .and(DELIVERY_LINE.STATE.in(LineState.PLANNED, LineState.NEEDS_PERSON))
            .returning(DELIVERY_LINE.ID)
            .fetch(DELIVERY_LINE.ID);
    if (!moved.isEmpty()) {
      db.update(DELIVERY)
          .set(DELIVERY.STATE, DeliveryState.PLANNING)
          .where(DELIVERY.ID.eq(id))
          .execute();
      queue.put(PlanLine.NAME, moved);
    }
    return moved.size();
  }

  /** The one confirmation; from here on lines are written. */
  @Transactional
  public void confirm(UUID id, SignedIn who) {
    DeliveryRecord d = own(id, who);
    int changed =
        db.update(DELIVERY)
            .set(DELIVERY.STATE, DeliveryState.RUNNING)
            .set(DELIVERY.CONFIRMED_BY, who.id())
            .set(DELIVERY.CONFIRMED_AT, OffsetDateTime.now(clock))
            .where(DELIVERY.ID.eq(id))
            .and(DELIVERY.STATE.eq(DeliveryState.PLANNED))
            .execute();
    if (changed == 0) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          d.getConfirmedAt() == null
              ? "The plan is still being made."
              : "This delivery has started already.",
          "Look at its page.");
    }
    List<UUID> lines = move(id, LineState.WAITING, LineState.PLANNED);
    queue.put(RunLine.NAME, lines);
    if (lines.isEmpty()) {
      db.update(DELIVERY)
          .set(DELIVERY.STATE, DeliveryState.DONE)
          .set(DELIVERY.FINISHED_AT, OffsetDateTime.now(clock))
          .where(DELIVERY.ID.eq(id))
          .execute();
    }
    events.add(who.id(), "confirmed delivery of", what(d), lines.size() + " sections", page(id));
  }

  /** Lines that have not begun do not begin; those under way are finished. */
  @Transactional
  public void stop(UUID id, SignedIn who) {
    DeliveryRecord d = own(id, who);
    move(id, LineState.STOPPED, LineState.WAITING, LineState.TRYING_AGAIN);
    db.update(DELIVERY)
        .set(DELIVERY.STATE, DeliveryState.STOPPED)
        .where(DELIVERY.ID.eq(id))
        .and(DELIVERY.STATE.eq(DeliveryState.RUNNING))
        .execute();
    events.add(who.id(), "stopped delivery of", what(d), "", page(id));
  }

  /** Goes on with lines that stopped or wait for a person. */
  @Transactional
  public void goOn(UUID id, SignedIn who) {
    DeliveryRecord d = own(id, who);
    if (d.getConfirmedAt() == null) {
      throw new Refusal(HttpStatus.CONFLICT, "It has not started yet.", "Deliver it first.");
    }
    List<UUID> lines = move(id, LineState.WAITING, LineState.STOPPED, LineState.NEEDS_PERSON);
    db.update(DELIVERY)
        .set(DELIVERY.STATE, DeliveryState.RUNNING)
        .setNull(DELIVERY.FINISHED_AT)
        .where(DELIVERY.ID.eq(id))
        .execute();
    queue.put(RunLine.NAME, lines);
    ends.check(id);
    events.add(who.id(), "went on with delivery of", what(d), lines.size() + " sections", page(id));
  }

  private JSONB json(PartsChoice parts) {
    return JSONB.valueOf(json.writeValueAsString(ChosenParts.of(parts)));
  }

  private static String page(UUID delivery) {
    return "/deliveries/" + delivery;
  }

  /** The delivery in words, for the record. */
  private String what(DeliveryRecord d) {
    return db.select(MASTER.CODE, VERSION.NUMBER)
        .from(VERSION)
        .join(MASTER)
        .on(MASTER.ID.eq(VERSION.MASTER_ID))
        .where(VERSION.ID.eq(d.getVersionId()))
        .fetchSingle(r -> r.value1() + ", version " + r.value2());
  }

  private List<UUID> move(UUID delivery, LineState to, LineState... from) {
    return db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, to)
        .set(DELIVERY_LINE.ATTEMPTS, 0)
        .setNull(DELIVERY_LINE.REASON)
        .setNull(DELIVERY_LINE.REMEDY)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
        .and(DELIVERY_LINE.STATE.in(from))
        .returning(DELIVERY_LINE.ID)
        .fetch(DELIVERY_LINE.ID);
  }
}
