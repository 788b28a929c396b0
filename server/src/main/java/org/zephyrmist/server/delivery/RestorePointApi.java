package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Differences;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.server.ledger.RestorePoints;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.section.ReachedSections;
import org.zephyrmist.server.shell.Shell;
import org.zephyrmist.server.shell.ShellReader;
import org.zephyrmist.server.shell.Shells;
import org.zephyrmist.server.web.Refusal;

/** What sections held before deliveries changed them. */
@RestController
@RequestMapping(
    path = "/api/sections/{id}/restore-points",
    produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class RestorePointApi {
  private final DSLContext db;
  private final ReachedSections reached;
  private final RestorePoints points;
  private final Shells shells;
  private final ShellReader reader;

  RestorePointApi(
      DSLContext db,
      ReachedSections reached,
      RestorePoints points,
      Shells shells,
      ShellReader reader) {
    this.db = db;
    this.reached = reached;
    this.points = points;
    this.shells = shells;
    this.reader = reader;
  }

  /**
   * What a section held before a delivery changed anything there.
   *
   * @param items how many it held
   * @param takesBack whether that delivery took another back
   */
  record RestorePoint(
      @NotNull UUID delivery,
      @NotNull String masterCode,
      int number,
      @NotNull String by,
      @NotNull OffsetDateTime takenAt,
      @NotNull OffsetDateTime keepUntil,
      int items,
      boolean takesBack) {}

  /** An item that differs now, in which aspects. */
  record Differing(@NotNull Kind kind, @NotNull String title, @NotNull Set<Aspect> aspects) {}

  /**
   * @param missing held then and not there now
   * @param surplus there now and not held then
   */
  record SinceThen(
      @NotNull List<Differing> missing,
      @NotNull List<Differing> different,
      @NotNull List<Differing> surplus) {}

  @GetMapping
  List<RestorePoint> list(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    reached.check(id, who);
    Map<UUID, RestorePoints.Kept> kept = new LinkedHashMap<>();
    points.of(id).forEach(k -> kept.put(k.line(), k));
    Map<UUID, RestorePoint> byLine = new HashMap<>();
    db.select(DELIVERY_LINE.ID, DELIVERY.ID, DELIVERY.TAKES_BACK)
        .select(MASTER.CODE, VERSION.NUMBER, PERSON.NAME)
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
        .join(MASTER)
        .on(MASTER.ID.eq(VERSION.MASTER_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(DELIVERY.CONFIRMED_BY))
        .where(DELIVERY_LINE.ID.in(kept.keySet()))
        .forEach(
            r -> {
              RestorePoints.Kept k = kept.get(r.get(DELIVERY_LINE.ID));
              byLine.put(
                  k.line(),
                  new RestorePoint(
                      r.get(DELIVERY.ID),
                      r.get(MASTER.CODE),
                      r.get(VERSION.NUMBER),
                      r.get(PERSON.NAME),
                      k.takenAt(),
                      k.keepUntil(),
                      k.items(),
                      r.get(DELIVERY.TAKES_BACK) != null));
            });
    return kept.keySet().stream().map(byLine::get).toList();
  }

  /** What is otherwise in the shell now; it is read for this. */
  @GetMapping("/{delivery}")
  SinceThen since(
      @PathVariable UUID id, @PathVariable UUID delivery, @AuthenticationPrincipal SignedIn who) {
    reached.check(id, who);
    List<Held> then =
        db.select(DELIVERY_LINE.ID)
            .from(DELIVERY_LINE)
            .where(DELIVERY_LINE.SECTION_ID.eq(id))
            .and(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
            .fetchOptional(DELIVERY_LINE.ID)
            .flatMap(points::shell)
            .orElseThrow(() -> Refusal.notFound("restore point"));
    Differences d = Differences.between(then, now(id));
    return new SinceThen(
        d.missing().stream().map(h -> differing(h, Set.of())).toList(),
        d.different().stream().map(x -> differing(x.item(), x.aspects())).toList(),
        d.surplus().stream().map(h -> differing(h, Set.of())).toList());
  }

  private List<Held> now(UUID section) {
    Shell shell = shells.of(section);
    try {
      return reader.read(shells.gateway(shell), shell).items();
    } catch (PlatformException e) {
      throw Refusal.bad(e.getMessage(), e.remedy());
    }
  }

  private static Differing differing(Held h, Set<Aspect> aspects) {
    return new Differing(h.kind(), h.title(), aspects);
  }
}
