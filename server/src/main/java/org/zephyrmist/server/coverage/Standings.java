package org.zephyrmist.server.coverage;

import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.inline;
import static org.jooq.impl.DSL.name;
import static org.jooq.impl.DSL.selectOne;
import static org.jooq.impl.DSL.table;
import static org.jooq.impl.DSL.val;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.nio.ByteBuffer;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.IntStream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.coverage.CoverageApi.CoverageStandings;

/**
 * What the ledger says of all sections of a term. The database packs the standings of a section
 * into one value, so that 80,000 come with the rows of their sections and nothing is made of each
 * on the way.
 */
@Component
class Standings {
  private final DSLContext db;

  Standings(DSLContext db) {
    this.db = db;
  }

  /** What the sections hold of a master, by their places; number 0 where it never arrived. */
  private record Column(int[] number, int[] expected, int[] held, int[] changed) {
    static Column of(int sections) {
      return new Column(new int[sections], new int[sections], new int[sections], new int[sections]);
    }
  }

  /** What is held and where deliveries wait for a person, by master. */
  record Ledger(int sections, Map<UUID, Column> columns, Map<UUID, boolean[]> waiting) {
    /**
     * All that is to be said of a master: with the sections that never received it though they
     * should, or whose first delivery waits.
     *
     * @param courses course of each section
     * @param expecting courses whose sections should hold it, with null for every section
     */
    CoverageStandings of(UUID master, List<UUID> courses, Set<UUID> expecting) {
      Column c = columns.getOrDefault(master, Column.of(sections));
      boolean[] waits = waiting.getOrDefault(master, new boolean[sections]);
      boolean every = expecting.stream().anyMatch(Objects::isNull);
      int[] at =
          IntStream.range(0, sections)
              .filter(
                  s -> c.number[s] > 0 || waits[s] || every || expecting.contains(courses.get(s)))
              .toArray();
      return new CoverageStandings(
          at,
          values(at, c.number),
          values(at, c.expected),
          values(at, c.held),
          values(at, c.changed),
          IntStream.of(at).filter(s -> waits[s]).toArray());
    }

    private static int[] values(int[] at, int[] column) {
      return IntStream.of(at).map(s -> column[s]).toArray();
    }
  }

  private static final Field<byte[]> PACKED = field(name("packed", "standings"), byte[].class);

  /** The standings of each section of a term, to be joined with the sections. */
  record Packed(Table<?> table, Condition on, Field<byte[]> field) {}

  Packed packed(UUID term) {
    Table<?> table =
        table(
                "(select t.section_id, string_agg(uuid_send(t.version_id) || int4send(t.expected)"
                    + " || int4send(t.held) || int4send(t.changed), ''::bytea) as standings"
                    + " from standing t join section s on s.id = t.section_id"
                    + " where s.term_id = {0} group by t.section_id)",
                val(term))
            .as("packed");
    return new Packed(
        table, SECTION.ID.eq(field(name("packed", "section_id"), UUID.class)), PACKED);
  }

  /** A version as the ledger names it. */
  record Held(UUID master, int number) {}

  /**
   * @param place of each section that is looked at, from 0
   * @param packed the standings of each, in the order of their places; null where it holds nothing
   */
  Ledger of(UUID term, Map<UUID, Integer> place, List<byte[]> packed, Map<UUID, Held> versions) {
    Map<UUID, Column> columns = new HashMap<>();
    for (int s = 0; s < packed.size(); s++) {
      if (packed.get(s) == null) {
        continue;
      }
      ByteBuffer b = ByteBuffer.wrap(packed.get(s));
      while (b.hasRemaining()) {
        Held version = versions.get(new UUID(b.getLong(), b.getLong()));
        Column c = columns.computeIfAbsent(version.master, m -> Column.of(packed.size()));
        c.number[s] = version.number;
        c.expected[s] = b.getInt();
        c.held[s] = b.getInt();
        c.changed[s] = b.getInt();
      }
    }
    return new Ledger(packed.size(), columns, waiting(term, place));
  }

  /** Where the last confirmed delivery of a master waits for a person; what came later counts. */
  private Map<UUID, boolean[]> waiting(UUID term, Map<UUID, Integer> place) {
    var laterLine = DELIVERY_LINE.as("later_line");
    var later = DELIVERY.as("later");
    var laterVersion = VERSION.as("later_version");
    Map<UUID, boolean[]> waiting = new HashMap<>();
    db.select(VERSION.MASTER_ID, DELIVERY_LINE.SECTION_ID)
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .where(DELIVERY_LINE.STATE.eq(inline("NEEDS_PERSON")))
        .and(SECTION.TERM_ID.eq(term))
        .and(DELIVERY.CONFIRMED_AT.isNotNull())
        .andNotExists(
            selectOne()
                .from(laterLine)
                .join(later)
                .on(later.ID.eq(laterLine.DELIVERY_ID))
                .join(laterVersion)
                .on(laterVersion.ID.eq(later.VERSION_ID))
                .where(laterLine.SECTION_ID.eq(DELIVERY_LINE.SECTION_ID))
                .and(laterVersion.MASTER_ID.eq(VERSION.MASTER_ID))
                .and(later.CONFIRMED_AT.gt(DELIVERY.CONFIRMED_AT)))
        .forEach(
            r -> {
              Integer s = place.get(r.value2());
              if (s != null) {
                waiting.computeIfAbsent(r.value1(), m -> new boolean[place.size()])[s] = true;
              }
            });
    return waiting;
  }
}
