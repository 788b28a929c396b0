package org.zephyrmist.core.delivery;

import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Tree;

/**
 * What a delivery means for one section.
 *
 * @param items as they should be there
 * @param parts the delivery is about these; what is in none of them is left as it is
 * @param arrivals with which visibility an item arrives that the version has with another
 * @param placed where each new item goes, if not where the version has it
 * @param withoutWeek new items for whose week the shell has no place, see {@link WeekPlaces}
 */
public record Meant(
    Tree items,
    Parts parts,
    Map<Fingerprint, Fingerprint> arrivals,
    Optional<Map<ItemKey, Fingerprint>> placed,
    Set<ItemKey> withoutWeek) {
  public Meant {
    arrivals = Map.copyOf(arrivals);
    withoutWeek = Set.copyOf(withoutWeek);
  }

  /** Everything arrives where the version has it. */
  public Meant(Tree items, Parts parts, Map<Fingerprint, Fingerprint> arrivals) {
    this(items, parts, arrivals, Optional.empty(), Set.of());
  }

  /** The same, but new items go to these places, and to no other. */
  public Meant placed(Map<ItemKey, Fingerprint> places) {
    return new Meant(items, parts, arrivals, Optional.of(Map.copyOf(places)), withoutWeek);
  }

  /** The same, but of these, what is new finds no place. */
  public Meant withoutWeek(Set<ItemKey> keys) {
    return new Meant(items, parts, arrivals, placed, keys);
  }

  /** The same of other items. */
  public Meant of(Tree others) {
    return new Meant(others, parts, arrivals, placed, withoutWeek);
  }

  /** Whether a new item has a place to go to. */
  boolean hasPlace(ItemKey key) {
    return placed.map(p -> p.containsKey(key)).orElse(true);
  }

  /** Everything arrives as the version has it. */
  public Meant(Tree items, Parts parts) {
    this(items, parts, Map.of());
  }

  /** The same but for how items arrive. */
  public Meant arriving(Map<Fingerprint, Fingerprint> arrivals) {
    return new Meant(items, parts, arrivals, placed, withoutWeek);
  }

  /** What an item is to say when it arrives. */
  Fingerprints arriving(ItemKey key, Fingerprints wanted) {
    Fingerprint v = wanted.get(Aspect.VISIBILITY);
    Fingerprints seen = wanted.with(Aspect.VISIBILITY, arrivals.getOrDefault(v, v));
    return placed.map(p -> p.get(key)).map(place -> seen.with(Aspect.PLACE, place)).orElse(seen);
  }

  /**
   * What is meant for a section: of the chosen parts those that apply to it and stand in modules
   * that do, with the modules they stand in.
   */
  public static Meant of(Tree version, Parts parts, SectionFacts section) {
    Set<ItemKey> chosen = parts.keys().map(keys -> withModules(version, keys)).orElse(Set.of());
    return new Meant(
        version.only(
            n ->
                (parts.include(n.key()) || chosen.contains(n.key()))
                    && n.appliesTo().covers(section.campus(), section.mode(), section.tags())),
        parts);
  }

  private static Set<ItemKey> withModules(Tree version, Set<ItemKey> keys) {
    Set<ItemKey> all = new HashSet<>(keys);
    keys.forEach(k -> version.above(k).forEach(m -> all.add(m.key())));
    return all;
  }
}
