package org.zephyrmist.server.demo;

import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.platform.Platforms;

/** The next term: its shells are made and filled, and not all is as it should be. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoSpring {
  private static final String NOTE =
      "<p>What you bring to the first session: your card, your shoes, a pencil.</p>"
          + "<p>For the builder: put the picture of your own studio here.</p>";

  private final DSLContext db;
  private final DemoClock clock;
  private final DemoShells shells;
  private final DemoDeliveries deliveries;
  private final Platforms platforms;

  DemoSpring(
      DSLContext db,
      DemoClock clock,
      DemoShells shells,
      DemoDeliveries deliveries,
      Platforms platforms) {
    this.db = db;
    this.clock = clock;
    this.shells = shells;
    this.deliveries = deliveries;
    this.platforms = platforms;
  }

  void make(DemoRoster college, UUID frame, Map<String, UUID> courses) throws InterruptedException {
    clock.daysBack(2);
    shells.make(college.sections().stream().filter(s -> s.term().equals("t2")).toList());
    platforms.tieAll();
    deliveries.deliver(frame, newest(frame), deliveries.sections("%", "t2-%"), 2);
    deliveries.deliver(
        courses.entrySet().stream()
            .filter(c -> !c.getKey().equals("SAF 100")) // somebody has forgotten it
            .map(
                c ->
                    new DemoDeliveries.To(
                        c.getValue(),
                        newest(c.getValue()),
                        deliveries.sections(c.getKey(), "t2-%")))
            .toList(),
        2);
    clock.daysBack(1);
    LocalDate first =
        db.select(TERM.FIRST_DAY).from(TERM).where(TERM.SOURCED_ID.eq("t2")).fetchSingle().value1();
    List<String> all =
        db.select(SECTION.SHELL)
            .from(SECTION)
            .where(SECTION.SOURCED_ID.like("t2-%"))
            .and(SECTION.SHELL.isNotNull())
            .and(DemoDeliveries.onThePracticePlatform())
            .orderBy(SECTION.SHELL)
            .fetch(SECTION.SHELL);
    for (int n = 0; n < all.size(); n++) {
      atWork(all.get(n), n, first);
    }
  }

  /** What people did by hand, and forgot. */
  private void atWork(String shell, int n, LocalDate first) {
    if (n % 3 != 0) {
      shells.open(shell, first);
    }
    if (n % 5 != 0) {
      shells.write(
          shell, "Your instructor", "<p>In the paint frame after class, Tuesdays till six.</p>");
    }
    switch (n % 8) {
      case 0 ->
          shells.addPage(
              shell, "-- Parking at the loading dock", "<p>After six, beside the dock.</p>");
      case 1 -> shells.addPage(shell, "Before the first session", NOTE);
      case 2 ->
          shells.addPage(
              shell, "Plan of the term", "<p>Our sessions in Autumn 2026, week by week.</p>");
      case 3 -> shells.addPage(shell, "Where to find help", "<p>Ask me after class.</p>");
      case 4 -> shells.delete(shell, "Records and certificates");
      case 5 ->
          shells
              .titled(shell, "Exercise 2")
              .ifPresent(t -> shells.due(shell, t, first.minusDays(100) + "T23:59"));
      case 7 -> shells.titled(shell, "Reading: ").ifPresent(t -> shells.delete(shell, t));
      case 6 -> shells.hide(shell, "Where to find help");
      default -> {}
    }
  }

  private int newest(UUID master) {
    return db.select(DSL.max(VERSION.NUMBER))
        .from(VERSION)
        .where(VERSION.MASTER_ID.eq(master))
        .fetchSingle()
        .value1();
  }
}
