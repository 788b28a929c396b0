package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;
import static org.zephyrmist.server.db.Tables.VERSION;
import static org.zephyrmist.server.db.Tables.VERSION_LINK;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.server.ledger.HeldVersions;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/** Each tool link of one section, as it was delivered. */
@Component
class LinksOfSection {
  private final DSLContext db;
  private final HeldVersions held;
  private final KnownLinks links;
  private final Relinking relinking;

  LinksOfSection(DSLContext db, HeldVersions held, KnownLinks links, Relinking relinking) {
    this.db = db;
    this.held = held;
    this.links = links;
    this.relinking = relinking;
  }

  /**
   * A link.
   *
   * @param item what the platform calls it
   * @param at where it is found in the shell; none where the platform has no addresses
   */
  record SectionLink(String item, String title, Link link, Optional<String> at) {}

  private record Row(String title, KnownLinks.Linked linked) {}

  /** Those that lead to a host, in the order of their titles. */
  List<SectionLink> of(ToolSection s, String host) {
    Map<String, Row> rows = new HashMap<>();
    Set<String> items = new HashSet<>();
    db.select(VERSION_LINK.fields())
        .select(VERSION.MASTER_ID, TREE_ITEM.TITLE)
        .from(VERSION_LINK)
        .join(VERSION)
        .on(VERSION.ID.eq(VERSION_LINK.VERSION_ID))
        .join(TREE_ITEM)
        .on(TREE_ITEM.TREE_ID.eq(VERSION.TREE_ID))
        .and(TREE_ITEM.ITEM_KEY.eq(VERSION_LINK.ITEM_KEY))
        .where(VERSION_LINK.TOOL)
        .and(VERSION_LINK.VERSION_ID.in(held.in(s.id())))
        .forEach(
            r -> {
              var l = r.into(VERSION_LINK);
              items.add(l.getItemKey());
              rows.put(
                  l.getVersionId() + l.getItemKey(),
                  new Row(
                      r.get(TREE_ITEM.TITLE),
                      links.linked(l, r.get(VERSION.MASTER_ID).toString())));
            });
    Relinking.Dated rules = relinking.dated();
    Optional<String> platform = platform(s);
    List<SectionLink> all = new ArrayList<>();
    for (HeldVersions.Held h : held.of(new UUID[] {s.id()}, items)) {
      Row row = rows.get(h.version() + h.item());
      HeldVersions.In in = h.in().get(s.id());
      if (row == null) {
        continue;
      }
      Link now = rules.at(in.at(), row.linked().link(), row.linked().master(), s.place());
      if (Frames.host(now.address()).equals(host)) {
        Optional<String> at =
            platform.flatMap(p -> s.shell().flatMap(x -> Platforms.item(p, x, in.platformItem())));
        all.add(new SectionLink(in.platformItem(), row.title(), now, at));
      }
    }
    all.sort(Comparator.comparing(SectionLink::title));
    return all;
  }

  private Optional<String> platform(ToolSection s) {
    return s.platform()
        .flatMap(
            p ->
                db.select(PLATFORM.ADDRESS)
                    .from(PLATFORM)
                    .where(PLATFORM.ID.eq(p))
                    .fetchOptional(PLATFORM.ADDRESS));
  }
}
