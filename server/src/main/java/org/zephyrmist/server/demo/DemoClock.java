package org.zephyrmist.server.demo;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.context.annotation.Primary;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestContextHolder;

/** Stands in the past while the demo college's past weeks are made, but not for who calls. */
@Component
@Primary
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoClock extends Clock {
  private final Clock real = Clock.systemUTC();
  private volatile Duration back = Duration.ZERO;

  void daysBack(int days) {
    back = Duration.ofDays(days);
  }

  @Override
  public Instant instant() {
    boolean somebodyCalls = RequestContextHolder.getRequestAttributes() != null;
    return somebodyCalls ? real.instant() : real.instant().minus(back);
  }

  @Override
  public ZoneId getZone() {
    return real.getZone();
  }

  @Override
  public Clock withZone(ZoneId zone) {
    return real.withZone(zone);
  }
}
