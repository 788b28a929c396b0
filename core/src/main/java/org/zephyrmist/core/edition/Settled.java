package org.zephyrmist.core.edition;

import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;

/**
 * Clashes with an edition that people have decided. A decision counts as long as both sides say
 * what they said when it was made: whoever undoes it or goes on is asked again.
 *
 * @param by item of the master and aspect
 */
public record Settled(Map<ItemKey, Map<Aspect, Sides>> by) {
  public static final Settled NOTHING = new Settled(Map.of());

  /**
   * What was said of an aspect.
   *
   * @param ours in the master, after the decision
   * @param theirs in the edition, with its references in the keys of the master
   */
  public record Sides(Fingerprint ours, Fingerprint theirs) {}

  public Settled {
    by = Map.copyOf(by);
  }

  boolean is(Aspect a, Node ours, Node theirs) {
    return Optional.ofNullable(by.get(ours.key()))
        .map(of -> of.get(a))
        .filter(new Sides(ours.aspects().get(a), theirs.aspects().get(a))::equals)
        .isPresent();
  }
}
