package org.zephyrmist.server.shell;

import java.util.Collection;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.Turns;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;
import org.zephyrmist.server.web.Outage;

/** Reads a section's shell, so that the ledger knows what was changed there. */
@Component
public class ReadSection implements Job {
  public static final String NAME = "read-section";
  private static final int AT_A_TIME = 20;
  private static final Logger LOG = LoggerFactory.getLogger(ReadSection.class);
  private final Shells shells;
  private final ShellReader reader;
  private final Turns turns;
  private final Looks looks;
  private final Settings settings;

  ReadSection(Shells shells, ShellReader reader, Turns turns, Looks looks, Settings settings) {
    this.looks = looks;
    this.settings = settings;
    this.shells = shells;
    this.reader = reader;
    this.turns = turns;
  }

  @Override
  public String name() {
    return NAME;
  }

  /** Those whose time has come; so many at a time that others find a place between them. */
  @Override
  public Collection<UUID> strays() {
    return looks.due(settings.readsEvery(), AT_A_TIME);
  }

  @Override
  public Outcome run(UUID section) {
    UUID platform = shells.of(section).platform().orElse(Turns.NOWHERE);
    if (!turns.begin(platform)) {
      return Outcome.NOT_NOW;
    }
    try {
      reader.refresh(section);
    } catch (PlatformException e) {
      LOG.info("Section {} could not be read: {}", section, e.getMessage());
      looks.failed(section, settings.readsEvery(), e);
    } catch (RuntimeException e) {
      Outage.rethrow(e); // the queue tries again when the database is back
      LOG.error("Section {} could not be read", section, e);
      PlatformException why =
          PlatformException.lasting(
              "Something went wrong in Zephyrmist itself: " + Outage.reason(e),
              "Send the server's log to its administrator.");
      looks.failed(section, settings.readsEvery(), why);
    } finally {
      turns.end(platform);
    }
    return Outcome.ENDED;
  }
}
