package org.zephyrmist.server.calendar;

import static org.zephyrmist.server.db.Tables.MASTER_OFF;
import static org.zephyrmist.server.db.Tables.SECTION_DATE;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.LocalDateTime;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.calendar.DatedTree;
import org.zephyrmist.core.calendar.OffDays;
import org.zephyrmist.core.calendar.OwnDates;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.OffRule;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.delivery.Becoming;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Bodies;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What a version means for a section by its calendar. */
@Component
public class Dating {
  private static final TypeReference<Map<Kind, OffRule>> BY_KIND = new TypeReference<>() {};
  private final DSLContext db;
  private final Calendars calendars;
  private final Bodies bodies;
  private final JsonMapper json;

  Dating(DSLContext db, Calendars calendars, Bodies bodies, JsonMapper json) {
    this.db = db;
    this.calendars = calendars;
    this.bodies = bodies;
    this.json = json;
  }

  /** What becomes of dates of a version on days off. */
  public OffDays frozen(UUID version) {
    return db.select(VERSION.OFF_RULE, VERSION.OFF_BY_KIND)
        .from(VERSION)
        .where(VERSION.ID.eq(version))
        .fetchSingle(
            r -> new OffDays(r.value1(), json.readValue(r.value2().data(), BY_KIND), Map.of()));
  }

  /** The same of a master's draft. */
  public OffDays off(UUID master) {
    return db.selectFrom(MASTER_OFF)
        .where(MASTER_OFF.MASTER_ID.eq(master))
        .fetchOptional(
            r -> new OffDays(r.getRule(), json.readValue(r.getByKind().data(), BY_KIND), Map.of()))
        .orElse(OffDays.USUAL);
  }

  /** Dates that sections have of their own of a master's items. */
  public Map<UUID, OwnDates> own(UUID master, Collection<UUID> sections) {
    Map<UUID, Map<ItemKey, Map<Point, Optional<LocalDateTime>>>> all = new HashMap<>();
    db.selectFrom(SECTION_DATE)
        .where(SECTION_DATE.MASTER_ID.eq(master))
        .and(SECTION_DATE.SECTION_ID.eq(DSL.any(sections.toArray(UUID[]::new))))
        .forEach(
            r ->
                all.computeIfAbsent(r.getSectionId(), k -> new HashMap<>())
                    .computeIfAbsent(new ItemKey(r.getItemKey()), k -> new EnumMap<>(Point.class))
                    .put(r.getPoint(), Optional.ofNullable(r.getAt())));
    Map<UUID, OwnDates> own = new HashMap<>();
    all.forEach((s, of) -> own.put(s, new OwnDates(of)));
    return own;
  }

  /** A version with the dates of a section; what it says of timing is in the tree's forms. */
  public DatedTree of(UUID version, UUID master, Tree tree, UUID section) {
    Map<Fingerprint, String> forms = bodies.get(DatedTree.timings(tree));
    OwnDates own = own(master, List.of(section)).getOrDefault(section, OwnDates.NONE);
    if (!DatedTree.patterned(forms.values())) {
      return DatedTree.of(tree, forms, Optional.empty(), OffDays.USUAL, own);
    }
    return DatedTree.of(
        tree,
        forms,
        Optional.ofNullable(calendars.sections(List.of(section)).get(section))
            .map(Calendars.Goes::days),
        frozen(version),
        own);
  }

  /**
   * What items of a version become in sections.
   *
   * @param at the sections, by their places
   */
  public Becoming becoming(UUID version, UUID master, Tree tree, List<UUID> at) {
    Map<Fingerprint, String> forms = bodies.get(DatedTree.timings(tree));
    Map<UUID, OwnDates> own = own(master, at);
    boolean patterned = DatedTree.patterned(forms.values());
    if (!patterned && own.isEmpty()) {
      return Becoming.AS_SAID;
    }
    Map<UUID, Calendars.Goes> goes = patterned ? calendars.sections(at) : Map.of();
    OffDays off = frozen(version);
    Map<Object, Tree> alike = new HashMap<>();
    List<Tree> trees =
        at.stream()
            .map(
                s -> {
                  Optional<Calendars.Goes> by = Optional.ofNullable(goes.get(s));
                  OwnDates mine = own.getOrDefault(s, OwnDates.NONE);
                  return alike.computeIfAbsent(
                      List.of(by, mine),
                      k ->
                          DatedTree.of(tree, forms, by.map(Calendars.Goes::days), off, mine)
                              .tree());
                })
            .toList();
    return (item, section) -> trees.get(section).get(item.key()).orElse(item).aspects();
  }
}
