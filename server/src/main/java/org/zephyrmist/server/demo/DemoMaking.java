package org.zephyrmist.server.demo;

import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.people.Making;

/** How far the past weeks of the demo college are, while people look at it already. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoMaking implements Making {
  private static final Logger LOG = LoggerFactory.getLogger(DemoMaking.class);
  private volatile Optional<Far> far = Optional.empty();

  interface Week {
    void make() throws Exception;
  }

  /** Makes one after the other in the background. */
  void begin(List<Week> weeks) {
    far = Optional.of(new Far(0, weeks.size(), false));
    Thread t = new Thread(() -> make(weeks), "demo");
    t.setDaemon(true); // a server that is told to end does not wait for it
    t.start();
  }

  private void make(List<Week> weeks) {
    long start = System.nanoTime();
    for (int done = 0; done < weeks.size(); done++) {
      far = Optional.of(new Far(done, weeks.size(), false));
      try {
        weeks.get(done).make();
      } catch (Exception e) {
        far = Optional.of(new Far(done, weeks.size(), true));
        LOG.error("The demo college could not be made", e);
        return;
      }
      LOG.info("Demo week {} of {} at {} s", done + 1, weeks.size(), seconds(start));
    }
    far = Optional.empty();
    LOG.info("Demo data made in {} s after the first page", seconds(start));
  }

  static long seconds(long start) {
    return (System.nanoTime() - start) / 1_000_000_000;
  }

  @Override
  public Optional<Far> far() {
    return far;
  }
}
