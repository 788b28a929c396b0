package org.zephyrmist.server.line;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;

/** Looks on platforms for shells that lines wait for. */
@Component
class LookForShells implements Job {
  private static final Logger LOG = LoggerFactory.getLogger(LookForShells.class);
  private final GoingOn goingOn;
  private final Platforms platforms;
  private final Settings settings;

  LookForShells(GoingOn goingOn, Platforms platforms, Settings settings) {
    this.goingOn = goingOn;
    this.platforms = platforms;
    this.settings = settings;
  }

  @Override
  public String name() {
    return "look-for-shells";
  }

  @Override
  public Outcome run(UUID platform) {
    try {
      platforms.tie(platform);
    } catch (PlatformException e) {
      LOG.info("Platform {} could not be asked for its shells: {}", platform, e.getMessage());
    }
    return goingOn.lacksShells() ? Outcome.after(settings.looksIfEmpty()) : Outcome.ENDED;
  }

  @Override
  public Collection<UUID> strays() {
    return goingOn.lacksShells() ? platforms.all() : List.of();
  }
}
