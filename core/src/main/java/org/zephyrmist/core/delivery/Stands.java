package org.zephyrmist.core.delivery;

import java.util.Map;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * Where a section stands towards a master after a delivery that brought only some of a version.
 *
 * @param atVersion whether it counts as holding the version: it does once nothing of an older one
 *     is left, if it held none before, or if all but what is left out was brought
 * @param withheld items that it holds otherwise than the version says
 */
public record Stands(boolean atVersion, int withheld) {
  /**
   * @param meant all that the version means for the section
   * @param parts what was brought, by this choice
   * @param after what the section was given last, with this delivery
   * @param another whether it held another version before
   */
  public static Stands after(
      Tree meant, Parts parts, PartsChoice choice, Map<ItemKey, Base> after, boolean another) {
    int open = 0;
    int old = 0;
    for (Node n : meant.nodes()) {
      Base b = after.get(n.key());
      if (!parts.include(n.key()) && PartsChoice.moved(n, b)) {
        open++;
        old += b == null ? 0 : 1;
      } else if (b != null && !choice.attachments() && Attachments.mayStand(n)) {
        old += n.aspects().get(Aspect.WORDING).equals(b.sent().get(Aspect.WORDING)) ? 0 : 1;
      }
    }
    boolean some = choice.what() == PartsChoice.What.SOME;
    return new Stands(!some || !another || open == 0, old);
  }
}
