package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION_LEARNT;
import static org.zephyrmist.server.db.Tables.TOOL_LOOK;
import static org.zephyrmist.server.db.Tables.VERSION_LINK;

import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.tool.SectionPlace;
import org.zephyrmist.core.tool.Seen;
import org.zephyrmist.server.db.tables.records.SectionToolRecord;

/** How many links lead to which host in which section. */
@Component
class LinksOfSections {
  private final DSLContext db;
  private final KnownLinks links;
  private final Relinking relinking;

  LinksOfSections(DSLContext db, KnownLinks links, Relinking relinking) {
    this.db = db;
    this.links = links;
    this.relinking = relinking;
  }

  /** Sections whose platform has told since the ledger last learnt of them. */
  Set<UUID> looked(UUID[] ids) {
    return db.select(TOOL_LOOK.SECTION_ID)
        .from(TOOL_LOOK)
        .where(TOOL_LOOK.SECTION_ID.eq(DSL.any(ids)))
        .andNotExists(
            DSL.selectOne()
                .from(SECTION_LEARNT)
                .where(SECTION_LEARNT.SECTION_ID.eq(TOOL_LOOK.SECTION_ID))
                .and(SECTION_LEARNT.AT.gt(TOOL_LOOK.LOOKED_AT)))
        .and(TOOL_LOOK.LOOKED_AT.isNotNull())
        .fetchSet(TOOL_LOOK.SECTION_ID);
  }

  /**
   * Links by section and host: those of tool links as the platform tells, or as versions that the
   * section holds say where it does not; those within texts always as the versions say.
   */
  Map<UUID, Map<String, Integer>> of(
      UUID[] ids,
      Map<UUID, SectionPlace> places,
      Collection<KnownConnection> known,
      Map<UUID, Map<String, SectionToolRecord>> seen,
      Set<UUID> looked) {
    Set<String> hosts = new HashSet<>();
    known.forEach(c -> hosts.addAll(c.connection().hosts()));
    seen.values().forEach(s -> hosts.addAll(s.keySet()));
    db.fetch("select distinct host from version_link where tool")
        .forEach(r -> hosts.add(r.get(0, String.class)));
    Map<UUID, Map<String, Integer>> all = new HashMap<>();
    seen.forEach(
        (s, byHost) ->
            byHost.forEach(
                (h, r) -> {
                  if (looked.contains(s) && (r.getLinks() > 0 || r.getData() != Seen.Data.NONE)) {
                    add(all, s, h, r.getLinks());
                  }
                }));
    ofVersions(ids, places, hosts, looked, all);
    return all;
  }

  private void ofVersions(
      UUID[] ids,
      Map<UUID, SectionPlace> places,
      Set<String> hosts,
      Set<UUID> looked,
      Map<UUID, Map<String, Integer>> all) {
    Relinking.Dated rules = relinking.dated();
    links.ofSections(
        ids,
        toldByVersions(hosts, looked.size() < ids.length),
        (s, l, in) -> {
          if (!l.tool() || !looked.contains(s)) {
            add(all, s, host(l, in.at(), places.get(s), rules), 1);
          }
        });
  }

  /**
   * Links that only versions tell of: those within texts, and tool links where a platform has not
   * told.
   */
  private static Condition toldByVersions(Set<String> hosts, boolean toolLinksToo) {
    Condition texts = VERSION_LINK.TOOL.isFalse().and(VERSION_LINK.HOST.in(hosts));
    return toolLinksToo ? texts.or(VERSION_LINK.TOOL.isTrue()) : texts;
  }

  /** Where a link leads that was delivered then. */
  static String host(
      KnownLinks.Linked l, OffsetDateTime delivered, SectionPlace place, Relinking.Dated rules) {
    return rules.about(l.host())
        ? Frames.host(rules.at(delivered, l.link(), l.master(), place).address())
        : l.host();
  }

  private static void add(Map<UUID, Map<String, Integer>> all, UUID s, String host, int n) {
    all.computeIfAbsent(s, x -> new TreeMap<>()).merge(host, n, Integer::sum);
  }
}
