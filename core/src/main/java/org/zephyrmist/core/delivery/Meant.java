package org.zephyrmist.core.delivery;

import java.util.Optional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;

/**
 * An item of the version to be delivered.
 *
 * @param instructorsOnly never to be seen by students, whatever the section does
 * @param parent the module it stands in; none at the top
 */
public record Meant(
    ItemKey key,
    Kind kind,
    String title,
    EditRule rule,
    boolean instructorsOnly,
    Optional<ItemKey> parent,
    Fingerprints aspects) {
  /** Who owns an aspect after delivery: what students must not see stays hidden under any rule. */
  EditRule rule(Aspect aspect) {
    return hides(aspect) ? EditRule.FIXED : rule;
  }

  /**
   * Whether this aspect keeps the item from students, so that nothing but the version's will do.
   */
  boolean hides(Aspect aspect) {
    return instructorsOnly && aspect == Aspect.VISIBILITY;
  }
}
