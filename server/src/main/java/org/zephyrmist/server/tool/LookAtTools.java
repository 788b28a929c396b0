package org.zephyrmist.server.tool;

import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.tool.ToolWords;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.platform.Turns;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;

/** Asks a platform what its shells have for external tools, many shells in a call. */
@Component
class LookAtTools implements Job {
  static final String NAME = "look-at-tools";
  private static final Logger LOG = LoggerFactory.getLogger(LookAtTools.class);
  private final Sightings sightings;
  private final ToolConnections connections;
  private final Platforms platforms;
  private final Turns turns;
  private final Settings settings;
  private final Clock clock;

  LookAtTools(
      Sightings sightings,
      ToolConnections connections,
      Platforms platforms,
      Turns turns,
      Settings settings,
      Clock clock) {
    this.clock = clock;
    this.sightings = sightings;
    this.connections = connections;
    this.platforms = platforms;
    this.turns = turns;
    this.settings = settings;
  }

  @Override
  public String name() {
    return NAME;
  }

  @Override
  public Collection<UUID> strays() {
    return sightings.platforms(settings.readsEvery());
  }

  @Override
  public Outcome run(UUID platform) {
    List<Sightings.Due> due =
        sightings.due(platform, settings.readsEvery(), PlatformGateway.MOST_AT_ONCE);
    if (due.isEmpty()) {
      return Outcome.ENDED;
    }
    if (!turns.begin(platform)) {
      return Outcome.NOT_NOW;
    }
    OffsetDateTime asked = OffsetDateTime.now(clock);
    try {
      sightings.keep(
          due,
          asked,
          platforms.gateway(platform).tools(due.stream().map(Sightings.Due::shell).toList()),
          words());
    } catch (PlatformException e) {
      LOG.info("Platform {} could not be asked about tools: {}", platform, e.getMessage());
      sightings.failed(due, asked, e.getMessage());
    } finally {
      turns.end(platform);
    }
    return Outcome.after(Duration.ZERO);
  }

  private Map<String, ToolWords> words() {
    Map<String, ToolWords> all = new HashMap<>();
    for (KnownConnection c : connections.all()) {
      if (!c.words().equals(ToolWords.NONE)) {
        c.connection().hosts().forEach(h -> all.put(h, c.words()));
      }
    }
    return all;
  }
}
