package org.zephyrmist.core.tree;

import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Kind;

/** What likeness looks at in an item, wherever it stands. */
public interface Alike {
  Kind kind();

  String title();

  Fingerprints aspects();
}
