package org.zephyrmist.server.calendar;

import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.calendar.Deadlines;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Attachment;
import org.zephyrmist.server.web.Sheet;

/** What is due, as shells have it, to be taken along. */
@RestController
@RequestMapping("/api/calendars/due")
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'INSTRUCTOR', 'ADMINISTRATOR')")
class DueApi {
  private static final List<String> HEAD =
      List.of("Course", "Section", "Item", "Kind", "Opens", "Due", "Closes");
  private final DueDates dates;
  private final Subscriptions subscriptions;
  private final Clock clock;

  DueApi(DueDates dates, Subscriptions subscriptions, Clock clock) {
    this.subscriptions = subscriptions;
    this.dates = dates;
    this.clock = clock;
  }

  /**
   * @param course its code; absent: all courses
   * @param section absent: all sections
   */
  record SubscribeTo(@NotNull UUID term, @Size(max = 100) String course, UUID section) {}

  /**
   * @param path of the calendar on this server; told this once
   */
  record Subscribed(@NotNull String path) {}

  /** An address for a calendar program; whoever has it sees what its person may see. */
  @PostMapping(path = "/addresses", produces = MediaType.APPLICATION_JSON_VALUE)
  @ResponseStatus(HttpStatus.CREATED)
  Subscribed subscribe(@Valid @RequestBody SubscribeTo s, @AuthenticationPrincipal SignedIn who) {
    Subscriptions.Asked asked =
        new Subscriptions.Asked(
            s.term(), Optional.ofNullable(s.course()), Optional.ofNullable(s.section()));
    return new Subscribed("/api/subscribed/" + subscriptions.make(asked, who) + "/due.ics");
  }

  /**
   * @param about what it shows
   * @param usedAt when a program last asked, by the hour; absent: never
   */
  record CalendarAddress(
      @NotNull UUID id,
      @NotNull String about,
      @NotNull OffsetDateTime madeAt,
      OffsetDateTime usedAt) {}

  /** One's own. */
  @GetMapping(path = "/addresses", produces = MediaType.APPLICATION_JSON_VALUE)
  List<CalendarAddress> addresses(@AuthenticationPrincipal SignedIn who) {
    return subscriptions.of(who).stream()
        .map(a -> new CalendarAddress(a.id(), a.about(), a.madeAt(), a.usedAt().orElse(null)))
        .toList();
  }

  @DeleteMapping("/addresses/{address}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void end(@PathVariable UUID address, @AuthenticationPrincipal SignedIn who) {
    subscriptions.end(address, who);
  }

  /** A calendar (iCalendar, RFC 5545), or a table. */
  enum DueFormat {
    ICS,
    CSV,
    XLSX
  }

  /**
   * @param course its code; absent: all courses
   * @param section absent: all sections
   */
  @GetMapping("/file")
  void file(
      @RequestParam UUID term,
      @RequestParam(required = false) String course,
      @RequestParam(required = false) UUID section,
      @RequestParam DueFormat format,
      HttpServletResponse response,
      @AuthenticationPrincipal SignedIn who)
      throws IOException {
    List<DueDates.Held> all = dates.of(term, course, section, who);
    if (format == DueFormat.ICS) {
      Attachment.begin(response, "due.ics");
      response.setContentType("text/calendar;charset=utf-8");
      response
          .getOutputStream()
          .write(
              Deadlines.calendar(
                      "Due" + (course == null ? "" : " in " + course),
                      DueDates.deadlines(all),
                      clock.instant())
                  .getBytes(StandardCharsets.UTF_8));
      return;
    }
    Sheet.valueOf(format.name())
        .send(
            response,
            "due",
            HEAD,
            row ->
                all.forEach(
                    d ->
                        row.of(
                            Arrays.asList(
                                d.course(),
                                d.code(),
                                d.title(),
                                Sheet.words(d.kind()),
                                text(d.timing().opens()),
                                text(d.timing().due()),
                                text(d.timing().closes())))));
  }

  private static String text(java.util.Optional<java.time.LocalDateTime> at) {
    return at.map(t -> t.toString().replace('T', ' ')).orElse(null);
  }
}
