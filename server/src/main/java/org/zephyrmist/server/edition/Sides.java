package org.zephyrmist.server.edition;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.edition.EditionMerge;
import org.zephyrmist.core.merge.Runs;
import org.zephyrmist.core.merge.TextMerge;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.web.Refusal;

/** What the older edition, the newer one and the master say of one item. */
@Component
class Sides {
  private final Trees trees;
  private final Merging merging;

  Sides(Trees trees, Merging merging) {
    this.merging = merging;
    this.trees = trees;
  }

  EditionApi.SidesView of(Merging.State s, ItemKey key) {
    EditionMerge.Change c =
        s.merge().changes().stream()
            .filter(x -> x.key().equals(key))
            .findFirst()
            .orElseThrow(() -> Refusal.notFound("item"));
    Optional<Item> older = c.older().map(k -> merging.older(s, List.of(k)).get(k));
    Optional<Item> newer =
        c.newer().flatMap(k -> item(s.raw(), k)).map(i -> Merging.renamed(i, s.keys()::of));
    Optional<Item> ours = item(s.master(), key);
    String base = older.map(Sides::html).orElse("");
    String theirs = newer.map(Sides::html).orElse("");
    Optional<String> mine = ours.map(Sides::html);
    Optional<TextMerge> merged =
        mine.filter(m -> newer.isPresent() && !m.equals(theirs))
            .filter(m -> ours.get().content().madeOf().isEmpty())
            .map(m -> TextMerge.of(base, m, theirs));
    String plainBase = Runs.plain(base);
    return new EditionApi.SidesView(
        c.title(),
        runs(Runs.of(plainBase, plainBase, Runs.Whose.BASE)),
        runs(Runs.of(plainBase, Runs.plain(theirs), Runs.Whose.THEIRS)),
        mine.map(m -> runs(Runs.of(plainBase, Runs.plain(m), Runs.Whose.OURS))).orElse(null),
        merged.map(m -> runs(together(mine.orElseThrow(), theirs, m.together()))).orElse(null),
        merged.map(TextMerge::together).orElse(null),
        merged.map(TextMerge::clean).orElse(true),
        stays(c, older, newer, ours),
        other(older, newer, ours));
  }

  private static List<Runs.Run> together(String ours, String theirs, String merged) {
    return Runs.merged(Runs.plain(ours), Runs.plain(theirs), Runs.plain(merged));
  }

  private Optional<Item> item(Tree tree, ItemKey key) {
    return tree.get(key).map(n -> trees.items(List.of(n)).get(0));
  }

  private static String html(Item i) {
    return i.content().html();
  }

  private static List<EditionApi.Run> runs(List<Runs.Run> all) {
    return all.stream().map(r -> new EditionApi.Run(r.whose(), r.text())).toList();
  }

  private static List<String> stays(
      EditionMerge.Change c, Optional<Item> older, Optional<Item> newer, Optional<Item> ours) {
    List<String> all = new ArrayList<>();
    Optional<String> was = older.map(Item::title);
    boolean titles =
        c.clash().contains(Aspect.WORDING)
            && !ours.map(Item::title).equals(was)
            && !newer.map(Item::title).equals(was)
            && !ours.map(Item::title).equals(newer.map(Item::title));
    if (titles) {
      all.add("title");
    }
    c.clash().stream()
        .filter(a -> a != Aspect.WORDING)
        .sorted()
        .forEach(a -> all.add(a.name().toLowerCase(Locale.ROOT)));
    return all;
  }

  /** Differences that are no text. */
  private static List<String> other(
      Optional<Item> older, Optional<Item> newer, Optional<Item> ours) {
    List<String> all = new ArrayList<>();
    compare(all, "Title", older, newer, ours, Item::title);
    compare(
        all,
        "Points",
        older,
        newer,
        ours,
        i -> i.content().grading().points().map(Object::toString).orElse("none"));
    compare(
        all,
        "Attempts",
        older,
        newer,
        ours,
        i -> i.content().grading().attempts().map(Object::toString).orElse("unlimited"));
    compare(all, "Leads to", older, newer, ours, i -> i.content().launch().address());
    compare(
        all, "Parameters", older, newer, ours, i -> i.content().launch().parameters().toString());
    compare(
        all,
        "File",
        older,
        newer,
        ours,
        i ->
            i.content()
                .madeOf()
                .map(f -> f.name() + ", " + f.size() + " bytes, " + f.sha256().substring(0, 8))
                .orElse(""));
    compare(
        all,
        "Questions",
        older,
        newer,
        ours,
        i -> i.content().questionCount().map(Object::toString).orElse(""));
    compare(all, "Shown", older, newer, ours, i -> i.visibility().shown() ? "shown" : "hidden");
    return all;
  }

  private static void compare(
      List<String> all,
      String what,
      Optional<Item> older,
      Optional<Item> newer,
      Optional<Item> ours,
      java.util.function.Function<Item, String> of) {
    Optional<String> was = older.map(of);
    Optional<String> is = newer.map(of);
    Optional<String> mine = ours.map(of);
    boolean theirs = is.isPresent() && was.isPresent() && !is.equals(was);
    boolean own = mine.isPresent() && was.isPresent() && !mine.equals(was);
    if (theirs || own) {
      all.add(
          what
              + ": "
              + was.get()
              + " before"
              + (theirs ? ", " + is.get() + " in the new edition" : "")
              + (own ? ", " + mine.get() + " in ours" : ""));
    }
  }
}
