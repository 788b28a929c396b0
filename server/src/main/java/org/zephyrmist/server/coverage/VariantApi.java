package org.zephyrmist.server.coverage;

import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
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
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.ledger.Across;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.shell.Looks;
import org.zephyrmist.server.web.Refusal;

/** What sections made of what they were given, and what of it is accepted. */
@RestController
@RequestMapping(path = "/api/coverage/masters/{id}", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class VariantApi {
  private static final int MOST_ADDED = 500;
  private final DSLContext db;
  private final Reach reach;
  private final Variants variants;
  private final Across across;
  private final Events events;
  private final Looks looks;
  private final Standings standings;

  VariantApi(
      DSLContext db,
      Reach reach,
      Variants variants,
      Across across,
      Events events,
      Looks looks,
      Standings standings) {
    this.db = db;
    this.reach = reach;
    this.variants = variants;
    this.across = across;
    this.events = events;
    this.looks = looks;
    this.standings = standings;
  }

  /**
   * An item that sections changed.
   *
   * @param changed in how many sections each aspect was changed
   * @param gone sections that took it out
   */
  record DriftLine(
      @NotNull String key,
      @NotNull Kind kind,
      @NotNull String title,
      @NotNull Map<Aspect, Integer> changed,
      int sections,
      int gone) {}

  /** What sections of a term changed of a master since it was delivered; the most changed first. */
  @GetMapping("/drift")
  List<DriftLine> drift(
      @PathVariable UUID id, @RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    check(id, who);
    return across.drift(id, inTerm(term, who)).stream()
        .map(
            d ->
                new DriftLine(
                    d.key().value(), d.kind(), d.title(), d.changed(), d.sections(), d.gone()))
        .toList();
  }

  /**
   * What sections have that no master brought, as of their last reading.
   *
   * @param title as one of them calls it
   * @param sections that have it
   */
  record AddedLine(@NotNull Kind kind, @NotNull String title, @NotNull List<UUID> sections) {}

  /** What sections of a term that hold a master added by hand; what most have first. */
  @GetMapping("/added")
  List<AddedLine> added(
      @PathVariable UUID id, @RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    check(id, who);
    List<UUID> sections = standings.holding(id, inTerm(term, who));
    return looks.added(sections, MOST_ADDED).stream()
        .map(a -> new AddedLine(a.kind(), a.title(), a.sections()))
        .toList();
  }

  @GetMapping("/items/{key}")
  Variants.ItemVariants item(
      @PathVariable UUID id,
      @PathVariable String key,
      @RequestParam UUID term,
      @AuthenticationPrincipal SignedIn who) {
    return variants.of(term, id, key(key), who);
  }

  /**
   * @param aspects in which the sections' own is accepted; absent: in all
   */
  record Accept(
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections, Set<@NotNull Aspect> aspects) {}

  record Accepted(int sections) {}

  /** What these sections made of an item is theirs for good, and is asked about no more. */
  @PostMapping("/items/{key}/accept")
  @Transactional
  public Accepted accept(
      @PathVariable UUID id,
      @PathVariable String key,
      @Valid @RequestBody Accept a,
      @AuthenticationPrincipal SignedIn who) {
    check(id, who);
    List<UUID> reached =
        db.select(SECTION.ID)
            .from(SECTION)
            .where(SECTION.ID.in(a.sections()))
            .and(reach.sections(who))
            .fetch(SECTION.ID);
    if (reached.size() < a.sections().stream().distinct().count()) {
      throw Refusal.notFound("section");
    }
    Set<Aspect> aspects = a.aspects() == null ? EnumSet.allOf(Aspect.class) : a.aspects();
    int n = across.accept(id, key(key), reached, aspects, who.id());
    events.add(who.id(), "accepted what sections made of", key, n + " sections", "");
    return new Accepted(n);
  }

  private List<UUID> inTerm(UUID term, SignedIn who) {
    return db.select(SECTION.ID)
        .from(SECTION)
        .where(SECTION.TERM_ID.eq(term))
        .and(reach.sections(who))
        .fetch(SECTION.ID);
  }

  private static ItemKey key(String key) {
    return ItemKey.of(key).orElseThrow(() -> Refusal.notFound("item"));
  }

  private void check(UUID master, SignedIn who) {
    if (!db.fetchExists(MASTER, MASTER.ID.eq(master).and(reach.masters(who)))) {
      throw Refusal.notFound("master");
    }
  }
}
