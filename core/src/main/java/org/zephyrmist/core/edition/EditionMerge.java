package org.zephyrmist.core.edition;

import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * What a newer edition does to a master that was built from an older one: a three-way merge by
 * aspect. Nothing of the master's own is lost: what only it changed stays, what both changed is
 * asked.
 *
 * @param changes in the order of the newer edition, then what is gone in the order of the older
 */
public record EditionMerge(List<Change> changes) {

  /** What becomes of an item of the master. */
  public enum What {
    /** Nothing differs between the editions. */
    SAME,
    /** The newer edition's side is taken, the master's own changes of other aspects stay. */
    TAKE,
    ADD,
    /** Gone from the newer edition, unchanged in the master. */
    RETIRE,
    /** Both changed the same aspect. */
    CLASH,
    /** Gone from the newer edition, but changed in the master, or it holds what stays. */
    STAYS,
    /** Changed in the newer edition, but the master had taken it out. */
    TAKEN_OUT,
    /** Whether the two are one is to be decided first. */
    DOUBT
  }

  /**
   * One item.
   *
   * @param key in the master
   * @param newer as it stands in the newer edition, its key there
   * @param theirs aspects that only the newer edition changed
   * @param clash aspects that both changed
   * @param ours aspects that only the master changed
   */
  public record Change(
      ItemKey key,
      Optional<ItemKey> older,
      Optional<ItemKey> newer,
      Kind kind,
      String title,
      What what,
      Set<Aspect> theirs,
      Set<Aspect> clash,
      Set<Aspect> ours) {
    /** Whether it is there to be taken. */
    public boolean open() {
      return what == What.TAKE || what == What.ADD || what == What.RETIRE || what == What.CLASH;
    }
  }

  public EditionMerge {
    changes = List.copyOf(changes);
  }

  /** Where nothing was decided before. */
  public static EditionMerge of(Tree older, Tree newer, Tree master, Pairing pairing, Keys keys) {
    return of(older, newer, master, pairing, keys, Settled.NOTHING);
  }

  /**
   * @param newer with the references of its texts in the keys of the master
   */
  public static EditionMerge of(
      Tree older, Tree newer, Tree master, Pairing pairing, Keys keys, Settled settled) {
    Map<ItemKey, Pair> pairs = new HashMap<>();
    pairing.pairs().forEach(p -> pairs.put(p.newer(), p));
    Moved moved = new Moved(older, newer, master, pairing, keys);
    List<Change> all = new ArrayList<>();
    for (Node n : newer.nodes()) {
      Optional<Pair> pair = Optional.ofNullable(pairs.get(n.key()));
      all.add(
          pair.isPresent()
              ? paired(
                  older.get(pair.get().older()).orElseThrow(),
                  n,
                  master,
                  pair.get(),
                  moved,
                  settled)
              : added(n, keys.of(n.key()), master));
    }
    gone(older, master, pairing, all);
    return new EditionMerge(all);
  }

  private static Change added(Node n, ItemKey key, Tree master) {
    What what = master.has(key) ? What.SAME : What.ADD;
    return change(key, Optional.empty(), n, what, Set.of(), Set.of(), Set.of());
  }

  private static void set(Set<Aspect> of, boolean place) {
    of.remove(Aspect.PLACE);
    if (place) {
      of.add(Aspect.PLACE);
    }
  }

  private static Change paired(
      Node o, Node n, Tree master, Pair pair, Moved moved, Settled settled) {
    Set<Aspect> theirs = n.aspects().differing(o.aspects());
    set(theirs, moved.theirsMoved(n.key()));
    Optional<Node> m = master.get(o.key());
    if (m.isEmpty()) {
      What what = theirs.isEmpty() ? What.SAME : What.TAKEN_OUT;
      return change(o.key(), Optional.of(o), n, what, theirs, Set.of(), Set.of());
    }
    Set<Aspect> ours = m.get().aspects().differing(o.aspects());
    set(ours, moved.oursMoved(o.key()));
    Set<Aspect> already = EnumSet.allOf(Aspect.class);
    already.removeAll(m.get().aspects().differing(n.aspects()));
    set(already, theirs.contains(Aspect.PLACE) && moved.inPlace(n, o.key()));
    for (Aspect a : Aspect.values()) {
      if (settled.is(a, m.get(), n)) {
        already.add(a);
      }
    }
    theirs.removeAll(already);
    ours.removeAll(already);
    Set<Aspect> clash = EnumSet.noneOf(Aspect.class);
    clash.addAll(theirs);
    clash.retainAll(ours);
    theirs.removeAll(clash);
    ours.removeAll(clash);
    What what = !clash.isEmpty() ? What.CLASH : theirs.isEmpty() ? What.SAME : What.TAKE;
    if (pair.certainty() == Pair.Certainty.DOUBTFUL) {
      what = What.DOUBT;
    }
    return change(o.key(), Optional.of(o), n, what, theirs, clash, ours);
  }

  private static Change change(
      ItemKey key,
      Optional<Node> older,
      Node n,
      What what,
      Set<Aspect> theirs,
      Set<Aspect> clash,
      Set<Aspect> ours) {
    return new Change(
        key,
        older.map(Node::key),
        Optional.of(n.key()),
        n.kind(),
        n.title(),
        what,
        Set.copyOf(theirs),
        Set.copyOf(clash),
        Set.copyOf(ours));
  }

  /** From below: a module goes only if all that it holds goes. */
  private static void gone(Tree older, Tree master, Pairing pairing, List<Change> all) {
    Set<ItemKey> gone = new HashSet<>(pairing.gone());
    Set<ItemKey> retired = new HashSet<>();
    List<Change> found = new ArrayList<>();
    List<Node> backwards = new ArrayList<>(older.nodes());
    Collections.reverse(backwards);
    for (Node o : backwards) {
      Optional<Node> m = gone.contains(o.key()) ? master.get(o.key()) : Optional.empty();
      if (m.isPresent()) {
        Set<Aspect> ours = m.get().aspects().differing(o.aspects());
        ours.remove(Aspect.PLACE);
        boolean holds =
            master.in(Optional.of(o.key())).stream().anyMatch(c -> !retired.contains(c.key()));
        boolean goes = ours.isEmpty() && !holds;
        if (goes) {
          retired.add(o.key());
        }
        found.add(
            new Change(
                o.key(),
                Optional.of(o.key()),
                Optional.empty(),
                o.kind(),
                m.get().title(),
                goes ? What.RETIRE : What.STAYS,
                Set.of(),
                Set.of(),
                Set.copyOf(ours)));
      }
    }
    Collections.reverse(found);
    all.addAll(found);
  }
}
