package org.zephyrmist.server.term;

import static org.zephyrmist.server.db.Tables.NEXT_MASTER;
import static org.zephyrmist.server.db.Tables.NEXT_PAIR;
import static org.zephyrmist.server.db.Tables.NEXT_TEXT;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.term.Onward;
import org.zephyrmist.server.delivery.RecipeOrders;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.term.NextTerms.Terms;
import org.zephyrmist.server.web.Refusal;

/** What people change of the proposal; it is kept until the terms are gone. */
@Component
class NextTermEdits {
  private final DSLContext db;
  private final NextTerms terms;
  private final KeptTerms kept;
  private final RecipeOrders recipes;
  private final Clock clock;

  NextTermEdits(DSLContext db, NextTerms terms, KeptTerms kept, RecipeOrders recipes, Clock clock) {
    this.recipes = recipes;
    this.clock = clock;
    this.kept = kept;
    this.db = db;
    this.terms = terms;
  }

  /**
   * Which section follows one.
   *
   * @param successor none: nothing follows it
   */
  @Transactional
  public void pair(Terms t, UUID section, Optional<UUID> successor, SignedIn who) {
    terms.check(t);
    if (!terms.reached(t, section, successor, who)) {
      throw Refusal.notFound("section");
    }
    UUID id = kept.id(t);
    successor.ifPresent(s -> free(id, section, s));
    db.insertInto(NEXT_PAIR)
        .values(id, section, successor.orElse(null))
        .onConflict(NEXT_PAIR.NEXT_ID, NEXT_PAIR.SECTION_ID)
        .doUpdate()
        .setAllToExcluded()
        .execute();
  }

  private void free(UUID id, UUID section, UUID successor) {
    db.select(SECTION.CODE)
        .from(NEXT_PAIR)
        .join(SECTION)
        .on(SECTION.ID.eq(NEXT_PAIR.SECTION_ID))
        .where(NEXT_PAIR.NEXT_ID.eq(id))
        .and(NEXT_PAIR.SUCCESSOR_ID.eq(successor))
        .and(NEXT_PAIR.SECTION_ID.ne(section))
        .fetchOptional(SECTION.CODE)
        .ifPresent(
            code -> {
              throw new Refusal(
                  HttpStatus.CONFLICT,
                  "That section follows " + code + " already, as somebody has said.",
                  "Choose another for one of the two.");
            });
  }

  /** It is proposed again. */
  @Transactional
  public void propose(Terms t, UUID section, SignedIn who) {
    terms.check(t);
    if (!terms.reached(t, section, Optional.empty(), who)) {
      throw Refusal.notFound("section");
    }
    db.deleteFrom(NEXT_PAIR)
        .where(NEXT_PAIR.NEXT_ID.eq(kept.id(t)))
        .and(NEXT_PAIR.SECTION_ID.eq(section))
        .execute();
  }

  /** At which version a master comes, and how. */
  @Transactional
  public void master(Terms t, UUID master, KeptTerms.Master how, SignedIn who) {
    terms.check(t);
    if (!terms.masterReached(master, who)) {
      throw Refusal.notFound("master");
    }
    how.pinned()
        .ifPresent(
            n -> {
              if (!db.fetchExists(
                  VERSION, VERSION.MASTER_ID.eq(master).and(VERSION.NUMBER.eq(n)))) {
                throw Refusal.bad(
                    "This master has no version " + n + ".", "Choose one that is frozen.");
              }
            });
    how.recipe()
        .ifPresent(
            r -> {
              if (RecipeOrders.named(
                      recipes.whole(List.of(master)).getOrDefault(master, List.of()), r)
                  .isEmpty()) {
                throw Refusal.bad(
                    "This master has no such recipe, or it brings chosen parts only.",
                    "Choose one that brings everything.");
              }
            });
    db.insertInto(NEXT_MASTER)
        .set(NEXT_MASTER.NEXT_ID, kept.id(t))
        .set(NEXT_MASTER.MASTER_ID, master)
        .set(NEXT_MASTER.PINNED, how.pinned().orElse(null))
        .set(NEXT_MASTER.LEFT_OUT, how.leftOut())
        .set(NEXT_MASTER.RECIPE_ID, how.recipe().orElse(null))
        .set(NEXT_MASTER.NO_RECIPE, how.noRecipe())
        .onConflict(NEXT_MASTER.NEXT_ID, NEXT_MASTER.MASTER_ID)
        .doUpdate()
        .setAllToExcluded()
        .execute();
  }

  /** What becomes of what sections have made of a text; it is remembered for later terms too. */
  @Transactional
  public void text(Terms t, UUID master, ItemKey item, Onward said, SignedIn who) {
    terms.check(t);
    if (!terms.masterReached(master, who)) {
      throw Refusal.notFound("master");
    }
    db.insertInto(NEXT_TEXT)
        .set(NEXT_TEXT.NEXT_ID, kept.id(t))
        .set(NEXT_TEXT.MASTER_ID, master)
        .set(NEXT_TEXT.ITEM_KEY, item.value())
        .set(NEXT_TEXT.SAID, said)
        .set(NEXT_TEXT.AT, OffsetDateTime.now(clock))
        .onConflict(NEXT_TEXT.NEXT_ID, NEXT_TEXT.MASTER_ID, NEXT_TEXT.ITEM_KEY)
        .doUpdate()
        .setAllToExcluded()
        .execute();
  }
}
