package org.zephyrmist.server.delivery;

import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.max;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.RECIPE;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Choices of deliveries, kept for the next time. */
@Component
class Recipes {
  private final DSLContext db;
  private final Reach reach;
  private final JsonMapper json;
  private final Clock clock;

  Recipes(DSLContext db, Reach reach, JsonMapper json, Clock clock) {
    this.db = db;
    this.reach = reach;
    this.json = json;
    this.clock = clock;
  }

  /** How often a recipe was confirmed, when last, and for how many sections then. */
  private record Used(int times, OffsetDateTime last, int sections) {}

  /** Those of a master, the last used first. */
  List<RecipeApi.Recipe> of(UUID master, SignedIn who) {
    reached(master, who);
    Map<UUID, Used> used = used(master);
    Set<UUID> there = there(master, who);
    return db
        .select(RECIPE.fields())
        .select(PERSON.NAME)
        .from(RECIPE)
        .join(PERSON)
        .on(PERSON.ID.eq(RECIPE.MADE_BY))
        .where(RECIPE.MASTER_ID.eq(master))
        .orderBy(RECIPE.NAME)
        .fetch(
            r -> {
              Optional<Used> u = Optional.ofNullable(used.get(r.get(RECIPE.ID)));
              List<UUID> others = List.of(r.get(RECIPE.OTHERS));
              List<UUID> known = others.stream().filter(there::contains).toList();
              return new RecipeApi.Recipe(
                  r.get(RECIPE.ID),
                  r.get(RECIPE.NAME),
                  json.readValue(r.get(RECIPE.CHOICES).data(), DeliveryApi.Chosen.class),
                  r.get(PERSON.NAME),
                  r.get(RECIPE.MADE_AT),
                  known,
                  others.size() - known.size(),
                  u.map(Used::times).orElse(0),
                  u.map(Used::last).orElse(null),
                  u.map(Used::sections).orElse(0));
            })
        .stream()
        .sorted(
            java.util.Comparator.comparing(
                RecipeApi.Recipe::usedAt,
                java.util.Comparator.nullsLast(java.util.Comparator.reverseOrder())))
        .toList();
  }

  /** Masters within reach that recipes of this one bring with it, and that have a version. */
  private Set<UUID> there(UUID master, SignedIn who) {
    return db.select(MASTER.ID)
        .from(MASTER)
        .where(reach.masters(who))
        .andExists(db.selectOne().from(VERSION).where(VERSION.MASTER_ID.eq(MASTER.ID)))
        .andExists(
            db.selectOne()
                .from(RECIPE)
                .where(RECIPE.MASTER_ID.eq(master))
                .and(MASTER.ID.eq(any(RECIPE.OTHERS))))
        .fetchSet(MASTER.ID);
  }

  private Map<UUID, Used> used(UUID master) {
    Map<UUID, Used> all = new HashMap<>();
    db.select(DELIVERY.RECIPE_ID, count(), max(DELIVERY.CONFIRMED_AT))
        .from(DELIVERY)
        .join(RECIPE)
        .on(RECIPE.ID.eq(DELIVERY.RECIPE_ID))
        .where(RECIPE.MASTER_ID.eq(master))
        .and(DELIVERY.CONFIRMED_AT.isNotNull())
        .groupBy(DELIVERY.RECIPE_ID)
        .forEach(r -> all.put(r.value1(), new Used(r.value2(), r.value3(), 0)));
    db.select(DELIVERY.RECIPE_ID, DELIVERY.CONFIRMED_AT, count())
        .from(DELIVERY)
        .join(DELIVERY_LINE)
        .on(DELIVERY_LINE.DELIVERY_ID.eq(DELIVERY.ID))
        .where(DELIVERY.RECIPE_ID.in(all.keySet()))
        .and(DELIVERY.CONFIRMED_AT.isNotNull())
        .groupBy(DELIVERY.ID)
        .forEach(
            r ->
                all.computeIfPresent(
                    r.value1(),
                    (id, u) ->
                        u.last().equals(r.value2())
                            ? new Used(u.times(), u.last(), r.value3())
                            : u));
    return all;
  }

  private void reached(UUID master, SignedIn who) {
    if (!db.fetchExists(MASTER, MASTER.ID.eq(master).and(reach.masters(who)))) {
      throw Refusal.notFound("master");
    }
  }

  @Transactional
  UUID keep(RecipeApi.NewRecipe n, SignedIn who) {
    reached(n.master(), who);
    List<UUID> others = n.others() == null ? List.of() : n.others().stream().distinct().toList();
    others.forEach(o -> reached(o, who));
    if (others.contains(n.master())) {
      throw Refusal.bad("A recipe names its own master as another.", "Leave it out.");
    }
    String clean = Titles.clean(n.name());
    if (clean.isBlank()) {
      throw Refusal.bad("A recipe needs a name.", "Say what it is for.");
    }
    UUID id = UUID.randomUUID();
    try {
      db.insertInto(RECIPE)
          .set(RECIPE.ID, id)
          .set(RECIPE.MASTER_ID, n.master())
          .set(RECIPE.NAME, clean)
          .set(RECIPE.CHOICES, JSONB.valueOf(json.writeValueAsString(n.choices().known())))
          .set(RECIPE.OTHERS, others.toArray(new UUID[0]))
          .set(RECIPE.MADE_BY, who.id())
          .set(RECIPE.MADE_AT, OffsetDateTime.now(clock))
          .execute();
    } catch (DuplicateKeyException e) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "This master has a recipe “" + clean + "” already.",
          "Choose another name, or take the other one away first.");
    }
    return id;
  }

  @Transactional
  void drop(UUID recipe, SignedIn who) {
    UUID master = master(recipe);
    reached(master, who);
    db.deleteFrom(RECIPE).where(RECIPE.ID.eq(recipe)).execute();
  }

  private UUID master(UUID recipe) {
    return db.select(RECIPE.MASTER_ID)
        .from(RECIPE)
        .where(RECIPE.ID.eq(recipe))
        .fetchOptional(RECIPE.MASTER_ID)
        .orElseThrow(() -> Refusal.notFound("recipe"));
  }
}
