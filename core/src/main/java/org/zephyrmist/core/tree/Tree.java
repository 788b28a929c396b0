package org.zephyrmist.core.tree;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;

/** An ordered tree of items by key. */
public final class Tree {
  private static final Comparator<Node> ORDER =
      Comparator.comparing(Node::rank).thenComparing(Node::key);

  private final Map<ItemKey, Node> nodes;
  private final Map<Optional<ItemKey>, List<Node>> below;

  private Tree(Map<ItemKey, Node> nodes, Map<Optional<ItemKey>, List<Node>> below) {
    this.nodes = nodes;
    this.below = below;
  }

  /**
   * The tree of these nodes, given in any order.
   *
   * @throws IllegalArgumentException if two have one key, or one stands in a module that is not
   *     here or in itself
   */
  public static Tree of(Collection<Node> nodes) {
    Map<Optional<ItemKey>, List<Node>> below = new HashMap<>();
    nodes.forEach(n -> below.computeIfAbsent(n.parent(), k -> new ArrayList<>()).add(n));
    below.values().forEach(l -> l.sort(ORDER));
    Map<ItemKey, Node> outline = new LinkedHashMap<>();
    walk(below, Optional.empty(), outline);
    if (outline.size() < nodes.size()) {
      throw new IllegalArgumentException(
          "Of " + nodes.size() + " nodes only " + outline.size() + " have a place in the tree");
    }
    return new Tree(outline, below);
  }

  private static void walk(
      Map<Optional<ItemKey>, List<Node>> below, Optional<ItemKey> at, Map<ItemKey, Node> outline) {
    Deque<Node> next = new ArrayDeque<>(below.getOrDefault(at, List.of()));
    while (!next.isEmpty()) {
      Node n = next.pop();
      if (outline.put(n.key(), n) == null) {
        List<Node> under = below.getOrDefault(Optional.of(n.key()), List.of());
        for (int i = under.size() - 1; i >= 0; i--) {
          next.push(under.get(i));
        }
      }
    }
  }

  /** All nodes in outline order: a module, then what it holds. */
  public List<Node> nodes() {
    return List.copyOf(nodes.values());
  }

  public int size() {
    return nodes.size();
  }

  public boolean has(ItemKey key) {
    return nodes.containsKey(key);
  }

  public Optional<Node> get(ItemKey key) {
    return Optional.ofNullable(nodes.get(key));
  }

  /**
   * What stands directly in a module, in order.
   *
   * @param parent none for the top
   */
  public List<Node> in(Optional<ItemKey> parent) {
    return List.copyOf(below.getOrDefault(parent, List.of()));
  }

  /** An item and all below it, in outline order; nothing if it is not here. */
  public List<Node> subtree(ItemKey key) {
    Map<ItemKey, Node> found = new LinkedHashMap<>();
    get(key).ifPresent(n -> found.put(key, n));
    if (!found.isEmpty()) {
      walk(below, Optional.of(key), found);
    }
    return List.copyOf(found.values());
  }

  /** The modules an item stands in, the nearest first. */
  public List<Node> above(ItemKey key) {
    List<Node> above = new ArrayList<>();
    Optional<Node> up = get(key).flatMap(Node::parent).flatMap(this::get);
    while (up.isPresent()) {
      above.add(up.get());
      up = up.get().parent().flatMap(this::get);
    }
    return above;
  }

  /** How many modules an item stands in. */
  public int depth(ItemKey key) {
    return above(key).size();
  }

  /** The tree of those that fit and stand only in modules that fit. */
  public Tree only(Predicate<Node> fits) {
    Map<ItemKey, Node> kept = new LinkedHashMap<>();
    for (Node n : nodes.values()) {
      if (fits.test(n) && n.parent().map(kept::containsKey).orElse(true)) {
        kept.put(n.key(), n);
      }
    }
    return kept.size() == nodes.size() ? this : of(kept.values());
  }

  /**
   * The place for an item, whether it is here already or new.
   *
   * @param parent the module it goes into; none for the top
   * @param before the sibling it goes before; none for the end
   * @throws NoSuchPlace if it cannot stand there
   */
  public Place place(ItemKey key, Optional<ItemKey> parent, Optional<ItemKey> before) {
    parent.ifPresent(p -> mayHold(p, key));
    List<Node> siblings = in(parent).stream().filter(n -> !n.key().equals(key)).toList();
    int at = before.map(b -> index(siblings, b)).orElse(siblings.size());
    String low = at == 0 ? "" : siblings.get(at - 1).rank();
    String high = at == siblings.size() ? "" : siblings.get(at).rank();
    return new Place(parent.map(ItemKey::value), Rank.between(low, high));
  }

  private void mayHold(ItemKey parent, ItemKey key) {
    Node module = get(parent).orElseThrow(() -> new NoSuchPlace(NoSuchPlace.Why.NO_SUCH_MODULE));
    if (module.kind() != Kind.MODULE) {
      throw new NoSuchPlace(NoSuchPlace.Why.NOT_A_MODULE);
    }
    if (parent.equals(key) || above(parent).stream().anyMatch(n -> n.key().equals(key))) {
      throw new NoSuchPlace(NoSuchPlace.Why.INTO_ITSELF);
    }
  }

  private static int index(List<Node> siblings, ItemKey key) {
    for (int i = 0; i < siblings.size(); i++) {
      if (siblings.get(i).key().equals(key)) {
        return i;
      }
    }
    throw new NoSuchPlace(NoSuchPlace.Why.NO_SUCH_NEIGHBOUR);
  }
}
