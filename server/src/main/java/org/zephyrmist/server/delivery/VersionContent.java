package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Trees;

/** What versions say. A version never changes, so the last few are kept in memory. */
@Component
class VersionContent {
  private static final int KEPT = 24;
  private final DSLContext db;
  private final Trees trees;
  private final Files files;
  private final Map<UUID, Loaded> loaded =
      new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<UUID, Loaded> eldest) {
          return size() > KEPT;
        }
      };

  /**
   * An item as it can be delivered.
   *
   * @param dead references of its text that lead nowhere
   */
  record Live(Item item, int dead) {}

  /** Whole items, with their texts, of the versions that were last delivered. */
  private final Map<UUID, Map<ItemKey, Live>> items =
      new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<UUID, Map<ItemKey, Live>> eldest) {
          return size() > 3;
        }
      };

  VersionContent(DSLContext db, Trees trees, Files files) {
    this.files = files;
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

  Map<ItemKey, Live> items(Loaded version, Collection<ItemKey> keys) {
    Map<ItemKey, Live> known = itemsOf(version);
    Map<ItemKey, Live> all = new HashMap<>();
    List<Trees.Node> others = new ArrayList<>();
    for (ItemKey k : keys) {
      Live i = known.get(k);
      if (i == null) {
        others.add(version.nodes().get(k));
      } else {
        all.put(k, i);
      }
    }
    for (Live l : live(version, trees.items(others))) {
      known.put(l.item().key(), l);
      all.put(l.item().key(), l);
    }
    return all;
  }

  /** Texts as they can be delivered: what they name and is nowhere is left out and counted. */
  private List<Live> live(Loaded version, List<Item> items) {
    Map<String, String> named = new HashMap<>();
    for (Item i : items) {
      References.files(AspectForms.html(i.content()))
          .forEach(f -> named.putIfAbsent(f.sha256(), f.name()));
    }
    Set<String> there = files.refs(named).keySet();
    List<Live> all = new ArrayList<>();
    for (Item i : items) {
      References.Live text =
          References.live(
              AspectForms.html(i.content()),
              f -> there.contains(f.sha256()),
              x -> version.nodes().containsKey(x.key()));
      Item live = text.dead() == 0 ? i : AspectForms.withHtml(i, text.html());
      all.add(new Live(live, text.dead()));
    }
    return all;
  }

  private Map<ItemKey, Live> itemsOf(Loaded version) {
    synchronized (items) {
      return items.computeIfAbsent(version.id(), v -> new ConcurrentHashMap<>());
    }
  }
}
