package org.zephyrmist.core.delivery;

import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * Which parts of a version a delivery brings, as a person says it.
 *
 * @param kinds of items, for {@link What#SOME}
 * @param items for {@link What#SOME}; a module stands for all that stands in it
 * @param withoutKinds kinds that are left out, whatever is chosen
 * @param without items that are left out, modules with all that stands in them
 * @param into where chosen items go, for {@link What#SOME}; none: where the version has them
 */
public record PartsChoice(
    What what,
    Set<Kind> kinds,
    Set<ItemKey> items,
    Set<Kind> withoutKinds,
    Set<ItemKey> without,
    Optional<Into> into) {
  public static final PartsChoice EVERYTHING =
      new PartsChoice(What.EVERYTHING, Set.of(), Set.of(), Set.of(), Set.of());

  /** Which parts at all. */
  public enum What {
    EVERYTHING,
    /** What the version says otherwise than what each section got last, and what is new to it. */
    CHANGED,
    /** Chosen kinds and items. */
    SOME
  }

  public PartsChoice {
    kinds = Set.copyOf(kinds);
    items = Set.copyOf(items);
    withoutKinds = Set.copyOf(withoutKinds);
    without = Set.copyOf(without);
    into = what == What.SOME ? into : Optional.empty();
  }

  /** Everything goes where the version has it. */
  public PartsChoice(
      What what,
      Set<Kind> kinds,
      Set<ItemKey> items,
      Set<Kind> withoutKinds,
      Set<ItemKey> without) {
    this(what, kinds, items, withoutKinds, without, Optional.empty());
  }

  /** Whether nothing is left out of the version. */
  public boolean isEverything() {
    return what == What.EVERYTHING && withoutKinds.isEmpty() && without.isEmpty();
  }

  /** Whether an item of the version is left out, itself or with its module. */
  public Predicate<ItemKey> leftOut(Tree version) {
    Set<ItemKey> all = below(version, without);
    return k ->
        all.contains(k) || version.get(k).filter(n -> withoutKinds.contains(n.kind())).isPresent();
  }

  private static Set<ItemKey> below(Tree version, Collection<ItemKey> keys) {
    Set<ItemKey> all = new HashSet<>(keys);
    keys.stream()
        .filter(version::has)
        .forEach(k -> version.subtree(k).forEach(n -> all.add(n.key())));
    return all;
  }

  /**
   * Items of the version that are chosen for a section, in outline order, without what comes along.
   *
   * @param bases what the section got last
   */
  public Set<ItemKey> chosen(Tree version, Map<ItemKey, Base> bases) {
    Predicate<ItemKey> leftOut = leftOut(version);
    Set<ItemKey> wanted = what == What.SOME ? below(version, items) : Set.of();
    Set<ItemKey> chosen = new LinkedHashSet<>();
    for (Node n : version.nodes()) {
      boolean in =
          switch (what) {
            case EVERYTHING -> true;
            case CHANGED -> moved(n, bases.get(n.key()));
            case SOME -> wanted.contains(n.key()) || kinds.contains(n.kind());
          };
      if (in && !leftOut.test(n.key())) {
        chosen.add(n.key());
      }
    }
    return chosen;
  }

  /** Whether a version says something else of an item than the section got last. */
  static boolean moved(Node n, Base b) {
    return b == null || n.rule() != EditRule.STARTER && !n.aspects().equals(b.sent());
  }

  /**
   * The parts for one section, with what comes along. What is no longer meant for it goes with
   * everything and with what changed, and stays where only some parts are chosen.
   *
   * @param section the items of the version that apply to the section
   * @param there whether the section has an item
   */
  public Parts in(
      Tree version, Tree section, Needs needs, Map<ItemKey, Base> bases, Predicate<ItemKey> there) {
    if (isEverything()) {
      return Parts.EVERYTHING;
    }
    Predicate<ItemKey> leftOut = leftOut(version);
    Set<ItemKey> chosen = new LinkedHashSet<>(chosen(version, bases));
    chosen.removeIf(k -> !section.has(k));
    Set<ItemKey> all = new LinkedHashSet<>(chosen);
    all.addAll(needs.along(chosen, leftOut.or(k -> !section.has(k)), there).keySet());
    if (what != What.SOME) {
      bases.values().stream()
          .filter(b -> !section.has(b.key()) && !leftOut.test(b.key()))
          .filter(b -> !withoutKinds.contains(b.kind()))
          .forEach(b -> all.add(b.key()));
    }
    return Parts.only(all);
  }
}
