package org.zephyrmist.server.content;

import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.val;
import static org.zephyrmist.server.db.Tables.TREE;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.JSONB;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Marks;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.db.tables.records.TreeItemRecord;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Trees of items. A tree that belongs to an edition or a version is never changed. */
@Component
public class Trees {
  private final DSLContext db;
  private final Bodies bodies;
  private final JsonMapper json;

  Trees(DSLContext db, Bodies bodies, JsonMapper json) {
    this.db = db;
    this.json = json;
    this.bodies = bodies;
  }

  public UUID create() {
    UUID id = UUID.randomUUID();
    db.insertInto(TREE).set(TREE.ID, id).execute();
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
                + " shown, instructors_only, aspects, asks, host) select ?, * from unnest(?::text[],"
                + " ?::text[], ?::text[], ?::text[], ?::text[], ?::text[], ?::boolean[],"
                + " ?::boolean[], ?::bytea[], ?::text[], ?::text[]) on conflict (tree_id, item_key) do update set"
                + " kind = excluded.kind, title = excluded.title, parent_key = excluded.parent_key,"
                + " rank = excluded.rank, edit_rule = excluded.edit_rule, shown = excluded.shown,"
                + " instructors_only = excluded.instructors_only, aspects = excluded.aspects,"
                + " asks = excluded.asks, host = excluded.host",
            tree,
            column(rows, TreeItemRecord::getItemKey),
            column(rows, r -> r.getKind().name()),
            column(rows, TreeItemRecord::getTitle),
            column(rows, TreeItemRecord::getParentKey),
            column(rows, TreeItemRecord::getRank),
            column(rows, r -> r.getEditRule().name()),
            rows.stream().map(TreeItemRecord::getShown).toArray(Boolean[]::new),
            rows.stream().map(TreeItemRecord::getInstructorsOnly).toArray(Boolean[]::new),
            rows.stream().map(TreeItemRecord::getAspects).toArray(byte[][]::new),
            column(rows, TreeItemRecord::getAsks),
            column(rows, TreeItemRecord::getHost))
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
    r.setKind(i.kind());
    r.setTitle(i.title());
    r.setParentKey(i.place().parent().orElse(null));
    r.setRank(i.place().rank());
    r.setEditRule(i.rule());
    r.setShown(i.visibility().shown());
    r.setInstructorsOnly(i.visibility().instructorsOnly());
    r.setAspects(f.pack());
    r.setAsks(i.visibility().asks());
    r.setHost(i.kind().leads() ? host(i.content().launch().address()) : null);
    return new Row(r, byPrint);
  }

  /** Of the address of a link. */
  private static String host(String address) {
    String host = Frames.host(address);
    return host.isEmpty() ? "none" : host;
  }

  /** A tree with the same items, each from where it came. */
  public UUID copy(UUID from) {
    return copy(from, TREE_ITEM.ORIGIN);
  }

  /** A tree with the items of an edition, which they came from. */
  public UUID copyOfEdition(UUID from, UUID edition) {
    return copy(from, val(edition));
  }

  private UUID copy(UUID from, Field<UUID> origin) {
    UUID to = create();
    fill(to, from, origin);
    return to;
  }

  private void fill(UUID to, UUID from, Field<UUID> origin) {
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
                    TREE_ITEM.ASPECTS,
                    TREE_ITEM.APPLIES_TO,
                    TREE_ITEM.ASKS,
                    origin,
                    TREE_ITEM.GOES_WITH,
                    TREE_ITEM.HOST)
                .from(TREE_ITEM)
                .where(TREE_ITEM.TREE_ID.eq(from)))
        .execute();
  }

  /** The whole tree. */
  public Tree tree(UUID tree) {
    return Tree.of(db.selectFrom(TREE_ITEM).where(TREE_ITEM.TREE_ID.eq(tree)).fetch(this::node));
  }

  private Node node(TreeItemRecord r) {
    return new Node(
        new ItemKey(r.getItemKey()),
        r.getKind(),
        r.getTitle(),
        Optional.ofNullable(r.getParentKey()).map(ItemKey::new),
        r.getRank(),
        r.getEditRule(),
        new Visibility(r.getShown(), r.getInstructorsOnly(), r.getAsks()),
        appliesTo(r.getAppliesTo()),
        Fingerprints.unpack(r.getAspects()));
  }

  private AppliesTo appliesTo(JSONB stored) {
    return stored.data().equals("{}")
        ? AppliesTo.EVERY_SECTION
        : json.readValue(stored.data(), AppliesTo.class);
  }

  public int size(UUID tree) {
    return db.fetchCount(TREE_ITEM, TREE_ITEM.TREE_ID.eq(tree));
  }

  public Node node(UUID tree, ItemKey key) {
    return db.selectFrom(TREE_ITEM)
        .where(TREE_ITEM.TREE_ID.eq(tree))
        .and(TREE_ITEM.ITEM_KEY.eq(key.value()))
        .fetchOptional(this::node)
        .orElseThrow(() -> Refusal.notFound("item"));
  }

  public Item item(UUID tree, ItemKey key) {
    return items(List.of(node(tree, key))).get(0);
  }

  /** These items of a tree, in the order of the keys; not found if one is not there. */
  public List<Node> nodes(UUID tree, List<ItemKey> keys) {
    Map<ItemKey, Node> there =
        db.selectFrom(TREE_ITEM)
            .where(TREE_ITEM.TREE_ID.eq(tree))
            .and(
                TREE_ITEM.ITEM_KEY.eq(
                    any(keys.stream().map(ItemKey::value).toArray(String[]::new))))
            .fetchMap(r -> new ItemKey(r.getItemKey()), this::node);
    return keys.stream()
        .map(k -> Optional.ofNullable(there.get(k)).orElseThrow(() -> Refusal.notFound("item")))
        .toList();
  }

  /** Whole items for these nodes, in their order. */
  public List<Item> items(List<Node> nodes) {
    Set<Fingerprint> wanted = new HashSet<>();
    nodes.forEach(n -> wanted.addAll(n.aspects().asMap().values()));
    Map<Fingerprint, String> forms = bodies.get(wanted);
    return nodes.stream()
        .map(n -> AspectForms.item(n.key(), n.kind(), n.rule(), n.aspects().forms(forms)))
        .toList();
  }

  /** Makes a tree hold what another holds, and nothing else. */
  public void replace(UUID tree, UUID by) {
    db.deleteFrom(TREE_ITEM).where(TREE_ITEM.TREE_ID.eq(tree)).execute();
    fill(tree, by, TREE_ITEM.ORIGIN);
  }

  /** Takes items out; what stands in them has to be among them. */
  public void remove(UUID tree, Collection<ItemKey> keys) {
    db.deleteFrom(TREE_ITEM)
        .where(TREE_ITEM.TREE_ID.eq(tree))
        .and(TREE_ITEM.ITEM_KEY.eq(any(keys.stream().map(ItemKey::value).toArray(String[]::new))))
        .execute();
  }

  /** Says for which sections items are meant. */
  public void appliesTo(UUID tree, Collection<ItemKey> keys, AppliesTo to) {
    db.update(TREE_ITEM)
        .set(TREE_ITEM.APPLIES_TO, JSONB.valueOf(json.writeValueAsString(to)))
        .where(TREE_ITEM.TREE_ID.eq(tree))
        .and(TREE_ITEM.ITEM_KEY.eq(any(keys.stream().map(ItemKey::value).toArray(String[]::new))))
        .execute();
  }

  /** Ties items to each other by a name, or unties them. */
  public void tie(UUID tree, Collection<ItemKey> keys, Optional<String> name) {
    db.update(TREE_ITEM)
        .set(TREE_ITEM.GOES_WITH, name.orElse(null))
        .where(TREE_ITEM.TREE_ID.eq(tree))
        .and(TREE_ITEM.ITEM_KEY.eq(any(keys.stream().map(ItemKey::value).toArray(String[]::new))))
        .execute();
  }

  /** By what name items are tied to others; those that are not tied are left out. */
  public Map<ItemKey, String> ties(UUID tree) {
    return db.select(TREE_ITEM.ITEM_KEY, TREE_ITEM.GOES_WITH)
        .from(TREE_ITEM)
        .where(TREE_ITEM.TREE_ID.eq(tree))
        .and(TREE_ITEM.GOES_WITH.isNotNull())
        .fetchMap(r -> new ItemKey(r.value1()), r -> r.value2());
  }

  /** Items whose texts have marks, see {@link Marks}. */
  public List<Item> marked(Tree tree) {
    Set<Fingerprint> texts = new HashSet<>();
    tree.nodes().forEach(n -> texts.add(n.aspects().get(Aspect.WORDING)));
    Set<Fingerprint> marked = bodies.which(texts, "z-(value|blank|builder|instructor)");
    return items(
            tree.nodes().stream()
                .filter(n -> marked.contains(n.aspects().get(Aspect.WORDING)))
                .toList())
        .stream()
        .filter(i -> Marks.mayStand(i.content().html()))
        .toList();
  }

  /** Notes from which edition items came. */
  public void origin(UUID tree, Collection<ItemKey> keys, UUID edition) {
    db.update(TREE_ITEM)
        .set(TREE_ITEM.ORIGIN, edition)
        .where(TREE_ITEM.TREE_ID.eq(tree))
        .and(TREE_ITEM.ITEM_KEY.eq(any(keys.stream().map(ItemKey::value).toArray(String[]::new))))
        .execute();
  }
}
