package org.zephyrmist.server.section;

import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.edit.Given;
import org.zephyrmist.core.shell.OpenDays;
import org.zephyrmist.core.shell.SeenOn;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.shell.KeptReadings;
import org.zephyrmist.server.web.Refusal;

/** A section's shell as students see it on a day, from what was read last. */
@RestController
@RequestMapping(path = "/api/sections/{id}/seen", produces = MediaType.APPLICATION_JSON_VALUE)
class SeenApi {
  private final ReachedSections reached;
  private final KeptReadings readings;
  private final Ledger ledger;
  private final Bodies bodies;
  private final Previews previews;
  private final Clock clock;

  SeenApi(
      ReachedSections reached,
      KeptReadings readings,
      Ledger ledger,
      Bodies bodies,
      Previews previews,
      Clock clock) {
    this.reached = reached;
    this.readings = readings;
    this.ledger = ledger;
    this.bodies = bodies;
    this.previews = previews;
    this.clock = clock;
  }

  /**
   * A line of the outline.
   *
   * @param closed why it cannot be opened; empty if it can
   * @param due local date and time; absent: never
   * @param points that it is worth; absent: it is not graded
   */
  record SeenLine(
      @NotNull String item,
      @NotNull Kind kind,
      @NotNull String title,
      int depth,
      @NotNull List<String> closed,
      LocalDateTime due,
      String points) {}

  /** An entry of the menu, and the item that it leads to; absent if it leads elsewhere. */
  record SeenEntry(@NotNull String label, String item) {}

  /**
   * @param readAt as of when
   * @param closed why students cannot enter the shell at all; absent if they can, or nobody knows
   * @param front the item with which the shell opens; absent if it has none
   * @param hidden how many items they do not see
   */
  record SeenShell(
      @NotNull OffsetDateTime readAt,
      String closed,
      String front,
      @NotNull List<SeenEntry> menu,
      @NotNull List<SeenLine> lines,
      int hidden) {}

  /**
   * @param on the day; absent: today. At noon, so that what opens in the morning is open
   * @param diligent a student who has done all that anything waits for
   */
  @GetMapping
  SeenShell seen(
      @PathVariable UUID id,
      @RequestParam(required = false) LocalDate on,
      @RequestParam(defaultValue = "false") boolean diligent,
      @AuthenticationPrincipal SignedIn who) {
    KeptReadings.Kept kept = kept(id, who);
    LocalDateTime at =
        Optional.ofNullable(on).orElseGet(() -> LocalDate.now(clock)).atTime(LocalTime.NOON);
    Map<String, List<Given>> given = given(id);
    Map<Fingerprint, String> forms = forms(kept.items());
    Map<String, Timing> timings = new HashMap<>();
    List<SeenOn.Item> items =
        kept.items().stream()
            .map(
                h -> {
                  Timing t = AspectForms.timing(forms.get(h.aspects().get(Aspect.TIMING)));
                  Visibility v =
                      AspectForms.visibility(forms.get(h.aspects().get(Aspect.VISIBILITY)));
                  timings.put(h.id(), t);
                  return new SeenOn.Item(h, t, v, given.getOrDefault(h.id(), List.of()));
                })
            .toList();
    Map<String, Held> byId = new HashMap<>();
    kept.items().forEach(h -> byId.put(h.id(), h));
    List<SeenLine> lines =
        SeenOn.of(items, at, diligent).stream()
            .map(
                l ->
                    new SeenLine(
                        l.id(),
                        l.kind(),
                        l.title(),
                        l.depth(),
                        l.closed(),
                        timings.get(l.id()).due().orElse(null),
                        AspectForms.grading(
                                forms.get(byId.get(l.id()).aspects().get(Aspect.GRADING)))
                            .points()
                            .map(p -> p.toPlainString())
                            .orElse(null)))
            .toList();
    return new SeenShell(
        kept.readAt(),
        kept.open().flatMap(o -> closed(o, at.toLocalDate())).orElse(null),
        setup(kept.items(), forms, SetupSubject.FRONT_PAGE).map(Held::id).orElse(null),
        menu(kept.items(), forms, given),
        lines,
        kept.items().size() - lines.size());
  }

  private static Optional<String> closed(OpenDays o, LocalDate day) {
    if (o.on(day)) {
      return Optional.empty();
    }
    return o.opens()
        .filter(day::isBefore)
        .map(d -> "This shell opens on " + d + ".")
        .or(() -> o.closes().map(d -> "This shell was closed on " + d + "."));
  }

  private static Optional<Held> setup(
      List<Held> items, Map<Fingerprint, String> forms, SetupSubject what) {
    return items.stream()
        .filter(h -> h.kind() == Kind.SETUP)
        .filter(h -> wording(h, forms).subject().equals(Optional.of(what)))
        .findFirst();
  }

  private static Wording wording(Held h, Map<Fingerprint, String> forms) {
    return AspectForms.wording(forms.get(h.aspects().get(Aspect.WORDING)));
  }

  private static List<SeenEntry> menu(
      List<Held> items, Map<Fingerprint, String> forms, Map<String, List<Given>> given) {
    Map<String, String> byKey = new HashMap<>();
    given.forEach((id, all) -> all.forEach(g -> byKey.putIfAbsent(g.key().value(), id)));
    return setup(items, forms, SetupSubject.MENU)
        .map(
            m ->
                wording(m, forms).entries().stream()
                    .map(
                        e ->
                            new SeenEntry(
                                e.label(),
                                org.zephyrmist.core.content.References.asItem(e.value())
                                    .map(r -> byKey.get(r.key().value()))
                                    .orElse(null)))
                    .toList())
        .orElse(List.of());
  }

  /** The text of an item, made safe, as a page of its own. */
  @GetMapping(path = "/{item}", produces = MediaType.TEXT_HTML_VALUE)
  ResponseEntity<String> page(
      @PathVariable UUID id, @PathVariable String item, @AuthenticationPrincipal SignedIn who) {
    Held h =
        kept(id, who).items().stream()
            .filter(x -> x.id().equals(item))
            .findFirst()
            .orElseThrow(() -> Refusal.notFound("item"));
    Fingerprint f = h.aspects().get(Aspect.WORDING);
    Wording w = AspectForms.wording(bodies.get(List.of(f)).get(f));
    return previews.page(h.title(), w.html());
  }

  private KeptReadings.Kept kept(UUID id, SignedIn who) {
    reached.check(id, who);
    return readings
        .of(id)
        .orElseThrow(
            () ->
                Refusal.bad(
                    "The shell of this section was never read.", "Have it read, then look again."));
  }

  private Map<String, List<Given>> given(UUID section) {
    Map<String, List<Given>> all = new HashMap<>();
    ledger
        .holdings(section)
        .forEach(
            h ->
                all.computeIfAbsent(h.platformItem(), k -> new java.util.ArrayList<>())
                    .add(new Given(h.master().toString(), h.base().key())));
    return all;
  }

  private Map<Fingerprint, String> forms(List<Held> items) {
    Set<Fingerprint> all = new HashSet<>();
    for (Held h : items) {
      all.add(h.aspects().get(Aspect.TIMING));
      all.add(h.aspects().get(Aspect.VISIBILITY));
      all.add(h.aspects().get(Aspect.GRADING));
      if (h.kind() == Kind.SETUP) {
        all.add(h.aspects().get(Aspect.WORDING));
      }
    }
    return bodies.get(all);
  }
}
