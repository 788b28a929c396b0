package org.zephyrmist.server.check;

import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.calendar.DatedTree;
import org.zephyrmist.core.calendar.OffDays;
import org.zephyrmist.core.calendar.Remark;
import org.zephyrmist.core.calendar.Undated;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.calendar.Calendars;
import org.zephyrmist.server.calendar.Dating;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.master.Versions;

/** What is to be told of the dates of versions by the calendars of sections. */
@Component
class DateRemarks {
  private final Versions versions;
  private final Bodies bodies;
  private final Dating dating;

  DateRemarks(Versions versions, Bodies bodies, Dating dating) {
    this.versions = versions;
    this.bodies = bodies;
    this.dating = dating;
  }

  /** A version whose dates are patterns. */
  private record Patterned(List<Undated> items, OffDays off) {}

  /**
   * For one look: what is asked for is worked out once for all sections that go by the same.
   *
   * @param held the versions that each section holds, by master
   * @param goes by what they go; the same for all that are alike
   */
  Look look(Map<UUID, Map<UUID, UUID>> held, Map<UUID, Calendars.Goes> goes) {
    Map<UUID, Patterned> patterned = new HashMap<>();
    Set<UUID> all = new HashSet<>();
    held.values().forEach(of -> all.addAll(of.values()));
    all.forEach(
        version -> {
          Tree tree = versions.get(version).tree();
          Map<Fingerprint, String> forms = bodies.get(DatedTree.timings(tree));
          if (DatedTree.patterned(forms.values())) {
            patterned.put(
                version, new Patterned(DatedTree.undated(tree, forms), dating.frozen(version)));
          }
        });
    Map<UUID, Map<Calendars.Goes, Map<ItemKey, List<Remark>>>> known = new HashMap<>();
    held.forEach(
        (section, of) ->
            of.values().stream()
                .filter(v -> patterned.containsKey(v) && goes.containsKey(section))
                .forEach(
                    v ->
                        known
                            .computeIfAbsent(v, k -> new IdentityHashMap<>())
                            .computeIfAbsent(
                                goes.get(section), g -> remarks(patterned.get(v), g))));
    return new Look(known, goes);
  }

  private static Map<ItemKey, List<Remark>> remarks(Patterned p, Calendars.Goes goes) {
    Map<ItemKey, List<Remark>> all = new HashMap<>();
    goes.days()
        .dates(p.items(), p.off())
        .forEach(
            (key, dated) -> {
              if (!dated.remarks().isEmpty()) {
                all.put(key, dated.remarks());
              }
            });
    return all;
  }

  /**
   * The answers of one look.
   *
   * @param known by version and by what sections go by
   */
  record Look(
      Map<UUID, Map<Calendars.Goes, Map<ItemKey, List<Remark>>>> known,
      Map<UUID, Calendars.Goes> goes) {
    /** Of an item of a version that a section holds. */
    List<Remark> of(UUID section, UUID version, ItemKey item) {
      Calendars.Goes by = goes.get(section);
      return by == null
          ? List.of()
          : known
              .getOrDefault(version, Map.of())
              .getOrDefault(by, Map.of())
              .getOrDefault(item, List.of());
    }
  }
}
