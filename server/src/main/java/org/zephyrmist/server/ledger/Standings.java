package org.zephyrmist.server.ledger;

import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.name;
import static org.jooq.impl.DSL.table;
import static org.jooq.impl.DSL.val;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.STANDING;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.nio.ByteBuffer;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;

/**
 * What the ledger says of all sections of a term. The database packs the standings of a section
 * into one value, so that 80,000 come with the rows of their sections and nothing is made of each
 * on the way.
 */
@Component
public class Standings {
  private final DSLContext db;

  Standings(DSLContext db) {
    this.db = db;
  }

  /** What the sections hold of a master, by their places; number 0 where it never arrived. */
  public record Column(int[] number, int[] expected, int[] held, int[] changed) {
    static Column of(int sections) {
      return new Column(new int[sections], new int[sections], new int[sections], new int[sections]);
    }
  }

  /** What is held by the sections of a term, by master. */
  public record Term(int sections, Map<UUID, Column> columns) {
    /** Of one master, by the places of the sections. */
    public Column of(UUID master) {
      return columns.getOrDefault(master, Column.of(sections));
    }
  }

  private static final Field<byte[]> PACKED = field(name("packed", "standings"), byte[].class);

  /** The standings of each section of a term, to be joined with the sections. */
  public record Packed(Table<?> table, Condition on, Field<byte[]> field) {}

  public Packed packed(UUID term) {
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
  public record Held(UUID master, int number) {}

  /**
   * @param packed the standings of each section, in the order of their places; null where it holds
   *     nothing
   */
  public Term of(List<byte[]> packed, Map<UUID, Held> versions) {
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
    return new Term(packed.size(), columns);
  }

  /** How many sections hold each version. */
  public Map<UUID, Integer> sectionsByVersion() {
    return db.select(STANDING.VERSION_ID, count())
        .from(STANDING)
        .groupBy(STANDING.VERSION_ID)
        .fetchMap(STANDING.VERSION_ID, count());
  }

  /**
   * How sections stand towards a master.
   *
   * @param versions how many hold each version; 0: it never arrived
   * @param partial of these, how many lack items of their version
   * @param newest number of the newest version, 0 if there is none
   */
  public record Stand(Map<Integer, Integer> versions, int partial, int newest) {}

  public Stand stand(UUID master, List<UUID> sections) {
    Map<Integer, Integer> versions = new HashMap<>();
    int[] partial = {0};
    int[] known = {0};
    db.select(VERSION.NUMBER, STANDING.EXPECTED, STANDING.HELD)
        .from(STANDING)
        .join(VERSION)
        .on(VERSION.ID.eq(STANDING.VERSION_ID))
        .where(STANDING.MASTER_ID.eq(master))
        .and(STANDING.SECTION_ID.in(sections))
        .forEach(
            r -> {
              versions.merge(r.value1(), 1, Integer::sum);
              partial[0] += r.value3() < r.value2() ? 1 : 0;
              known[0]++;
            });
    if (sections.size() > known[0]) {
      versions.put(0, sections.size() - known[0]);
    }
    Integer newest =
        db.select(org.jooq.impl.DSL.max(VERSION.NUMBER))
            .from(VERSION)
            .where(VERSION.MASTER_ID.eq(master))
            .fetchSingle()
            .value1();
    return new Stand(versions, partial[0], newest == null ? 0 : newest);
  }

  /** A section that has something of a master. */
  public record Holder(String section, String term, int version) {}

  /**
   * Who holds a master in terms that end on a day or later, the last term first.
   *
   * @param sections on rows of {@code section}
   */
  public List<Holder> holders(UUID master, LocalDate day, Condition sections) {
    return db.select(SECTION.CODE, TERM.TITLE, VERSION.NUMBER)
        .from(STANDING)
        .join(SECTION)
        .on(SECTION.ID.eq(STANDING.SECTION_ID))
        .join(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(STANDING.VERSION_ID))
        .where(STANDING.MASTER_ID.eq(master))
        .and(TERM.LAST_DAY.ge(day))
        .and(sections)
        .orderBy(TERM.FIRST_DAY.desc(), SECTION.CODE)
        .fetch(r -> new Holder(r.value1(), r.value2(), r.value3()));
  }

  /** Of these sections those to which anything of a master was delivered. */
  public List<UUID> holding(UUID master, Collection<UUID> sections) {
    return db.select(STANDING.SECTION_ID)
        .from(STANDING)
        .where(STANDING.MASTER_ID.eq(master))
        .and(STANDING.SECTION_ID.eq(any(sections.toArray(new UUID[0]))))
        .fetch(STANDING.SECTION_ID);
  }

  /** Sections that hold a version of the master before this one. */
  public List<UUID> behind(UUID master, int number) {
    return db.select(STANDING.SECTION_ID)
        .from(STANDING)
        .join(VERSION)
        .on(VERSION.ID.eq(STANDING.VERSION_ID))
        .where(VERSION.MASTER_ID.eq(master))
        .and(VERSION.NUMBER.lt(number))
        .fetch(STANDING.SECTION_ID);
  }

  /**
   * How an item is used.
   *
   * @param masters of which sections hold it
   * @param changed of these sections, how many changed it; gone: how many took it out
   */
  public record Use(int masters, int sections, int changed, int gone) {
    public static final Use NONE = new Use(0, 0, 0, 0);
  }

  /** How items are used, by their keys; those that nobody holds are left out. */
  public Map<String, Use> uses(List<String> keys) {
    Map<String, Use> all = new HashMap<>();
    db.fetch(
            "select item_key, count(distinct master_id)::int, count(*)::int, count(*) filter (where"
                + " here is not null and here <> shown)::int, count(*) filter (where here is"
                + " null)::int from holding where item_key = any(?) group by item_key",
            (Object) keys.toArray(String[]::new))
        .forEach(
            r ->
                all.put(
                    r.get(0, String.class),
                    new Use(
                        r.get(1, Integer.class),
                        r.get(2, Integer.class),
                        r.get(3, Integer.class),
                        r.get(4, Integer.class))));
    return all;
  }

  /** Which version of which master sections hold, by section and master. */
  public Map<UUID, Map<UUID, UUID>> versions(Collection<UUID> sections) {
    Map<UUID, Map<UUID, UUID>> all = new HashMap<>();
    db.select(STANDING.SECTION_ID, STANDING.MASTER_ID, STANDING.VERSION_ID)
        .from(STANDING)
        .where(STANDING.SECTION_ID.eq(DSL.any(sections.toArray(UUID[]::new))))
        .forEach(
            r -> all.computeIfAbsent(r.value1(), k -> new HashMap<>()).put(r.value2(), r.value3()));
    return all;
  }
}
