package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.VERSION_LOOKED;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tool.ToolLinks;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.VersionLinkRecord;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;
import tools.jackson.databind.json.JsonMapper;

/** Looks once through each version for what leads to a host. */
@Component
class FindLinks implements Job {
  private static final int BATCH = 500;
  private static final int VERSIONS = 20;
  private final DSLContext db;
  private final Versions versions;
  private final Trees trees;
  private final JsonMapper json;
  private final TransactionTemplate transaction;

  FindLinks(
      DSLContext db,
      Versions versions,
      Trees trees,
      JsonMapper json,
      TransactionTemplate transaction) {
    this.db = db;
    this.versions = versions;
    this.trees = trees;
    this.json = json;
    this.transaction = transaction;
  }

  @Override
  public String name() {
    return "find-links";
  }

  @Override
  public Collection<UUID> strays() {
    return db.fetch(
            "select v.id from version v where not exists (select 1 from version_looked l where"
                + " l.version_id = v.id) limit "
                + VERSIONS)
        .map(r -> r.get(0, UUID.class));
  }

  @Override
  public Outcome run(UUID version) {
    List<Node> nodes = versions.get(version).tree().nodes();
    List<VersionLinkRecord> found = new ArrayList<>();
    for (int from = 0; from < nodes.size(); from += BATCH) {
      List<Node> some = nodes.subList(from, Math.min(nodes.size(), from + BATCH));
      trees.items(some).forEach(i -> found.addAll(links(version, i)));
    }
    transaction.executeWithoutResult(
        t -> {
          // whoever comes second waits here for the first, and finds it done
          int first = db.insertInto(VERSION_LOOKED).values(version).onConflictDoNothing().execute();
          if (first == 1) {
            db.batchInsert(found).execute();
          }
        });
    return Outcome.ENDED;
  }

  /** Whose hosts are tools is known later; so all are kept that lead to any. */
  private List<VersionLinkRecord> links(UUID version, Item i) {
    List<VersionLinkRecord> all = new ArrayList<>();
    for (ToolLinks.Found f : ToolLinks.in(i, host -> !host.isEmpty())) {
      all.add(
          new VersionLinkRecord(
              version,
              i.key().value(),
              all.size(),
              f.stands() == ToolLinks.Stands.SETTING
                  || i.kind() == Kind.TOOL_LINK && f.stands() == ToolLinks.Stands.ITEM,
              f.host(),
              f.link().address(),
              JSONB.valueOf(json.writeValueAsString(f.link().parameters()))));
    }
    return all;
  }
}
