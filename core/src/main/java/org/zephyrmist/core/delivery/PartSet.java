package org.zephyrmist.core.delivery;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * Parts of a version by what is said of them. Kinds and titles serve every master, so they can be
 * kept under a name ("my own things to spare").
 *
 * @param kinds all items of these
 * @param items a module stands for all that stands in it
 * @param titles words with which a word of a title begins, or several of them in a row; a module
 *     that is called so stands for all that stands in it
 */
public record PartSet(Set<Kind> kinds, Set<ItemKey> items, Set<String> titles) {
  public static final PartSet NONE = new PartSet(Set.of(), Set.of(), Set.of());

  public PartSet {
    kinds = Set.copyOf(kinds);
    items = Set.copyOf(items);
    titles = Set.copyOf(titles);
  }

  /** By kinds and items alone. */
  public PartSet(Set<Kind> kinds, Set<ItemKey> items) {
    this(kinds, items, Set.of());
  }

  /** By kinds alone. */
  public static PartSet of(Kind... kinds) {
    return new PartSet(Set.of(kinds), Set.of());
  }

  /** By items alone. */
  public static PartSet of(Set<ItemKey> items) {
    return new PartSet(Set.of(), items);
  }

  public boolean isEmpty() {
    return kinds.isEmpty() && items.isEmpty() && titles.isEmpty();
  }

  /** The same without items, which stand in one master alone. */
  public PartSet everywhere() {
    return new PartSet(kinds, Set.of(), titles);
  }

  /** Whether a kind or a title says so, wherever the item stands. */
  public boolean says(Kind kind, String title) {
    return kinds.contains(kind) || called(title, words());
  }

  private List<String> words() {
    return titles.stream().map(Titles::folded).filter(t -> !t.isEmpty()).toList();
  }

  private static boolean called(String title, List<String> words) {
    if (words.isEmpty()) {
      return false;
    }
    String folded = ' ' + Titles.folded(title);
    return words.stream().anyMatch(w -> folded.contains(' ' + w));
  }

  /** The items of a version that are meant, with modules and what stands in them. */
  public Set<ItemKey> in(Tree version) {
    Set<ItemKey> all = new HashSet<>(items);
    List<String> words = words();
    for (Node n : version.nodes()) {
      boolean called = called(n.title(), words);
      if (called || kinds.contains(n.kind())) {
        all.add(n.key());
      }
      if (items.contains(n.key()) || called && n.kind() == Kind.MODULE) {
        version.subtree(n.key()).forEach(x -> all.add(x.key()));
      }
    }
    return all;
  }
}
