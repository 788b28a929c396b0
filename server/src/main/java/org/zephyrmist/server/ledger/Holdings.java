package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.HOLDING;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.exception.DataAccessException;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.server.db.tables.records.HoldingRecord;

/** What many sections hold, read at once. */
@Component
public class Holdings {
  private final DSLContext db;

  Holdings(DSLContext db) {
    this.db = db;
  }

  /** A holding as it comes from its row. */
  private record Row(
      UUID section,
      UUID master,
      String key,
      String kind,
      String title,
      String platformItem,
      byte[] sent,
      byte[] shown,
      int accepted,
      byte[] here) {
    Holding holding() {
      return Holdings.holding(
          master,
          new ItemKey(key),
          Kind.valueOf(kind),
          title,
          platformItem,
          sent,
          shown,
          accepted,
          here);
    }
  }

  /**
   * Every holding of many sections, by section. There are hundreds of thousands, so rows are read
   * as they come, without a record of all columns, and taken apart side by side.
   */
  public Map<UUID, List<Holding>> of(Collection<UUID> sections) {
    Map<UUID, List<Row>> rows = new HashMap<>();
    try (ResultSet r =
        db.select(
                HOLDING.SECTION_ID,
                HOLDING.MASTER_ID,
                HOLDING.ITEM_KEY,
                HOLDING.ITEM_KIND,
                HOLDING.TITLE,
                HOLDING.PLATFORM_ITEM,
                HOLDING.SENT,
                HOLDING.SHOWN,
                HOLDING.ACCEPTED,
                HOLDING.HERE)
            .from(HOLDING)
            .where(HOLDING.SECTION_ID.eq(DSL.any(sections.toArray(UUID[]::new))))
            .fetchResultSet()) {
      while (r.next()) {
        Row row =
            new Row(
                r.getObject(1, UUID.class),
                r.getObject(2, UUID.class),
                r.getString(3),
                r.getString(4),
                r.getString(5),
                r.getString(6),
                r.getBytes(7),
                r.getBytes(8),
                r.getInt(9),
                r.getBytes(10));
        rows.computeIfAbsent(row.section(), k -> new ArrayList<>()).add(row);
      }
    } catch (SQLException e) {
      throw new DataAccessException("Holdings of " + sections.size() + " sections", e);
    }
    return rows.entrySet().parallelStream()
        .collect(
            Collectors.toMap(
                Map.Entry::getKey,
                of ->
                    of.getValue().stream()
                        .map(Row::holding)
                        .collect(Collectors.toCollection(ArrayList::new))));
  }

  static Holding holding(HoldingRecord h) {
    return holding(
        h.getMasterId(),
        new ItemKey(h.getItemKey()),
        h.getItemKind(),
        h.getTitle(),
        h.getPlatformItem(),
        h.getSent(),
        h.getShown(),
        h.getAccepted(),
        h.getHere());
  }

  private static Holding holding(
      UUID master,
      ItemKey key,
      Kind kind,
      String title,
      String platformItem,
      byte[] sent,
      byte[] packed,
      int accepted,
      byte[] here) {
    Fingerprints shown = Fingerprints.unpack(packed);
    return new Holding(
        master,
        new Base(
            key,
            kind,
            title,
            platformItem,
            sameOr(sent, packed, shown),
            shown,
            Aspect.set(accepted)),
        Optional.ofNullable(here).map(x -> sameOr(x, packed, shown)));
  }

  /** Most are equal, and are not made twice. */
  private static Fingerprints sameOr(byte[] packed, byte[] known, Fingerprints same) {
    return Arrays.equals(packed, known) ? same : Fingerprints.unpack(packed);
  }
}
