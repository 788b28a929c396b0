package org.zephyrmist.server.demo;

import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.IntStream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.DeliveryState;
import org.zephyrmist.core.delivery.PartsChoice;
import org.zephyrmist.core.delivery.Tell;
import org.zephyrmist.core.delivery.WaitsFor;
import org.zephyrmist.server.delivery.Deliveries;
import org.zephyrmist.server.delivery.Runs;
import org.zephyrmist.server.line.GoingOn;
import org.zephyrmist.server.line.RunLine;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.platform.KeptShells;
import org.zephyrmist.server.queue.Queue;

/** Deliveries to sections of the demo college, at days in the past. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoDeliveries {
  private final DSLContext db;
  private final DemoClock clock;
  private final Deliveries deliveries;
  private final Runs runs;
  private final People people;
  private final KeptShells kept;
  private final GoingOn goingOn;
  private final Queue queue;

  DemoDeliveries(
      DSLContext db,
      DemoClock clock,
      Deliveries deliveries,
      Runs runs,
      People people,
      KeptShells kept,
      GoingOn goingOn,
      Queue queue) {
    this.kept = kept;
    this.goingOn = goingOn;
    this.queue = queue;
    this.runs = runs;
    this.db = db;
    this.clock = clock;
    this.deliveries = deliveries;
    this.people = people;
  }

  /** Sections that get one version of a master. */
  record To(UUID master, int number, List<UUID> sections) {}

  void deliver(UUID master, int number, List<UUID> sections, int daysBack)
      throws InterruptedException {
    deliver(List.of(new To(master, number, sections)), daysBack);
  }

  /** Several on one day, side by side. */
  void deliver(List<To> all, int daysBack) throws InterruptedException {
    clock.daysBack(daysBack);
    List<UUID> ids = all.stream().map(t -> made(t.master, t.number, t.sections)).toList();
    for (UUID id : ids) {
      await(id, DeliveryState.PLANNING);
      confirmed(id);
    }
    for (UUID id : ids) {
      await(id, DeliveryState.RUNNING);
    }
    bringIn(ids);
  }

  UUID plan(UUID master, int number, List<UUID> sections) throws InterruptedException {
    UUID id = made(master, number, sections);
    await(id, DeliveryState.PLANNING);
    return id;
  }

  private UUID made(UUID master, int number, List<UUID> sections) {
    UUID version =
        db.select(VERSION.ID)
            .from(VERSION)
            .where(VERSION.MASTER_ID.eq(master))
            .and(VERSION.NUMBER.eq(number))
            .fetchSingle()
            .value1();
    return deliveries.make(
        version,
        sections,
        new Deliveries.Order(PartsChoice.EVERYTHING, Choices.SAFE),
        people.loadUserByUsername("ines@larkmoor.example"));
  }

  void confirm(UUID id) throws InterruptedException {
    confirmed(id);
    await(id, DeliveryState.RUNNING);
  }

  private void confirmed(UUID id) {
    runs.confirm(
        id, Optional.empty(), Tell.NOBODY, "", people.loadUserByUsername("ines@larkmoor.example"));
  }

  /** Whoever works where there is no interface brings the packages in and says so. */
  private void bringIn(List<UUID> ids) throws InterruptedException {
    kept.broughtIn(
        db.selectDistinct(DELIVERY_LINE.SECTION_ID)
            .from(DELIVERY_LINE)
            .where(DELIVERY_LINE.DELIVERY_ID.in(ids))
            .and(DELIVERY_LINE.WAITS_FOR.eq(WaitsFor.PACKAGE))
            .fetch(DELIVERY_LINE.SECTION_ID));
    queue.put(RunLine.NAME, goingOn.ready());
    for (UUID id : ids) {
      await(id, DeliveryState.RUNNING);
    }
  }

  void await(UUID delivery, DeliveryState state) throws InterruptedException {
    while (db.fetchExists(DELIVERY, DELIVERY.ID.eq(delivery).and(DELIVERY.STATE.eq(state)))) {
      Thread.sleep(100);
    }
  }

  List<UUID> sections(String course, String shells) {
    return db.select(SECTION.ID)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .where(COURSE.CODE.like(course))
        .and(SECTION.SOURCED_ID.like(shells))
        .orderBy(SECTION.SOURCED_ID)
        .fetch(SECTION.ID);
  }

  /** Where instructors work on pages that one can see. */
  static Condition onThePracticePlatform() {
    return SECTION.PLATFORM_ID.in(
        DSL.select(PLATFORM.ID).from(PLATFORM).where(PLATFORM.ADDRESS.isNotNull()));
  }

  List<String> shellIds(String course) {
    return db.select(SECTION.SHELL)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .where(COURSE.CODE.eq(course))
        .and(SECTION.SHELL.isNotNull())
        .and(onThePracticePlatform())
        .orderBy(SECTION.SHELL)
        .fetch(SECTION.SHELL);
  }

  /** All but n of them, spread over the list. */
  static List<UUID> except(List<UUID> all, int n) {
    int every = Math.max(1, all.size() / n);
    return IntStream.range(0, all.size())
        .filter(i -> i % every != every / 2 || i / every >= n)
        .mapToObj(all::get)
        .toList();
  }
}
