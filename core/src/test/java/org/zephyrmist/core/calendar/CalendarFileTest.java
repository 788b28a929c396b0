package org.zephyrmist.core.calendar;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.zephyrmist.core.calendar.Springs.day;

import java.time.Instant;
import java.util.List;
import java.util.TimeZone;
import org.junit.jupiter.api.Test;

class CalendarFileTest {
  private static final Days TERM = new Days(day("2027-01-18"), day("2027-05-14"));

  private static CalendarFile.Found read(String... lines) {
    String text =
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Larkmoor//EN\r\n"
            + String.join("\r\n", lines)
            + "\r\nEND:VCALENDAR\r\n";
    return CalendarFile.read(text, TERM, Springs.CENTRAL);
  }

  private static String[] event(String... lines) {
    return new String[] {
      "BEGIN:VEVENT\r\nUID:1\r\n" + String.join("\r\n", lines) + "\r\nEND:VEVENT"
    };
  }

  @Test
  void aBreakOfWholeDaysEndsTheDayBeforeItsEnd() {
    CalendarFile.Found f =
        read(
            event(
                "SUMMARY:Spring break",
                "DTSTART;VALUE=DATE:20270308",
                "DTEND;VALUE=DATE:20270313"));
    assertThat(f.off())
        .containsExactly(
            new DaysOff("Spring break", new Days(day("2027-03-08"), day("2027-03-12"))));
  }

  @Test
  void anEventWithoutAnEndIsOneDay() {
    assertThat(read(event("SUMMARY:Founders' Day", "DTSTART;VALUE=DATE:20270215")).off())
        .containsExactly(
            new DaysOff("Founders' Day", new Days(day("2027-02-15"), day("2027-02-15"))));
  }

  @Test
  void whatRepeatsForEverEndsWithTheTerm() {
    CalendarFile.Found f =
        read(
            event(
                "SUMMARY:No classes", "DTSTART;VALUE=DATE:19900105", "RRULE:FREQ=WEEKLY;BYDAY=FR"));
    assertThat(f.off()).hasSize(17).allMatch(o -> TERM.contains(o.days().first()));
    assertThat(f.off().get(0).days().first()).isEqualTo(day("2027-01-22"));
  }

  @Test
  void whatRepeatsTooOftenOrNeverIsNoTrap() {
    assertThatThrownBy(
            () -> read(event("SUMMARY:Tick", "DTSTART:19900101T000000Z", "RRULE:FREQ=SECONDLY")))
        .isInstanceOf(CalendarException.class)
        .hasMessageContaining("more often than once a day");
    assertThat(
            read(event(
                    "SUMMARY:30 February",
                    "DTSTART;VALUE=DATE:20270105",
                    "RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30"))
                .off())
        .isEmpty();
  }

  @Test
  void whatRepeatsAndNeverEndsCostsNoMoreThanTheTermHasDays() {
    String[] long1 =
        event(
            "SUMMARY:Ages",
            "DTSTART;VALUE=DATE:20270105",
            "DURATION:P1000000D",
            "RRULE:FREQ=DAILY");
    assertThat(read(long1).off()).containsExactly(new DaysOff("Ages", TERM));
    String rule =
        String.join("\r\n", event("SUMMARY:R", "DTSTART;VALUE=DATE:19900105", "RRULE:FREQ=WEEKLY"));
    assertThatThrownBy(() -> read((rule + "\r\n").repeat(501).strip()))
        .isInstanceOf(CalendarException.class)
        .hasMessageContaining("500 events that repeat");
  }

  @Test
  void aZoneThatIsNamedAndNotDefinedIsTheOneEverybodyKnows() {
    CalendarFile.Found f =
        read(
            event(
                "SUMMARY:Closed",
                "DTSTART;TZID=Europe/Berlin:20270216T050000",
                "DTEND;TZID=Europe/Berlin:20270216T053000"));
    assertThat(f.off().get(0).days().first()).isEqualTo(day("2027-02-15"));
  }

  @Test
  void daysThatAreListedComeBesideTheFirst() {
    assertThat(
            read(event("SUMMARY:Off", "DTSTART;VALUE=DATE:20270215", "RDATE;VALUE=DATE:20270301"))
                .off())
        .extracting(o -> o.days().first())
        .containsExactly(day("2027-02-15"), day("2027-03-01"));
  }

  @Test
  void whatIsCancelledIsNoDayOffAndAMovedDayIsWhereItWasMoved() {
    CalendarFile.Found f =
        read(
            event("SUMMARY:Gone", "STATUS:CANCELLED", "DTSTART;VALUE=DATE:20270201")[0],
            event("SUMMARY:Stays", "DTSTART;VALUE=DATE:20270301", "RRULE:FREQ=WEEKLY;COUNT=3")[0],
            event(
                "SUMMARY:Moved",
                "RECURRENCE-ID;VALUE=DATE:20270308",
                "DTSTART;VALUE=DATE:20270310")[0]);
    assertThat(f.off())
        .extracting(o -> o.days().first())
        .containsExactly(day("2027-03-01"), day("2027-03-15"), day("2027-03-10"));
  }

  @Test
  void aMarkBeforeTheTextIsNoPartOfIt() {
    String text =
        "\uFEFFBEGIN:VCALENDAR\r\nVERSION:2.0\r\n"
            + event("SUMMARY:A", "DTSTART;VALUE=DATE:20270215")[0]
            + "\r\nEND:VCALENDAR\r\n";
    assertThat(CalendarFile.read(text, TERM, Springs.CENTRAL).off()).hasSize(1);
  }

  @Test
  void aDayIsTheSameDayWhereverTheServerStands() {
    TimeZone here = TimeZone.getDefault();
    try {
      for (String zone : List.of("Pacific/Auckland", "America/Los_Angeles", "UTC")) {
        TimeZone.setDefault(TimeZone.getTimeZone(zone));
        assertThat(
                read(
                        event(
                            "SUMMARY:Break",
                            "DTSTART;VALUE=DATE:20270308",
                            "DTEND;VALUE=DATE:20270313",
                            "RRULE:FREQ=WEEKLY;COUNT=2"))
                    .off()
                    .stream()
                    .map(DaysOff::days))
            .as(zone)
            .containsExactly(
                new Days(day("2027-03-08"), day("2027-03-12")),
                new Days(day("2027-03-15"), day("2027-03-19")));
      }
    } finally {
      TimeZone.setDefault(here);
    }
  }

  @Test
  void whatIsOfAnotherTermIsCounted() {
    assertThat(read(event("SUMMARY:Autumn", "DTSTART;VALUE=DATE:20261010")).outside()).isEqualTo(1);
  }

  @Test
  void aTimeInAnotherZoneIsADayOfTheCollege() {
    CalendarFile.Found f =
        read(event("SUMMARY:Closed", "DTSTART:20270216T030000Z", "DTEND:20270216T040000Z"));
    assertThat(f.off().get(0).days().first()).isEqualTo(day("2027-02-15"));
  }

  @Test
  void whatIsNoCalendarIsToldWithWhatToDo() {
    assertThatThrownBy(() -> CalendarFile.read("Monday: off", TERM, Springs.CENTRAL))
        .isInstanceOf(CalendarException.class)
        .hasMessageContaining("no calendar file");
    assertThatThrownBy(() -> read("X-WR-CALNAME:Nothing")).hasMessageContaining("no events");
    assertThatThrownBy(
            () -> read(event("SUMMARY:Lost", "DTSTART;TZID=Mars/Olympus:20270216T030000")))
        .isInstanceOf(CalendarException.class)
        .hasMessageContaining("Mars/Olympus");
    assertThatThrownBy(
            () ->
                read(
                    event(
                        "SUMMARY:Backwards",
                        "DTSTART;VALUE=DATE:20270216",
                        "DTEND;VALUE=DATE:20270210")))
        .hasMessageContaining("ends before it begins");
  }

  @Test
  void whatIsDueIsWrittenAtItsMoment() {
    String text =
        Deadlines.calendar(
            "LGT 110",
            List.of(
                new Deadlines.Deadline(
                    "a@b",
                    "Paper plot, Week 3",
                    "Section 01",
                    Springs.at("2027-03-12T23:59"),
                    Springs.CENTRAL)),
            Instant.parse("2027-01-01T00:00:00Z"));
    assertThat(text)
        .contains("BEGIN:VEVENT\r\n", "DTSTART:20270313T055900Z\r\n", "UID:a@b\r\n")
        .contains("SUMMARY:Paper plot\\, Week 3\r\n");
  }
}
