package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.server.db.tables.records.DeliveryLineRecord;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.line.ChosenParts;
import org.zephyrmist.server.line.PlanLine;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Orders deliveries. */
@Component
public class Deliveries {
  private static final int MOST_SECTIONS = 5000;
  private static final int MOST_MASTERS = 8;
  private final DSLContext db;
  private final Queue queue;
  private final Versions versions;
  private final JsonMapper json;
  private final Reach reach;
  private final Clock clock;

  Deliveries(
      DSLContext db, Queue queue, Versions versions, Reach reach, Clock clock, JsonMapper json) {
    this.versions = versions;
    this.json = json;
    this.db = db;
    this.queue = queue;
    this.reach = reach;
    this.clock = clock;
  }

  /**
   * What is ordered of a version.
   *
   * @param atOnce how many sections are written at the same time at most
   * @param takesBack the delivery that is taken back
   * @param edit a change that is made instead of what the version says
   */
  public record Order(
      PartsChoice parts,
      Choices choices,
      Optional<Integer> atOnce,
      Optional<UUID> takesBack,
      Optional<Edit> edit) {
    public Order(PartsChoice parts, Choices choices) {
      this(parts, choices, Optional.empty(), Optional.empty(), Optional.empty());
    }

    /** A change that is made alike in all sections. */
    public static Order of(Edit edit) {
      return new Order(
          PartsChoice.EVERYTHING,
          TakeBacks.CHOICES,
          Optional.empty(),
          Optional.empty(),
          Optional.of(edit));
    }

    /** The same of other parts. */
    public Order of(PartsChoice others) {
      return new Order(others, choices, atOnce, takesBack, edit);
    }

    /** The same of another master: all but what is left out everywhere. */
    Order ofOthers() {
      return of(parts.ofOthers());
    }

    /** The same where something else comes first: that fills the shell, or has cleared it. */
    Order behind() {
      return new Order(parts, choices.with(Choices.Onto.UP_TO_DATE), atOnce, takesBack, edit);
    }
  }

  /**
   * Several masters as one order, each planned and carried out in a section after those before it.
   *
   * @param versions in their order, each of another master; those beside {@code version} all but
   *     what is left out by kind, title or as attachments
   * @return the delivery of {@code version}
   */
  @Transactional
  public UUID make(
      List<UUID> versions, UUID version, List<UUID> sections, Order order, SignedIn who) {
    if (versions.size() > MOST_MASTERS) {
      throw Refusal.bad(
          "An order brings " + MOST_MASTERS + " masters at the most.", "Make another order.");
    }
    long masters = versions.stream().map(v -> versionsMaster(v, who)).distinct().count();
    if (!versions.contains(version) || masters < versions.size()) {
      throw Refusal.bad(
          "An order names each master once, its own among them.", "Choose them again.");
    }
    List<Part> parts =
        versions.stream()
            .map(v -> new Part(v, sections, v.equals(version) ? order : order.ofOthers()))
            .toList();
    return together(parts, who).get(versions.indexOf(version));
  }

  /** One of several deliveries of an order. */
  public record Part(UUID version, List<UUID> sections, Order order) {}

  /** Several deliveries, each carried out in a section after those before it; alone it is none. */
  @Transactional
  public List<UUID> together(List<Part> parts, SignedIn who) {
    UUID id = UUID.randomUUID();
    List<UUID> all = new ArrayList<>();
    for (Part p : parts) {
      Order of = all.isEmpty() ? p.order() : p.order().behind();
      UUID made = make(p.version(), p.sections(), of, who);
      if (parts.size() > 1) {
        db.update(DELIVERY)
            .set(DELIVERY.ORDER_ID, id)
            .set(DELIVERY.PLACE, all.size())
            .where(DELIVERY.ID.eq(made))
            .execute();
      }
      all.add(made);
    }
    return all;
  }

  /** Those of the sections that a delivery is planned for or on its way to. */
  public Set<UUID> underWay(Collection<UUID> sections) {
    return db.select(DELIVERY_LINE.SECTION_ID)
        .from(DELIVERY_LINE)
        .where(DELIVERY_LINE.SECTION_ID.in(sections))
        .and(DELIVERY_LINE.STATE.notIn(LineState.DONE, LineState.STOPPED))
        .fetchSet(DELIVERY_LINE.SECTION_ID);
  }

  private UUID versionsMaster(UUID version, SignedIn who) {
    return db.select(VERSION.MASTER_ID)
        .from(VERSION)
        .join(MASTER)
        .on(MASTER.ID.eq(VERSION.MASTER_ID))
        .where(VERSION.ID.eq(version))
        .and(reach.masters(who))
        .fetchOptional(VERSION.MASTER_ID)
        .orElseThrow(() -> Refusal.notFound("version"));
  }

  /** A new delivery; its lines are planned in the background. */
  @Transactional
  public UUID make(UUID version, List<UUID> sections, Order order, SignedIn who) {
    List<UUID> reached = reached(version, sections, who);
    something(version, order.parts());
    Choices choices = order.choices();
    UUID id = UUID.randomUUID();
    db.insertInto(DELIVERY)
        .set(DELIVERY.ID, id)
        .set(DELIVERY.VERSION_ID, version)
        .set(DELIVERY.ONTO, choices.onto())
        .set(DELIVERY.WEEKS, choices.weeks())
        .set(DELIVERY.BY_KIND, json(choices.byKind()))
        .set(DELIVERY.AT_ONCE, order.atOnce().orElse(null))
        .set(DELIVERY.TAKES_BACK, order.takesBack().orElse(null))
        .set(
            DELIVERY.EDIT,
            order.edit().map(e -> JSONB.valueOf(json.writeValueAsString(e))).orElse(null))
        .set(DELIVERY.STATE, DeliveryState.PLANNING)
        .set(DELIVERY.CLASH, choices.clash())
        .set(DELIVERY.TWIN, choices.twin())
        .set(DELIVERY.ARRIVAL, choices.arrival())
        .set(DELIVERY.DATES, choices.dates())
        .set(DELIVERY.EMPTIED, choices.emptied())
        .set(DELIVERY.PARTS, json(order.parts()))
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
  public void madeBy(UUID delivery, UUID recipe) {
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
    var master =
        db.select(MASTER.CODE, MASTER.RETIRED_AT)
            .from(VERSION)
            .join(MASTER)
            .on(MASTER.ID.eq(VERSION.MASTER_ID))
            .where(VERSION.ID.eq(version))
            .and(reach.masters(who))
            .fetchOptional()
            .orElseThrow(() -> Refusal.notFound("version"));
    if (master.value2() != null) {
      retired(master.value1());
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

  void something(UUID version, PartsChoice parts) {
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

  /** A plan that was made before its master was retired is not carried out any more. */
  void inUse(DeliveryRecord d) {
    if (d.getTakesBack() != null || d.getEdit() != null) {
      return;
    }
    db.select(MASTER.CODE)
        .from(VERSION)
        .join(MASTER)
        .on(MASTER.ID.eq(VERSION.MASTER_ID))
        .where(VERSION.ID.eq(d.getVersionId()))
        .and(MASTER.RETIRED_AT.isNotNull())
        .fetchOptional(MASTER.CODE)
        .ifPresent(Deliveries::retired);
  }

  private static void retired(String code) {
    throw new Refusal(
        HttpStatus.CONFLICT,
        code + " is retired: nobody receives it any more.",
        "Bring it back into use first, on its own page.");
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

  JSONB json(Choices.ByKind kinds) {
    return JSONB.valueOf(json.writeValueAsString(kinds));
  }

  JSONB json(PartsChoice parts) {
    return JSONB.valueOf(json.writeValueAsString(ChosenParts.of(parts)));
  }
}
