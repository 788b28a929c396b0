package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.ItemView;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.content.Trees;

/** Single items of a master with what it knows of them besides. */
@Component
class MasterItems {
  private final DSLContext db;
  private final Trees trees;

  MasterItems(DSLContext db, Trees trees) {
    this.db = db;
    this.trees = trees;
  }

  ItemView view(UUID tree, String key) {
    Node node = trees.node(tree, Previews.key(key));
    return ItemView.of(trees.items(List.of(node)).get(0), Optional.of(own(tree, node)));
  }

  ItemView.Own own(UUID tree, Node node) {
    Map<ItemKey, String> ties = trees.ties(tree);
    List<String> others =
        Optional.ofNullable(ties.get(node.key()))
            .map(
                tie ->
                    ties.entrySet().stream()
                        .filter(e -> e.getValue().equals(tie) && !e.getKey().equals(node.key()))
                        .map(e -> e.getKey().value())
                        .sorted()
                        .toList())
            .orElse(List.of());
    return new ItemView.Own(node.appliesTo(), others, origin(tree, node.key()));
  }

  private String origin(UUID tree, ItemKey key) {
    return db.select(CARTRIDGE.TITLE, EDITION.NUMBER)
        .from(TREE_ITEM)
        .join(EDITION)
        .on(EDITION.ID.eq(TREE_ITEM.ORIGIN))
        .join(CARTRIDGE)
        .on(CARTRIDGE.ID.eq(EDITION.CARTRIDGE_ID))
        .where(TREE_ITEM.TREE_ID.eq(tree))
        .and(TREE_ITEM.ITEM_KEY.eq(key.value()))
        .fetchOptional(r -> r.value1() + ", edition " + r.value2())
        .orElse("");
  }
}
