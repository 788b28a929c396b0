package org.zephyrmist.server.platform;

import static org.jooq.impl.DSL.count;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Platforms: administrators name them; tokens never come back. */
@RestController
@RequestMapping(path = "/api/platforms", produces = MediaType.APPLICATION_JSON_VALUE)
class PlatformApi {
  /** It is sent as a header. */
  private static final String TOKEN = "[\\x21-\\x7e]{1,2000}";

  private static final String WORDS = "may hold visible characters of ASCII alone";
  private final Platforms platforms;
  private final DSLContext db;
  private final Events events;

  PlatformApi(Platforms platforms, DSLContext db, Events events) {
    this.platforms = platforms;
    this.db = db;
    this.events = events;
  }

  record NewPlatform(
      @NotBlank @Size(max = 200) String name,
      @NotBlank @Size(max = 2000) String address,
      @NotBlank @Pattern(regexp = TOKEN, message = WORDS) String token) {}

  record RenewedToken(@NotBlank @Pattern(regexp = TOKEN, message = WORDS) String token) {}

  /**
   * A platform without an interface.
   *
   * @param campuses sourced ids of those whose shells it has
   */
  record NewByPackages(
      @NotBlank @Size(max = 200) String name,
      @NotEmpty @Size(max = 100) Set<@NotBlank String> campuses) {}

  /**
   * @param address absent: it has no interface
   */
  record PlatformView(@NotNull UUID id, @NotNull String name, String address, int sections) {}

  /** A section that no platform holds a shell for. */
  record Unheld(@NotNull String sourcedId, @NotNull String code, @NotNull String title) {}

  /**
   * @param unheld of the sections without a shell, the first 500
   */
  record PlatformList(
      @NotNull List<PlatformView> platforms, int withoutShell, @NotNull List<Unheld> unheld) {}

  record Tied(int sections, int withoutShell) {}

  @GetMapping
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  PlatformList list() {
    List<PlatformView> all =
        db.select(PLATFORM.ID, PLATFORM.NAME, PLATFORM.ADDRESS, count(SECTION.ID))
            .from(PLATFORM)
            .leftJoin(SECTION)
            .on(SECTION.PLATFORM_ID.eq(PLATFORM.ID))
            .groupBy(PLATFORM.ID)
            .orderBy(PLATFORM.NAME)
            .fetch(r -> new PlatformView(r.value1(), r.value2(), r.value3(), r.value4()));
    return new PlatformList(all, platforms.withoutShell(), platforms.unheld());
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void add(@Valid @RequestBody NewPlatform p, @AuthenticationPrincipal SignedIn who) {
    platforms.add(p.name().strip(), p.address().strip(), p.token().strip());
    events.add(who.id(), "named platform", p.name(), p.address());
  }

  /** Names a platform that has no interface. */
  @PostMapping("/by-packages")
  @ResponseStatus(HttpStatus.CREATED)
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void addByPackages(@Valid @RequestBody NewByPackages p, @AuthenticationPrincipal SignedIn who) {
    platforms.addByPackages(p.name().strip(), p.campuses());
    events.add(who.id(), "named platform", p.name(), "without an interface");
  }

  /** What the sheet with each package for the platform says. */
  @GetMapping("/{id}/sheet")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  SheetWords sheet(@PathVariable UUID id) {
    return platforms.sheet(id);
  }

  @PutMapping("/{id}/sheet")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  void sheet(
      @PathVariable UUID id,
      @Valid @RequestBody SheetWords words,
      @AuthenticationPrincipal SignedIn who) {
    events.add(who.id(), "worded the sheet for", platforms.sheet(id, words), words.where());
  }

  /**
   * What the college advises for packages that go to a platform.
   *
   * @param format absent: none is advised
   */
  record PlatformAdvice(
      @NotNull UUID id, @NotNull String name, PackageFormat format, @NotNull String advice) {}

  record NewAdvice(PackageFormat format, @NotNull @Size(max = 1_000) String advice) {}

  @GetMapping("/advice")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
  List<PlatformAdvice> advice() {
    return db.selectFrom(PLATFORM)
        .orderBy(PLATFORM.NAME)
        .fetch(
            r ->
                new PlatformAdvice(
                    r.getId(),
                    r.getName(),
                    Optional.ofNullable(r.getPackageFormat())
                        .map(PackageFormat::valueOf)
                        .orElse(null),
                    r.getPackageAdvice()));
  }

  @PutMapping("/{id}/advice")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  void advise(
      @PathVariable UUID id,
      @Valid @RequestBody NewAdvice a,
      @AuthenticationPrincipal SignedIn who) {
    String name =
        db.update(PLATFORM)
            .set(PLATFORM.PACKAGE_FORMAT, a.format() == null ? null : a.format().name())
            .set(PLATFORM.PACKAGE_ADVICE, a.advice().strip())
            .where(PLATFORM.ID.eq(id))
            .returningResult(PLATFORM.NAME)
            .fetchOptional()
            .map(r -> r.value1())
            .orElseThrow(() -> Refusal.notFound("platform"));
    events.add(who.id(), "advised on packages for", name, a.advice().strip());
  }

  /** Another token for the platform; it never comes back. */
  @PutMapping("/{id}/token")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void renew(
      @PathVariable UUID id,
      @Valid @RequestBody RenewedToken t,
      @AuthenticationPrincipal SignedIn who) {
    events.add(who.id(), "renewed token of", platforms.renew(id, t.token()), "");
  }

  /** Nothing is sent there any more; the ledger keeps what it knows. */
  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void end(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    events.add(who.id(), "ended platform", platforms.end(id), "");
  }

  /** Looks at the platform for shells that belong to sections. */
  @PostMapping("/{id}/ties")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  Tied tie(@PathVariable UUID id) {
    if (!db.fetchExists(PLATFORM, PLATFORM.ID.eq(id))) {
      throw Refusal.notFound("platform");
    }
    try {
      return new Tied(platforms.tie(id), platforms.withoutShell());
    } catch (PlatformException e) {
      throw Refusal.bad(e.getMessage(), e.remedy());
    }
  }
}
