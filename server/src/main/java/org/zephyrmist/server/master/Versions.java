package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Trees;

/** What versions say. A version never changes, so the last few are kept in memory. */
@Component
public class Versions {
  private static final int KEPT = 24;
  private final DSLContext db;
  private final Trees trees;
  private final Map<UUID, Version> loaded =
      new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<UUID, Version> eldest) {
          return size() > KEPT;
        }
      };

  Versions(DSLContext db, Trees trees) {
    this.db = db;
    this.trees = trees;
  }

  /**
   * A frozen version with its items.
   *
   * @param marked items whose texts become something else in each section
   */
  public record Version(UUID id, UUID master, int number, Tree tree, List<Item> marked) {}

  public Version get(UUID id) {
    synchronized (loaded) {
      Version v = loaded.get(id);
      if (v != null) {
        return v;
      }
    }
    var row = db.selectFrom(VERSION).where(VERSION.ID.eq(id)).fetchSingle();
    Tree tree = trees.tree(row.getTreeId());
    Version fresh = new Version(id, row.getMasterId(), row.getNumber(), tree, trees.marked(tree));
    synchronized (loaded) {
      loaded.put(id, fresh);
    }
    return fresh;
  }

  /**
   * What stands before the ranks of each master's items at the top of a shell. It was given when
   * the master was made and never changes, or items would look moved.
   */
  public Map<UUID, String> letters() {
    return db.select(MASTER.ID, MASTER.SHELL_ORDER)
        .from(MASTER)
        .fetchMap(MASTER.ID, MASTER.SHELL_ORDER);
  }
}
