package org.zephyrmist.server.delivery;

import static org.jooq.impl.DSL.notExists;
import static org.jooq.impl.DSL.selectOne;
import static org.zephyrmist.server.db.Tables.COVERAGE_RULE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.server.content.Trees;

/** What versions say. A version never changes, so the last few are kept in memory. */
@Component
class VersionContent {
  private static final int KEPT = 24;
  private final DSLContext db;
  private final Trees trees;
  private final Map<UUID, Loaded> loaded =
      new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<UUID, Loaded> eldest) {
          return size() > KEPT;
        }
      };

  /** Whole items, with their texts, of the versions that were last delivered. */
  private final Map<UUID, Map<ItemKey, Item>> items =
      new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<UUID, Map<ItemKey, Item>> eldest) {
          return size() > 3;
        }
      };

  VersionContent(DSLContext db, Trees trees) {
    this.db = db;
    this.trees = trees;
  }

  /**
   * @param letter before the ranks at the top of a shell, see {@link ShellTranslator}
   */
  record Loaded(
      UUID id,
      UUID master,
      int number,
      String letter,
      List<Meant> meant,
      Map<ItemKey, Trees.Node> nodes) {}

  Loaded load(UUID version) {
    synchronized (loaded) {
      Loaded l = loaded.get(version);
      if (l != null) {
        return l;
      }
    }
    Loaded fresh = read(version);
    synchronized (loaded) {
      loaded.put(version, fresh);
    }
    return fresh;
  }

  private Loaded read(UUID version) {
    var v = db.selectFrom(VERSION).where(VERSION.ID.eq(version)).fetchSingle();
    List<Trees.Node> nodes = trees.nodes(v.getTreeId());
    Map<ItemKey, Trees.Node> byKey = new HashMap<>();
    nodes.forEach(n -> byKey.put(n.key(), n));
    List<Meant> meant =
        nodes.stream()
            .map(n -> new Meant(n.key(), n.kind(), n.title(), n.rule(), n.parent(), n.aspects()))
            .toList();
    return new Loaded(
        version, v.getMasterId(), v.getNumber(), letters().get(v.getMasterId()), meant, byKey);
  }

  /** Masters of the whole college stand before those of a course. */
  Map<UUID, String> letters() {
    Map<UUID, String> all = new HashMap<>();
    db.select(
            MASTER.ID,
            org.jooq.impl.DSL.field(
                notExists(
                    selectOne()
                        .from(COVERAGE_RULE)
                        .where(COVERAGE_RULE.MASTER_ID.eq(MASTER.ID))
                        .and(COVERAGE_RULE.COURSE_ID.isNull()))))
        .from(MASTER)
        .forEach(r -> all.put(r.value1(), r.value2() ? "m" : "c"));
    return all;
  }

  Map<ItemKey, Item> items(Loaded version, Collection<ItemKey> keys) {
    Map<ItemKey, Item> known = itemsOf(version);
    Map<ItemKey, Item> all = new HashMap<>();
    List<Trees.Node> others = new ArrayList<>();
    for (ItemKey k : keys) {
      Item i = known.get(k);
      if (i == null) {
        others.add(version.nodes().get(k));
      } else {
        all.put(k, i);
      }
    }
    trees
        .items(others)
        .forEach(
            i -> {
              known.put(i.key(), i);
              all.put(i.key(), i);
            });
    return all;
  }

  private Map<ItemKey, Item> itemsOf(Loaded version) {
    synchronized (items) {
      return items.computeIfAbsent(version.id(), v -> new ConcurrentHashMap<>());
    }
  }
}
