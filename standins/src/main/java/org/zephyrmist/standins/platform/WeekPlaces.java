package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.ITEM;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.standins.db.tables.records.ItemRecord;

/**
 * The places that a shell has for weeks, if it has a fixed number. As platforms do, a week beyond
 * the last one is put into the last.
 */
@Component
class WeekPlaces {
  static final String SUBJECT = "WEEK_PLACES";
  private static final Pattern WEEK = Pattern.compile("^\\p{L}+\\s+(\\d{1,2})(?!\\d).*");
  private final DSLContext db;
  private final Json json;
  private final Shells shells;

  WeekPlaces(DSLContext db, Json json, Shells shells) {
    this.db = db;
    this.json = json;
    this.shells = shells;
  }

  /** The module into which a new one falls for which there is no place; none if there is one. */
  String last(String shell, String title, List<ItemRecord> added) {
    OptionalInt week = number(title);
    OptionalInt places = week.isPresent() ? places(shell) : OptionalInt.empty();
    if (places.isEmpty() || week.getAsInt() <= places.getAsInt()) {
      return null;
    }
    List<ItemRecord> modules =
        new ArrayList<>(
            db.selectFrom(ITEM)
                .where(ITEM.SHELL_ID.eq(shell))
                .and(ITEM.KIND.eq("MODULE"))
                .and(ITEM.PARENT_ID.isNull())
                .fetch());
    added.stream()
        .filter(a -> a.getKind().equals("MODULE") && a.getParentId() == null)
        .forEach(modules::add);
    return modules.stream()
        .filter(m -> number(m.getTitle()).orElse(0) > 0)
        .max(Comparator.comparingInt(m -> number(m.getTitle()).getAsInt()))
        .map(ItemRecord::getId)
        .orElse(null);
  }

  private OptionalInt places(String shell) {
    return setup(shell).stream().mapToInt(r -> entries(r).size()).findFirst();
  }

  private List<ItemRecord> setup(String shell) {
    return db.selectFrom(ITEM)
        .where(ITEM.SHELL_ID.eq(shell))
        .and(ITEM.KIND.eq("SETUP"))
        .and(DSL.jsonbGetAttributeAsText(ITEM.WORDING, "subject").eq(SUBJECT))
        .orderBy(ITEM.ID)
        .fetch();
  }

  @SuppressWarnings("unchecked")
  private List<Map<String, Object>> entries(ItemRecord r) {
    Object all = json.map(r.getWording()).get("entries");
    return all == null ? List.of() : (List<Map<String, Object>>) all;
  }

  private static OptionalInt number(String title) {
    Matcher m = WEEK.matcher(title.strip());
    return m.matches() ? OptionalInt.of(Integer.parseInt(m.group(1))) : OptionalInt.empty();
  }

  /** So many places from now on, called “Week n”; those there keep their names. */
  @Transactional
  void set(String shell, int places, Steps steps) {
    shells.get(shell);
    ItemRecord there = setup(shell).stream().findFirst().orElse(null);
    List<Map<String, Object>> named = there == null ? List.of() : entries(there);
    List<Map<String, Object>> entries = new ArrayList<>();
    for (int n = 0; n < places; n++) {
      entries.add(
          n < named.size() ? named.get(n) : Map.of("label", "Week " + (n + 1), "value", ""));
    }
    Wire.Wording wording =
        new Wire.Wording("Week places", "", Map.of("subject", SUBJECT, "entries", entries));
    Wire.Step step =
        new Wire.Step(
            UUID.randomUUID().toString(),
            there == null ? Wire.Op.ADD : Wire.Op.UPDATE,
            there == null ? null : there.getId(),
            null,
            "SETUP",
            wording,
            null,
            null,
            null,
            there == null ? new Wire.Visibility(true, false, null, null) : null,
            null);
    steps.apply(shell, List.of(step), "the instructor");
  }
}
