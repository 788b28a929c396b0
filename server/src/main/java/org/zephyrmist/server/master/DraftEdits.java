package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.DRAFT_EDIT;
import static org.zephyrmist.server.db.Tables.DRAFT_STEP;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.TREE;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.server.db.tables.records.DraftStepRecord;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/**
 * Steps by which a draft changes: each with its items as they were before and after, so that it can
 * be undone and done again. One after the other, whoever takes them.
 */
@Component
public class DraftEdits {
  /** The items of a tree with these keys, as JSON by key. */
  private static final String ROWS =
      "select coalesce(jsonb_object_agg(item_key, to_jsonb(t) - 'tree_id'), '{}'::jsonb) from"
          + " tree_item t where tree_id = ? and item_key = any(?)";

  private final DSLContext db;
  private final Clock clock;

  DraftEdits(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** Waits until nobody else changes the draft, until the end of the running transaction. */
  public void begin(MasterRecord master) {
    db.selectOne().from(MASTER).where(MASTER.ID.eq(master.getId())).forUpdate().fetch();
  }

  /**
   * Takes a step, in the running transaction and after {@link #begin}.
   *
   * @param keys of all items that it changes, adds or takes out
   * @param what was done, for people
   */
  public void step(
      MasterRecord master, Collection<ItemKey> keys, String what, SignedIn who, Runnable change) {
    UUID tree = master.getDraftTreeId();
    String[] all = keys.stream().map(ItemKey::value).distinct().toArray(String[]::new);
    JSONB before = rows(tree, all);
    change.run();
    JSONB after = rows(tree, all);
    long revision = revision(master);
    db.query(
            "insert into draft_step (master_id, revision, person_id, at, what, rows) select ?, ?,"
                + " ?, ?::timestamptz, ?, coalesce(jsonb_object_agg(k, jsonb_build_object('before', ?::jsonb ->"
                + " k, 'after', ?::jsonb -> k)), '{}'::jsonb) from unnest(?::text[]) k",
            master.getId(),
            revision,
            who.id(),
            OffsetDateTime.now(clock),
            what,
            before,
            after,
            all)
        .execute();
    touched(master, all, revision, who);
    sayAnew(tree);
  }

  /** What it says is looked at again, so that it is found. */
  private void sayAnew(UUID tree) {
    db.update(TREE).set(TREE.WORDS_KNOWN, false).where(TREE.ID.eq(tree)).execute();
  }

  private JSONB rows(UUID tree, String[] keys) {
    return db.fetchSingle(ROWS, tree, keys).into(JSONB.class);
  }

  private long revision(MasterRecord master) {
    return db.update(MASTER)
        .set(MASTER.DRAFT_REVISION, MASTER.DRAFT_REVISION.plus(1))
        .where(MASTER.ID.eq(master.getId()))
        .returningResult(MASTER.DRAFT_REVISION)
        .fetchSingle()
        .value1();
  }

  /** Who changed an item last. */
  private void touched(MasterRecord master, String[] keys, long revision, SignedIn who) {
    db.query(
            "insert into draft_edit (master_id, item_key, revision, person_id, at) select ?, k, ?,"
                + " ?, ?::timestamptz from unnest(?::text[]) k on conflict (master_id, item_key) do update set"
                + " revision = excluded.revision, person_id = excluded.person_id, at = excluded.at",
            master.getId(),
            revision,
            who.id(),
            OffsetDateTime.now(clock),
            keys)
        .execute();
  }

  /** Takes a person's last step back; what it was. */
  @Transactional
  public String undo(MasterRecord master, SignedIn who) {
    begin(master);
    DraftStepRecord step =
        db.selectFrom(DRAFT_STEP)
            .where(DRAFT_STEP.MASTER_ID.eq(master.getId()))
            .and(DRAFT_STEP.PERSON_ID.eq(who.id()))
            .and(DRAFT_STEP.UNDONE.isFalse())
            .orderBy(DRAFT_STEP.ID.desc())
            .limit(1)
            .fetchOptional()
            .orElseThrow(
                () -> Refusal.bad("You have changed nothing here.", "There is nothing to undo."));
    turn(master, step, "after", "before", who);
    step.setUndone(true);
    step.update();
    return step.getWhat();
  }

  /** Does again what a person took back last, if they have done nothing else since. */
  @Transactional
  public String redo(MasterRecord master, SignedIn who) {
    begin(master);
    DraftStepRecord step =
        redoable(master, who)
            .orElseThrow(
                () -> Refusal.bad("There is nothing to do again.", "Undo something first."));
    turn(master, step, "before", "after", who);
    step.setUndone(false);
    step.update();
    return step.getWhat();
  }

  private Optional<DraftStepRecord> redoable(MasterRecord master, SignedIn who) {
    return db.selectFrom(DRAFT_STEP)
        .where(DRAFT_STEP.MASTER_ID.eq(master.getId()))
        .and(DRAFT_STEP.PERSON_ID.eq(who.id()))
        .and(DRAFT_STEP.UNDONE.isTrue())
        .and(
            "not exists (select 1 from draft_step later where later.master_id = ? and"
                + " later.person_id = ? and not later.undone and later.id > draft_step.id)",
            master.getId(),
            who.id())
        .orderBy(DRAFT_STEP.ID)
        .limit(1)
        .fetchOptional();
  }

  /** Writes one side of a step over the other; refused if somebody changed these items since. */
  private void turn(
      MasterRecord master, DraftStepRecord step, String from, String to, SignedIn who) {
    UUID tree = master.getDraftTreeId();
    Optional<String> changed =
        db.fetchOptional(
                "select coalesce(t.title, e.value -> ? ->> 'title', e.key) from"
                    + " jsonb_each(?::jsonb) e left join tree_item t on t.tree_id = ? and"
                    + " t.item_key = e.key where (to_jsonb(t) - 'tree_id') is distinct from"
                    + " nullif(e.value -> ?, 'null'::jsonb) limit 1",
                from,
                step.getRows(),
                tree,
                from)
            .map(r -> r.get(0, String.class));
    if (changed.isPresent()) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "“" + changed.get() + "” was changed by somebody else since then.",
          "Change it by hand; undoing would lose what they did.");
    }
    db.query(
            "delete from tree_item where tree_id = ? and item_key in (select key from"
                + " jsonb_object_keys(?::jsonb) key)",
            tree,
            step.getRows())
        .execute();
    db.query(
            "insert into tree_item select (jsonb_populate_record(null::tree_item, (e.value -> ?) ||"
                + " jsonb_build_object('tree_id', ?::uuid))).* from jsonb_each(?::jsonb) e where"
                + " jsonb_typeof(e.value -> ?) = 'object'",
            to,
            tree,
            step.getRows(),
            to)
        .execute();
    whole(tree);
    String[] keys =
        db.fetch("select jsonb_object_keys(?::jsonb)", step.getRows())
            .map(r -> r.get(0, String.class))
            .toArray(new String[0]);
    touched(master, keys, revision(master), who);
    sayAnew(tree);
  }

  /** Refuses what would leave an item in a module that is not there. */
  private void whole(UUID tree) {
    boolean torn =
        !db.fetch(
                "select 1 from tree_item c where c.tree_id = ? and c.parent_key is not null and not"
                    + " exists (select 1 from tree_item p where p.tree_id = ? and p.item_key ="
                    + " c.parent_key) limit 1",
                tree,
                tree)
            .isEmpty();
    if (torn) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "The module that it stood in, or that others stand in now, is gone or in use.",
          "Undo later steps first, or move what stands there.");
    }
  }

  /** What somebody else did to the item meanwhile. */
  Refusal conflict(MasterRecord master, Item item, String did) {
    String who =
        db.select(PERSON.NAME)
            .from(DRAFT_EDIT)
            .join(PERSON)
            .on(PERSON.ID.eq(DRAFT_EDIT.PERSON_ID))
            .where(DRAFT_EDIT.MASTER_ID.eq(master.getId()))
            .and(DRAFT_EDIT.ITEM_KEY.eq(item.key().value()))
            .fetchOptional(PERSON.NAME)
            .orElse("Somebody");
    return new Refusal(
        HttpStatus.CONFLICT,
        who + " " + did + " “" + item.title() + "” while you were at it; yours was not kept.",
        "Open the item anew beside this, bring over what is yours, and save it again.");
  }
}
