package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;
import static org.zephyrmist.server.db.Tables.VERSION_LINK;
import static org.zephyrmist.server.db.Tables.VERSION_LOOKED;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.ToolSections.ToolSection;
import org.zephyrmist.server.web.Refusal;

/** What of a delivery's tool links will work when it arrives, and what they wait for. */
@Component
class ToolsOnArrival {
  private final DSLContext db;
  private final Reach reach;
  private final ToolSections sections;
  private final ToolHosts hosts;
  private final KnownLinks links;
  private final Relinking relinking;
  private final Clock clock;

  ToolsOnArrival(
      DSLContext db,
      Reach reach,
      ToolSections sections,
      ToolHosts hosts,
      KnownLinks links,
      Relinking relinking,
      Clock clock) {
    this.db = db;
    this.reach = reach;
    this.sections = sections;
    this.hosts = hosts;
    this.links = links;
    this.relinking = relinking;
    this.clock = clock;
  }

  /**
   * Of the sections of a delivery that are within reach.
   *
   * @param looked whether the version was looked through for links yet
   */
  record Arriving(boolean looked, ToolHosts.Picture picture) {}

  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public Arriving of(UUID delivery, SignedIn who) {
    List<ToolSection> at =
        sections.where(
            SECTION
                .ID
                .in(
                    DSL.select(DELIVERY_LINE.SECTION_ID)
                        .from(DELIVERY_LINE)
                        .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery)))
                .and(reach.sections(who)));
    if (at.isEmpty()) {
      throw Refusal.notFound("delivery");
    }
    var version =
        db.select(DELIVERY.VERSION_ID, VERSION.MASTER_ID)
            .from(DELIVERY)
            .join(VERSION)
            .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
            .where(DELIVERY.ID.eq(delivery))
            .fetchSingle();
    boolean looked = db.fetchExists(VERSION_LOOKED, VERSION_LOOKED.VERSION_ID.eq(version.value1()));
    return new Arriving(
        looked, hosts.of(at, counts(version.value1(), version.value2().toString(), at)));
  }

  /** Tool links by section and host, as the rules of now write them. */
  private Map<UUID, Map<String, Integer>> counts(
      UUID version, String master, List<ToolSection> at) {
    List<KnownLinks.Linked> all =
        links.of(VERSION_LINK.VERSION_ID.eq(version).and(VERSION_LINK.TOOL.isTrue()), master);
    Relinking.Dated rules = relinking.dated();
    OffsetDateTime now = OffsetDateTime.now(clock);
    Map<UUID, Map<String, Integer>> counts = new HashMap<>();
    for (ToolSection s : at) {
      Map<String, Integer> mine = counts.computeIfAbsent(s.id(), x -> new TreeMap<>());
      for (KnownLinks.Linked l : all) {
        mine.merge(LinksOfSections.host(l, now, s.place(), rules), 1, Integer::sum);
      }
    }
    return counts;
  }
}
