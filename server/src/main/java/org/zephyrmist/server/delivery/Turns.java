package org.zephyrmist.server.delivery;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.UUID;

/**
 * Who works on shells of which platform, in one server. A platform that stalls never takes the
 * workers of another: as long as there are as many workers as platforms, one is left for each.
 */
final class Turns {
  private final int workers;
  private final Map<UUID, Integer> atWork = new HashMap<>();

  Turns(int workers) {
    this.workers = workers;
  }

  /**
   * Whether a worker may take a shell of this platform now; to be followed by {@link #end}.
   *
   * @param all platforms that are named
   */
  synchronized boolean begin(UUID platform, Collection<UUID> all) {
    int busy = atWork.values().stream().mapToInt(Integer::intValue).sum();
    long left =
        all.stream().filter(p -> !p.equals(platform) && !atWork.containsKey(p)).distinct().count();
    if (atWork.containsKey(platform) && workers - busy <= left) {
      return false;
    }
    atWork.merge(platform, 1, Integer::sum);
    return true;
  }

  synchronized void end(UUID platform) {
    atWork.computeIfPresent(platform, (p, n) -> n == 1 ? null : n - 1);
  }
}
