package org.zephyrmist.core.edition;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * The side of its editions that a master was last brought, item by item and aspect by aspect: what
 * the next edition is merged against. What was not taken of an edition stays open that way, though
 * the master is built on it.
 *
 * @param parts in outline order
 */
public record Brought(List<Part> parts) {
  /**
   * An item as it was last brought.
   *
   * @param key in the master
   * @param newer its key in the edition; none of one that the edition has no more
   * @param before aspects as they were brought before: what the edition says of them was not taken
   */
  public record Part(
      ItemKey key,
      Optional<ItemKey> newer,
      Set<Aspect> before,
      Optional<ItemKey> parent,
      String rank) {}

  public Brought {
    parts = List.copyOf(parts);
  }

  /**
   * Of a master that is built on an edition from now on.
   *
   * @param merge with it, as it stands
   * @param older what was brought before
   * @param master in which what nobody else moved stands where it was brought
   */
  public static Brought after(EditionMerge merge, Tree older, Tree newer, Tree master, Keys keys) {
    Map<ItemKey, EditionMerge.Change> kept = new LinkedHashMap<>();
    merge.changes().stream()
        .filter(c -> c.what() != EditionMerge.What.ADD)
        .forEach(c -> kept.put(c.key(), c));
    return new Run(kept, older, newer, master, keys).brought();
  }

  private static final class Run {
    private final Map<ItemKey, EditionMerge.Change> kept;
    private final Tree older;
    private final Tree newer;
    private final Tree master;
    private final Keys keys;
    private final Map<ItemKey, Optional<ItemKey>> parents = new HashMap<>();
    private final Map<Optional<ItemKey>, List<ItemKey>> below = new HashMap<>();

    Run(Map<ItemKey, EditionMerge.Change> kept, Tree older, Tree newer, Tree master, Keys keys) {
      this.master = master;
      this.kept = kept;
      this.older = older;
      this.newer = newer;
      this.keys = keys;
    }

    Brought brought() {
      master.nodes().stream()
          .filter(n -> kept.containsKey(n.key()) && !movedByOurs(kept.get(n.key())))
          .forEach(
              n -> put(n.key(), nearest(master.above(n.key()).stream().map(Node::key).toList())));
      for (Node n : newer.nodes()) {
        ItemKey key = keys.of(n.key());
        if (open(key) && !before(key).contains(Aspect.PLACE)) {
          put(key, nearest(newer.above(n.key()).stream().map(m -> keys.of(m.key())).toList()));
          behind(key, newer.in(n.parent()).stream().map(m -> keys.of(m.key())).toList());
        }
      }
      for (Node n : older.nodes()) {
        if (open(n.key())) {
          put(n.key(), nearest(older.above(n.key()).stream().map(Node::key).toList()));
          behind(n.key(), older.in(n.parent()).stream().map(Node::key).toList());
        }
      }
      List<Part> all = new ArrayList<>();
      walk(Optional.empty(), all);
      return new Brought(all);
    }

    private static boolean movedByOurs(EditionMerge.Change c) {
      return c.ours().contains(Aspect.PLACE) || c.clash().contains(Aspect.PLACE);
    }

    /** Whether it is kept and has no place yet. */
    private boolean open(ItemKey key) {
      return kept.containsKey(key) && !parents.containsKey(key);
    }

    private Set<Aspect> before(ItemKey key) {
      EditionMerge.Change c = kept.get(key);
      if (c.older().isEmpty()) {
        return Set.of();
      }
      if (c.newer().isEmpty() || c.what() == EditionMerge.What.DOUBT) {
        return EnumSet.allOf(Aspect.class);
      }
      Set<Aspect> open = EnumSet.noneOf(Aspect.class);
      if (c.open()) {
        open.addAll(c.theirs());
        open.addAll(c.clash());
      }
      return open;
    }

    private Optional<ItemKey> nearest(List<ItemKey> above) {
      return above.stream().filter(kept::containsKey).findFirst();
    }

    private void put(ItemKey key, Optional<ItemKey> in) {
      Optional<ItemKey> parent = Nested.within(in, key, parents) ? Optional.empty() : in;
      parents.put(key, parent);
      below.computeIfAbsent(parent, p -> new ArrayList<>()).add(key);
    }

    /** Behind the nearest of those that stand before it. */
    private void behind(ItemKey key, List<ItemKey> order) {
      List<ItemKey> siblings = below.get(parents.get(key));
      siblings.remove(key);
      int at = 0;
      for (ItemKey s : order.subList(0, order.indexOf(key))) {
        int there = siblings.indexOf(s);
        at = there >= 0 ? there + 1 : at;
      }
      siblings.add(at, key);
    }

    private void walk(Optional<ItemKey> parent, List<Part> all) {
      List<ItemKey> here = below.getOrDefault(parent, List.of());
      for (int i = 0; i < here.size(); i++) {
        ItemKey key = here.get(i);
        all.add(new Part(key, kept.get(key).newer(), before(key), parent, Rank.nth(i)));
        walk(Optional.of(key), all);
      }
    }
  }

  /**
   * A pairing of two editions as one of what was brought with the newer: what was not taken of the
   * older is new again, and what it had no more is gone.
   *
   * @param pairing its older side in the keys of the master
   */
  public static Pairing pairing(Pairing pairing, Tree brought) {
    List<Pair> pairs = new ArrayList<>();
    List<ItemKey> fresh = new ArrayList<>(pairing.fresh());
    Set<ItemKey> found = new HashSet<>();
    for (Pair p : pairing.pairs()) {
      if (brought.has(p.older())) {
        pairs.add(p);
        found.add(p.older());
      } else {
        fresh.add(p.newer());
      }
    }
    List<ItemKey> gone = new ArrayList<>();
    for (Node n : brought.nodes()) {
      if (!found.contains(n.key())) {
        if (!pairing.gone().contains(n.key()) && fresh.remove(n.key())) {
          // the edition before had it no more, and it is back under its identifier
          Evidence e = new Evidence(true, false, 0, 0, 0, 0);
          pairs.add(new Pair(n.key(), n.key(), e, Pair.Certainty.DOUBTFUL));
        } else {
          gone.add(n.key());
        }
      }
    }
    return new Pairing(pairs, gone, fresh);
  }
}
