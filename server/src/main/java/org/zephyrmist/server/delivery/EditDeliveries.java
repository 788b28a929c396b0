package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.core.edit.Subject;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/**
 * Deliveries that make one change in every section instead of bringing a version. They are entered
 * under the newest version of the master whose items they are about, or of the one that most of the
 * sections hold: whoever may see that may see them.
 */
@Component
public class EditDeliveries {
  private final DSLContext db;
  private final Deliveries deliveries;
  private final Reach reach;
  private final Standings standings;

  EditDeliveries(DSLContext db, Deliveries deliveries, Reach reach, Standings standings) {
    this.standings = standings;
    this.db = db;
    this.deliveries = deliveries;
    this.reach = reach;
  }

  @Transactional
  public UUID make(Edit edit, List<UUID> sections, SignedIn who) {
    List<String> shells =
        db.select(SECTION.SHELL)
            .from(SECTION)
            .where(SECTION.ID.eq(DSL.any(sections.toArray(UUID[]::new))))
            .and(reach.sections(who))
            .fetch(SECTION.SHELL);
    if (shells.size() < sections.stream().distinct().count()) {
      throw Refusal.notFound("section");
    }
    if (shells.contains(null)) {
      throw Refusal.bad(
          "Some of these sections have no shell, so there is nothing to change there.",
          "Leave them out.");
    }
    return deliveries.make(version(edit, sections, who), sections, Deliveries.Order.of(edit), who);
  }

  private UUID version(Edit edit, List<UUID> sections, SignedIn who) {
    List<UUID> masters =
        edit.about().stream()
            .map(EditDeliveries::master)
            .filter(Objects::nonNull)
            .distinct()
            .toList();
    return masters.stream()
        .findFirst()
        .or(() -> mostHeld(sections, who))
        .flatMap(
            m ->
                db.select(VERSION.ID)
                    .from(VERSION)
                    .join(MASTER)
                    .on(MASTER.ID.eq(VERSION.MASTER_ID))
                    .where(VERSION.MASTER_ID.eq(m))
                    .and(reach.masters(who))
                    .orderBy(VERSION.NUMBER.desc())
                    .limit(1)
                    .fetchOptional(VERSION.ID))
        .orElseThrow(
            () ->
                Refusal.bad(
                    "None of these sections holds a master of yours.",
                    "Deliver to them first, or leave them out."));
  }

  private static UUID master(Subject s) {
    try {
      return s.given().map(g -> UUID.fromString(g.master())).orElse(null);
    } catch (IllegalArgumentException e) {
      throw Refusal.notFound("master");
    }
  }

  private Optional<UUID> mostHeld(List<UUID> sections, SignedIn who) {
    Map<UUID, Integer> count = new TreeMap<>();
    standings
        .versions(sections)
        .values()
        .forEach(held -> held.keySet().forEach(m -> count.merge(m, 1, Integer::sum)));
    return db
        .select(MASTER.ID)
        .from(MASTER)
        .where(MASTER.ID.in(count.keySet()))
        .and(reach.masters(who))
        .fetch(MASTER.ID)
        .stream()
        .max(Comparator.comparing((UUID m) -> count.get(m)).thenComparing(m -> m));
  }
}
