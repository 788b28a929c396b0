package org.zephyrmist.core.delivery;

import java.util.Optional;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Alike;

/**
 * An item that the shell holds, as read.
 *
 * @param id the platform's own id of it
 * @param parent the platform's id of the module it stands in; none at the top
 * @param aspects in our canonical form, with our keys where an item is ours
 * @param studentWork whether students have left anything on it: work, attempts, posts, grades
 * @param free not delivered from any master, so it may be a twin
 */
public record Held(
    String id,
    Kind kind,
    String title,
    Optional<String> parent,
    Fingerprints aspects,
    boolean studentWork,
    boolean free)
    implements Alike {

  public Held with(Fingerprints other) {
    return new Held(id, kind, title, parent, other, studentWork, free);
  }
}
