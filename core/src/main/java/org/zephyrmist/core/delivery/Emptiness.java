package org.zephyrmist.core.delivery;

import java.util.Collection;
import java.util.EnumSet;
import java.util.Set;
import org.zephyrmist.core.content.Kind;

/**
 * Whether a shell is empty: it holds no content, announcements, discussions or grade entries. What
 * every shell has from the start does not count: its setup, groups, and modules with nothing in
 * them.
 */
public final class Emptiness {
  private static final Set<Kind> FROM_THE_START =
      EnumSet.of(Kind.MODULE, Kind.GROUP_SET, Kind.SETUP);

  private Emptiness() {}

  /** How many items keep a shell from being empty. */
  public static int holds(Collection<Held> shell) {
    return (int) shell.stream().filter(h -> !FROM_THE_START.contains(h.kind())).count();
  }
}
