package org.zephyrmist.server.content;

import static org.jooq.impl.DSL.val;
import static org.zephyrmist.server.db.Tables.TREE;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.db.tables.records.TreeItemRecord;
import org.zephyrmist.server.web.Refusal;

/** Trees of items. A tree that belongs to an edition or a version is never changed. */
@Component
public class Trees {
  private final DSLContext db;
  private final Bodies bodies;

  Trees(DSLContext db, Bodies bodies) {
    this.db = db;
    this.bodies = bodies;
  }

  /** A node of a tree, without its texts. */
  public record Node(
      ItemKey key,
      Kind kind,
      String title,
      Optional<ItemKey> parent,
      String rank,
      EditRule rule,
      boolean shown,
      boolean instructorsOnly,
      Fingerprints aspects) {}

  public UUID create() {
    UUID id = UUID.randomUUID();
    db.insertInto(TREE).values(id).execute();
    return id;
  }

  private record Row(TreeItemRecord record, Map<Fingerprint, String> forms) {}

  /** Adds items, or replaces those with the same keys; bodies and rows in one statement each. */
  public void put(UUID tree, List<Item> items) {
    List<Row> rows = items.stream().map(Trees::row).toList();
    Map<Fingerprint, String> forms = new HashMap<>();
    rows.forEach(r -> forms.putAll(r.forms()));
    bodies.keep(forms);
    if (!rows.isEmpty()) {
      write(tree, rows.stream().map(Row::record).toList());
    }
  }

  private void write(UUID tree, List<TreeItemRecord> rows) {
    db.query(
            "insert into tree_item (tree_id, item_key, kind, title, parent_key, rank, edit_rule,"
                + " shown, instructors_only, aspects) select ?, * from unnest(?::text[],"
                + " ?::text[], ?::text[], ?::text[], ?::text[], ?::text[], ?::boolean[],"
                + " ?::boolean[], ?::bytea[]) on conflict (tree_id, item_key) do update set"
                + " kind = excluded.kind, title = excluded.title, parent_key = excluded.parent_key,"
                + " rank = excluded.rank, edit_rule = excluded.edit_rule, shown = excluded.shown,"
                + " instructors_only = excluded.instructors_only, aspects = excluded.aspects",
            tree,
            column(rows, TreeItemRecord::getItemKey),
            column(rows, TreeItemRecord::getKind),
            column(rows, TreeItemRecord::getTitle),
            column(rows, TreeItemRecord::getParentKey),
            column(rows, TreeItemRecord::getRank),
            column(rows, TreeItemRecord::getEditRule),
            rows.stream().map(TreeItemRecord::getShown).toArray(Boolean[]::new),
            rows.stream().map(TreeItemRecord::getInstructorsOnly).toArray(Boolean[]::new),
            rows.stream().map(TreeItemRecord::getAspects).toArray(byte[][]::new))
        .execute();
  }

  private static String[] column(
      List<TreeItemRecord> rows, java.util.function.Function<TreeItemRecord, String> get) {
    return rows.stream().map(get).toArray(String[]::new);
  }

  private static Row row(Item i) {
    Map<Aspect, String> forms = AspectForms.of(i);
    Fingerprints f = AspectForms.fingerprints(forms);
    Map<Fingerprint, String> byPrint = new HashMap<>();
    f.asMap().forEach((aspect, print) -> byPrint.put(print, forms.get(aspect)));
    TreeItemRecord r = new TreeItemRecord();
    r.setItemKey(i.key().value());
    r.setKind(i.kind().name());
    r.setTitle(i.title());
    r.setParentKey(i.place().parent().orElse(null));
    r.setRank(i.place().rank());
    r.setEditRule(i.rule().name());
    r.setShown(i.visibility().shown());
    r.setInstructorsOnly(i.visibility().instructorsOnly());
    r.setAspects(f.pack());
    return new Row(r, byPrint);
  }

  /** A tree with the same items. */
  public UUID copy(UUID from) {
    UUID to = create();
    db.insertInto(TREE_ITEM)
        .select(
            db.select(
                    val(to),
                    TREE_ITEM.ITEM_KEY,
                    TREE_ITEM.KIND,
                    TREE_ITEM.TITLE,
                    TREE_ITEM.PARENT_KEY,
                    TREE_ITEM.RANK,
                    TREE_ITEM.EDIT_RULE,
                    TREE_ITEM.SHOWN,
                    TREE_ITEM.INSTRUCTORS_ONLY,
                    TREE_ITEM.ASPECTS)
                .from(TREE_ITEM)
                .where(TREE_ITEM.TREE_ID.eq(from)))
        .execute();
    return to;
  }

  /** All nodes in outline order: a module, then what it holds. */
  public List<Node> nodes(UUID tree) {
    Map<Optional<ItemKey>, List<Node>> below = new HashMap<>();
    for (TreeItemRecord r : db.selectFrom(TREE_ITEM).where(TREE_ITEM.TREE_ID.eq(tree)).fetch()) {
      Node n = node(r);
      below.computeIfAbsent(n.parent(), k -> new ArrayList<>()).add(n);
    }
    below.values().forEach(l -> l.sort(Comparator.comparing(Node::rank).thenComparing(Node::key)));
    List<Node> all = new ArrayList<>();
    walk(below, Optional.empty(), all);
    return all;
  }

  private static void walk(
      Map<Optional<ItemKey>, List<Node>> below, Optional<ItemKey> at, List<Node> all) {
    for (Node n : below.getOrDefault(at, List.of())) {
      all.add(n);
      walk(below, Optional.of(n.key()), all);
    }
  }

  private static Node node(TreeItemRecord r) {
    return new Node(
        new ItemKey(r.getItemKey()),
        Kind.valueOf(r.getKind()),
        r.getTitle(),
        Optional.ofNullable(r.getParentKey()).map(ItemKey::new),
        r.getRank(),
        EditRule.valueOf(r.getEditRule()),
        r.getShown(),
        r.getInstructorsOnly(),
        Fingerprints.unpack(r.getAspects()));
  }

  public int size(UUID tree) {
    return db.fetchCount(TREE_ITEM, TREE_ITEM.TREE_ID.eq(tree));
  }

  public Node node(UUID tree, ItemKey key) {
    return db.selectFrom(TREE_ITEM)
        .where(TREE_ITEM.TREE_ID.eq(tree))
        .and(TREE_ITEM.ITEM_KEY.eq(key.value()))
        .fetchOptional(Trees::node)
        .orElseThrow(() -> Refusal.notFound("item"));
  }

  public Item item(UUID tree, ItemKey key) {
    return items(List.of(node(tree, key))).get(0);
  }

  /** Whole items for these nodes, in their order. */
  public List<Item> items(List<Node> nodes) {
    Set<Fingerprint> wanted = new HashSet<>();
    nodes.forEach(n -> wanted.addAll(n.aspects().asMap().values()));
    Map<Fingerprint, String> forms = bodies.get(wanted);
    return nodes.stream()
        .map(n -> AspectForms.item(n.key(), n.kind(), n.rule(), forms(n.aspects(), forms)))
        .toList();
  }

  private static Map<Aspect, String> forms(Fingerprints f, Map<Fingerprint, String> forms) {
    Map<Aspect, String> of = new EnumMap<>(Aspect.class);
    f.asMap().forEach((a, print) -> of.put(a, forms.get(print)));
    return of;
  }

  /** Takes an item out, and all below it. */
  public int remove(UUID tree, ItemKey key) {
    List<String> gone = new ArrayList<>();
    collect(nodes(tree), key, gone);
    return db.deleteFrom(TREE_ITEM)
        .where(TREE_ITEM.TREE_ID.eq(tree))
        .and(TREE_ITEM.ITEM_KEY.in(gone))
        .execute();
  }

  private static void collect(List<Node> nodes, ItemKey key, List<String> gone) {
    gone.add(key.value());
    nodes.stream()
        .filter(n -> n.parent().equals(Optional.of(key)))
        .forEach(n -> collect(nodes, n.key(), gone));
  }
}
