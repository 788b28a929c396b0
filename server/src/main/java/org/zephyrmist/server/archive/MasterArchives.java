package org.zephyrmist.server.archive;

import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.WholeSource;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.master.Consents;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Masters with all their versions, to and from archives. */
@Component
class MasterArchives {
  private final DSLContext db;
  private final Reach reach;
  private final Masters masters;
  private final Trees trees;
  private final Consents consents;
  private final Clock clock;

  MasterArchives(
      DSLContext db, Reach reach, Masters masters, Trees trees, Consents consents, Clock clock) {
    this.reach = reach;
    this.db = db;
    this.masters = masters;
    this.trees = trees;
    this.consents = consents;
    this.clock = clock;
  }

  /** Everything of a master; refused where something protected may not leave. */
  WholeSource of(MasterRecord m) {
    List<UUID> all = new ArrayList<>(List.of(m.getDraftTreeId()));
    masters.versions(m.getId()).forEach(v -> all.add(v.getTreeId()));
    consents.check(all);
    List<WholeSource.State> states = new ArrayList<>();
    db.select(VERSION.fields())
        .select(PERSON.NAME)
        .from(VERSION)
        .join(PERSON)
        .on(PERSON.ID.eq(VERSION.FROZEN_BY))
        .where(VERSION.MASTER_ID.eq(m.getId()))
        .orderBy(VERSION.NUMBER)
        .forEach(
            r ->
                states.add(
                    new WholeSource.State(
                        r.get(VERSION.NUMBER),
                        r.get(VERSION.NOTE),
                        r.get(PERSON.NAME),
                        r.get(VERSION.FROZEN_AT).withOffsetSameInstant(ZoneOffset.UTC),
                        Archives.entries(trees, r.get(VERSION.TREE_ID)))));
    states.add(
        new WholeSource.State(
            0, "", "", OffsetDateTime.now(clock), Archives.entries(trees, m.getDraftTreeId())));
    return new WholeSource(
        m.getId().toString(), m.getCode(), m.getTitle(), Optional.empty(), states);
  }

  /**
   * Keeps a master of its own, which is expected nowhere yet.
   *
   * @param code that it is to have; empty: the archive's, with a number if that is taken
   * @param program whose it is; none: the only one of who takes it in, or the whole college
   */
  UUID take(
      WholeSource source, String code, Optional<UUID> program, Received received, SignedIn who) {
    Received.Kept draft = received.kept().get(0);
    if (draft == null) {
      throw Refusal.bad(
          "source.json: The archive holds no draft.", "Make the archive again where it came from.");
    }
    String name = code.isBlank() ? masters.unused(source.code().strip()) : code;
    if (source.title().isBlank()) {
      throw Refusal.bad("The master has no title.", "Make the archive again where it came from.");
    }
    UUID master =
        masters.takeIn(name, source.title(), reach.bound(program, who), draft.tree(), who);
    received.kept().values().stream()
        .filter(k -> k.state().number() > 0)
        .forEach(k -> version(master, k.state(), k.tree(), who));
    return master;
  }

  private void version(UUID master, WholeSource.State s, UUID tree, SignedIn who) {
    db.insertInto(VERSION)
        .set(VERSION.ID, UUID.randomUUID())
        .set(VERSION.MASTER_ID, master)
        .set(VERSION.NUMBER, s.number())
        .set(VERSION.TREE_ID, tree)
        .set(VERSION.NOTE, s.note().isBlank() ? "Version " + s.number() : s.note())
        .set(VERSION.ITEMS, s.items().size())
        .set(VERSION.FROZEN_BY, who.id())
        .set(VERSION.FROZEN_AT, s.at())
        .execute();
  }
}
