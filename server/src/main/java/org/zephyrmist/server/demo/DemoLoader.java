package org.zephyrmist.server.demo;

import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.INTAKE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PROGRAM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.IntStream;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.roster.RosterException;
import org.zephyrmist.core.roster.RosterReader;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.cartridge.Intakes;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.delivery.Deliveries;
import org.zephyrmist.server.master.Drafts;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.people.Programs;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.roster.RosterIntake;

/** Makes the demo college and its past weeks. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoLoader implements ApplicationRunner {
  static final String PASSWORD = "larkmoor-demo";
  private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);
  private final DSLContext db;
  private final DemoClock clock;
  private final DemoShells shells;
  private final Settings settings;
  private final People people;
  private final Programs programs;
  private final RosterIntake roster;
  private final Platforms platforms;
  private final Intakes intakes;
  private final Masters masters;
  private final Drafts drafts;
  private final Trees trees;
  private final Deliveries deliveries;
  private SignedIn ines;
  private SignedIn teodor;

  DemoLoader(
      DSLContext db,
      DemoClock clock,
      DemoShells shells,
      Settings settings,
      People people,
      Programs programs,
      RosterIntake roster,
      Platforms platforms,
      Intakes intakes,
      Masters masters,
      Drafts drafts,
      Trees trees,
      Deliveries deliveries) {
    this.db = db;
    this.clock = clock;
    this.shells = shells;
    this.settings = settings;
    this.people = people;
    this.programs = programs;
    this.roster = roster;
    this.platforms = platforms;
    this.intakes = intakes;
    this.masters = masters;
    this.drafts = drafts;
    this.trees = trees;
    this.deliveries = deliveries;
  }

  @Override
  public void run(ApplicationArguments args) throws Exception {
    if (!people.nobody()) {
      return;
    }
    long start = System.nanoTime();
    clock.daysBack(80);
    DemoRoster college = DemoRoster.make(LocalDate.now());
    shells.make(college.sections().stream().filter(s -> s.term().equals("t1")).toList());
    take(college.bundle());
    platforms.add("Practice platform", settings.practiceAddress(), settings.practiceToken());
    admit();
    fillByHand(college);
    UUID frame = frame();
    List<DemoCourse> courses = DemoCourse.all();
    Map<String, UUID> made = new LinkedHashMap<>();
    for (DemoCourse c : courses) {
      made.put(c.code(), master(c));
    }
    UUID outcomes = outcomes();
    frameWeeks(frame);
    courseWeeks(made, courses);
    outcomesWeek(outcomes);
    instructorsAtWork();
    open(made.get("LGT 110"));
    clock.daysBack(0);
    deliveries.readAgain(
        db.select(SECTION.ID).from(SECTION).where(SECTION.SHELL.isNotNull()).fetch(SECTION.ID),
        ines);
    LOG.info("Demo data made in {} s", (System.nanoTime() - start) / 1_000_000_000);
  }

  private void admit() {
    people.admit("rosalind@larkmoor.example", "Rosalind Achterberg", Role.ADMINISTRATOR, PASSWORD);
    UUID i = people.admit("ines@larkmoor.example", "Ines Okafor-Lind", Role.COORDINATOR, PASSWORD);
    UUID t = people.admit("teodor@larkmoor.example", "Teodor Brandvik", Role.DESIGNER, PASSWORD);
    UUID s = people.admit("signe@larkmoor.example", "Signe Haldor", Role.COORDINATOR, PASSWORD);
    people.admit("u1@larkmoor.example", "Karl Hale", Role.INSTRUCTOR, PASSWORD);
    programs.reachAll(i);
    programs.reachAll(t);
    programs.reach(s, List.of("sound"));
    ines = people.loadUserByUsername("ines@larkmoor.example");
    teodor = people.loadUserByUsername("teodor@larkmoor.example");
  }

  private void take(byte[] bundle) throws IOException, RosterException {
    Path file = Files.createTempFile("zephyrmist", ".roster");
    Files.write(file, bundle);
    roster.take(RosterReader.read(file));
    Files.delete(file);
  }

  /** Some instructors had begun before anything was delivered. */
  private void fillByHand(DemoRoster college) {
    List<DemoRoster.Section> now =
        college.sections().stream().filter(s -> s.term().equals("t1")).toList();
    for (int i = 0; i < now.size(); i += 11) {
      String shell = now.get(i).id();
      shells.addPage(shell, "Office hours", "<p>Tuesdays after class, in the paint frame.</p>");
      shells.addPage(
          shell, "Where to find help", "<p>The crew room, third door. Bring your question.</p>");
    }
  }

  private UUID frame() {
    UUID id =
        masters.make(
            "FRAME", "College frame", Optional.empty(), Optional.empty(), List.of(), teodor);
    UUID draft = draft(id);
    ItemKey start = add(draft, Kind.MODULE, "Welcome to Larkmoor", "", null);
    add(
        draft,
        Kind.PAGE,
        "How this college works",
        "<p>Three campuses, one stage. Your timetable,"
            + " your call times and your safety card come first.</p>",
        start);
    add(
        draft,
        Kind.PAGE,
        "Where to find help",
        "<p>Crew room, library, counsellors: who they are" + " and when they are in.</p>",
        start);
    add(
        draft,
        Kind.PAGE,
        "Recording and privacy",
        "<p>Nobody is filmed at work without being" + " asked.</p>",
        start);
    ItemKey meet = add(draft, Kind.PAGE, "Your instructor", "<p>Name, room, hours.</p>", start);
    ItemKey rules = add(draft, Kind.MODULE, "Rules that hold everywhere", "", null);
    ItemKey safety =
        add(
            draft,
            Kind.PAGE,
            "Before you enter a workshop",
            "<p>Shoes, hair, card. No" + " card, no entry.</p>",
            rules);
    add(
        draft,
        Kind.PAGE,
        "Honest work",
        "<p>Name your sources, also those that are people.</p>",
        rules);
    add(
        draft,
        Kind.DISCUSSION,
        "Ask the whole section",
        "<p>Questions that others may have too.</p>",
        rules);
    add(
        draft,
        Kind.ASSIGNMENT,
        "Safety card",
        "<p>Hand in a picture of your signed card.</p>",
        rules);
    ItemKey end = add(draft, Kind.MODULE, "When the term ends", "", null);
    add(draft, Kind.PAGE, "Strike", "<p>Lockers are emptied by the last day.</p>", end);
    add(
        draft,
        Kind.DISCUSSION,
        "What should stay, what should go?",
        "<p>One of each, please.</p>",
        end);
    rule(draft, meet, EditRule.STARTER);
    rule(draft, safety, EditRule.FIXED);
    masters.freeze(id, "First frame of the year", teodor);
    return id;
  }

  private void frameWeeks(UUID frame) throws InterruptedException {
    List<UUID> all = sections("%", "t1-%");
    List<UUID> most = except(all, 18);
    deliver(frame, 1, most, 77);
    clock.daysBack(60);
    change(
        frame,
        "Where to find help",
        "<p>Crew room, library, counsellors, and since October the"
            + " night desk at Quay: who they are and when they are in.</p>");
    masters.freeze(frame, "Night desk at Quay", teodor);
    deliver(frame, 2, except(most, 4), 58);
    clock.daysBack(30);
    change(
        frame,
        "Before you enter a workshop",
        "<p>Shoes, hair, card. No card, no entry. Since" + " November also: no earbuds.</p>");
    ItemKey end = find(frame, "When the term ends");
    add(draft(frame), Kind.PAGE, "Transcripts", "<p>Ask for them before the last week.</p>", end);
    masters.freeze(frame, "No earbuds; transcripts", teodor);
    deliver(frame, 3, except(except(most, 4), 30), 28);
    clock.daysBack(2);
    change(frame, "Strike", "<p>Lockers are emptied by noon of the last day.</p>");
  }

  private UUID master(DemoCourse c) throws Exception {
    clock.daysBack(79);
    UUID edition = takeIn(c, c.weeks().size());
    if (c.code().equals("LGT 110")) {
      clock.daysBack(20);
      takeIn(
          new DemoCourse(c.code(), c.title(), c.cartridge(), c.publisher(), c.tool(), second(c)),
          c.weeks().size());
      clock.daysBack(79);
    }
    UUID course =
        db.select(COURSE.ID).from(COURSE).where(COURSE.CODE.eq(c.code())).fetchSingle().value1();
    UUID program =
        db.select(PROGRAM.ID)
            .from(PROGRAM)
            .join(COURSE)
            .on(COURSE.PROGRAM_ID.eq(PROGRAM.ID))
            .where(COURSE.ID.eq(course))
            .fetchSingle()
            .value1();
    UUID id =
        masters.make(
            c.code(),
            c.title(),
            Optional.of(program),
            Optional.of(edition),
            List.of(course),
            teodor);
    UUID draft = draft(id);
    rule(draft, find(id, "Who teaches you"), EditRule.STARTER);
    rule(draft, find(id, "Syllabus"), EditRule.STARTER);
    masters.freeze(id, "From the first edition", teodor);
    return id;
  }

  private static List<DemoCourse.Week> second(DemoCourse c) {
    return c.weeks().stream()
        .map(
            w ->
                new DemoCourse.Week(
                    w.title(),
                    w.facts().stream()
                        .map(f -> f.replace("2,400 watts", "1,920 watts in steady use"))
                        .toList(),
                    w.exercise(),
                    w.talk()))
        .toList();
  }

  private UUID takeIn(DemoCourse c, int weeks) throws Exception {
    String name =
        (c.cartridge().isEmpty() ? c.title() : c.cartridge())
                .toLowerCase(java.util.Locale.ROOT)
                .replaceAll("[^a-z]+", "-")
            + ".imscc";
    UUID id =
        intakes.begin(name, new ByteArrayInputStream(DemoPackage.cartridge(c, weeks)), teodor);
    while (true) {
      var r = db.selectFrom(INTAKE).where(INTAKE.ID.eq(id)).fetchSingle();
      if (r.getState().equals("REFUSED")) {
        throw new IllegalStateException(r.getProblem());
      }
      if (r.getState().equals("DONE")) {
        return r.getEditionId();
      }
      Thread.sleep(100);
    }
  }

  private void courseWeeks(Map<String, UUID> made, List<DemoCourse> courses)
      throws InterruptedException {
    for (DemoCourse c : courses) {
      UUID id = made.get(c.code());
      List<UUID> all = sections(c.code(), "t1-%");
      List<UUID> first = except(all, all.size() / 12 + 1);
      deliver(id, 1, first, 74);
      clock.daysBack(50);
      rewrite(
          id,
          "Reading: " + lower(c.weeks().get(0).title()),
          "<p>Print the",
          "<p>Read it twice; the second time aloud.</p><p>Print the");
      drafts.remove(draft(id), find(id, "Further: " + lower(c.weeks().get(1).title())));
      masters.freeze(id, "Week 1 rewritten, a dead link removed", teodor);
      deliver(id, 2, except(first, 3), 48);
      clock.daysBack(24);
      exerciseThree(id, c);
      String third = "Reading: " + lower(c.weeks().get(2).title());
      rewrite(id, third, "2,400 watts", "1,920 watts in steady use: plan to 80 % of its rating");
      rewrite(id, third, "Print the", "Print two of the");
      ItemKey week = find(id, "Week 4 · " + c.weeks().get(3).title());
      add(
          draft(id),
          Kind.PAGE,
          "Checklist for week 4",
          "<p>Card, gloves, pencil, question.</p>",
          week);
      masters.freeze(id, "Corrected week 3, a checklist", teodor);
    }
    someEdits(made);
    for (DemoCourse c : courses) {
      List<UUID> all = sections(c.code(), "t1-%");
      List<UUID> first = except(all, all.size() / 12 + 1);
      List<UUID> third = except(except(first, 3), Math.max(2, all.size() / 4));
      deliver(made.get(c.code()), 3, third, 21);
    }
  }

  /** A date and a signature, and five points more. */
  private void exerciseThree(UUID master, DemoCourse c) {
    String html = "<p>" + c.weeks().get(2).exercise() + " Date it and sign it.</p>";
    drafts.change(
        draft(master),
        find(master, "Exercise 3: " + lower(c.weeks().get(2).title())),
        new Drafts.Change(
            Optional.empty(),
            Optional.of(html),
            Optional.of("25"),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.empty()));
  }

  private void rewrite(UUID master, String title, String from, String to) {
    String html = AspectForms.html(trees.item(draft(master), find(master, title)).content());
    change(master, title, html.replace(from, to));
  }

  /** Instructors change things before version 3 comes. */
  private void someEdits(Map<String, UUID> made) {
    for (String code : made.keySet()) {
      List<String> ids = shellIds(code);
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
    return lower(
        DemoCourse.all().stream()
            .filter(c -> c.code().equals(code))
            .findFirst()
            .orElseThrow()
            .weeks()
            .get(3)
            .title());
  }

  private UUID outcomes() {
    clock.daysBack(45);
    List<UUID> courses =
        db.select(COURSE.ID)
            .from(COURSE)
            .where(COURSE.CODE.in("STM 210", "SND 120", "SCN 105"))
            .fetch(COURSE.ID);
    UUID id =
        masters.make(
            "OUT", "Outcomes: teamwork", Optional.empty(), Optional.empty(), courses, teodor);
    UUID draft = draft(id);
    ItemKey m = add(draft, Kind.MODULE, "Teamwork, looked at once a term", "", null);
    add(draft, Kind.PAGE, "What teamwork means here", "<p>Four things that a crew notices.</p>", m);
    add(
        draft,
        Kind.ASSIGNMENT,
        "Teamwork: one page about your crew",
        "<p>Who carried what?</p>",
        m);
    masters.freeze(id, "For the review of the year", teodor);
    return id;
  }

  private void outcomesWeek(UUID id) throws InterruptedException {
    List<UUID> all = new ArrayList<>(sections("STM 210", "t1-%"));
    all.addAll(sections("SND 120", "t1-%"));
    deliver(id, 1, except(all, 9), 40);
  }

  private void instructorsAtWork() {
    List<String> saf = shellIds("SAF 100");
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

  /** What is open now: two shells that fail, and a plan to look at. */
  private void open(UUID lighting) throws InterruptedException {
    clock.daysBack(1);
    shells.fault("t1-lgt110-10", 403, 1_000_000);
    shells.fault("t1-lgt110-24", 403, 1_000_000);
    List<UUID> two =
        db.select(SECTION.ID)
            .from(SECTION)
            .where(
                SECTION.SOURCED_ID.in(
                    "t1-lgt110-10", "t1-lgt110-24", "t1-lgt110-11", "t1-lgt110-12"))
            .fetch(SECTION.ID);
    shells.fault("t1-lgt110-10", 403, 0);
    shells.fault("t1-lgt110-24", 403, 0);
    UUID id = plan(lighting, 3, two);
    shells.fault("t1-lgt110-10", 403, 1_000_000);
    shells.fault("t1-lgt110-24", 403, 1_000_000);
    confirm(id);
    List<UUID> behind =
        db.select(SECTION.ID)
            .from(SECTION)
            .join(org.zephyrmist.server.db.Tables.STANDING)
            .on(org.zephyrmist.server.db.Tables.STANDING.SECTION_ID.eq(SECTION.ID))
            .join(VERSION)
            .on(VERSION.ID.eq(org.zephyrmist.server.db.Tables.STANDING.VERSION_ID))
            .where(VERSION.MASTER_ID.eq(lighting))
            .and(VERSION.NUMBER.lt(3))
            .and(SECTION.SOURCED_ID.notIn("t1-lgt110-10", "t1-lgt110-24"))
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
    shells.append(
        late.get(6), "Reading: load and power", "The left bar also feeds the work lights.");
    shells.addPage(late.get(4), "Checklist for week 4", "<p>Card, gloves, torch.</p>");
    shells.handIn(late.get(3), "Exercise 3: load and power", "C. Student");
    shells.handIn(late.get(8), "Exercise 3: load and power", "D. Student");
    plan(lighting, 3, behind);
  }

  private void deliver(UUID master, int number, List<UUID> sections, int daysBack)
      throws InterruptedException {
    clock.daysBack(daysBack);
    confirm(plan(master, number, sections));
  }

  private UUID plan(UUID master, int number, List<UUID> sections) throws InterruptedException {
    UUID version =
        db.select(VERSION.ID)
            .from(VERSION)
            .where(VERSION.MASTER_ID.eq(master))
            .and(VERSION.NUMBER.eq(number))
            .fetchSingle()
            .value1();
    UUID id = deliveries.make(version, sections, Choices.SAFE, ines);
    await(id, "PLANNING");
    return id;
  }

  private void confirm(UUID id) throws InterruptedException {
    deliveries.confirm(id, ines);
    await(id, "RUNNING");
  }

  private void await(UUID delivery, String state) throws InterruptedException {
    while (db.fetchExists(DELIVERY, DELIVERY.ID.eq(delivery).and(DELIVERY.STATE.eq(state)))) {
      Thread.sleep(100);
    }
  }

  private List<UUID> sections(String course, String shells) {
    return db.select(SECTION.ID)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .where(COURSE.CODE.like(course))
        .and(SECTION.SOURCED_ID.like(shells))
        .orderBy(SECTION.SOURCED_ID)
        .fetch(SECTION.ID);
  }

  private List<String> shellIds(String course) {
    return db.select(SECTION.SHELL)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .where(COURSE.CODE.eq(course))
        .and(SECTION.SHELL.isNotNull())
        .orderBy(SECTION.SHELL)
        .fetch(SECTION.SHELL);
  }

  /** All but n of them, spread over the list. */
  private static List<UUID> except(List<UUID> all, int n) {
    int every = Math.max(1, all.size() / n);
    return IntStream.range(0, all.size())
        .filter(i -> i % every != every / 2 || i / every >= n)
        .mapToObj(all::get)
        .toList();
  }

  private static String lower(String s) {
    return s.substring(0, 1).toLowerCase(java.util.Locale.ROOT) + s.substring(1);
  }

  private UUID draft(UUID master) {
    return db.select(MASTER.DRAFT_TREE_ID)
        .from(MASTER)
        .where(MASTER.ID.eq(master))
        .fetchSingle()
        .value1();
  }

  private ItemKey find(UUID master, String title) {
    return trees.nodes(draft(master)).stream()
        .filter(n -> n.title().equals(title))
        .findFirst()
        .orElseThrow(() -> new IllegalStateException("No item " + title))
        .key();
  }

  private ItemKey add(UUID draft, Kind kind, String title, String html, ItemKey parent) {
    String points = kind == Kind.ASSIGNMENT ? "10" : "";
    return drafts.add(draft, kind, title, html, points, "", Optional.ofNullable(parent));
  }

  private void change(UUID master, String title, String html) {
    drafts.change(
        draft(master), find(master, title), changeOf(Optional.of(html), Optional.empty()));
  }

  private void rule(UUID draft, ItemKey key, EditRule rule) {
    drafts.change(draft, key, changeOf(Optional.empty(), Optional.of(rule)));
  }

  private static Drafts.Change changeOf(Optional<String> html, Optional<EditRule> rule) {
    return new Drafts.Change(
        Optional.empty(),
        html,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        rule);
  }
}
