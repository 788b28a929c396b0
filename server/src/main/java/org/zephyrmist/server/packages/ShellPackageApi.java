package org.zephyrmist.server.packages;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
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
import org.zephyrmist.server.line.GoingOn;
import org.zephyrmist.server.line.PlannedSteps;
import org.zephyrmist.server.line.RunLine;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.KeptShells;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Refusal;

/**
 * Packages that wait to be brought into shells without an interface: which, brought in, put away.
 */
@RestController
@RequestMapping("/api/packages")
@PreAuthorize("isAuthenticated()")
class ShellPackageApi {
  private final WaitingPackages waiting;
  private final KeptShells kept;
  private final PlannedSteps steps;
  private final Reach reach;
  private final Events events;
  private final DSLContext db;
  private final GoingOn goingOn;
  private final Queue queue;

  ShellPackageApi(
      WaitingPackages waiting,
      KeptShells kept,
      PlannedSteps steps,
      Reach reach,
      Events events,
      DSLContext db,
      GoingOn goingOn,
      Queue queue) {
    this.goingOn = goingOn;
    this.queue = queue;
    this.waiting = waiting;
    this.kept = kept;
    this.steps = steps;
    this.reach = reach;
    this.events = events;
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
    WaitingPackages.One w = waiting.one(section, who);
    steps.neverCame(w.line());
    goingOn.stop(w.line());
    kept.putAway(section);
    events.add(who.id(), "put a package away", w.code(), w.name());
    return view(w);
  }
}
