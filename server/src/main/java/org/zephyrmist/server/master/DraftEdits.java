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
  private final DraftTurns turns;

  DraftEdits(DSLContext db, Clock clock, DraftTurns turns) {
    this.turns = turns;
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
    forgetUndone(master, who);
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

  /** A new step ends what could be done again, also in the draft that a step reaches into. */
  private void forgetUndone(MasterRecord master, SignedIn who) {
    db.query(
            "delete from draft_step s using draft_step u where u.master_id = ? and u.person_id = ?"
                + " and u.undone and s.undone and (s.id = u.id or s.id = u.with_step)",
            master.getId(),
            who.id())
        .execute();
  }

  /** The last steps of a person in two drafts are one: what was put in here was taken out there. */
  void together(MasterRecord put, MasterRecord out, SignedIn who) {
    db.query(
            "with two as (select (select max(id) from draft_step where master_id = ? and person_id = ?) as a,"
                + " (select max(id) from draft_step where master_id = ? and person_id = ?) as b)"
                + " update draft_step s set with_step = case when s.id = two.a then two.b else two.a end"
                + " from two where s.id in (two.a, two.b)",
            put.getId(),
            who.id(),
            out.getId(),
            who.id())
        .execute();
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

  /**
   * Takes a person's last step back; what it was. A step from which somebody else went on stays,
   * and bars none before it: the next call takes the one before. A refusal has written nothing
   * else.
   */
  @Transactional(noRollbackFor = Refusal.class)
  public String undo(MasterRecord master, SignedIn who) {
    begin(master);
    DraftStepRecord step =
        db.selectFrom(DRAFT_STEP)
            .where(DRAFT_STEP.MASTER_ID.eq(master.getId()))
            .and(DRAFT_STEP.PERSON_ID.eq(who.id()))
            .and(DRAFT_STEP.UNDONE.isFalse())
            .and(DRAFT_STEP.STAYS.isFalse())
            .orderBy(DRAFT_STEP.ID.desc())
            .limit(1)
            .fetchOptional()
            .orElseThrow(
                () -> Refusal.bad("You have changed nothing here.", "There is nothing to undo."));
    return turned(master, step, true, who);
  }

  /** Does again what a person took back last, if they have done nothing else since. */
  @Transactional(noRollbackFor = Refusal.class)
  public String redo(MasterRecord master, SignedIn who) {
    begin(master);
    DraftStepRecord step =
        redoable(master, who)
            .orElseThrow(
                () -> Refusal.bad("There is nothing to do again.", "Undo something first."));
    return turned(master, step, false, who);
  }

  /**
   * Turns a step and the one that goes with it in another draft. Whatever stays of the two, the
   * items are in one of the drafts: they come back where they were cut before they go where they
   * were put, and are put again before they are cut again.
   */
  private String turned(MasterRecord master, DraftStepRecord step, boolean undo, SignedIn who) {
    Optional<DraftStepRecord> other = with(step, undo);
    Optional<MasterRecord> there =
        other.map(o -> db.selectFrom(MASTER).where(MASTER.ID.eq(o.getMasterId())).fetchSingle());
    there.ifPresent(this::begin);
    boolean otherFirst = other.filter(o -> (o.getId() > step.getId()) == undo).isPresent();
    if (otherFirst) {
      turn(there.orElseThrow(), other.orElseThrow(), undo, who).ifPresent(r -> stays(step, r));
    }
    turn(master, step, undo, who).ifPresent(r -> stays(step, r));
    if (!otherFirst) {
      other.ifPresent(o -> turn(there.orElseThrow(), o, undo, who));
    }
    return step.getWhat();
  }

  private Optional<DraftStepRecord> with(DraftStepRecord step, boolean undo) {
    return db.selectFrom(DRAFT_STEP)
        .where(DRAFT_STEP.ID.eq(step.getWithStep()))
        .and(DRAFT_STEP.UNDONE.eq(!undo))
        .fetchOptional();
  }

  private static void stays(DraftStepRecord step, Refusal why) {
    step.setStays(true);
    step.update();
    throw why;
  }

  /** Why the step stays as it is, if it does; then nothing of it was written. */
  private Optional<Refusal> turn(
      MasterRecord master, DraftStepRecord step, boolean undo, SignedIn who) {
    Optional<Refusal> stays =
        undo
            ? turns.turn(master, step, "after", "before")
            : turns.turn(master, step, "before", "after");
    if (stays.isPresent()) {
      return stays;
    }
    step.setUndone(undo);
    step.update();
    String[] keys =
        db.fetch("select jsonb_object_keys(?::jsonb)", step.getRows())
            .map(r -> r.get(0, String.class))
            .toArray(new String[0]);
    touched(master, keys, revision(master), who);
    sayAnew(master.getDraftTreeId());
    return Optional.empty();
  }

  private Optional<DraftStepRecord> redoable(MasterRecord master, SignedIn who) {
    return db.selectFrom(DRAFT_STEP)
        .where(DRAFT_STEP.MASTER_ID.eq(master.getId()))
        .and(DRAFT_STEP.PERSON_ID.eq(who.id()))
        .and(DRAFT_STEP.UNDONE.isTrue())
        .and(DRAFT_STEP.STAYS.isFalse())
        .and(
            "not exists (select 1 from draft_step later where later.master_id = ? and"
                + " later.person_id = ? and not later.undone and not later.stays and later.id > draft_step.id)",
            master.getId(),
            who.id())
        .orderBy(DRAFT_STEP.ID)
        .limit(1)
        .fetchOptional();
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
