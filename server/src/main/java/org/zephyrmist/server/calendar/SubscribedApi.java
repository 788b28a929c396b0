package org.zephyrmist.server.calendar;

import io.swagger.v3.oas.annotations.Hidden;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.calendar.Deadlines;

/** What calendar programs fetch; the address itself is the secret. */
@Hidden
@RestController
@RequestMapping("/api/subscribed")
@PreAuthorize("permitAll()")
class SubscribedApi {
  private final Subscriptions subscriptions;
  private final Clock clock;

  SubscribedApi(Subscriptions subscriptions, Clock clock) {
    this.subscriptions = subscriptions;
    this.clock = clock;
  }

  @GetMapping("/{secret}/due.ics")
  ResponseEntity<byte[]> due(@PathVariable String secret) {
    String text =
        Deadlines.calendar("Due", DueDates.deadlines(subscriptions.due(secret)), clock.instant());
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_TYPE, "text/calendar;charset=utf-8")
        .header(HttpHeaders.CACHE_CONTROL, "no-store")
        .body(text.getBytes(StandardCharsets.UTF_8));
  }
}
