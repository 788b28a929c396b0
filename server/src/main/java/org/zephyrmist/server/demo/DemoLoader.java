package org.zephyrmist.server.demo;

import static org.zephyrmist.server.db.Tables.EVENT;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.roster.Present;
import org.zephyrmist.core.roster.RosterException;
import org.zephyrmist.core.roster.RosterPlanner;
import org.zephyrmist.core.roster.RosterReader;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.people.Programs;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.platform.SheetWords;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.roster.RosterIntake;
import org.zephyrmist.server.shell.ReadSection;
import org.zephyrmist.server.web.Workspace;

/** Makes the demo college and its past weeks. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoLoader implements ApplicationRunner {
  private static final String MADE = "demo data made";
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
  private final DemoMasters masters;
  private final DemoWeeks weeks;
  private final DemoInWork inWork;
  private final DemoSets sets;
  private final DemoTools tools;
  private final DemoCalendars calendars;
  private final DemoSpring spring;
  private final DemoMaking making;
  private final Queue queue;
  private final Events events;
  private final Workspace workspace;

  DemoLoader(
      DSLContext db,
      DemoClock clock,
      DemoShells shells,
      Settings settings,
      People people,
      Programs programs,
      RosterIntake roster,
      Platforms platforms,
      DemoMasters masters,
      DemoWeeks weeks,
      DemoInWork inWork,
      DemoSets sets,
      DemoTools tools,
      DemoCalendars calendars,
      DemoSpring spring,
      DemoMaking making,
      Queue queue,
      Events events,
      Workspace workspace) {
    this.db = db;
    this.clock = clock;
    this.shells = shells;
    this.settings = settings;
    this.people = people;
    this.programs = programs;
    this.roster = roster;
    this.platforms = platforms;
    this.masters = masters;
    this.weeks = weeks;
    this.inWork = inWork;
    this.sets = sets;
    this.tools = tools;
    this.calendars = calendars;
    this.spring = spring;
    this.making = making;
    this.queue = queue;
    this.events = events;
    this.workspace = workspace;
  }

  @Override
  public void run(ApplicationArguments args) throws Exception {
    if (!people.nobody()) {
      if (!db.fetchExists(EVENT, EVENT.WHAT.eq(MADE))) {
        throw new IllegalStateException(
            "The demo data were not finished last time. Run ./zephyrmist reset, then start again.");
      }
      return;
    }
    long start = System.nanoTime();
    clock.daysBack(80);
    DemoRoster college = DemoRoster.make(LocalDate.now());
    shells.awaitPlatform();
    shells.make(college.sections().stream().filter(s -> s.term().equals("t1")).toList());
    take(college.bundle());
    millByPackages();
    platforms.add("Practice platform", settings.practiceAddress(), settings.practiceToken());
    admit();
    calendars.make();
    fillByHand(college);
    UUID frame = masters.frame();
    List<DemoCourse> courses = DemoCourse.all();
    Map<String, UUID> made = new LinkedHashMap<>();
    for (DemoCourse c : courses) {
      made.put(c.code(), masters.master(c));
    }
    LOG.info("First page of the demo after {} s", DemoMaking.seconds(start));
    making.begin(pastWeeks(college, frame, made, courses));
  }

  /** What came after the sources were there, in its order. */
  private List<DemoMaking.Week> pastWeeks(
      DemoRoster college, UUID frame, Map<String, UUID> made, List<DemoCourse> courses) {
    return List.of(
        () -> weeks.frameArrives(frame),
        () -> weeks.coursesArrive(made, courses),
        () -> weeks.nightDesk(frame),
        () -> weeks.secondVersions(made, courses),
        () -> weeks.noEarbuds(frame),
        () -> weeks.thirdVersions(made, courses),
        () -> {
          masters.stock();
          weeks.outcomesWeek(masters.outcomes());
          weeks.instructorsAtWork();
          weeks.open(made.get("LGT 110"));
          weeks.packagesWait(made.get("LGT 110"));
        },
        () -> {
          sets.make(made.get("SND 120"));
          spring.make(college, frame, made);
        },
        () -> {
          clock.daysBack(1);
          inWork.light(made.get("LGT 110"), courses);
          clock.daysBack(0);
          tools.make();
          queue.put(
              ReadSection.NAME,
              db.select(SECTION.ID)
                  .from(SECTION)
                  .where(SECTION.SHELL.isNotNull())
                  .fetch(SECTION.ID));
          events.add(null, MADE, "Larkmoor College of Stagecraft", "");
        });
  }

  /** The third campus has a platform of its own, which nobody can ask. */
  private void millByPackages() {
    UUID mill = platforms.addByPackages("Mill course shells", Set.of("mill"));
    platforms.sheet(
        mill,
        new SheetWords(
            "release 7",
            "Open the shell, then Shell care, then Bring in a package.",
            "“Copy a shell”, which takes another section’s students along.",
            "“Make everything visible” and “Replace what is there”.",
            "About two minutes; with films up to ten.",
            "A green line says “Package is in” and names how many items came."));
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
  }

  private void take(byte[] bundle) throws IOException, RosterException {
    Path file = workspace.file("roster");
    Files.write(file, bundle);
    roster.take(
        RosterPlanner.plan(
            RosterReader.read(file, Present.NOTHING), Present.NOTHING, Optional.empty(), 1));
    Files.delete(file);
  }

  /** Some instructors had begun before anything was delivered. */
  private void fillByHand(DemoRoster college) {
    List<DemoRoster.Section> now =
        college.sections().stream().filter(s -> s.term().equals("t1")).toList();
    for (int i = 0; i < now.size(); i += 11) {
      String shell = now.get(i).id();
      shells.weeks(shell, 4);
      shells.addPage(shell, "Office hours", "<p>Tuesdays after class, in the paint frame.</p>");
      shells.addPage(
          shell, "Where to find help", "<p>The crew room, third door. Bring your question.</p>");
    }
  }
}
