package org.zephyrmist.core.delivery;

import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * Which parts of a version a delivery brings, as a person says it.
 *
 * @param some for {@link What#SOME}
 * @param without what is left out, whatever is chosen
 * @param attachments whether files attached to items come with them, see {@link Attachments}
 * @param into where chosen items go, for {@link What#SOME}; none: where the version has them
 */
public record PartsChoice(
    What what, PartSet some, PartSet without, boolean attachments, Optional<Into> into) {
  public static final PartsChoice EVERYTHING = new PartsChoice(What.EVERYTHING, PartSet.NONE);

  /** Which parts at all. */
  public enum What {
    EVERYTHING,
    /** What the version says otherwise than what each section got last, and what is new to it. */
    CHANGED,
    /** Chosen ones. */
    SOME
  }

  public PartsChoice {
    into = what == What.SOME ? into : Optional.empty();
  }

  /** With what is attached, everything where the version has it. */
  public PartsChoice(What what, PartSet some, PartSet without) {
    this(what, some, without, true, Optional.empty());
  }

  /** Nothing is left out. */
  public PartsChoice(What what, PartSet some) {
    this(what, some, PartSet.NONE);
  }

  /** Whether nothing is left out of the version. */
  public boolean isEverything() {
    return what == What.EVERYTHING && without.isEmpty() && attachments;
  }

  /** What of it is meant for other masters that come with this one: all but what is left out. */
  public PartsChoice ofOthers() {
    return new PartsChoice(
        What.EVERYTHING, PartSet.NONE, without.everywhere(), attachments, Optional.empty());
  }

  /** The same, and these items of the version are left out too. */
  public PartsChoice without(Set<ItemKey> more) {
    Set<ItemKey> items = new LinkedHashSet<>(without.items());
    items.addAll(more);
    PartSet all = new PartSet(without.kinds(), items, without.titles());
    return new PartsChoice(what, some, all, attachments, into);
  }

  /** Whether an item of the version is left out, itself or with its module. */
  public Predicate<ItemKey> leftOut(Tree version) {
    return without.in(version)::contains;
  }

  /**
   * Items of the version that are chosen for a section, in outline order, without what comes along.
   *
   * @param bases what the section got last
   */
  public Set<ItemKey> chosen(Tree version, Map<ItemKey, Base> bases) {
    Predicate<ItemKey> leftOut = leftOut(version);
    Set<ItemKey> wanted = what == What.SOME ? some.in(version) : Set.of();
    Set<ItemKey> chosen = new LinkedHashSet<>();
    for (Node n : version.nodes()) {
      boolean in =
          switch (what) {
            case EVERYTHING -> true;
            case CHANGED -> moved(n, bases.get(n.key()));
            case SOME -> wanted.contains(n.key());
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
          .filter(b -> !without.says(b.kind(), b.title()))
          .forEach(b -> all.add(b.key()));
    }
    return Parts.only(all);
  }
}
