package org.zephyrmist.server.packages;

import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.nio.file.Path;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.line.GoingOn;
import org.zephyrmist.server.line.RunLine;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Refusal;
import org.zephyrmist.server.web.Uploads;
import org.zephyrmist.server.web.Workspace;

/** What was exported from shells without an interface: it proves what was brought in. */
@RestController
@RequestMapping("/api/packages")
@PreAuthorize("isAuthenticated()")
class ExportApi {
  private final Exports exports;
  private final Reach reach;
  private final Events events;
  private final Workspace workspace;
  private final Settings settings;
  private final DSLContext db;
  private final GoingOn goingOn;
  private final Queue queue;

  ExportApi(
      Exports exports,
      Reach reach,
      Events events,
      Workspace workspace,
      Settings settings,
      DSLContext db,
      GoingOn goingOn,
      Queue queue) {
    this.exports = exports;
    this.reach = reach;
    this.events = events;
    this.workspace = workspace;
    this.settings = settings;
    this.db = db;
    this.goingOn = goingOn;
    this.queue = queue;
  }

  /**
   * What an export told; counts of items.
   *
   * @param came of the package that waited, that are there
   * @param missing of it, that are not
   */
  record ExportTold(
      @NotNull Integer items,
      @NotNull Integer came,
      @NotNull Integer missing,
      @NotNull Integer changed,
      @NotNull Integer gone,
      @NotNull Integer fresh,
      @NotNull Integer doubtful) {}

  /** The body is the package that was exported from the section's shell. */
  @PostMapping(
      path = "/{section}/export",
      consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE,
      produces = MediaType.APPLICATION_JSON_VALUE)
  ExportTold export(
      @PathVariable UUID section,
      @RequestParam String fileName,
      HttpServletRequest request,
      @AuthenticationPrincipal SignedIn who)
      throws IOException {
    String code =
        db.select(SECTION.CODE)
            .from(SECTION)
            .where(SECTION.ID.eq(section).and(reach.sections(who)))
            .fetchOptional(SECTION.CODE)
            .orElseThrow(() -> Refusal.notFound("section"));
    String name = Titles.clean(fileName);
    Path file = workspace.file("export");
    try {
      Uploads.receive(
          request.getInputStream(),
          file,
          settings.uploadMostBytes(),
          "export",
          "Export the shell without its large files.");
      Exports.Told t = exports.take(section, name, file);
      events.add(who.id(), "uploaded an export of", code, name);
      queue.put(RunLine.NAME, goingOn.ready());
      return new ExportTold(
          t.items(), t.came(), t.missing(), t.changed(), t.gone(), t.fresh(), t.doubtful());
    } finally {
      java.nio.file.Files.deleteIfExists(file);
    }
  }
}
