package org.zephyrmist.core.tree;

import java.util.Optional;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Visibility;

/**
 * An item in a tree: what it is and where it stands, its texts by fingerprint alone.
 *
 * @param parent the module it stands in; none at the top
 * @param rank order among its siblings, see {@link org.zephyrmist.core.content.Rank}
 */
public record Node(
    ItemKey key,
    Kind kind,
    String title,
    Optional<ItemKey> parent,
    String rank,
    EditRule rule,
    Visibility visibility,
    AppliesTo appliesTo,
    Fingerprints aspects)
    implements Alike {
  /** An item as it stands in a tree. */
  public static Node of(Item i, AppliesTo appliesTo) {
    return new Node(
        i.key(),
        i.kind(),
        i.title(),
        i.place().parent().map(ItemKey::new),
        i.place().rank(),
        i.rule(),
        i.visibility(),
        appliesTo,
        AspectForms.fingerprints(i));
  }

  /** The same but for what it says. */
  public Node withAspects(Fingerprints to) {
    return new Node(key, kind, title, parent, rank, rule, visibility, appliesTo, to);
  }

  /** The same in another module, or at the top. */
  public Node standingAt(Optional<ItemKey> module) {
    return new Node(key, kind, title, module, rank, rule, visibility, appliesTo, aspects);
  }

  /** The same under another rule. */
  public Node withRule(EditRule to) {
    return new Node(key, kind, title, parent, rank, to, visibility, appliesTo, aspects);
  }

  /** Who owns an aspect after delivery: what students must not see stays hidden under any rule. */
  public EditRule rule(Aspect aspect) {
    return hides(aspect) ? EditRule.FIXED : rule;
  }

  /**
   * Whether this aspect keeps the item from students, so that nothing but the version's will do.
   */
  public boolean hides(Aspect aspect) {
    return visibility.instructorsOnly() && aspect == Aspect.VISIBILITY;
  }
}
