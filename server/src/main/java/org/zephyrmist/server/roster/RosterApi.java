package org.zephyrmist.server.roster;

import static org.zephyrmist.server.db.Tables.COURSE;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.roster.Roster;
import org.zephyrmist.core.roster.RosterException;
import org.zephyrmist.core.roster.RosterReader;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Programs;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.web.Refusal;
import org.zephyrmist.server.web.Uploads;
import org.zephyrmist.server.web.Workspace;

/** Sections and people from OneRoster. */
@RestController
@RequestMapping(path = "/api", produces = MediaType.APPLICATION_JSON_VALUE)
class RosterApi {
  private static final long MOST = 200L << 20;
  private final RosterIntake intake;
  private final Platforms platforms;
  private final Programs programs;
  private final Events events;
  private final DSLContext db;
  private final Reach reach;
  private final Workspace workspace;

  RosterApi(
      RosterIntake intake,
      Platforms platforms,
      Programs programs,
      Events events,
      DSLContext db,
      Reach reach,
      Workspace workspace) {
    this.workspace = workspace;
    this.intake = intake;
    this.platforms = platforms;
    this.programs = programs;
    this.events = events;
    this.db = db;
    this.reach = reach;
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

  /** The roster is in, whether the platforms answer or not. */
  private void tie(RosterIntake.Report report) {
    try {
      platforms.tieAll();
    } catch (PlatformException e) {
      report
          .remarks()
          .add(
              new Roster.Remark(
                  "",
                  0,
                  "Sections were not tied to their shells: " + e.getMessage(),
                  "Take the same roster in again when the platform is well."));
    }
  }

  /** The body is a ZIP of OneRoster CSV files. Shells are tied to the sections afterwards. */
  @PostMapping(path = "/roster", consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  RosterIntake.Report take(HttpServletRequest request, @AuthenticationPrincipal SignedIn who)
      throws IOException {
    Path file = workspace.file("roster");
    try {
      Uploads.receive(request.getInputStream(), file, MOST, "bundle", "Send it term by term.");
      Roster roster = RosterReader.read(file, intake.known());
      RosterIntake.Report report = intake.take(roster);
      programs.reachAllIfNone(who);
      tie(report);
      events.add(who.id(), "took in roster", report.sections() + " sections", "");
      return report;
    } catch (RosterException e) {
      throw Refusal.bad(e.getMessage(), e.remedy());
    } finally {
      Files.delete(file);
    }
  }
}
