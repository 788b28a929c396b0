package org.zephyrmist.core.tree;

import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Kind;

/** What likeness looks at in an item, wherever it stands. */
public interface Alike {
  Kind kind();

  String title();

  Fingerprints aspects();

  /** Whether wording and launch are the same to the letter. */
  default boolean saysTheSame(Alike other) {
    return aspects().get(Aspect.WORDING).equals(other.aspects().get(Aspect.WORDING))
        && aspects().get(Aspect.LAUNCH).equals(other.aspects().get(Aspect.LAUNCH));
  }
}
