package org.zephyrmist.server.edition;

import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.TREE;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.edition.EditionMerge;
import org.zephyrmist.core.edition.Lineage;
import org.zephyrmist.core.edition.Taking;
import org.zephyrmist.core.merge.TextMerge;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.master.DraftEdits;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;

/** Takes changes of a newer edition into a draft, as one step that can be undone. */
@Component
class TakeEdition {
  private final DSLContext db;
  private final Trees trees;
  private final Merging merging;
  private final DraftEdits edits;
  private final Events events;
  private final Lineages lineages;
  private final SettledClashes settled;

  TakeEdition(
      DSLContext db,
      Trees trees,
      Merging merging,
      DraftEdits edits,
      Events events,
      Lineages lineages,
      SettledClashes settled) {
    this.settled = settled;
    this.lineages = lineages;
    this.db = db;
    this.trees = trees;
    this.merging = merging;
    this.edits = edits;
    this.events = events;
  }

  /**
   * @param keys of the changes to take; none: all that are open
   * @param sides of clashes
   * @param texts merged by hand, by key
   */
  record Wanted(
      Optional<Set<ItemKey>> keys, Map<ItemKey, Taking.Side> sides, Map<ItemKey, String> texts) {}

  /**
   * @param taken how many changes
   * @param left how many are still to be decided or taken
   */
  record Done(int taken, int left) {}

  @Transactional
  public Done take(MasterRecord of, UUID newer, Wanted wanted, SignedIn who) {
    MasterRecord master = begun(of);
    Optional<UUID> other = merging.takenFrom(master, newer);
    if (other.isPresent()) {
      finish(master, other.get(), who);
      master = begun(of);
    }
    Merging.State s = merging.of(master, newer);
    Set<ItemKey> chosen = chosen(s.merge(), wanted);
    Taking taking = Taking.of(s.merge(), s.newer(), s.master(), s.keys(), chosen, wanted.sides());
    List<Item> puts = puts(s, taking, wanted.texts());
    Set<ItemKey> touched = new LinkedHashSet<>(taking.gone());
    List<ItemKey> added = new ArrayList<>();
    taking.puts().forEach(p -> touched.add(p.key()));
    taking.puts().stream().filter(Taking.Put::added).forEach(p -> added.add(p.key()));
    UUID tree = master.getDraftTreeId();
    String edition = edition(newer);
    if (!touched.isEmpty()) {
      taking(master, newer);
      edits.step(
          master,
          touched,
          "took " + touched.size() + " changes of " + edition,
          who,
          () -> {
            trees.remove(tree, taking.gone());
            trees.put(tree, puts);
            trees.origin(tree, added, newer);
          });
      events.add(
          who.id(),
          "took over",
          edition,
          touched.size() + " changes into " + master.getCode(),
          "/sources/masters/" + master.getId());
    }
    List<EditionMerge.Change> decided =
        s.merge().changes().stream()
            .filter(c -> c.what() == EditionMerge.What.CLASH && chosen.contains(c.key()))
            .filter(c -> wanted.sides().containsKey(c.key()))
            .toList();
    settled.keep(master.getId(), newer, decided, s.newer(), trees.tree(tree));
    return new Done(touched.size(), left(master, newer));
  }

  /** As it is now that nobody else writes in it: a colleague may have just finished. */
  private MasterRecord begun(MasterRecord master) {
    edits.begin(master);
    return db.fetchSingle(MASTER, MASTER.ID.eq(master.getId()));
  }

  private void taking(MasterRecord master, UUID edition) {
    db.update(MASTER)
        .set(MASTER.TAKING_EDITION_ID, edition)
        .where(MASTER.ID.eq(master.getId()))
        .execute();
  }

  /** From now on the master is built on the newer edition; what was not taken stays open. */
  @Transactional
  public void finish(MasterRecord of, UUID newer, SignedIn who) {
    MasterRecord master = begun(of);
    Merging.State s = merging.of(master, newer);
    Optional<UUID> before = Optional.ofNullable(master.getBroughtTreeId());
    UUID brought = trees.create();
    trees.put(brought, merging.brought(s));
    lineages.put(master.getId(), Lineage.after(s.raw(), s.keys()));
    db.update(MASTER)
        .set(MASTER.EDITION_ID, newer)
        .set(MASTER.BROUGHT_TREE_ID, brought)
        .setNull(MASTER.TAKING_EDITION_ID)
        .where(MASTER.ID.eq(master.getId()))
        .execute();
    before.ifPresent(b -> db.deleteFrom(TREE).where(TREE.ID.eq(b)).execute());
    events.add(
        who.id(),
        "built on",
        master.getCode(),
        edition(newer),
        "/sources/masters/" + master.getId());
  }

  private int left(MasterRecord master, UUID newer) {
    return (int)
        merging.of(master, newer).merge().changes().stream()
            .filter(c -> c.open() || c.what() == EditionMerge.What.DOUBT)
            .count();
  }

  /** All that is open; of a clash that nobody decided, nothing of the clash is taken. */
  private static Set<ItemKey> chosen(EditionMerge merge, Wanted wanted) {
    Set<ItemKey> chosen = new LinkedHashSet<>();
    for (EditionMerge.Change c : merge.changes()) {
      boolean meant = wanted.keys().map(k -> k.contains(c.key())).orElse(true);
      if (meant && c.open()) {
        chosen.add(c.key());
      }
    }
    return chosen;
  }

  private String edition(UUID id) {
    return db.select(EDITION.cartridge().TITLE, EDITION.NUMBER)
        .from(EDITION)
        .where(EDITION.ID.eq(id))
        .fetchSingle(r -> r.value1() + ", edition " + r.value2());
  }

  private List<Item> puts(Merging.State s, Taking taking, Map<ItemKey, String> texts) {
    Map<ItemKey, Item> newer =
        merging.items(s.raw(), taking.puts().stream().map(Taking.Put::newer));
    Map<ItemKey, Item> ours =
        merging.items(s.master(), taking.puts().stream().map(Taking.Put::key));
    Map<ItemKey, Item> older =
        merging.older(s, taking.puts().stream().map(Taking.Put::key).toList());
    List<Item> all = new ArrayList<>();
    for (Taking.Put p : taking.puts()) {
      Item theirs = Merging.renamed(newer.get(p.newer()), s.keys()::of);
      Item mine = ours.get(p.key());
      Item put = put(p, theirs, Optional.ofNullable(mine));
      if (p.together()) {
        String html =
            texts.getOrDefault(
                p.key(),
                TextMerge.of(
                        older.get(p.key()).content().html(),
                        mine.content().html(),
                        theirs.content().html())
                    .together());
        Aspects a = Aspects.of(put);
        boolean retitled = !mine.title().equals(older.get(p.key()).title());
        String title = retitled ? mine.title() : theirs.title();
        put =
            a.with(a.wording().withHtml(html).withTitle(title))
                .item(put.key(), put.kind(), put.rule());
      }
      all.add(p.place().map(put::withPlace).orElse(put));
    }
    return all;
  }

  /** Ours with their aspects; a new one as it is. */
  private static Item put(Taking.Put p, Item theirs, Optional<Item> mine) {
    Map<Aspect, String> forms = new HashMap<>(AspectForms.of(mine.orElse(theirs)));
    Map<Aspect, String> others = AspectForms.of(theirs);
    for (Aspect a : p.theirs()) {
      if (a != Aspect.PLACE) {
        forms.put(a, others.get(a));
      }
    }
    return AspectForms.item(
        p.key(), theirs.kind(), mine.map(Item::rule).orElse(theirs.rule()), forms);
  }
}
