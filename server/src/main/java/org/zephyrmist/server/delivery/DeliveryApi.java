package org.zephyrmist.server.delivery;

import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.Decisions;
import org.zephyrmist.core.delivery.PartsChoice;
import org.zephyrmist.core.delivery.Tell;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.line.ChosenParts;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;
import org.zephyrmist.server.web.Sheet;

/** Deliveries: order, look at the plan, confirm, watch, stop, go on. */
@RestController
@RequestMapping(path = "/api/deliveries", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class DeliveryApi {
  private final Deliveries deliveries;
  private final Replans replans;
  private final DeliveryViews views;
  private final PlanViews plans;
  private final Forecasts forecasts;
  private final StepDecisions decisions;
  private final Readings readings;
  private final Runs runs;
  private final TakeBacks takeBacks;

  DeliveryApi(
      Deliveries deliveries,
      Replans replans,
      DeliveryViews views,
      PlanViews plans,
      Forecasts forecasts,
      StepDecisions decisions,
      Readings readings,
      Runs runs,
      TakeBacks takeBacks) {
    this.runs = runs;
    this.takeBacks = takeBacks;
    this.forecasts = forecasts;
    this.decisions = decisions;
    this.readings = readings;
    this.deliveries = deliveries;
    this.replans = replans;
    this.views = views;
    this.plans = plans;
  }

  /**
   * How a delivery goes about it; what is not said is as it usually is.
   *
   * @param byKind where a kind is treated otherwise than the rest
   */
  record Chosen(
      @NotNull Choices.Clash clash,
      @NotNull Choices.Twin twin,
      Choices.ByKind byKind,
      Choices.Arrival arrival,
      Choices.Dates dates,
      Choices.EmptiedShell emptied,
      Choices.Onto onto,
      Choices.Weeks weeks,
      @Min(1) @Max(50) Integer atOnce,
      @Valid ChosenParts parts) {
    /** The same without what names nothing. */
    Chosen known() {
      ChosenParts named = parts == null ? null : ChosenParts.of(parts.choice());
      return new Chosen(clash, twin, byKind, arrival, dates, emptied, onto, weeks, atOnce, named);
    }

    Choices choices() {
      return new Choices(
              clash,
              twin,
              Optional.ofNullable(arrival).orElse(Choices.Arrival.AS_IN_MASTER),
              Optional.ofNullable(dates).orElse(Choices.Dates.ALONG))
          .with(Optional.ofNullable(emptied).orElse(Choices.EmptiedShell.ASK))
          .with(Optional.ofNullable(onto).orElse(Choices.Onto.UP_TO_DATE))
          .with(Optional.ofNullable(weeks).orElse(Choices.Weeks.ADD))
          .with(Optional.ofNullable(byKind).orElse(Choices.ByKind.NONE));
    }

    PartsChoice choice() {
      return Optional.ofNullable(parts).map(ChosenParts::choice).orElse(PartsChoice.EVERYTHING);
    }

    Deliveries.Order order() {
      return new Deliveries.Order(
          choice(), choices(), Optional.ofNullable(atOnce), Optional.empty(), Optional.empty());
    }
  }

  /**
   * @param together versions of several masters as one order, in their order, this one among them;
   *     of the others all comes but what is left out by kind, title or as attachments
   */
  record NewDelivery(
      @NotNull UUID version,
      @NotNull List<@NotNull UUID> sections,
      @Valid Chosen choices,
      UUID recipe,
      @Size(max = 8) List<@NotNull UUID> together) {
    Choices how() {
      return Optional.ofNullable(choices).map(Chosen::choices).orElse(Choices.SAFE);
    }

    Deliveries.Order order() {
      return Optional.ofNullable(choices)
          .map(Chosen::order)
          .orElse(new Deliveries.Order(PartsChoice.EVERYTHING, Choices.SAFE));
    }

    PartsChoice parts() {
      return Optional.ofNullable(choices).map(Chosen::choice).orElse(PartsChoice.EVERYTHING);
    }
  }

  record Made(@NotNull UUID id) {}

  /**
   * @param at when it begins; absent: now
   * @param tell who is told by mail when it has ended; absent: the sender
   * @param note why it comes, for the instructors
   */
  record Begin(OffsetDateTime at, Tell tell, @Size(max = 5_000) String note) {
    static final Begin NOW = new Begin(null, null, null);
  }

  record Sections(@NotNull List<@NotNull UUID> sections) {}

  record Count(int sections) {}

  /** The newest first, of those in which all words of the text are found. */
  @GetMapping
  List<DeliveryViews.DeliverySummary> list(
      @RequestParam(defaultValue = "") @Size(max = 200) String text,
      @RequestParam(defaultValue = "100") @Min(1) @Max(500) int most,
      @AuthenticationPrincipal SignedIn who) {
    return views.list(who, text, most);
  }

  /** Deliveries that move right now. */
  @GetMapping("/running")
  List<DeliveryViews.DeliverySummary> running(@AuthenticationPrincipal SignedIn who) {
    return views.running(who);
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  Made make(@Valid @RequestBody NewDelivery n, @AuthenticationPrincipal SignedIn who) {
    UUID id =
        n.together() == null || n.together().size() < 2
            ? deliveries.make(n.version(), n.sections(), n.order(), who)
            : deliveries.make(n.together(), n.version(), n.sections(), n.order(), who);
    Optional.ofNullable(n.recipe()).ifPresent(r -> deliveries.madeBy(id, r));
    return new Made(id);
  }

  /** What such a delivery would do, as far as the ledger tells; nothing is made or read. */
  @PostMapping("/forecast")
  Forecasts.DeliveryForecast forecast(
      @Valid @RequestBody NewDelivery n, @AuthenticationPrincipal SignedIn who) {
    List<UUID> sections = deliveries.reached(n.version(), n.sections(), who);
    return forecasts.of(n.version(), sections, n.parts(), n.how());
  }

  @GetMapping("/{id}")
  DeliveryViews.DeliveryDetail detail(
      @PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    deliveries.get(id, who);
    return views.detail(id, who);
  }

  @GetMapping("/{id}/plan")
  PlanViews.DeliveryPlan plan(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    DeliveryRecord d = deliveries.get(id, who);
    return plans.plan(id, d.getVersionId(), who);
  }

  /** The same as a table. */
  @GetMapping(path = "/{id}/plan/file", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  void planFile(
      @PathVariable UUID id,
      @RequestParam Sheet format,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    deliveries.get(id, who);
    format.send(response, "plan", PlanViews.head(), rows -> plans.table(id, who, rows));
  }

  @GetMapping("/{id}/lines/{line}/steps/{key}")
  PlanViews.StepSides sides(
      @PathVariable UUID id,
      @PathVariable UUID line,
      @PathVariable String key,
      @AuthenticationPrincipal SignedIn who) {
    deliveries.get(id, who);
    return plans.sides(id, line, key, who);
  }

  /**
   * A decision of a clash or a twin.
   *
   * @param take none: the delivery's choice counts again, in all sections
   * @param html the text of both, if they are taken together
   * @param everywhere in all sections; else in those where the same stands against the same
   */
  record StepDecision(
      Decisions.Take take, @Size(max = 1_000_000) String html, boolean everywhere) {}

  @PutMapping("/{id}/lines/{line}/steps/{key}/decision")
  Count decide(
      @PathVariable UUID id,
      @PathVariable UUID line,
      @PathVariable String key,
      @Valid @RequestBody StepDecision d,
      @AuthenticationPrincipal SignedIn who) {
    return new Count(
        decisions.decide(
            deliveries.own(id, who),
            line,
            ItemKey.of(key).orElseThrow(() -> Refusal.notFound("step")),
            Optional.ofNullable(d.take()),
            Optional.ofNullable(d.html()),
            d.everywhere(),
            who));
  }

  @PutMapping("/{id}/choices")
  void choose(
      @PathVariable UUID id, @Valid @RequestBody Chosen c, @AuthenticationPrincipal SignedIn who) {
    replans.choose(
        id,
        Optional.ofNullable(c.parts()).map(ChosenParts::choice),
        c.choices(),
        Optional.ofNullable(c.atOnce()),
        who);
  }

  @PostMapping("/{id}/confirm")
  void confirm(
      @PathVariable UUID id,
      @Valid @RequestBody(required = false) Begin begin,
      @AuthenticationPrincipal SignedIn who) {
    Begin b = Optional.ofNullable(begin).orElse(Begin.NOW);
    runs.confirm(
        id,
        Optional.ofNullable(b.at()),
        Optional.ofNullable(b.tell()).orElse(Tell.SENDER),
        Optional.ofNullable(b.note()).orElse(""),
        who);
  }

  /** In which sections it can be taken back, and why not in the others. */
  @GetMapping("/{id}/take-back")
  TakeBacks.CanTakeBack canTakeBack(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    return takeBacks.can(id, who);
  }

  /**
   * @param sections in which it is taken back; absent: wherever it can be
   */
  record TakeBackIn(List<@NotNull UUID> sections) {}

  /** Plans to take a delivery back; nothing moves before that plan is confirmed. */
  @PostMapping("/{id}/take-back")
  @ResponseStatus(HttpStatus.CREATED)
  Made takeBack(
      @PathVariable UUID id,
      @Valid @RequestBody TakeBackIn t,
      @AuthenticationPrincipal SignedIn who) {
    return new Made(takeBacks.make(id, Optional.ofNullable(t.sections()), who));
  }

  @PostMapping("/{id}/stop")
  void stop(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    runs.stop(id, who);
  }

  @PostMapping("/{id}/go-on")
  void goOn(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    runs.goOn(id, who);
  }

  /** Reads shells again, so that coverage shows what instructors changed since. */
  @PostMapping("/readings")
  @ResponseStatus(HttpStatus.ACCEPTED)
  Count readAgain(@Valid @RequestBody Sections s, @AuthenticationPrincipal SignedIn who) {
    return new Count(readings.begin(s.sections(), who));
  }

  /** How many of these shells are still to be read again. */
  @PostMapping("/readings/left")
  Count left(@Valid @RequestBody Sections s, @AuthenticationPrincipal SignedIn who) {
    return new Count(readings.left(s.sections(), who));
  }
}
