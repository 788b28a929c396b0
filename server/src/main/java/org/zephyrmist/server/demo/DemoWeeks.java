package org.zephyrmist.server.demo;

import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import org.jooq.DSLContext;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.People;

/** The past weeks: versions, deliveries, and what instructors changed in between. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoWeeks {
  private final DSLContext db;
  private final DemoClock clock;
  private final DemoShells shells;
  private final Masters masters;
  private final DemoDrafts drafts;
  private final DemoDeliveries deliveries;
  private final People people;
  private final Standings standings;

  DemoWeeks(
      DSLContext db,
      DemoClock clock,
      DemoShells shells,
      Masters masters,
      DemoDrafts drafts,
      DemoDeliveries deliveries,
      People people,
      Standings standings) {
    this.standings = standings;
    this.db = db;
    this.clock = clock;
    this.shells = shells;
    this.masters = masters;
    this.drafts = drafts;
    this.deliveries = deliveries;
    this.people = people;
  }

  private List<UUID> most() {
    return DemoDeliveries.except(deliveries.sections("%", "t1-%"), 18);
  }

  void frameArrives(UUID frame) throws InterruptedException {
    deliveries.deliver(frame, 1, most(), 77);
  }

  void nightDesk(UUID frame) throws InterruptedException {
    clock.daysBack(60);
    drafts.rewrite(
        frame,
        "Where to find help",
        "counsellors:",
        "counsellors, and since October the night desk at Quay:");
    masters.freeze(
        frame, "Night desk at Quay", people.loadUserByUsername("teodor@larkmoor.example"));
    deliveries.deliver(frame, 2, DemoDeliveries.except(most(), 4), 58);
  }

  void noEarbuds(UUID frame) throws InterruptedException {
    clock.daysBack(30);
    drafts.change(
        frame,
        "Before you enter a workshop",
        "<p>Shoes, hair, card. No card, no entry. Since" + " November also: no earbuds.</p>");
    ItemKey end = drafts.find(frame, "When the term ends");
    drafts.add(
        drafts.draft(frame),
        Kind.PAGE,
        "Records and certificates",
        "<p>Ask for them before the last week.</p>",
        end);
    masters.freeze(
        frame, "No earbuds; records", people.loadUserByUsername("teodor@larkmoor.example"));
    deliveries.deliver(frame, 3, DemoDeliveries.except(DemoDeliveries.except(most(), 4), 30), 28);
    clock.daysBack(2);
    drafts.change(frame, "Strike", "<p>Lockers are emptied by noon of the last day.</p>");
  }

  void coursesArrive(Map<String, UUID> made, List<DemoCourse> courses) throws InterruptedException {
    deliveries.deliver(each(courses, made, 1, this::first), 74);
  }

  void secondVersions(Map<String, UUID> made, List<DemoCourse> courses)
      throws InterruptedException {
    clock.daysBack(50);
    for (DemoCourse c : courses) {
      secondVersion(made.get(c.code()), c);
    }
    deliveries.deliver(each(courses, made, 2, c -> DemoDeliveries.except(first(c), 3)), 48);
  }

  void thirdVersions(Map<String, UUID> made, List<DemoCourse> courses) throws InterruptedException {
    clock.daysBack(24);
    for (DemoCourse c : courses) {
      thirdVersion(made.get(c.code()), c);
    }
    someEdits(made);
    deliveries.deliver(each(courses, made, 3, this::third), 21);
  }

  private static List<DemoDeliveries.To> each(
      List<DemoCourse> courses,
      Map<String, UUID> made,
      int number,
      Function<DemoCourse, List<UUID>> sections) {
    return courses.stream()
        .map(c -> new DemoDeliveries.To(made.get(c.code()), number, sections.apply(c)))
        .toList();
  }

  private List<UUID> first(DemoCourse c) {
    List<UUID> all = deliveries.sections(c.code(), "t1-%");
    return DemoDeliveries.except(all, all.size() / 12 + 1);
  }

  private List<UUID> third(DemoCourse c) {
    int all = deliveries.sections(c.code(), "t1-%").size();
    return DemoDeliveries.except(DemoDeliveries.except(first(c), 3), Math.max(2, all / 4));
  }

  private void secondVersion(UUID id, DemoCourse c) {
    drafts.rewrite(
        id,
        "Reading: " + DemoDrafts.lower(c.weeks().get(0).title()),
        "<p>Print the",
        "<p>Read it twice; the second time aloud.</p><p>Print the");
    drafts.remove(id, "Further: " + DemoDrafts.lower(c.weeks().get(1).title()));
    masters.freeze(
        id,
        "Week 1 rewritten, a dead link removed",
        people.loadUserByUsername("teodor@larkmoor.example"));
  }

  private void thirdVersion(UUID id, DemoCourse c) {
    drafts.exerciseThree(id, c);
    String third = "Reading: " + DemoDrafts.lower(c.weeks().get(2).title());
    drafts.rewrite(
        id, third, "2,400 watts", "1,920 watts in steady use: plan to 80 % of its rating");
    drafts.rewrite(id, third, "Print the", "Print two of the");
    ItemKey week = drafts.find(id, "Week 4 · " + c.weeks().get(3).title());
    drafts.add(
        drafts.draft(id),
        Kind.PAGE,
        "Checklist for week 4",
        "<p>Card, gloves, pencil, question.</p>",
        week);
    masters.freeze(
        id, "Corrected week 3, a checklist", people.loadUserByUsername("teodor@larkmoor.example"));
  }

  /** Instructors change things before version 3 comes. */
  private void someEdits(Map<String, UUID> made) {
    for (String code : made.keySet()) {
      List<String> ids = deliveries.shellIds(code);
      for (int i = 1; i < ids.size(); i += 7) {
        shells.append(
            ids.get(i), "Reading: " + firstReading(code), "In our house we do it before the call.");
      }
      for (int i = 2; i < ids.size(); i += 9) {
        shells.due(ids.get(i), "Safety card", "" + LocalDate.now().minusWeeks(6) + "T18:00");
      }
    }
  }

  private static String firstReading(String code) {
    return DemoDrafts.lower(
        DemoCourse.all().stream()
            .filter(c -> c.code().equals(code))
            .findFirst()
            .orElseThrow()
            .weeks()
            .get(3)
            .title());
  }

  void outcomesWeek(UUID id) throws InterruptedException {
    List<UUID> all = new ArrayList<>(deliveries.sections("STM 210", "t1-%"));
    all.addAll(deliveries.sections("SND 120", "t1-%"));
    deliveries.deliver(id, 1, DemoDeliveries.except(all, 9), 40);
  }

  void instructorsAtWork() {
    List<String> saf = deliveries.shellIds("SAF 100");
    for (int i = 0; i < saf.size(); i += 5) {
      shells.handIn(saf.get(i), "Safety card", "A. Student");
      shells.handIn(saf.get(i), "Exercise 1: walk the house", "B. Student");
    }
    shells.hide("t1-snd120-03", "Talk: gain and mix");
    shells.delete("t1-snd120-05", "Quiz 2: signal");
    shells.delete("t1-scn105-04", "Exercise 2: reading drawings");
    shells.delete("t1-saf100-09", "Talk: fire");
    for (int i = 3; i < saf.size(); i += 9) {
      shells.append(
          saf.get(i), "Reading: fire", "Our nearest extinguisher hangs by the loading door.");
    }
  }

  /** Packages that somebody has to bring in, since yesterday. */
  void packagesWait(UUID lighting) throws InterruptedException {
    clock.daysBack(1);
    List<UUID> some =
        db.select(SECTION.ID)
            .from(SECTION)
            .where(SECTION.ID.in(standings.behind(lighting, 3)))
            .andNot(DemoDeliveries.onThePracticePlatform())
            .orderBy(SECTION.CODE)
            .fetch(SECTION.ID);
    deliveries.confirm(deliveries.plan(lighting, 3, some));
  }

  /** What is open now: two shells that fail, and a plan to look at. */
  void open(UUID lighting) throws InterruptedException {
    clock.daysBack(1);
    shells.refuse("t1-lgt110-10");
    shells.refuse("t1-lgt110-24");
    List<UUID> two =
        db.select(SECTION.ID)
            .from(SECTION)
            .where(
                SECTION.SOURCED_ID.in(
                    "t1-lgt110-10", "t1-lgt110-24", "t1-lgt110-12", "t1-lgt110-13"))
            .fetch(SECTION.ID);
    shells.refuseNoLonger("t1-lgt110-10");
    shells.refuseNoLonger("t1-lgt110-24");
    UUID id = deliveries.plan(lighting, 3, two);
    shells.refuse("t1-lgt110-10");
    shells.refuse("t1-lgt110-24");
    deliveries.confirm(id);
    List<UUID> behind =
        db.select(SECTION.ID)
            .from(SECTION)
            .where(SECTION.ID.in(standings.behind(lighting, 3)))
            .and(SECTION.SOURCED_ID.notIn("t1-lgt110-10", "t1-lgt110-24"))
            .and(DemoDeliveries.onThePracticePlatform())
            .orderBy(SECTION.CODE)
            .fetch(SECTION.ID);
    List<String> late =
        db.select(SECTION.SHELL)
            .from(SECTION)
            .where(SECTION.ID.in(behind))
            .orderBy(SECTION.CODE)
            .fetch(SECTION.SHELL);
    shells.append(
        late.get(1),
        "Reading: load and power",
        "In our black box each bar has two of them; the left one also feeds the work lights.");
    shells.replace(
        late.get(6), "Reading: load and power", "2,400 watts", "2,300 watts, with our old cable");
    shells.addPage(late.get(4), "Checklist for week 4", "<p>Card, gloves, torch.</p>");
    shells.handIn(late.get(3), "Exercise 3: load and power", "C. Student");
    shells.handIn(late.get(5), "Exercise 3: load and power", "D. Student");
    deliveries.plan(lighting, 3, behind);
  }
}
