package org.zephyrmist.server.demo;

import static org.zephyrmist.server.db.Tables.COLLEGE_VALUE;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.INTAKE;
import static org.zephyrmist.server.db.Tables.PROGRAM;

import java.io.ByteArrayInputStream;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.cartridge.IntakeState;
import org.zephyrmist.server.cartridge.Intakes;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.people.SignedIn;

/** The cartridges and masters of the demo college, each frozen as version 1. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoMasters {
  private final DSLContext db;
  private final DemoClock clock;
  private final Intakes intakes;
  private final Masters masters;
  private final DemoDrafts drafts;
  private final DemoCalendars calendars;
  private final People people;

  DemoMasters(
      DSLContext db,
      DemoClock clock,
      Intakes intakes,
      Masters masters,
      DemoDrafts drafts,
      DemoCalendars calendars,
      People people) {
    this.db = db;
    this.clock = clock;
    this.intakes = intakes;
    this.masters = masters;
    this.drafts = drafts;
    this.calendars = calendars;
    this.people = people;
  }

  UUID frame() {
    UUID id =
        masters.make(
            "FRAME", "College frame", Optional.empty(), Optional.empty(), List.of(), teodor());
    db.insertInto(COLLEGE_VALUE)
        .values("help-address", "help address", "help@larkmoor.example")
        .execute();
    MasterRecord draft = drafts.draft(id);
    ItemKey start = drafts.add(draft, Kind.MODULE, "Welcome to Larkmoor", "", null);
    drafts.add(
        draft,
        Kind.PAGE,
        "How this college works",
        "<p>Three campuses, one stage. Your timetable,"
            + " your call times and your safety card come first.</p>",
        start);
    drafts.add(
        draft,
        Kind.PAGE,
        "Where to find help",
        "<p>Crew room, library, counsellors: who they are and when they are in.</p><p>You are in "
            + value("section-code", "section code")
            + "; when in doubt, write to "
            + value("help-address", "help address")
            + ".</p>",
        start);
    drafts.add(
        draft,
        Kind.PAGE,
        "Recording and privacy",
        "<p>Nobody is filmed at work without being" + " asked.</p>",
        start);
    ItemKey meet =
        drafts.add(
            draft,
            Kind.PAGE,
            "Your instructor",
            "<p>"
                + value("instructor", "instructor")
                + ", room <span class=\"z-blank\">room</span>, in on <span"
                + " class=\"z-blank\">office hours</span>.</p><aside class=\"z-instructor\"><p>Fill in both"
                + " blanks before the first day.</p></aside>",
            start);
    ItemKey rules = drafts.add(draft, Kind.MODULE, "Rules that hold everywhere", "", null);
    ItemKey safety =
        drafts.add(
            draft,
            Kind.PAGE,
            "Before you enter a workshop",
            "<p>Shoes, hair, card. No" + " card, no entry.</p>",
            rules);
    drafts.add(
        draft,
        Kind.PAGE,
        "Honest work",
        "<p>Name your sources, also those that are people.</p>",
        rules);
    drafts.add(
        draft,
        Kind.DISCUSSION,
        "Ask the whole section",
        "<p>Questions that others may have too.</p>",
        rules);
    drafts.add(
        draft,
        Kind.ASSIGNMENT,
        "Safety card",
        "<p>Hand in a picture of your signed card.</p>",
        rules);
    ItemKey end = drafts.add(draft, Kind.MODULE, "When the term ends", "", null);
    drafts.add(draft, Kind.PAGE, "Strike", "<p>Lockers are emptied by the last day.</p>", end);
    drafts.add(
        draft,
        Kind.DISCUSSION,
        "What should stay, what should go?",
        "<p>One of each, please.</p>",
        end);
    drafts.change(id, drafts.find(id, "Safety card"), Map.of("due", "week 2 Fri 18:00"));
    drafts.rule(draft, meet, EditRule.STARTER);
    drafts.rule(draft, safety, EditRule.FIXED);
    setup(draft, meet, safety);
    masters.freeze(id, "First frame of the year", teodor());
    return id;
  }

  private static String value(String name, String words) {
    return "<data class=\"z-value\" value=\"" + name + "\">" + words + "</data>";
  }

  private void setup(MasterRecord draft, ItemKey meet, ItemKey safety) {
    UUID id = draft.getId();
    ItemKey shell = drafts.add(draft, Kind.MODULE, "How the shell is set up", "", null);
    ItemKey front = drafts.add(draft, Kind.SETUP, "Front page", "", shell);
    drafts.change(
        id,
        front,
        Map.of(
            "subject",
            "FRONT_PAGE",
            "html",
            "<h2>Welcome</h2><p>Begin with <a href=\"zref:item/"
                + meet
                + "\">your instructor</a>.</p>"));
    ItemKey menu = drafts.add(draft, Kind.SETUP, "Menu", "", shell);
    drafts.change(
        id,
        menu,
        Map.of(
            "subject",
            "MENU",
            "entries",
            List.of(
                Map.of("label", "Your instructor", "value", "zref:item/" + meet),
                Map.of("label", "Before you enter", "value", "zref:item/" + safety),
                Map.of("label", "Library", "value", "https://library.larkmoor.example/"))));
    ItemKey scale = drafts.add(draft, Kind.SETUP, "Grade scale", "", shell);
    drafts.change(
        id,
        scale,
        Map.of(
            "subject",
            "GRADE_SCALE",
            "entries",
            List.of(
                Map.of("label", "A", "value", "90"),
                Map.of("label", "B", "value", "80"),
                Map.of("label", "C", "value", "70"),
                Map.of("label", "Not yet", "value", "0"))));
    ItemKey note = drafts.add(draft, Kind.PAGE, "For the next builder", "", shell);
    drafts.change(
        id,
        note,
        Map.of(
            "html",
            "<p>The menu is agreed with all three campuses. Change it in June only.</p>",
            "appliesTo",
            Map.of("campuses", List.of(), "modes", List.of(), "tags", List.of(), "nobody", true)));
  }

  UUID master(DemoCourse c) throws Exception {
    clock.daysBack(79);
    UUID edition = takeIn(c, c.weeks().size());
    if (c.code().equals("LGT 110")) {
      clock.daysBack(20);
      takeIn(
          "stage-light-second-edition.imscc",
          DemoPackage.second(
              new DemoCourse(
                  c.code(), c.title(), c.cartridge(), c.publisher(), c.tool(), second(c))));
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
            teodor());
    MasterRecord draft = drafts.draft(id);
    drafts.rule(draft, drafts.find(id, "Who teaches you"), EditRule.STARTER);
    drafts.rule(draft, drafts.find(id, "Syllabus"), EditRule.STARTER);
    calendars.patterns(id, c);
    masters.freeze(id, "From the first edition", teodor());
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

  UUID takeIn(DemoCourse c, int weeks) throws Exception {
    String name =
        (c.cartridge().isEmpty() ? c.title() : c.cartridge())
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z]+", "-")
            + ".imscc";
    return takeIn(name, DemoPackage.cartridge(c, weeks));
  }

  /** Cartridges that nobody has made a master of yet. */
  void stock() throws Exception {
    clock.daysBack(12);
    takeIn("safety-stock.imscc", DemoStock.licensed());
    clock.daysBack(4);
    takeIn("rigging notes.zip", DemoStock.loose());
  }

  private UUID takeIn(String name, byte[] file) throws Exception {
    UUID id = intakes.begin(name, new ByteArrayInputStream(file), teodor());
    while (true) {
      var r = db.selectFrom(INTAKE).where(INTAKE.ID.eq(id)).fetchSingle();
      if (r.getState() == IntakeState.REFUSED) {
        throw new IllegalStateException(r.getProblem());
      }
      if (r.getState() == IntakeState.DONE) {
        return r.getEditionId();
      }
      Thread.sleep(100);
    }
  }

  UUID outcomes() {
    clock.daysBack(45);
    List<UUID> courses =
        db.select(COURSE.ID)
            .from(COURSE)
            .where(COURSE.CODE.in("STM 210", "SND 120", "SCN 105"))
            .fetch(COURSE.ID);
    UUID id =
        masters.make(
            "OUT", "Outcomes: teamwork", Optional.empty(), Optional.empty(), courses, teodor());
    MasterRecord draft = drafts.draft(id);
    ItemKey m = drafts.add(draft, Kind.MODULE, "Teamwork, looked at once a term", "", null);
    drafts.add(
        draft, Kind.PAGE, "What teamwork means here", "<p>Four things that a crew notices.</p>", m);
    drafts.add(
        draft,
        Kind.ASSIGNMENT,
        "Teamwork: one page about your crew",
        "<p>Who carried what?</p>",
        m);
    masters.freeze(id, "For the review of the year", teodor());
    return id;
  }

  private SignedIn teodor() {
    return people.loadUserByUsername("teodor@larkmoor.example");
  }
}
