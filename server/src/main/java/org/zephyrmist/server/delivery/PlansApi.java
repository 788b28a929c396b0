package org.zephyrmist.server.delivery;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.SignedIn;

/** What a delivery is called, and the end of plans that nobody wants. */
@RestController
@RequestMapping(path = "/api/deliveries/{id}", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class PlansApi {
  private final Plans plans;

  PlansApi(Plans plans) {
    this.plans = plans;
  }

  /**
   * @param name empty: none any more
   */
  record Name(@NotNull @Size(max = 200) String name) {}

  @PutMapping("/name")
  void name(
      @PathVariable UUID id, @Valid @RequestBody Name n, @AuthenticationPrincipal SignedIn who) {
    plans.name(id, n.name(), who);
  }

  /** Throws a plan away that was not confirmed, with the others of its order. */
  @DeleteMapping
  void throwAway(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    plans.throwAway(id, who);
  }
}
