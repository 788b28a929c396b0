package org.zephyrmist.server.platform;

import static org.zephyrmist.server.db.Tables.PLATFORM;

import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.Settings;

/**
 * Who works on shells of which platform, in one server. A platform that stalls never takes the
 * workers of another: as long as there are as many workers as platforms, one is left for each.
 */
@Component
public class Turns {
  /** For sections that have no shell. */
  public static final UUID NOWHERE = new UUID(0, 0);

  private final int workers;
  private final Supplier<? extends Collection<UUID>> named;
  private final Map<UUID, Integer> atWork = new HashMap<>();

  @Autowired
  Turns(Settings settings, DSLContext db, Clock clock) {
    this(settings.linesAtOnce(), new Named(db, clock));
  }

  /**
   * @param named all platforms that are named
   */
  Turns(int workers, Supplier<? extends Collection<UUID>> named) {
    this.workers = workers;
    this.named = named;
  }

  /** Whether a worker may take a shell of this platform now; to be followed by {@link #end}. */
  public synchronized boolean begin(UUID platform) {
    int busy = atWork.values().stream().mapToInt(Integer::intValue).sum();
    long left =
        named.get().stream()
            .filter(p -> !p.equals(platform) && !atWork.containsKey(p))
            .distinct()
            .count();
    if (atWork.containsKey(platform) && workers - busy <= left) {
      return false;
    }
    atWork.merge(platform, 1, Integer::sum);
    return true;
  }

  public synchronized void end(UUID platform) {
    atWork.computeIfPresent(platform, (p, n) -> n == 1 ? null : n - 1);
  }

  /** Looked up again every few seconds. */
  private static final class Named implements Supplier<Set<UUID>> {
    private final DSLContext db;
    private final Clock clock;
    private Set<UUID> platforms = Set.of();
    private Instant at = Instant.EPOCH;

    Named(DSLContext db, Clock clock) {
      this.db = db;
      this.clock = clock;
    }

    @Override
    public Set<UUID> get() {
      Instant now = clock.instant();
      if (now.isAfter(at.plusSeconds(5))) {
        platforms = db.select(PLATFORM.ID).from(PLATFORM).fetchSet(PLATFORM.ID);
        at = now;
      }
      return platforms;
    }
  }
}
