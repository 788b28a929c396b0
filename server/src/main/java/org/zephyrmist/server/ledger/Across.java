package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.HOLDING;
import static org.zephyrmist.server.db.Tables.RECEIPT;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.STANDING;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.db.tables.records.AcceptanceRecord;
import org.zephyrmist.server.db.tables.records.HoldingRecord;

/** What sections made of what they were given: of one item, and of all items of a master. */
@Component
public class Across {
  private final DSLContext db;
  private final Clock clock;

  Across(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /**
   * An item in a section.
   *
   * @param version it came from last
   * @param by who changed it, and when, if the platform told
   */
  public record InSection(
      Holding holding, UUID version, Optional<String> by, Optional<String> changedAt) {}

  /** One item of a master, by the sections that were given it. */
  public Map<UUID, InSection> item(UUID master, ItemKey key, Condition sections) {
    Map<UUID, InSection> all = new HashMap<>();
    db.select(HOLDING.fields())
        .select(RECEIPT.VERSION_ID)
        .from(HOLDING)
        .join(RECEIPT)
        .on(RECEIPT.ID.eq(HOLDING.RECEIPT_ID))
        .join(SECTION)
        .on(SECTION.ID.eq(HOLDING.SECTION_ID))
        .where(HOLDING.MASTER_ID.eq(master))
        .and(HOLDING.ITEM_KEY.eq(key.value()))
        .and(sections)
        .forEach(
            r ->
                all.put(
                    r.get(HOLDING.SECTION_ID),
                    new InSection(
                        Holdings.holding(r.into(HOLDING)),
                        r.get(RECEIPT.VERSION_ID),
                        Optional.ofNullable(r.get(HOLDING.CHANGED_BY)),
                        Optional.ofNullable(r.get(HOLDING.CHANGED_AT)))));
    return all;
  }

  /** Whether a section ever received something of a master; to be asked of the sections. */
  public Condition received(UUID master) {
    return DSL.exists(
        DSL.selectOne()
            .from(STANDING)
            .where(STANDING.SECTION_ID.eq(SECTION.ID))
            .and(STANDING.MASTER_ID.eq(master)));
  }

  /**
   * How an item drifted.
   *
   * @param changed sections that changed it, by aspect
   * @param sections that changed it in any
   * @param gone sections that took it out
   */
  public record Drift(
      ItemKey key, Kind kind, String title, Map<Aspect, Integer> changed, int sections, int gone) {}

  /** What sections changed of a master, the most changed first. */
  public List<Drift> drift(UUID master, Collection<UUID> sections) {
    StringBuilder byAspect = new StringBuilder();
    for (Aspect a : Aspect.values()) {
      int from = a.ordinal() * 32 + 1;
      byAspect
          .append("count(*) filter (where substring(here from ")
          .append(from)
          .append(" for 32) <> substring(shown from ")
          .append(from)
          .append(" for 32))::int, ");
    }
    return db.fetch(
            "select item_key, min(item_kind), min(title), "
                + byAspect
                + "count(here)::int, count(*) filter (where here is null)::int"
                + " from holding where master_id = ? and section_id = any(?)"
                + " and here is distinct from shown group by item_key"
                + " order by count(*) desc, min(title)",
            master,
            sections.toArray(UUID[]::new))
        .map(
            r -> {
              Map<Aspect, Integer> changed = new EnumMap<>(Aspect.class);
              for (Aspect a : Aspect.values()) {
                int n = r.get(3 + a.ordinal(), Integer.class);
                if (n > 0) {
                  changed.put(a, n);
                }
              }
              int aspects = Aspect.values().length;
              return new Drift(
                  new ItemKey(r.get(0, String.class)),
                  Kind.valueOf(r.get(1, String.class)),
                  r.get(2, String.class),
                  changed,
                  r.get(3 + aspects, Integer.class),
                  r.get(4 + aspects, Integer.class));
            });
  }

  /**
   * Accepts for good what sections made of an item: it no longer counts as changed, and no delivery
   * writes there again.
   *
   * @param aspects that are accepted
   * @return in how many sections there was anything to accept
   */
  public int accept(
      UUID master, ItemKey key, Collection<UUID> sections, Set<Aspect> aspects, UUID person) {
    List<HoldingRecord> own = new ArrayList<>();
    List<AcceptanceRecord> notes = new ArrayList<>();
    db.selectFrom(HOLDING)
        .where(HOLDING.MASTER_ID.eq(master))
        .and(HOLDING.ITEM_KEY.eq(key.value()))
        .and(HOLDING.SECTION_ID.in(sections))
        .and(HOLDING.HERE.isNotNull())
        .orderBy(HOLDING.SECTION_ID)
        .forUpdate()
        .forEach(
            r -> {
              Set<Aspect> some = accepted(r, aspects);
              if (!some.isEmpty()) {
                own.add(r);
                notes.add(note(r, some, person));
              }
            });
    db.batchUpdate(own).execute();
    db.batchInsert(notes).execute();
    db.query(
            "update standing st set changed = (select count(*) from holding h where h.section_id ="
                + " st.section_id and h.master_id = st.master_id and h.here <> h.shown)"
                + " where st.master_id = ? and st.section_id = any(?)",
            master,
            sections.toArray(UUID[]::new))
        .execute();
    return own.size();
  }

  /** The section's own is from now on what it shows; in these aspects. */
  private static Set<Aspect> accepted(HoldingRecord r, Set<Aspect> aspects) {
    Fingerprints shown = Fingerprints.unpack(r.getShown());
    Fingerprints here = Fingerprints.unpack(r.getHere());
    Set<Aspect> own = shown.differing(here);
    own.retainAll(aspects);
    r.setShown(shown.with(own, here).pack());
    r.setAccepted(r.getAccepted() | Aspect.bits(own));
    return own;
  }

  private AcceptanceRecord note(HoldingRecord r, Set<Aspect> own, UUID person) {
    AcceptanceRecord a = new AcceptanceRecord();
    a.setSectionId(r.getSectionId());
    a.setMasterId(r.getMasterId());
    a.setItemKey(r.getItemKey());
    a.setAspects(Aspect.bits(own));
    a.setShown(r.getHere());
    a.setPersonId(person);
    a.setAt(OffsetDateTime.now(clock));
    return a;
  }
}
