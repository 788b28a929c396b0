package org.zephyrmist.server.ledger;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Forecast;

/**
 * What many sections hold of one master, those that hold the same together; in one query, and
 * remembered until one of them is read or delivered to again.
 */
@Component
public class Alike {
  private static final int MOST_GROUPS = 200_000;
  private final DSLContext db;
  private final Cache<Asked, List<Group>> known =
      Caffeine.newBuilder()
          .expireAfterAccess(Duration.ofMinutes(10))
          .maximumWeight(MOST_GROUPS)
          .weigher((Asked a, List<Group> groups) -> groups.size() + 1)
          .build();

  /**
   * @param state of the ledger's view of the sections
   */
  private record Asked(
      List<UUID> sections, UUID master, Set<ItemKey> ofWhichVersion, String state) {}

  Alike(DSLContext db) {
    this.db = db;
  }

  /**
   * Sections that hold the same of an item.
   *
   * @param version they got it from, of items that were asked about
   */
  public record Group(Forecast.Holds holds, Optional<UUID> version) {}

  /**
   * @param sections by their places
   * @param ofWhichVersion keys of items of which it is told from which version they came
   */
  public List<Group> of(List<UUID> sections, UUID master, Set<ItemKey> ofWhichVersion) {
    String state =
        db.fetchSingle(
                "select count(*) || ' ' || coalesce(max(read_at)::text, '') || ' ' ||"
                    + " coalesce(sum(held + changed), 0) from standing where master_id = ? and"
                    + " section_id = any(?)",
                master,
                sections.toArray(UUID[]::new))
            .get(0, String.class);
    return known.get(
        new Asked(sections, master, ofWhichVersion, state),
        a -> read(sections, master, ofWhichVersion));
  }

  private List<Group> read(List<UUID> sections, UUID master, Set<ItemKey> ofWhichVersion) {
    List<Group> groups = new ArrayList<>();
    db.fetch(
            "select h.item_key, h.item_kind, h.title, h.sent, h.shown, h.here, h.accepted, r.version_id,"
                + " array_agg(s.n::int - 1) as places from unnest(?::uuid[]) with ordinality s(id, n)"
                + " join holding h on h.section_id = s.id and h.master_id = ?"
                + " left join receipt r on r.id = h.receipt_id and h.item_key = any(?)"
                + " group by 1, 2, 3, 4, 5, 6, 7, 8",
            sections.toArray(UUID[]::new),
            master,
            ofWhichVersion.stream().map(ItemKey::value).toArray(String[]::new))
        .forEach(r -> groups.add(group(r)));
    return groups;
  }

  private static Group group(Record r) {
    Fingerprints shown = Fingerprints.unpack(r.get("shown", byte[].class));
    Base base =
        new Base(
            new ItemKey(r.get("item_key", String.class)),
            Kind.valueOf(r.get("item_kind", String.class)),
            r.get("title", String.class),
            "there",
            Fingerprints.unpack(r.get("sent", byte[].class)),
            shown,
            Aspect.set(r.get("accepted", Integer.class)));
    BitSet places = new BitSet();
    for (Integer n : r.get("places", Integer[].class)) {
      places.set(n);
    }
    return new Group(
        new Forecast.Holds(
            base,
            Optional.ofNullable(r.get("here", byte[].class)).map(Fingerprints::unpack),
            places),
        Optional.ofNullable(r.get("version_id", UUID.class)));
  }
}
