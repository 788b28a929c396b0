package org.zephyrmist.server.edition;

import static org.zephyrmist.server.db.Tables.EDITION_SETTLED;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.Query;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.edition.EditionMerge.Change;
import org.zephyrmist.core.edition.Settled;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/** Clashes of masters with editions that people have decided, as they are kept. */
@Component
class SettledClashes {
  private final DSLContext db;

  SettledClashes(DSLContext db) {
    this.db = db;
  }

  Settled of(UUID master, UUID edition) {
    Map<ItemKey, Map<Aspect, Settled.Sides>> all = new HashMap<>();
    db.selectFrom(EDITION_SETTLED)
        .where(EDITION_SETTLED.MASTER_ID.eq(master))
        .and(EDITION_SETTLED.EDITION_ID.eq(edition))
        .forEach(
            r ->
                all.computeIfAbsent(new ItemKey(r.getItemKey()), k -> new EnumMap<>(Aspect.class))
                    .put(
                        Aspect.valueOf(r.getAspect()),
                        new Settled.Sides(
                            Fingerprint.of(r.getOurs()), Fingerprint.of(r.getTheirs()))));
    return new Settled(all);
  }

  /**
   * @param decided clashes of the edition
   * @param now the master after the decisions
   */
  void keep(UUID master, UUID edition, List<Change> decided, Tree newer, Tree now) {
    List<Query> all = new ArrayList<>();
    for (Change c : decided) {
      Node ours = now.get(c.key()).orElseThrow();
      Node theirs = c.newer().flatMap(newer::get).orElseThrow();
      for (Aspect a : c.clash()) {
        all.add(
            db.insertInto(EDITION_SETTLED)
                .values(
                    master,
                    edition,
                    c.key().value(),
                    a.name(),
                    ours.aspects().get(a).bytes(),
                    theirs.aspects().get(a).bytes())
                .onDuplicateKeyUpdate()
                .setAllToExcluded());
      }
    }
    db.batch(all).execute();
  }
}
