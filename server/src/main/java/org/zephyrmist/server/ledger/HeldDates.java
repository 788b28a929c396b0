package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.STANDING;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Timing;

/** Dates that sections hold. */
@Component
public class HeldDates {
  private static final int AT = Aspect.TIMING.ordinal() * Fingerprint.LENGTH + 1;
  private final DSLContext db;

  HeldDates(DSLContext db) {
    this.db = db;
  }

  /**
   * The timing of an item in a section.
   *
   * @param sent what was last delivered
   * @param own what the section has made of it; none if it is as it was delivered, or gone
   */
  public record HeldDate(
      UUID section, UUID master, ItemKey item, Fingerprint sent, Optional<Fingerprint> own) {}

  public List<HeldDate> of(Collection<UUID> sections, Collection<ItemKey> items) {
    List<HeldDate> all = new ArrayList<>();
    db.fetch(
            "select section_id, master_id, item_key, substring(sent from ?::int for ?::int) as sent,"
                + " case when here is null or substring(here from ?::int for ?::int) ="
                + " substring(shown from ?::int for ?::int) then null else"
                + " substring(here from ?::int for ?::int) end as own from holding where"
                + " section_id = any(?::uuid[]) and item_key = any(?::text[])",
            AT,
            Fingerprint.LENGTH,
            AT,
            Fingerprint.LENGTH,
            AT,
            Fingerprint.LENGTH,
            AT,
            Fingerprint.LENGTH,
            sections.toArray(UUID[]::new),
            items.stream().map(ItemKey::value).toArray(String[]::new))
        .forEach(
            r ->
                all.add(
                    new HeldDate(
                        r.get("section_id", UUID.class),
                        r.get("master_id", UUID.class),
                        new ItemKey(r.get("item_key", String.class)),
                        Fingerprint.of(r.get("sent", byte[].class)),
                        Optional.ofNullable(r.get("own", byte[].class)).map(Fingerprint::of))));
    return all;
  }

  /**
   * An item with dates, as a section has it now.
   *
   * @param timing what the shell said when it was last read
   */
  public record Here(UUID section, ItemKey item, String title, Kind kind, Fingerprint timing) {}

  /** Items of sections that have any date. */
  public List<Here> here(Collection<UUID> sections) {
    List<Here> all = new ArrayList<>();
    db.fetch(
            "select section_id, item_key, title, item_kind, substring(here from ?::int for ?::int) as"
                + " timing from holding where section_id = any(?::uuid[]) and here is not null and"
                + " substring(here from ?::int for ?::int) <> ?",
            AT,
            Fingerprint.LENGTH,
            sections.toArray(UUID[]::new),
            AT,
            Fingerprint.LENGTH,
            Fingerprint.of(AspectForms.form(Timing.NONE)).bytes())
        .forEach(
            r ->
                all.add(
                    new Here(
                        r.get("section_id", UUID.class),
                        new ItemKey(r.get("item_key", String.class)),
                        r.get("title", String.class),
                        Kind.valueOf(r.get("item_kind", String.class)),
                        Fingerprint.of(r.get("timing", byte[].class)))));
    return all;
  }

  /** Which masters have come to these sections, by master. */
  public Map<UUID, Set<UUID>> masters(Collection<UUID> sections) {
    Map<UUID, Set<UUID>> all = new HashMap<>();
    db.select(STANDING.MASTER_ID, STANDING.SECTION_ID)
        .from(STANDING)
        .where(STANDING.SECTION_ID.eq(DSL.any(sections.toArray(UUID[]::new))))
        .and(STANDING.HELD.gt(0))
        .forEach(r -> all.computeIfAbsent(r.value1(), k -> new HashSet<>()).add(r.value2()));
    return all;
  }
}
