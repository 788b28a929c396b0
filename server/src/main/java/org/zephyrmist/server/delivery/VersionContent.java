package org.zephyrmist.server.delivery;

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

  /** A version with all its items. */
  record Loaded(
      UUID id, UUID master, int number, List<Meant> meant, Map<ItemKey, Trees.Node> nodes) {}

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
            .map(
                n ->
                    new Meant(
                        n.key(),
                        n.kind(),
                        n.title(),
                        n.rule(),
                        n.instructorsOnly(),
                        n.parent(),
                        n.aspects()))
            .toList();
    return new Loaded(version, v.getMasterId(), v.getNumber(), meant, byKey);
  }

  /**
   * What stands before the ranks of each master's items at the top of a shell. It was given when
   * the master was made and never changes, or items would look moved.
   */
  Map<UUID, String> letters() {
    return db.select(MASTER.ID, MASTER.SHELL_ORDER)
        .from(MASTER)
        .fetchMap(MASTER.ID, MASTER.SHELL_ORDER);
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
