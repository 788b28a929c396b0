package org.zephyrmist.server.term;

import static org.zephyrmist.server.db.Tables.NEXT_MASTER;
import static org.zephyrmist.server.db.Tables.NEXT_PAIR;
import static org.zephyrmist.server.db.Tables.NEXT_TERM;
import static org.zephyrmist.server.db.Tables.NEXT_TEXT;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.term.Onward;
import org.zephyrmist.server.term.NextTerms.Terms;

/** What people have said of a proposal. */
@Component
class KeptTerms {
  private final DSLContext db;

  KeptTerms(DSLContext db) {
    this.db = db;
  }

  /**
   * How a master comes.
   *
   * @param pinned none: the newest
   * @param recipe that was chosen
   * @param noRecipe whether none was chosen, whatever was used before
   */
  record Master(
      Optional<Integer> pinned, boolean leftOut, Optional<UUID> recipe, boolean noRecipe) {
    static final Master AS_PROPOSED = new Master(Optional.empty(), false, Optional.empty(), false);

    /** By which recipe it comes. */
    Optional<UUID> recipe(UUID before) {
      return noRecipe ? Optional.empty() : recipe.or(() -> Optional.ofNullable(before));
    }
  }

  /** By section, what follows it; none: nothing does. */
  Map<String, Optional<String>> pairs(Terms t) {
    Map<String, Optional<String>> all = new HashMap<>();
    db.select(NEXT_PAIR.SECTION_ID, NEXT_PAIR.SUCCESSOR_ID)
        .from(NEXT_PAIR)
        .join(NEXT_TERM)
        .on(NEXT_TERM.ID.eq(NEXT_PAIR.NEXT_ID))
        .where(is(t))
        .forEach(
            r ->
                all.put(
                    r.value1().toString(), Optional.ofNullable(r.value2()).map(UUID::toString)));
    return all;
  }

  Map<UUID, Master> masters(Terms t) {
    Map<UUID, Master> all = new HashMap<>();
    db.select(NEXT_MASTER.fields())
        .from(NEXT_MASTER)
        .join(NEXT_TERM)
        .on(NEXT_TERM.ID.eq(NEXT_MASTER.NEXT_ID))
        .where(is(t))
        .forEach(
            r ->
                all.put(
                    r.get(NEXT_MASTER.MASTER_ID),
                    new Master(
                        Optional.ofNullable(r.get(NEXT_MASTER.PINNED)),
                        r.get(NEXT_MASTER.LEFT_OUT),
                        Optional.ofNullable(r.get(NEXT_MASTER.RECIPE_ID)),
                        r.get(NEXT_MASTER.NO_RECIPE))));
    return all;
  }

  /**
   * What becomes of texts, see {@link #text}. What was said of a text for these terms counts, else
   * what was said last for any: it is asked once.
   */
  Map<String, Onward> texts(Terms t) {
    Map<String, Onward> all = new HashMap<>();
    db.select(NEXT_TEXT.MASTER_ID, NEXT_TEXT.ITEM_KEY, NEXT_TEXT.SAID)
        .from(NEXT_TEXT)
        .join(NEXT_TERM)
        .on(NEXT_TERM.ID.eq(NEXT_TEXT.NEXT_ID))
        .orderBy(DSL.when(is(t), 0).otherwise(1), NEXT_TEXT.AT.desc())
        .forEach(r -> all.putIfAbsent(text(r.value1(), new ItemKey(r.value2())), r.value3()));
    return all;
  }

  /** How a text of a master is called here. */
  static String text(UUID master, ItemKey item) {
    return master + " " + item;
  }

  /** Under which it is kept; made if nobody has said anything yet. */
  UUID id(Terms t) {
    db.insertInto(NEXT_TERM)
        .set(NEXT_TERM.ID, UUID.randomUUID())
        .set(NEXT_TERM.FROM_TERM, t.from())
        .set(NEXT_TERM.TO_TERM, t.to())
        .onConflictDoNothing()
        .execute();
    return db.select(NEXT_TERM.ID).from(NEXT_TERM).where(is(t)).fetchSingle(NEXT_TERM.ID);
  }

  private static Condition is(Terms t) {
    return NEXT_TERM.FROM_TERM.eq(t.from()).and(NEXT_TERM.TO_TERM.eq(t.to()));
  }
}
