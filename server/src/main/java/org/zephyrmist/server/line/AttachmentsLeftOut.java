package org.zephyrmist.server.line;

import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Attachments;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Forecast;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Bodies;

/** Texts of items from the store, for deliveries that leave out what is attached to them. */
@Component
public class AttachmentsLeftOut {
  private final Bodies bodies;

  AttachmentsLeftOut(Bodies bodies) {
    this.bodies = bodies;
  }

  /**
   * The tree as it is meant for a section; what items become is kept.
   *
   * @param bases what the section got last
   */
  Tree of(Tree version, Map<ItemKey, Base> bases) {
    Attachments.Bare bare =
        Attachments.leftOut(
            version, bases, bodies.get(Attachments.wordings(version, bases.values())));
    bodies.keep(bare.forms());
    return bare.tree();
  }

  /** What sections hold, where it is no matter what is attached. */
  public List<Forecast.Holds> of(Tree version, List<Forecast.Holds> holds) {
    List<Base> bases = holds.stream().map(Forecast.Holds::base).toList();
    return Attachments.leftOut(version, holds, bodies.get(Attachments.wordings(version, bases)));
  }
}
