package org.zephyrmist.core.content;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/**
 * Other items that an item names by their keys, wherever in its aspects: links of its text, entries
 * of a setup, its rubric with the outcomes of its lines, its grade category and group set, its
 * conditions. What a quiz draws from stands in its questions, see {@code core.question}.
 */
public final class Mentions {
  private Mentions() {}

  /** Why one item names another. */
  public enum Why {
    /** It is graded by it. */
    RUBRIC,
    /** It counts into it. */
    CATEGORY,
    /** Groups of it do the work. */
    GROUPS,
    /** A line of its rubric shows it. */
    OUTCOME,
    /** It opens after it. */
    CONDITION,
    /** Its front page or menu leads to it. */
    ENTRY,
    /** Its text leads to it. */
    LINK
  }

  /** One item named by another. */
  public record Mention(ItemKey to, Why why) {}

  /** What an item names, each once for each reason; what is no key of ours is left out. */
  public static List<Mention> of(Item i) {
    List<Mention> all = new ArrayList<>();
    Grading g = i.content().grading();
    add(all, g.rubric(), Why.RUBRIC);
    add(all, g.category(), Why.CATEGORY);
    add(all, g.groupSet(), Why.GROUPS);
    i.content().criteria().forEach(c -> add(all, c.outcome(), Why.OUTCOME));
    i.visibility().conditions().forEach(c -> add(all, c.item(), Why.CONDITION));
    i.content().entries().stream()
        .flatMap(e -> References.asItem(e.value()).stream())
        .forEach(r -> all.add(new Mention(r.key(), Why.ENTRY)));
    References.items(i.content().html()).forEach(r -> all.add(new Mention(r.key(), Why.LINK)));
    return all.stream().distinct().toList();
  }

  private static void add(List<Mention> all, Optional<String> key, Why why) {
    key.flatMap(ItemKey::of).ifPresent(k -> all.add(new Mention(k, why)));
  }

  /** Whether any item is named here. */
  public static boolean any(Grading g) {
    return g.category().isPresent() || g.rubric().isPresent() || g.groupSet().isPresent();
  }

  /** Whether any item is named here. */
  public static boolean any(Visibility v) {
    return v.conditions().stream().anyMatch(c -> c.item().isPresent());
  }

  /** Whether any item is named here. */
  public static boolean any(Wording w) {
    return w.entries().stream().anyMatch(e -> References.asItem(e.value()).isPresent())
        || outcomes(w)
        || !References.items(w.html()).isEmpty();
  }

  /** Whether a line of a rubric names an outcome. */
  public static boolean outcomes(Wording w) {
    return w.criteria().stream().anyMatch(c -> c.outcome().isPresent());
  }

  /** A rubric with the outcomes of its lines named otherwise. */
  public static Wording outcomes(Wording w, Function<String, Optional<String>> to) {
    return outcomes(w)
        ? w.withCriteria(
            w.criteria().stream().map(c -> c.showing(c.outcome().flatMap(to))).toList())
        : w;
  }

  /**
   * The same with each item named otherwise.
   *
   * @param to none: it is not named any more
   */
  public static Grading renamed(Grading g, Function<String, Optional<String>> to) {
    return any(g)
        ? g.withCategory(g.category().flatMap(to))
            .withRubric(g.rubric().flatMap(to))
            .withGroupSet(g.groupSet().flatMap(to))
        : g;
  }

  /** The same with each item named otherwise; a condition about none is left out. */
  public static Visibility renamed(Visibility v, Function<String, Optional<String>> to) {
    return any(v)
        ? v.withConditions(
            v.conditions().stream()
                .flatMap(c -> c.item().isEmpty() ? Optional.of(c).stream() : about(c, to).stream())
                .toList())
        : v;
  }

  private static Optional<Condition> about(Condition c, Function<String, Optional<String>> to) {
    return c.item().flatMap(to).map(c::about);
  }

  /** The same with all addresses of its text and of its entries otherwise. */
  public static Wording addresses(Wording w, Function<String, String> to) {
    Wording text = w.html().isEmpty() ? w : w.withHtml(Html.mapAddresses(w.html(), to::apply));
    boolean leads =
        text.subject()
            .filter(s -> s == SetupSubject.MENU || s == SetupSubject.FRONT_PAGE)
            .isPresent();
    return leads
        ? text.withSetup(
            text.subject(),
            text.entries().stream()
                .map(e -> new Content.Entry(e.label(), to.apply(e.value())))
                .toList())
        : text;
  }

  /**
   * An item with every item that it names named otherwise.
   *
   * @param to none: a link to it stays as it is, all else does not name it any more
   */
  public static Aspects renamed(Aspects a, Function<String, Optional<String>> to) {
    return a.with(renamed(a.grading(), to))
        .with(renamed(a.visibility(), to))
        .with(
            addresses(
                outcomes(a.wording(), to),
                address ->
                    References.asItem(address)
                        .flatMap(
                            r ->
                                to.apply(r.key().value())
                                    .map(k -> References.item(new ItemKey(k), r.fragment())))
                        .orElse(address)));
  }
}
