package org.zephyrmist.server.cartridge;

import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.FILE;
import static org.zephyrmist.server.db.Tables.INTAKE;
import static org.zephyrmist.server.db.Tables.PACKAGE_FILE;
import static org.zephyrmist.server.db.Tables.PERSON;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.cartridge.ReadingReport;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.content.FileApi;
import org.zephyrmist.server.content.ItemView;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Cartridges: take in, look inside. */
@RestController
@RequestMapping(path = "/api/cartridges", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class CartridgeApi {
  private final DSLContext db;
  private final Intakes intakes;
  private final Trees trees;
  private final Previews previews;
  private final Cartridges cartridges;
  private final JsonMapper json;

  CartridgeApi(
      DSLContext db,
      Intakes intakes,
      Trees trees,
      Previews previews,
      Cartridges cartridges,
      JsonMapper json) {
    this.cartridges = cartridges;
    this.db = db;
    this.intakes = intakes;
    this.trees = trees;
    this.previews = previews;
    this.json = json;
  }

  record Begun(@NotNull UUID id) {}

  record Intake(
      @NotNull UUID id,
      @NotNull String fileName,
      @NotNull IntakeState state,
      int done,
      int total,
      @NotNull String what,
      UUID edition,
      UUID master,
      boolean knownAlready,
      String problem,
      String place,
      String remedy) {}

  record Edition(
      @NotNull UUID id,
      @NotNull UUID cartridge,
      @NotNull String title,
      int number,
      @NotNull String fileName,
      long size,
      @NotNull String takenBy,
      @NotNull OffsetDateTime takenAt,
      @NotNull ReadingReport report,
      @NotNull String publisher,
      OffsetDateTime consentAt,
      boolean freshEachTerm,
      Ours ours) {}

  /**
   * A package that was written here.
   *
   * @param version of the master, 0 for its draft
   * @param newest version of it now
   */
  record Ours(@NotNull UUID master, @NotNull String code, int version, int newest) {}

  /** The body is the file itself. */
  @PostMapping(path = "/intakes", consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  @ResponseStatus(HttpStatus.ACCEPTED)
  Begun begin(
      @RequestParam String fileName,
      HttpServletRequest request,
      @AuthenticationPrincipal SignedIn who)
      throws IOException {
    String name = Titles.clean(fileName);
    if (name.isEmpty()) {
      throw Refusal.bad("The file has no name.", "Send its name as fileName.");
    }
    return new Begun(intakes.begin(name, request.getInputStream(), who));
  }

  @GetMapping("/intakes/{id}")
  Intake intake(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    return db.selectFrom(INTAKE)
        .where(INTAKE.ID.eq(id))
        .and(INTAKE.PERSON_ID.eq(who.id()))
        .fetchOptional(
            r ->
                new Intake(
                    r.getId(),
                    r.getFileName(),
                    r.getState(),
                    r.getDone(),
                    r.getTotal(),
                    r.getWhat(),
                    r.getEditionId(),
                    r.getMasterId(),
                    r.getKnownAlready(),
                    r.getProblem(),
                    r.getPlace(),
                    r.getRemedy()))
        .orElseThrow(() -> Refusal.notFound("intake"));
  }

  @GetMapping
  List<Edition> list() {
    return editions(org.jooq.impl.DSL.noCondition());
  }

  @GetMapping("/editions/{id}")
  Edition edition(@PathVariable UUID id) {
    return editions(EDITION.ID.eq(id)).stream()
        .findFirst()
        .orElseThrow(() -> Refusal.notFound("edition"));
  }

  private List<Edition> editions(org.jooq.Condition which) {
    return db.select(EDITION.fields())
        .select(CARTRIDGE.TITLE, CARTRIDGE.PUBLISHER, CARTRIDGE.CONSENT_AT, PERSON.NAME)
        .select(CARTRIDGE.FRESH_EACH_TERM)
        .from(EDITION)
        .join(CARTRIDGE)
        .on(CARTRIDGE.ID.eq(EDITION.CARTRIDGE_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(EDITION.TAKEN_BY))
        .where(which)
        .orderBy(CARTRIDGE.TITLE, EDITION.NUMBER.desc())
        .fetch(this::edition);
  }

  private Edition edition(org.jooq.Record r) {
    ReadingReport report = json.readValue(r.get(EDITION.REPORT).data(), ReadingReport.class);
    return new Edition(
        r.get(EDITION.ID),
        r.get(EDITION.CARTRIDGE_ID),
        r.get(CARTRIDGE.TITLE),
        r.get(EDITION.NUMBER),
        r.get(EDITION.FILE_NAME),
        r.get(EDITION.SIZE),
        r.get(PERSON.NAME),
        r.get(EDITION.TAKEN_AT),
        report,
        r.get(CARTRIDGE.PUBLISHER),
        r.get(CARTRIDGE.CONSENT_AT),
        r.get(CARTRIDGE.FRESH_EACH_TERM),
        cartridges.ours(report.facts()).orElse(null));
  }

  /**
   * @param cartridge that the edition is one of; absent for a cartridge of its own
   */
  record Belongs(UUID cartridge) {}

  @PutMapping("/editions/{id}/cartridge")
  void assign(
      @PathVariable UUID id, @RequestBody Belongs to, @AuthenticationPrincipal SignedIn who) {
    cartridges.assign(id, Optional.ofNullable(to.cartridge()), who);
  }

  /** Says that it is taken anew each term, and never from a shell of the term before. */
  @PutMapping("/{cartridge}/fresh")
  void fresh(@PathVariable UUID cartridge, @AuthenticationPrincipal SignedIn who) {
    cartridges.fresh(cartridge, true, who);
  }

  @DeleteMapping("/{cartridge}/fresh")
  void notFresh(@PathVariable UUID cartridge, @AuthenticationPrincipal SignedIn who) {
    cartridges.fresh(cartridge, false, who);
  }

  /** Consents that the protected parts of a cartridge leave, or takes that back. */
  @PutMapping("/{cartridge}/consent")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void consent(@PathVariable UUID cartridge, @AuthenticationPrincipal SignedIn who) {
    cartridges.consent(cartridge, true, who);
  }

  @DeleteMapping("/{cartridge}/consent")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void withdraw(@PathVariable UUID cartridge, @AuthenticationPrincipal SignedIn who) {
    cartridges.consent(cartridge, false, who);
  }

  /**
   * A file of the package.
   *
   * @param address where it can be fetched
   */
  record PackageFile(
      @NotNull String path, long size, @NotNull String mediaType, @NotNull String address) {}

  /** Files of the package in the order of their paths, those after a path; 500 at the most. */
  @GetMapping("/editions/{id}/files")
  List<PackageFile> files(@PathVariable UUID id, @RequestParam(defaultValue = "") String after) {
    return db.select(PACKAGE_FILE.PATH, FILE.SHA256, FILE.SIZE, FILE.MEDIA_TYPE)
        .from(PACKAGE_FILE)
        .join(FILE)
        .on(FILE.SHA256.eq(PACKAGE_FILE.SHA256))
        .where(PACKAGE_FILE.TREE_ID.eq(tree(id)))
        .and(PACKAGE_FILE.PATH.gt(after))
        .orderBy(PACKAGE_FILE.PATH)
        .limit(500)
        .fetch(
            r ->
                new PackageFile(
                    r.get(PACKAGE_FILE.PATH),
                    r.get(FILE.SIZE),
                    r.get(FILE.MEDIA_TYPE),
                    FileApi.address(
                        Fingerprint.of(r.get(FILE.SHA256)).hex(), r.get(PACKAGE_FILE.PATH))));
  }

  @GetMapping("/editions/{id}/outline")
  List<ItemView.Node> outline(@PathVariable UUID id) {
    return ItemView.outline(trees.tree(tree(id)));
  }

  @GetMapping("/editions/{id}/items/{key}")
  ItemView item(@PathVariable UUID id, @PathVariable String key) {
    return previews.view(tree(id), key);
  }

  @GetMapping(path = "/editions/{id}/items/{key}/page", produces = MediaType.TEXT_HTML_VALUE)
  ResponseEntity<String> page(@PathVariable UUID id, @PathVariable String key) {
    return previews.page(tree(id), key);
  }

  private UUID tree(UUID edition) {
    return db.select(EDITION.TREE_ID)
        .from(EDITION)
        .where(EDITION.ID.eq(edition))
        .fetchOptional(EDITION.TREE_ID)
        .orElseThrow(() -> Refusal.notFound("edition"));
  }
}
