package org.zephyrmist.core.edition;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.edition.EditionMerge.Change;
import org.zephyrmist.core.edition.EditionMerge.What;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * What is to be written into a master when some changes of a newer edition are taken.
 *
 * @param puts items to add or change
 * @param gone items to take out
 */
public record Taking(List<Put> puts, List<ItemKey> gone) {

  /** How a clash was decided. */
  public enum Side {
    OURS,
    THEIRS,
    /** Texts merged; of what cannot stand side by side, the master's stays. */
    TOGETHER
  }

  /**
   * An item to write.
   *
   * @param key in the master
   * @param newer its key in the newer edition
   * @param theirs aspects that become those of the newer edition
   * @param together whether the wording becomes both sides' merged
   * @param place where it goes; none if it stays where it is
   */
  public record Put(
      ItemKey key,
      ItemKey newer,
      boolean added,
      Set<Aspect> theirs,
      boolean together,
      Optional<Place> place) {}

  public Taking {
    puts = List.copyOf(puts);
    gone = List.copyOf(gone);
  }

  /**
   * @param chosen keys of the changes to take
   * @param decided sides of clashes; an undecided one leaves the master's side
   */
  public static Taking of(
      EditionMerge merge,
      Tree newer,
      Tree master,
      Keys keys,
      Set<ItemKey> chosen,
      Map<ItemKey, Side> decided) {
    return new Run(newer, master, keys).taking(merge, chosen, decided);
  }

  private static final class Run {
    private final Tree newer;
    private final Tree master;
    private final Keys keys;
    private final Map<Optional<ItemKey>, List<ItemKey>> below = new HashMap<>();
    private final Map<ItemKey, Optional<ItemKey>> parents = new HashMap<>();
    private final Set<ItemKey> placed = new LinkedHashSet<>();

    Run(Tree newer, Tree master, Keys keys) {
      this.newer = newer;
      this.master = master;
      this.keys = keys;
      for (Node n : master.nodes()) {
        below.computeIfAbsent(n.parent(), p -> new ArrayList<>()).add(n.key());
        parents.put(n.key(), n.parent());
      }
    }

    Taking taking(EditionMerge merge, Set<ItemKey> chosen, Map<ItemKey, Side> decided) {
      List<ItemKey> gone = gone(merge, chosen);
      Map<ItemKey, Put> puts = new LinkedHashMap<>();
      for (Change c : merge.changes()) {
        if (chosen.contains(c.key()) && c.newer().isPresent() && c.open()) {
          Put put = put(c, decided.getOrDefault(c.key(), Side.OURS));
          if (put.added() || put.theirs().contains(Aspect.PLACE)) {
            place(c.key(), c.newer().get());
          }
          if (put.added() || put.together() || !put.theirs().isEmpty()) {
            puts.put(c.key(), put);
          }
        }
      }
      Map<ItemKey, Place> places = ranks();
      List<Put> all = new ArrayList<>();
      puts.forEach(
          (key, p) ->
              all.add(
                  new Put(
                      key,
                      p.newer(),
                      p.added(),
                      p.theirs(),
                      p.together(),
                      Optional.ofNullable(places.get(key)))));
      return new Taking(all, gone);
    }

    /** A chosen module stays if something that stands in it is not taken out. */
    private List<ItemKey> gone(EditionMerge merge, Set<ItemKey> chosen) {
      List<ItemKey> gone = new ArrayList<>();
      Set<ItemKey> out = new HashSet<>();
      List<Change> backwards = new ArrayList<>(merge.changes());
      java.util.Collections.reverse(backwards);
      for (Change c : backwards) {
        boolean empty = below.getOrDefault(Optional.of(c.key()), List.of()).isEmpty();
        if (c.what() == What.RETIRE && chosen.contains(c.key()) && empty && out.add(c.key())) {
          gone.add(0, c.key());
          below.get(parents.get(c.key())).remove(c.key());
          parents.remove(c.key());
        }
      }
      return gone;
    }

    private static Put put(Change c, Side side) {
      EnumSet<Aspect> theirs = EnumSet.noneOf(Aspect.class);
      boolean together = false;
      if (c.what() == What.ADD) {
        theirs = EnumSet.allOf(Aspect.class);
      } else {
        theirs.addAll(c.theirs());
        if (side == Side.THEIRS) {
          theirs.addAll(c.clash());
        }
        together = side == Side.TOGETHER && c.clash().contains(Aspect.WORDING);
      }
      return new Put(
          c.key(), c.newer().get(), c.what() == What.ADD, theirs, together, Optional.empty());
    }

    /** After the nearest one before it that is here too; never into itself. */
    private void place(ItemKey key, ItemKey of) {
      Optional<ItemKey> parent = parent(of);
      if (Nested.within(parent, key, parents)) {
        return;
      }
      Optional.ofNullable(parents.get(key)).ifPresent(p -> below.get(p).remove(key));
      List<ItemKey> siblings = below.computeIfAbsent(parent, p -> new ArrayList<>());
      int at = 0;
      for (Node n : newer.in(newer.get(of).flatMap(Node::parent))) {
        if (n.key().equals(of)) {
          break;
        }
        int there = siblings.indexOf(keys.of(n.key()));
        at = there >= 0 ? there + 1 : at;
      }
      siblings.add(at, key);
      parents.put(key, parent);
      placed.add(key);
    }

    /** The nearest module above it that the master has. */
    private Optional<ItemKey> parent(ItemKey of) {
      return newer.above(of).stream()
          .map(n -> keys.of(n.key()))
          .filter(parents::containsKey)
          .findFirst();
    }

    private Map<ItemKey, Place> ranks() {
      Map<ItemKey, Place> places = new HashMap<>();
      Set<Optional<ItemKey>> touched = new HashSet<>();
      placed.forEach(k -> touched.add(parents.get(k)));
      for (Optional<ItemKey> parent : touched) {
        List<ItemKey> order = below.get(parent);
        String[] next = new String[order.size()];
        String high = "";
        for (int i = order.size() - 1; i >= 0; i--) {
          next[i] = high;
          high = placed.contains(order.get(i)) ? high : rank(order.get(i));
        }
        String low = "";
        for (int i = 0; i < order.size(); i++) {
          ItemKey key = order.get(i);
          if (placed.contains(key)) {
            // two that have one rank stand by their keys; between them nothing fits
            low = Rank.between(low, next[i].compareTo(low) > 0 ? next[i] : "");
            places.put(key, new Place(parent.map(ItemKey::value), low));
          } else {
            low = rank(key);
          }
        }
      }
      return places;
    }

    private String rank(ItemKey key) {
      return master.get(key).orElseThrow().rank();
    }
  }
}
