package org.zephyrmist.server.master;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.jooq.Record;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.DraftStepRecord;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Writes one side of a step of a draft over the other. What others did to other items meanwhile is
 * no reason against it: where an item would come back to a place that is taken, it comes beside it;
 * where its module is gone, to the top.
 */
@Component
class DraftTurns {
  /** The rows of a step that come back, by key, with where they stood. */
  private static final String COMING =
      "select e.key, e.value -> ? ->> 'parent_key' as parent, e.value -> ? ->> 'rank' as rank from"
          + " jsonb_each(?::jsonb) e where jsonb_typeof(e.value -> ?) = 'object'";

  private final DSLContext db;
  private final Trees trees;
  private final JsonMapper json;

  DraftTurns(DSLContext db, Trees trees, JsonMapper json) {
    this.db = db;
    this.trees = trees;
    this.json = json;
  }

  /**
   * @param from the side that must be there, before or after
   * @return why the step stays as it is, if somebody else went on from it; then nothing was written
   */
  Optional<Refusal> turn(MasterRecord master, DraftStepRecord step, String from, String to) {
    UUID tree = master.getDraftTreeId();
    Optional<Refusal> stays = changed(tree, step, from).or(() -> holds(tree, step, to));
    if (stays.isPresent()) {
      return stays;
    }
    Map<String, Place> elsewhere = elsewhere(tree, step, to);
    db.query(
            "delete from tree_item where tree_id = ? and item_key in (select key from"
                + " jsonb_object_keys(?::jsonb) key)",
            tree,
            step.getRows())
        .execute();
    db.query(
            "insert into tree_item select (jsonb_populate_record(null::tree_item, (e.value -> ?) ||"
                + " coalesce(?::jsonb -> e.key, '{}'::jsonb) || jsonb_build_object('tree_id',"
                + " ?::uuid))).* from jsonb_each(?::jsonb) e where jsonb_typeof(e.value -> ?) ="
                + " 'object'",
            to,
            places(elsewhere),
            tree,
            step.getRows(),
            to)
        .execute();
    if (!elsewhere.isEmpty()) {
      standing(tree, elsewhere);
      remember(tree, step, to, elsewhere);
    }
    return Optional.empty();
  }

  /** An item that somebody changed since. */
  private Optional<Refusal> changed(UUID tree, DraftStepRecord step, String from) {
    return db.fetchOptional(
            "select coalesce(t.title, e.value -> ? ->> 'title', e.key) from"
                + " jsonb_each(?::jsonb) e left join tree_item t on t.tree_id = ? and"
                + " t.item_key = e.key where (to_jsonb(t) - 'tree_id') is distinct from"
                + " nullif(e.value -> ?, 'null'::jsonb) limit 1",
            from,
            step.getRows(),
            tree,
            from)
        .map(
            r ->
                stays(
                    "“" + r.get(0, String.class) + "” was changed by somebody else since then.",
                    "This step stays as it is; change it by hand, or undo what you did before it."));
  }

  /** A module that would go, in which somebody has put something. */
  private Optional<Refusal> holds(UUID tree, DraftStepRecord step, String to) {
    return db.fetchOptional(
            "select c.title from tree_item c join jsonb_each(?::jsonb) e on e.key = c.parent_key"
                + " where c.tree_id = ? and jsonb_typeof(e.value -> ?) is distinct from 'object' and"
                + " not jsonb_exists(?::jsonb, c.item_key) limit 1",
            step.getRows(),
            tree,
            to,
            step.getRows())
        .map(
            r ->
                stays(
                    "“" + r.get(0, String.class) + "” stands in a module that would go.",
                    "This step stays as it is; move that first, or undo what you did before it."));
  }

  private static Refusal stays(String detail, String remedy) {
    return new Refusal(HttpStatus.CONFLICT, detail, remedy);
  }

  /** New places of what comes back where somebody else stands now, or where no module is. */
  private Map<String, Place> elsewhere(UUID tree, DraftStepRecord step, String to) {
    Map<Optional<String>, SortedSet<String>> taken = new LinkedHashMap<>();
    List<String> there = new ArrayList<>();
    db.fetch(
            "select item_key, parent_key, rank from tree_item where tree_id = ? and not"
                + " jsonb_exists(?::jsonb, item_key)",
            tree,
            step.getRows())
        .forEach(
            r -> {
              there.add(r.get(0, String.class));
              ranks(taken, r.get(1, String.class)).add(r.get(2, String.class));
            });
    List<Record> coming = new ArrayList<>(db.fetch(COMING, to, to, step.getRows(), to));
    coming.forEach(r -> there.add(r.get(0, String.class)));
    Map<String, Place> places = new LinkedHashMap<>();
    List<Record> open = new ArrayList<>();
    for (Record r : coming) {
      Optional<String> module = Optional.ofNullable(r.get(1, String.class));
      boolean fits = module.map(there::contains).orElse(true);
      if (!fits || !ranks(taken, module.orElse(null)).add(r.get(2, String.class))) {
        open.add(r);
      }
    }
    for (Record r : open) {
      Optional<String> module = Optional.ofNullable(r.get(1, String.class)).filter(there::contains);
      SortedSet<String> ranks = ranks(taken, module.orElse(null));
      String after = r.get(2, String.class);
      if (!ranks.contains(after)) {
        after = ranks.isEmpty() ? "" : ranks.last();
      }
      String rank = Rank.between(after, next(ranks, after));
      ranks.add(rank);
      places.put(r.get(0, String.class), new Place(module, rank));
    }
    return places;
  }

  private static String next(SortedSet<String> ranks, String after) {
    return ranks.stream().filter(r -> r.compareTo(after) > 0).findFirst().orElse("");
  }

  private static SortedSet<String> ranks(
      Map<Optional<String>, SortedSet<String>> taken, String module) {
    return taken.computeIfAbsent(Optional.ofNullable(module), k -> new TreeSet<>());
  }

  private JSONB places(Map<String, Place> elsewhere) {
    ObjectNode all = json.createObjectNode();
    elsewhere.forEach( // no module is said too: what came with the row would stay
        (key, p) ->
            all.putObject(key).put("parent_key", p.parent().orElse(null)).put("rank", p.rank()));
    return JSONB.valueOf(all.toString());
  }

  /** What they say of where they stand follows. */
  private void standing(UUID tree, Map<String, Place> elsewhere) {
    List<Item> items =
        trees.items(
            trees.tree(tree).nodes().stream()
                .filter(n -> elsewhere.containsKey(n.key().value()))
                .toList());
    trees.put(tree, items.stream().map(i -> i.withPlace(elsewhere.get(i.key().value()))).toList());
  }

  /** So that it can be turned again. */
  private void remember(UUID tree, DraftStepRecord step, String to, Map<String, Place> elsewhere) {
    String[] keys = elsewhere.keySet().toArray(String[]::new);
    step.setRows(
        db.fetchSingle(
                "select ?::jsonb || jsonb_object_agg(t.item_key, (?::jsonb -> t.item_key) ||"
                    + " jsonb_build_object(?::text, to_jsonb(t) - 'tree_id')) from tree_item t where"
                    + " t.tree_id = ? and t.item_key = any(?::text[])",
                step.getRows(),
                step.getRows(),
                to,
                tree,
                keys)
            .into(JSONB.class));
  }
}
