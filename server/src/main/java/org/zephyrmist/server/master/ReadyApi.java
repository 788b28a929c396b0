package org.zephyrmist.server.master;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.check.Finding;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.people.SignedIn;

/** Whether a draft is ready to be frozen, and what a master is limited to. */
@RestController
@RequestMapping(path = "/api/masters/{id}", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class ReadyApi {
  private final Masters masters;
  private final Ready ready;

  ReadyApi(Masters masters, Ready ready) {
    this.masters = masters;
    this.ready = ready;
  }

  /** Where a rule does not hold; without a key it is about the whole master. */
  record FoundPlace(String key, @NotNull String title, @NotNull String detail) {}

  /**
   * A rule that does not hold.
   *
   * @param stops whether freezing is refused
   */
  record Found(
      @NotNull Finding.Rule rule,
      @NotNull String words,
      @NotNull String remedy,
      boolean stops,
      @NotNull List<FoundPlace> places) {}

  /**
   * What a master may hold.
   *
   * @param most how many of each kind, 0 for any number; without any kind, everything
   */
  record GuardView(@NotNull Map<Kind, @NotNull @Min(0) @Max(100_000) Integer> most) {}

  @GetMapping("/ready")
  List<Found> ready(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    Map<Finding.Rule, List<FoundPlace>> all = new TreeMap<>();
    for (Finding f : ready.findings(masters.get(id, who))) {
      all.computeIfAbsent(f.rule(), r -> new java.util.ArrayList<>())
          .add(new FoundPlace(f.item().map(Object::toString).orElse(null), f.title(), f.detail()));
    }
    return all.entrySet().stream()
        .map(
            e ->
                new Found(
                    e.getKey(),
                    e.getKey().words(),
                    e.getKey().remedy(),
                    e.getKey().stops(),
                    e.getValue()))
        .toList();
  }

  @GetMapping("/guard")
  GuardView guard(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    return new GuardView(ready.guard(masters.get(id, who)).most());
  }

  @PutMapping("/guard")
  void guard(
      @PathVariable UUID id,
      @Valid @RequestBody GuardView g,
      @AuthenticationPrincipal SignedIn who) {
    masters.guard(masters.get(id, who), new TreeMap<>(g.most()), who);
  }
}
