package org.zephyrmist.server.delivery;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.Optional;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;

/** When a delivery needs a second person's word. */
@RestController
@RequestMapping(path = "/api/deliveries/second-word", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class SecondWordApi {
  private final SecondWord word;
  private final Events events;

  SecondWordApi(SecondWord word, Events events) {
    this.word = word;
    this.events = events;
  }

  /**
   * @param fromSections a delivery to so many sections needs it; absent: its size is no matter
   * @param removes a delivery that removes anything needs it
   */
  record SecondWordRule(@Min(1) @Max(5_000) Integer fromSections, boolean removes) {}

  @GetMapping
  SecondWordRule rule() {
    SecondWord.Rule r = word.rule();
    return new SecondWordRule(r.fromSections().orElse(null), r.removes());
  }

  @PutMapping
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void change(@Valid @RequestBody SecondWordRule r, @AuthenticationPrincipal SignedIn who) {
    word.change(new SecondWord.Rule(Optional.ofNullable(r.fromSections()), r.removes()));
    events.add(who.id(), "changed when a delivery needs a second word", "the college", "");
  }
}
