package org.zephyrmist.server.delivery;

import static org.jooq.impl.DSL.count;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.RECIPE;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.PartsChoice;
import tools.jackson.databind.json.JsonMapper;

/** What recipes ask for, for deliveries that are made from something else than their form. */
@Component
public class RecipeOrders {
  private final DSLContext db;
  private final JsonMapper json;

  RecipeOrders(DSLContext db, JsonMapper json) {
    this.db = db;
    this.json = json;
  }

  /** A recipe under its name, with what it asks for. */
  public record Named(UUID id, String name, Deliveries.Order order) {}

  /** Recipes that bring all of a version, or all but what is left out; by master, by name. */
  public Map<UUID, List<Named>> whole(Collection<UUID> masters) {
    Map<UUID, List<Named>> all = new HashMap<>();
    db.select(RECIPE.ID, RECIPE.MASTER_ID, RECIPE.NAME, RECIPE.CHOICES)
        .from(RECIPE)
        .where(RECIPE.MASTER_ID.in(masters))
        .orderBy(RECIPE.NAME)
        .forEach(
            r -> {
              Deliveries.Order order =
                  json.readValue(r.value4().data(), DeliveryApi.Chosen.class).order();
              if (order.parts().what() == PartsChoice.What.EVERYTHING) {
                all.computeIfAbsent(r.value2(), k -> new ArrayList<>())
                    .add(new Named(r.value1(), r.value3(), order));
              }
            });
    return all;
  }

  /** Of these recipes, those by which most sections of a term got their master; by master. */
  public Map<UUID, UUID> usedIn(UUID term, Map<UUID, List<Named>> recipes) {
    List<UUID> ids = recipes.values().stream().flatMap(List::stream).map(Named::id).toList();
    Map<UUID, UUID> used = new HashMap<>();
    db.select(RECIPE.MASTER_ID, RECIPE.ID)
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .join(RECIPE)
        .on(RECIPE.ID.eq(DELIVERY.RECIPE_ID))
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .where(SECTION.TERM_ID.eq(term))
        .and(RECIPE.ID.in(ids))
        .and(DELIVERY.CONFIRMED_AT.isNotNull())
        .groupBy(RECIPE.MASTER_ID, RECIPE.ID)
        .orderBy(count().desc(), RECIPE.ID)
        .forEach(r -> used.putIfAbsent(r.value1(), r.value2()));
    return used;
  }

  /** One of them by its id. */
  public static Optional<Named> named(List<Named> all, UUID id) {
    return all.stream().filter(n -> n.id().equals(id)).findFirst();
  }
}
