package org.zephyrmist.server.calendar;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.HashSet;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.calendar.CalendarException;
import org.zephyrmist.core.calendar.CalendarFile;
import org.zephyrmist.core.calendar.Meetings;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Heavy;

/** Calendars of terms, changed. */
@RestController
@RequestMapping(path = "/api/calendars", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
class CalendarApi {
  private final CalendarEdits edits;
  private final SectionDates dates;
  private final Masters masters;
  private final CalendarMoves moves;
  private final CalendarLoads loads;

  CalendarApi(
      CalendarEdits edits,
      SectionDates dates,
      Masters masters,
      CalendarMoves moves,
      CalendarLoads loads) {
    this.loads = loads;
    this.moves = moves;
    this.edits = edits;
    this.dates = dates;
    this.masters = masters;
  }

  record MadeCalendar(@NotNull UUID id) {}

  /** A calendar of a part of a term. */
  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  MadeCalendar add(
      @RequestParam UUID term,
      @Valid @RequestBody CalendarEntry e,
      @AuthenticationPrincipal SignedIn who) {
    return new MadeCalendar(edits.add(term, e, who));
  }

  /**
   * The calendar of a whole term is called as the term is.
   *
   * @param keepPast whether what was due before now, and what students have handed in already,
   *     stays where it is
   */
  @PutMapping("/{calendar}")
  void change(
      @PathVariable UUID calendar,
      @RequestParam(defaultValue = "false") boolean keepPast,
      @Valid @RequestBody CalendarEntry e,
      @AuthenticationPrincipal SignedIn who) {
    moves.change(calendar, e, keepPast, who);
  }

  /**
   * A due date that a changed calendar moves.
   *
   * @param to absent: it has no date any more
   * @param past whether it was due before now
   * @param handedIn whether students have handed in work on it in these sections
   */
  record MovedDue(
      @NotNull String course,
      @NotNull String title,
      @NotNull LocalDateTime from,
      LocalDateTime to,
      int sections,
      boolean past,
      boolean handedIn) {}

  /** What would move; nothing is kept. */
  @PostMapping("/{calendar}/moves")
  List<MovedDue> moves(
      @PathVariable UUID calendar,
      @Valid @RequestBody CalendarEntry e,
      @AuthenticationPrincipal SignedIn who) {
    return moves.of(calendar, e, who).stream()
        .map(
            m ->
                new MovedDue(
                    m.course(),
                    m.title(),
                    m.from(),
                    m.to().orElse(null),
                    m.sections().size(),
                    m.past(),
                    m.handedIn()))
        .toList();
  }

  /**
   * @param whole whether it is the calendar of the whole term
   * @param sections that would go by it
   */
  record LoadFor(
      @NotNull @Valid CalendarEntry calendar,
      boolean whole,
      @NotNull @Size(min = 1, max = 5_000) List<@NotNull UUID> sections) {}

  /**
   * A week.
   *
   * @param number as the calendar counts; absent in one that does not count
   * @param due how many items are due in it
   * @param most that are due on one day of it
   */
  record LoadOfWeek(Integer number, @NotNull LocalDate monday, int due, int most) {}

  /**
   * @param together titles that would be due on one day and are not elsewhere
   */
  record LoadOfMaster(
      @NotNull UUID master, @NotNull List<LoadOfWeek> weeks, @NotNull List<String> together) {}

  /** What each week would hold, by master; nothing is kept. */
  @PostMapping("/load")
  List<LoadOfMaster> load(
      @RequestParam UUID term,
      @Valid @RequestBody LoadFor l,
      @AuthenticationPrincipal SignedIn who) {
    return loads.of(term, l.whole(), l.calendar(), l.sections(), who).stream()
        .map(
            x ->
                new LoadOfMaster(
                    x.master(),
                    x.weeks().stream()
                        .map(
                            w ->
                                new LoadOfWeek(
                                    w.number().orElse(null), w.monday(), w.due(), w.most()))
                        .toList(),
                    x.together()))
        .toList();
  }

  @DeleteMapping("/{calendar}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void end(@PathVariable UUID calendar, @AuthenticationPrincipal SignedIn who) {
    edits.end(calendar, who);
  }

  record SectionsOfCalendar(@NotNull @Size(min = 1, max = 5_000) List<@NotNull UUID> sections) {}

  /** These sections go by it from now on, and by no other. */
  @PutMapping("/{calendar}/sections")
  void go(
      @PathVariable UUID calendar,
      @Valid @RequestBody SectionsOfCalendar s,
      @AuthenticationPrincipal SignedIn who) {
    edits.go(calendar, s.sections(), who);
  }

  /**
   * A calendar file.
   *
   * @param text of it (iCalendar, RFC 5545)
   */
  record DaysOffFile(@NotNull @Size(max = CalendarFile.MOST) String text) {}

  /**
   * What it has for the term; nothing is kept.
   *
   * @param outside events of other times
   */
  record DaysOffFound(@NotNull List<CalendarEntry.OffDay> off, int outside) {}

  @Heavy
  @PostMapping("/{calendar}/file")
  DaysOffFound file(@PathVariable UUID calendar, @Valid @RequestBody DaysOffFile f) {
    try {
      CalendarFile.Found found =
          CalendarFile.read(
              f.text(), edits.within(calendar), edits.kept(calendar).calendar().zone());
      return new DaysOffFound(
          found.off().stream().map(CalendarEntry.OffDay::of).toList(), found.outside());
    } catch (CalendarException e) {
      throw CalendarEntry.refused(e);
    }
  }

  /**
   * A date of chosen sections.
   *
   * @param at absent: it has no such date there
   * @param byPattern it is what the pattern says again
   */
  record SetDate(
      @NotNull @Size(min = 1, max = 80) String item,
      @NotNull Point point,
      LocalDateTime at,
      boolean byPattern) {}

  record SectionsDates(
      @NotNull UUID master,
      @NotNull @Size(min = 1, max = 5_000) List<@NotNull UUID> sections,
      @NotNull @Size(min = 1, max = 3_000) List<@NotNull @Valid SetDate> dates) {}

  /** Dates for these sections alone; they reach the shells with a delivery. */
  @PutMapping("/dates")
  void dates(@Valid @RequestBody SectionsDates d, @AuthenticationPrincipal SignedIn who) {
    dates.set(masters.get(d.master(), who), d.sections(), d.dates(), who);
  }

  /** A day of the week, Monday is 1, and from when to when. */
  record MeetingTime(
      @Min(1) @Max(7) int weekday, @NotNull LocalTime begins, @NotNull LocalTime ends) {}

  /**
   * When sections meet.
   *
   * @param weekly none: they do not meet
   */
  record SectionsMeet(
      @NotNull @Size(min = 1, max = 5_000) List<@NotNull UUID> sections,
      @NotNull @Size(max = 21) List<@NotNull @Valid MeetingTime> weekly,
      @NotNull @Size(max = 200) List<@NotNull LocalDate> cancelled) {}

  @PutMapping("/meetings")
  void meet(@Valid @RequestBody SectionsMeet m, @AuthenticationPrincipal SignedIn who) {
    m.cancelled().forEach(CalendarEntry::inRange);
    Meetings meetings;
    try {
      meetings =
          new Meetings(
              m.weekly().stream()
                  .distinct()
                  .map(w -> new Meetings.Weekly(DayOfWeek.of(w.weekday()), w.begins(), w.ends()))
                  .toList(),
              new HashSet<>(m.cancelled()));
    } catch (CalendarException e) {
      throw CalendarEntry.refused(e);
    }
    edits.meet(m.sections(), meetings, who);
  }
}
