package org.zephyrmist.server.roster;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.roster.Present;
import org.zephyrmist.core.roster.Roster;
import org.zephyrmist.core.roster.RosterException;
import org.zephyrmist.core.roster.RosterPlan;
import org.zephyrmist.core.roster.RosterPlanner;
import org.zephyrmist.core.roster.RosterReader;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Programs;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.web.Heavy;
import org.zephyrmist.server.web.Refusal;
import org.zephyrmist.server.web.Uploads;
import org.zephyrmist.server.web.Workspace;

/** Sections and people from OneRoster. */
@RestController
@RequestMapping(path = "/api", produces = MediaType.APPLICATION_JSON_VALUE)
class RosterApi {
  private static final long MOST = 200L << 20;
  private static final int TOLD = 200;
  private final RosterIntake intake;
  private final PresentCollege present;
  private final RosterBundles bundles;
  private final Platforms platforms;
  private final Programs programs;
  private final Events events;
  private final DSLContext db;
  private final Reach reach;
  private final Workspace workspace;
  private final Settings settings;
  private final TransactionTemplate transaction;

  RosterApi(
      RosterIntake intake,
      PresentCollege present,
      RosterBundles bundles,
      Platforms platforms,
      Programs programs,
      Events events,
      DSLContext db,
      Reach reach,
      Workspace workspace,
      Settings settings,
      TransactionTemplate transaction) {
    this.intake = intake;
    this.present = present;
    this.bundles = bundles;
    this.platforms = platforms;
    this.programs = programs;
    this.events = events;
    this.db = db;
    this.reach = reach;
    this.workspace = workspace;
    this.settings = settings;
    this.transaction = transaction;
  }

  record Course(@NotNull UUID id, @NotNull String code, @NotNull String title) {}

  @GetMapping("/courses")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
  List<Course> courses(@AuthenticationPrincipal SignedIn who) {
    return db.selectFrom(COURSE)
        .where(reach.program(who, COURSE.PROGRAM_ID))
        .orderBy(COURSE.CODE)
        .fetch(r -> new Course(r.getId(), r.getCode(), r.getTitle()));
  }

  /**
   * @param sourcedId by which items say for which campuses they are meant
   */
  record CampusView(@NotNull String sourcedId, @NotNull String name) {}

  @GetMapping("/campuses")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
  List<CampusView> campuses() {
    return db.selectFrom(CAMPUS)
        .orderBy(CAMPUS.NAME)
        .fetch(r -> new CampusView(r.getSourcedId(), r.getName()));
  }

  /**
   * What taking a roster in would do, or has done.
   *
   * @param id to take it in with; none when it has been taken
   * @param ended titles of sections that are kept and marked, the first 200
   * @param stripped sections that lose all their teachers, the first 200
   * @param students enrolled in all
   * @param inParts sections that are taught in a part of their term, by whose calendar they go
   * @param asks what has to be confirmed in so many words
   */
  record RosterLook(
      UUID id,
      int programs,
      int campuses,
      int terms,
      int courses,
      int added,
      int changed,
      int back,
      int ended,
      int same,
      int people,
      int teach,
      int leave,
      int stripped,
      int students,
      int inParts,
      @NotNull List<String> endedOnes,
      @NotNull List<String> strippedOnes,
      @NotNull List<Roster.Remark> remarks,
      @NotNull List<String> asks) {

    static RosterLook of(UUID id, RosterPlan p, List<Roster.Remark> remarks) {
      return new RosterLook(
          id,
          p.programs().size(),
          p.campuses().size(),
          p.terms().size(),
          p.courses().size(),
          p.added().size(),
          p.changed().size(),
          p.back().size(),
          p.ended().size(),
          p.same(),
          p.people().size(),
          p.teach().size(),
          p.leave().size(),
          p.stripped().size(),
          p.students().values().stream().mapToInt(Integer::intValue).sum(),
          p.parts().size(),
          p.ended().stream().limit(TOLD).toList(),
          p.stripped().stream().limit(TOLD).toList(),
          remarks,
          p.asks());
    }

    /** Two looks at one bundle that are alike in this are of one college. */
    String inShort() {
      return Stream.of(
              programs, campuses, terms, courses, added, changed, back, ended, people, teach, leave)
          .map(String::valueOf)
          .collect(Collectors.joining(" "));
    }
  }

  /**
   * @param despite true to take it in although it asks
   */
  record Take(Boolean despite) {}

  /** The body is a ZIP of OneRoster CSV files. It is looked at; nothing is taken in yet. */
  @Heavy
  @PostMapping(path = "/roster", consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  RosterLook look(HttpServletRequest request, @AuthenticationPrincipal SignedIn who)
      throws IOException {
    Path file = workspace.file("roster");
    try {
      Uploads.receive(request.getInputStream(), file, MOST, "bundle", "Send it term by term.");
      RosterPlan plan = plan(file, who);
      RosterLook seen = RosterLook.of(null, plan, plan.remarks());
      return RosterLook.of(bundles.keep(file, seen.inShort(), who), plan, plan.remarks());
    } finally {
      Files.delete(file);
    }
  }

  private RosterPlan plan(Path file, SignedIn who) throws IOException {
    try {
      Present college = present.now();
      return RosterPlanner.plan(
          RosterReader.read(file, college), college, present.reach(who), settings.rosterAsksFrom());
    } catch (RosterException e) {
      throw Refusal.bad(e.getMessage(), e.remedy());
    }
  }

  /** Takes in what was looked at. Shells are tied to the sections afterwards. */
  @PostMapping("/roster/{id}/take")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  RosterLook take(
      @PathVariable UUID id, @RequestBody Take how, @AuthenticationPrincipal SignedIn who)
      throws IOException {
    Path file = workspace.file("roster");
    try {
      String shown = bundles.fetch(id, who, file);
      RosterPlan taken =
          transaction.execute(t -> taken(id, file, shown, Boolean.TRUE.equals(how.despite()), who));
      return RosterLook.of(
          null, taken, Stream.concat(taken.remarks().stream(), untied().stream()).toList());
    } finally {
      Files.delete(file);
    }
  }

  private RosterPlan taken(UUID id, Path file, String shown, boolean despite, SignedIn who) {
    try {
      intake.begin();
      boolean first = present.reach(who).isEmpty() && who.role() == Role.COORDINATOR;
      RosterPlan plan = plan(file, who);
      if (!RosterLook.of(id, plan, List.of()).inShort().equals(shown)) {
        throw new Refusal(
            HttpStatus.CONFLICT,
            "The college has changed since this roster was looked at; nothing was taken in.",
            "Look at it again, then take it in.");
      }
      if (!plan.asks().isEmpty() && !despite) {
        throw new Refusal(
            HttpStatus.CONFLICT,
            String.join(" ", plan.asks()) + " Nothing was taken in.",
            "Say that it is meant so, or send the right bundle.");
      }
      intake.take(plan);
      bundles.drop(id);
      if (first) {
        programs.reachAll(who.id());
      }
      events.add(who.id(), "took in roster", words(plan), "");
      return plan;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static String words(RosterPlan p) {
    return "%d sections new, %d changed, %d ended"
        .formatted(p.added().size(), p.changed().size(), p.ended().size());
  }

  /** Ties sections to their shells; the roster is in, whether the platforms answer or not. */
  private Optional<Roster.Remark> untied() {
    try {
      platforms.tieAll();
      return Optional.empty();
    } catch (PlatformException e) {
      return Optional.of(
          new Roster.Remark(
              "",
              0,
              "",
              "Sections were not tied to their shells: " + e.getMessage(),
              "Take the same roster in again when the platform is well."));
    }
  }
}
