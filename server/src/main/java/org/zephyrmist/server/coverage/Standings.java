package org.zephyrmist.server.coverage;

import static org.jooq.impl.DSL.arrayAgg;
import static org.jooq.impl.DSL.arrayAggDistinct;
import static org.jooq.impl.DSL.name;
import static org.jooq.impl.DSL.orderBy;
import static org.jooq.impl.DSL.rowNumber;
import static org.jooq.impl.DSL.select;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.STANDING;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.IntStream;
import org.jooq.CommonTableExpression;
import org.jooq.DSLContext;
import org.jooq.OrderField;
import org.jooq.Record2;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.coverage.CoverageApi.CoverageStandings;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;

/**
 * What the ledger says of all sections of a term. The database counts the sections and gathers the
 * columns of a master, so that a term of 80,000 standings comes as one row for each master.
 */
@Component
class Standings {
  static final List<? extends OrderField<?>> ORDER = List.of(COURSE.CODE, SECTION.CODE, SECTION.ID);

  private final DSLContext db;
  private final Reach reach;

  Standings(DSLContext db, Reach reach) {
    this.db = db;
    this.reach = reach;
  }

  /** The sections that hold a master, by their places in {@link #ORDER}, and what they hold. */
  private record Column(
      Integer[] section, Integer[] number, Integer[] expected, Integer[] held, Integer[] changed) {}

  private static final Integer[] NONE = {};
  private static final Column EMPTY = new Column(NONE, NONE, NONE, NONE, NONE);

  /** What is held and where deliveries wait for a person, by master. */
  record Ledger(Map<UUID, Column> columns, Map<UUID, Integer[]> waiting) {
    /**
     * All that is to be said of a master: with the sections that never received it though they
     * should, or whose first delivery waits.
     *
     * @param courses course of each section
     * @param expecting courses whose sections should hold it, with null for every section
     */
    CoverageStandings of(UUID master, List<UUID> courses, Set<UUID> expecting) {
      Column c = columns.getOrDefault(master, EMPTY);
      int[] row = new int[courses.size()];
      Arrays.fill(row, -1);
      for (int i = 0; i < c.section.length; i++) {
        row[c.section[i]] = i;
      }
      boolean[] listed = new boolean[row.length];
      boolean every = expecting.stream().anyMatch(Objects::isNull);
      for (int s = 0; s < row.length; s++) {
        listed[s] = row[s] >= 0 || every || expecting.contains(courses.get(s));
      }
      Integer[] waits = waiting.getOrDefault(master, NONE);
      for (int s : waits) {
        listed[s] = true;
      }
      int[] at = IntStream.range(0, row.length).filter(s -> listed[s]).toArray();
      return new CoverageStandings(
          at,
          values(at, row, c.number),
          values(at, row, c.expected),
          values(at, row, c.held),
          values(at, row, c.changed),
          Arrays.stream(waits).mapToInt(i -> i).sorted().toArray());
    }

    private static int[] values(int[] at, int[] row, Integer[] column) {
      return Arrays.stream(at).map(s -> row[s] < 0 ? 0 : column[row[s]]).toArray();
    }
  }

  /** To be called in the transaction that lists the sections. */
  Ledger of(UUID term, SignedIn who) {
    CommonTableExpression<Record2<UUID, Integer>> place =
        name("place")
            .fields("id", "at")
            .as(
                select(SECTION.ID, rowNumber().over(orderBy(ORDER)).minus(1))
                    .from(SECTION)
                    .join(COURSE)
                    .on(COURSE.ID.eq(SECTION.COURSE_ID))
                    .where(SECTION.TERM_ID.eq(term))
                    .and(reach.sections(who)));
    var id = place.field("id", UUID.class);
    var at = place.field("at", Integer.class);
    Map<UUID, Column> columns = new HashMap<>();
    db.with(place)
        .select(
            STANDING.MASTER_ID,
            arrayAgg(at),
            arrayAgg(VERSION.NUMBER),
            arrayAgg(STANDING.EXPECTED),
            arrayAgg(STANDING.HELD),
            arrayAgg(STANDING.CHANGED))
        .from(STANDING)
        .join(place)
        .on(id.eq(STANDING.SECTION_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(STANDING.VERSION_ID))
        .groupBy(STANDING.MASTER_ID)
        .forEach(
            r ->
                columns.put(
                    r.value1(),
                    new Column(r.value2(), r.value3(), r.value4(), r.value5(), r.value6())));
    Map<UUID, Integer[]> waiting =
        db.with(place)
            .select(VERSION.MASTER_ID, arrayAggDistinct(at))
            .from(DELIVERY_LINE)
            .join(DELIVERY)
            .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
            .join(VERSION)
            .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
            .join(place)
            .on(id.eq(DELIVERY_LINE.SECTION_ID))
            .where(DELIVERY_LINE.STATE.eq("NEEDS_PERSON"))
            .and(DELIVERY.CONFIRMED_AT.isNotNull())
            .groupBy(VERSION.MASTER_ID)
            .fetchMap(r -> r.value1(), r -> r.value2());
    return new Ledger(columns, waiting);
  }
}
