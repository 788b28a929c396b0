package org.zephyrmist.server.calendar;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.calendar.OldDates;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.OffRule;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.SignedIn;

/** Dates of a master: patterns made of real ones, moved in bulk, and what days off do to them. */
@RestController
@RequestMapping(path = "/api/masters/{id}/dates", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class MasterDatesApi {
  private final Masters masters;
  private final MasterDates dates;
  private final Dating dating;

  MasterDatesApi(Masters masters, MasterDates dates, Dating dating) {
    this.masters = masters;
    this.dates = dates;
    this.dating = dating;
  }

  /** What becomes of dates on days off. */
  record DaysOffRule(@NotNull OffRule rule, @NotNull Map<@NotNull Kind, @NotNull OffRule> byKind) {}

  @GetMapping("/off")
  DaysOffRule off(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    masters.get(id, who);
    var off = dating.off(id);
    return new DaysOffRule(off.rule(), off.byKind());
  }

  @PutMapping("/off")
  void off(
      @PathVariable UUID id,
      @Valid @RequestBody DaysOffRule r,
      @AuthenticationPrincipal SignedIn who) {
    dates.off(masters.get(id, who), r.rule(), r.byKind(), who);
  }

  /**
   * Real dates of the draft, to become patterns.
   *
   * @param calendar in which they are real
   * @param really false: it is only shown what would become of them
   */
  record RealDates(@NotNull UUID calendar, @NotNull OldDates.By by, boolean really) {}

  /** A date that becomes a pattern; absent where it stays real. */
  record PatternMade(
      @NotNull String item,
      @NotNull String title,
      @NotNull Point point,
      @NotNull LocalDateTime real,
      String pattern) {}

  @PostMapping("/patterns")
  List<PatternMade> patterns(
      @PathVariable UUID id,
      @Valid @RequestBody RealDates r,
      @AuthenticationPrincipal SignedIn who) {
    return dates.patterns(masters.get(id, who), r.calendar(), r.by(), r.really(), who);
  }

  /**
   * Items to be moved, all their dates.
   *
   * @param days earlier if negative
   */
  record MovedDates(
      @NotNull @Size(min = 1, max = 5_000) List<@NotNull @Size(max = 80) String> items,
      @Min(-370) @Max(370) int days) {}

  /** How many items have moved. */
  record HaveMoved(int items) {}

  @PostMapping("/move")
  HaveMoved move(
      @PathVariable UUID id,
      @Valid @RequestBody MovedDates m,
      @AuthenticationPrincipal SignedIn who) {
    return new HaveMoved(dates.move(masters.get(id, who), m.items(), m.days(), who));
  }
}
