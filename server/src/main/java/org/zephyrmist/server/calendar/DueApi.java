package org.zephyrmist.server.calendar;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
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
  private final Clock clock;

  DueApi(DueDates dates, Clock clock) {
    this.dates = dates;
    this.clock = clock;
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
