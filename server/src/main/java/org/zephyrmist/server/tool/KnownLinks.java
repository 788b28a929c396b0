package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.VERSION;
import static org.zephyrmist.server.db.Tables.VERSION_LINK;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.BiConsumer;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.server.db.tables.records.VersionLinkRecord;
import org.zephyrmist.server.ledger.HeldVersions;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Links that versions hold. */
@Component
class KnownLinks {
  private static final TypeReference<TreeMap<String, String>> PARAMETERS = new TypeReference<>() {};
  private final DSLContext db;
  private final JsonMapper json;
  private final HeldVersions held;

  KnownLinks(DSLContext db, JsonMapper json, HeldVersions held) {
    this.held = held;
    this.db = db;
    this.json = json;
  }

  /** Any that leads to a host; with no link to it, the host's own page. */
  Link any(String host) {
    return db.selectFrom(VERSION_LINK)
        .where(VERSION_LINK.HOST.eq(host))
        .orderBy(VERSION_LINK.TOOL.desc(), VERSION_LINK.VERSION_ID, VERSION_LINK.ITEM_KEY)
        .limit(1)
        .fetchOptional(this::link)
        .orElseGet(() -> new Link("https://" + host + "/", new TreeMap<>()));
  }

  /** A link of a version, and of which master. */
  record Linked(boolean tool, String host, Link link, String master) {}

  /** What is done with a link that a section holds. */
  interface Each {
    void link(UUID section, Linked l, HeldVersions.In in);
  }

  /**
   * Goes through the links of the versions that sections hold.
   *
   * @param which rows of {@code version_link}
   */
  void ofSections(UUID[] sections, Condition which, Each each) {
    ByItem links = byItem(which);
    for (HeldVersions.Held h : held.of(sections, links.items())) {
      for (Linked l : links.of(h.version(), h.item())) {
        h.in().forEach((section, in) -> each.link(section, l, in));
      }
    }
  }

  /** The same for all of them, where it is no matter since when they are there. */
  void ofSections(UUID[] sections, BiConsumer<UUID, Linked> each) {
    ByItem links = byItem(DSL.noCondition());
    for (HeldVersions.HeldIn h : held.sections(sections, links.items())) {
      for (Linked l : links.of(h.version(), h.item())) {
        for (UUID section : h.in()) {
          each.accept(section, l);
        }
      }
    }
  }

  private record ByItem(Set<String> items, Map<String, List<Linked>> links) {
    List<Linked> of(UUID version, String item) {
      return links.getOrDefault(version + item, List.of());
    }
  }

  private ByItem byItem(Condition which) {
    Map<String, List<Linked>> byItem = new HashMap<>();
    Set<String> items = new HashSet<>();
    db.select(VERSION_LINK.fields())
        .select(VERSION.MASTER_ID)
        .from(VERSION_LINK)
        .join(VERSION)
        .on(VERSION.ID.eq(VERSION_LINK.VERSION_ID))
        .where(which)
        .forEach(
            r -> {
              VersionLinkRecord l = r.into(VERSION_LINK);
              items.add(l.getItemKey());
              byItem
                  .computeIfAbsent(l.getVersionId() + l.getItemKey(), k -> new ArrayList<>())
                  .add(linked(l, r.get(VERSION.MASTER_ID).toString()));
            });
    return new ByItem(items, byItem);
  }

  /** Links of one version. */
  List<Linked> of(Condition which, String master) {
    return db.selectFrom(VERSION_LINK).where(which).fetch(l -> linked(l, master));
  }

  /** A row as a link of a master. */
  Linked linked(VersionLinkRecord l, String master) {
    return new Linked(l.getTool(), l.getHost(), link(l), master);
  }

  private Link link(VersionLinkRecord l) {
    return new Link(l.getAddress(), json.readValue(l.getParameters().data(), PARAMETERS));
  }
}
