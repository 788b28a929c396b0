package org.zephyrmist.server.packages;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.line.GoingOn;
import org.zephyrmist.server.line.PlannedSteps;
import org.zephyrmist.server.line.RunLine;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.KeptShells;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Refusal;
import org.zephyrmist.server.web.Uploads;
import org.zephyrmist.server.web.Workspace;

/** Packages for shells without an interface: out, brought in, put away; exports in. */
@RestController
@RequestMapping("/api/packages")
@PreAuthorize("isAuthenticated()")
class ShellPackageApi {
  private final WaitingPackages waiting;
  private final SectionPackages packages;
  private final Sheets sheets;
  private final Exports exports;
  private final KeptShells kept;
  private final PlannedSteps steps;
  private final Reach reach;
  private final Events events;
  private final Workspace workspace;
  private final Settings settings;
  private final DSLContext db;
  private final GoingOn goingOn;
  private final Queue queue;

  ShellPackageApi(
      WaitingPackages waiting,
      SectionPackages packages,
      Sheets sheets,
      Exports exports,
      KeptShells kept,
      PlannedSteps steps,
      Reach reach,
      Events events,
      Workspace workspace,
      Settings settings,
      DSLContext db,
      GoingOn goingOn,
      Queue queue) {
    this.goingOn = goingOn;
    this.queue = queue;
    this.waiting = waiting;
    this.packages = packages;
    this.sheets = sheets;
    this.exports = exports;
    this.kept = kept;
    this.steps = steps;
    this.reach = reach;
    this.events = events;
    this.workspace = workspace;
    this.settings = settings;
    this.db = db;
  }

  /** A package that waits to be brought in. */
  record WaitingPackage(
      @NotNull UUID section,
      @NotNull String code,
      @NotNull UUID delivery,
      @NotNull String masterCode,
      @NotNull Integer number,
      @NotNull String platform,
      @NotNull String fileName,
      @NotNull OffsetDateTime since) {}

  /**
   * What is known of a shell that nobody can ask.
   *
   * @param waits absent if no package waits for it
   */
  record KeptShell(@NotNull KeptShells.Known known, OffsetDateTime knownAt, WaitingPackage waits) {}

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

  record Sections(@NotEmpty @Size(max = 5_000) Set<@NotNull UUID> sections) {}

  /** Those of a delivery that wait, in sections within reach. */
  @GetMapping(produces = MediaType.APPLICATION_JSON_VALUE)
  List<WaitingPackage> list(@RequestParam UUID delivery, @AuthenticationPrincipal SignedIn who) {
    return waiting.some(DELIVERY.ID.eq(delivery).and(reach.sections(who))).stream()
        .map(ShellPackageApi::view)
        .toList();
  }

  private static WaitingPackage view(WaitingPackages.One w) {
    return new WaitingPackage(
        w.section(),
        w.code(),
        w.delivery(),
        w.masterCode(),
        w.number(),
        w.platformName(),
        w.name() + ".imscc",
        w.since());
  }

  /** What is known of a section's shell; nothing for shells that can be asked. */
  @GetMapping(path = "/{section}", produces = MediaType.APPLICATION_JSON_VALUE)
  List<KeptShell> shell(@PathVariable UUID section, @AuthenticationPrincipal SignedIn who) {
    boolean there = db.fetchExists(SECTION, SECTION.ID.eq(section).and(reach.sections(who)));
    if (!there) {
      throw Refusal.notFound("section");
    }
    WaitingPackage waits =
        waiting.some(SECTION.ID.eq(section)).stream()
            .map(ShellPackageApi::view)
            .findFirst()
            .orElse(null);
    return kept.asked(section)
        ? List.of()
        : List.of(
            kept.state(section)
                .map(s -> new KeptShell(s.known(), s.knownAt(), waits))
                .orElse(new KeptShell(KeptShells.Known.NOTHING, null, null)));
  }

  private WaitingPackages.One one(UUID section, SignedIn who) {
    return waiting.some(SECTION.ID.eq(section).and(reach.sections(who))).stream()
        .findFirst()
        .orElseThrow(() -> Refusal.notFound("package that waits"));
  }

  @GetMapping("/{section}/package")
  void file(
      @PathVariable UUID section,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    WaitingPackages.One w = one(section, who);
    download(response, w.name() + ".imscc");
    packages.write(w, packages.of(w), response.getOutputStream());
  }

  private static void download(HttpServletResponse response, String name) {
    response.setContentType("application/zip");
    response.setHeader(
        HttpHeaders.CONTENT_DISPOSITION,
        ContentDisposition.attachment().filename(name, StandardCharsets.UTF_8).build().toString());
  }

  /** To be printed; nothing in it can act. */
  @GetMapping("/{section}/sheet")
  void sheet(
      @PathVariable UUID section,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    WaitingPackages.One w = one(section, who);
    response.setContentType("text/html;charset=UTF-8");
    response.setHeader(
        "Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox");
    String page = sheets.of(w, packages.of(w));
    response.getOutputStream().write(page.getBytes(StandardCharsets.UTF_8));
  }

  /** All that wait of a delivery, each in a folder of its own with its sheet. */
  @GetMapping("/all")
  void all(
      @RequestParam UUID delivery,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    List<WaitingPackages.One> some =
        waiting.some(DELIVERY.ID.eq(delivery).and(reach.sections(who)));
    if (some.isEmpty()) {
      throw Refusal.notFound("package that waits");
    }
    download(response, some.get(0).masterCode().replaceAll("[^A-Za-z0-9.-]+", "-") + ".zip");
    try (ZipOutputStream zip = new ZipOutputStream(response.getOutputStream())) {
      for (WaitingPackages.One w : some) {
        String folder = w.name() + "/";
        zip.putNextEntry(new ZipEntry(folder + "sheet.html"));
        SectionPackages.Change change = packages.of(w);
        zip.write(sheets.of(w, change).getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
        zip.putNextEntry(new ZipEntry(folder + w.name() + ".imscc"));
        packages.write(w, change, new Within(zip));
        zip.closeEntry();
      }
    }
  }

  /** An entry of an archive, which ends without ending the archive. */
  private static final class Within extends java.io.FilterOutputStream {
    Within(OutputStream out) {
      super(out);
    }

    @Override
    public void write(byte[] b, int off, int len) throws IOException {
      out.write(b, off, len);
    }

    @Override
    public void close() {
      // the archive goes on
    }
  }

  /** These packages were brought in; their lines go on by themselves. */
  @PostMapping(path = "/brought-in", produces = MediaType.APPLICATION_JSON_VALUE)
  List<WaitingPackage> broughtIn(
      @Valid @RequestBody Sections sections, @AuthenticationPrincipal SignedIn who) {
    Condition which = SECTION.ID.in(sections.sections()).and(reach.sections(who));
    List<WaitingPackages.One> some = waiting.some(which);
    kept.broughtIn(some.stream().map(WaitingPackages.One::section).toList());
    String codes = some.stream().map(WaitingPackages.One::code).collect(Collectors.joining(", "));
    if (!some.isEmpty()) {
      events.add(who.id(), "said that packages were brought in", some.get(0).masterCode(), codes);
    }
    goesOn();
    return some.stream().map(ShellPackageApi::view).toList();
  }

  /** What waited for a package has its turn now. */
  private void goesOn() {
    queue.put(RunLine.NAME, goingOn.ready());
  }

  /**
   * The package will not be brought in; its line stops, and another plan begins anew; all or none.
   */
  @PostMapping(path = "/{section}/put-away", produces = MediaType.APPLICATION_JSON_VALUE)
  @PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
  @Transactional
  public WaitingPackage putAway(@PathVariable UUID section, @AuthenticationPrincipal SignedIn who) {
    WaitingPackages.One w = one(section, who);
    steps.neverCame(w.line());
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.STOPPED)
        .setNull(DELIVERY_LINE.WAITS_FOR)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .setNull(DELIVERY_LINE.REASON)
        .setNull(DELIVERY_LINE.REMEDY)
        .where(DELIVERY_LINE.ID.eq(w.line()))
        .execute();
    kept.putAway(section);
    events.add(who.id(), "put a package away", w.code(), w.name());
    return view(w);
  }

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
      goesOn();
      return new ExportTold(
          t.items(), t.came(), t.missing(), t.changed(), t.gone(), t.fresh(), t.doubtful());
    } finally {
      java.nio.file.Files.deleteIfExists(file);
    }
  }
}
