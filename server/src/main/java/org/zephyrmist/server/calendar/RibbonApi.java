package org.zephyrmist.server.calendar;

import jakarta.validation.constraints.NotNull;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.calendar.CountedDays;
import org.zephyrmist.core.calendar.Remark;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.people.SignedIn;

/** Calendars of a term, and what is due in it each day. */
@RestController
@RequestMapping(path = "/api/calendars", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class RibbonApi {
  private final Calendars calendars;
  private final CalendarEdits edits;
  private final Ribbon ribbon;

  RibbonApi(Calendars calendars, CalendarEdits edits, Ribbon ribbon) {
    this.calendars = calendars;
    this.edits = edits;
    this.ribbon = ribbon;
  }

  /**
   * A calendar of a term.
   *
   * @param id by which it is changed
   * @param mondays of its weeks that count, in order
   * @param sections that go by it, within reach
   */
  record CalendarOfTerm(
      @NotNull UUID id,
      boolean whole,
      @NotNull CalendarEntry says,
      @NotNull List<LocalDate> mondays,
      int teachingDays,
      int sections) {}

  /** The one of the whole term first. */
  @GetMapping
  List<CalendarOfTerm> list(@RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    Map<UUID, Integer> sections = edits.sections(term, who);
    return calendars.of(term).stream()
        .map(
            k -> {
              CountedDays days = new CountedDays(k.calendar());
              return new CalendarOfTerm(
                  k.id(),
                  k.whole(),
                  CalendarEntry.of(k),
                  days.mondays(),
                  days.teachingDays().size(),
                  sections.getOrDefault(k.id(), 0));
            })
        .toList();
  }

  /**
   * A date that a section has made its own.
   *
   * @param due absent: it has taken the date away
   */
  record OwnDue(@NotNull UUID section, @NotNull String code, LocalDateTime due) {}

  /**
   * What is due.
   *
   * @param pattern as the master's draft says it; absent for a real date
   * @param said the day of the pattern, before anything was done about it
   * @param remarks what is to be told of the date
   * @param off the day off that it is about; empty if about none
   * @param sections for which it is
   * @param own in which it is another day
   * @param waiting in which the shell does not have it so yet
   */
  record DueDate(
      @NotNull UUID master,
      @NotNull String item,
      @NotNull Kind kind,
      @NotNull String title,
      String pattern,
      @NotNull LocalDateTime due,
      @NotNull LocalDate said,
      @NotNull List<Remark.Kind> remarks,
      @NotNull String off,
      int sections,
      @NotNull List<OwnDue> own,
      int waiting) {}

  /**
   * Sections of a course that go by the same days.
   *
   * @param meets on which weekdays, Monday is 1
   */
  record RibbonRow(
      @NotNull String course,
      @NotNull String title,
      @NotNull UUID calendar,
      @NotNull List<Integer> meets,
      boolean evenings,
      @NotNull List<UUID> sections,
      @NotNull List<DueDate> dates) {}

  record MasterOfRibbon(@NotNull UUID id, @NotNull String code, @NotNull String title) {}

  /**
   * @param undated items without any date, of which work is asked
   */
  record RibbonPicture(
      @NotNull List<CalendarOfTerm> calendars,
      @NotNull List<MasterOfRibbon> masters,
      @NotNull List<RibbonRow> rows,
      int undated) {}

  @GetMapping("/ribbon")
  RibbonPicture ribbon(@RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    Ribbon.Seen seen = ribbon.of(term, who);
    return new RibbonPicture(list(term, who), seen.masters(), seen.rows(), seen.undated());
  }
}
