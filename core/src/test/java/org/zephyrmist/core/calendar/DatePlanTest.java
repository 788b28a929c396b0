package org.zephyrmist.core.calendar;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.zephyrmist.core.calendar.Springs.at;
import static org.zephyrmist.core.calendar.Springs.day;
import static org.zephyrmist.core.calendar.Springs.days;
import static org.zephyrmist.core.calendar.Springs.due;
import static org.zephyrmist.core.calendar.Springs.dueDay;
import static org.zephyrmist.core.calendar.Springs.item;
import static org.zephyrmist.core.calendar.Springs.when;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.ModuleDates;
import org.zephyrmist.core.content.OffRule;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.TimingPattern;
import org.zephyrmist.core.content.When;

class DatePlanTest {
  private static final CountedDays SPRING = days(WeekCount.CALENDAR);

  private static List<Remark.Kind> kinds(Dated d) {
    return d.remarks().stream().map(Remark::kind).toList();
  }

  private static Map<ItemKey, Dated> plan(CountedDays in, Undated... items) {
    return DatePlan.of(List.of(items), in, OffDays.USUAL);
  }

  @Test
  void whatFollowsAnItemMovesWithIt() {
    Map<ItemKey, Dated> d =
        plan(
            SPRING,
            item("review", Point.DUE, "3 days after draft due"),
            item("draft", Point.DUE, "1 day after plan due"),
            item("plan", Point.DUE, "week 5 Mon"));
    assertThat(dueDay(d.get(new ItemKey("plan")))).isEqualTo("2027-02-16");
    assertThat(dueDay(d.get(new ItemKey("draft")))).isEqualTo("2027-02-17");
    assertThat(dueDay(d.get(new ItemKey("review")))).isEqualTo("2027-02-20");
  }

  @Test
  void aCircleHasNoDatesAndIsTold() {
    Undated a = item("a", Point.DUE, "1 day after b due");
    Undated b = item("b", Point.DUE, "1 day after a due");
    Map<ItemKey, Dated> d = plan(SPRING, a, b);
    assertThat(d.values()).allMatch(x -> x.timing().equals(Timing.NONE));
    assertThat(d.values().stream().flatMap(x -> kinds(x).stream())).contains(Remark.Kind.CIRCLE);
    Map<ItemKey, TimingPattern> both =
        Map.of(a.key(), a.timing().patterns(), b.key(), b.timing().patterns());
    assertThat(Circles.of(both, a.key()).orElseThrow()).containsExactlyInAnyOrder(a.key(), b.key());
    assertThat(Circles.of(Map.of(a.key(), a.timing().patterns()), a.key())).isEmpty();
  }

  @Test
  void whatFollowsNothingHasNoDate() {
    Dated d = plan(SPRING, item("a", Point.DUE, "1 day after gone due")).get(new ItemKey("a"));
    assertThat(d.timing()).isEqualTo(Timing.NONE);
    assertThat(kinds(d)).containsExactly(Remark.Kind.NOTHING_TO_FOLLOW);
  }

  @Test
  void anItemOpensBeforeItIsDueAndIsDueBeforeItCloses() {
    Timing t =
        Timing.NONE.with(
            new TimingPattern(
                Optional.of(when("week 6 Tue")),
                Optional.of(when("week 5 Mon")),
                Optional.of(when("week 5 Mon").on(new DatePattern.Fixed(day("2027-02-14")))),
                Optional.empty()));
    Dated d = plan(SPRING, item("a", t)).get(new ItemKey("a"));
    assertThat(d.timing().opens()).contains(at("2027-02-16T00:00"));
    assertThat(d.timing().closes()).isEqualTo(d.timing().due());
    assertThat(kinds(d)).filteredOn(k -> k == Remark.Kind.IN_ORDER).hasSize(2);
  }

  @Test
  void deadlinesThatMeetOnADayAreToldUnlessTheMasterHasThemSo() {
    Map<ItemKey, Dated> d =
        plan(
            SPRING,
            item("exercise", Point.DUE, "week 5 Mon"),
            item("quiz", Point.DUE, "week 5 Tue"),
            item("talk", Point.DUE, "week 6 Fri"),
            item("report", Point.DUE, "week 6 Fri"));
    assertThat(kinds(d.get(new ItemKey("quiz")))).containsExactly(Remark.Kind.TWO_ON_ONE_DAY);
    assertThat(kinds(d.get(new ItemKey("exercise"))))
        .containsExactly(Remark.Kind.MOVED_OFF_DAY, Remark.Kind.TWO_ON_ONE_DAY);
    assertThat(kinds(d.get(new ItemKey("talk")))).isEmpty();
  }

  @Test
  void eachRuleForADayOffLeadsWhereItSays() {
    assertThat(dueDay(due("week 8 Wed", SPRING, OffRule.SAME_WEEKDAY_EARLIER)))
        .isEqualTo("2027-03-03");
    assertThat(dueDay(due("week 8 Wed", SPRING, OffRule.SAME_WEEKDAY_LATER)))
        .isEqualTo("2027-03-17");
    Dated left = due("week 8 Wed", SPRING, OffRule.LEAVE);
    assertThat(dueDay(left)).isEqualTo("2027-03-10");
    assertThat(kinds(left)).containsExactly(Remark.Kind.ON_DAY_OFF);
  }

  @Test
  void theRuleOfTheDateCountsBeforeThatOfTheItemItsKindAndAll() {
    ItemKey key = Springs.ITEM;
    OffDays off =
        new OffDays(
            OffRule.LEAVE,
            Map.of(Kind.ASSIGNMENT, OffRule.NEXT_TEACHING_DAY),
            Map.of(key, OffRule.TEACHING_DAY_BEFORE));
    When w = when("week 5 Mon");
    assertThat(off.of(w, key, Kind.ASSIGNMENT)).isEqualTo(OffRule.TEACHING_DAY_BEFORE);
    assertThat(off.of(w, new ItemKey("x"), Kind.ASSIGNMENT)).isEqualTo(OffRule.NEXT_TEACHING_DAY);
    assertThat(off.of(w, new ItemKey("x"), Kind.QUIZ)).isEqualTo(OffRule.LEAVE);
    When own = new When(w.pattern(), w.at(), Optional.of(OffRule.SAME_WEEKDAY_LATER));
    assertThat(off.of(own, key, Kind.ASSIGNMENT)).isEqualTo(OffRule.SAME_WEEKDAY_LATER);
  }

  @Test
  void aSundayIsNoDayOff() {
    assertThat(dueDay(due("week 3 Sun", SPRING))).isEqualTo("2027-02-07");
  }

  @Test
  void whatIsBeyondTheEndIsOnTheLastTeachingDayAndTold() {
    Dated d = due("week 30 Fri", SPRING);
    assertThat(dueDay(d)).isEqualTo("2027-05-07");
    assertThat(kinds(d)).containsExactly(Remark.Kind.AFTER_END);
    assertThat(kinds(due("teaching day 200", SPRING))).containsExactly(Remark.Kind.AFTER_END);
    assertThat(dueDay(due("week 17 Wed", SPRING)))
        .as("homework is not put among the finals")
        .isEqualTo("2027-05-07");
    assertThat(dueDay(due("finals Wed", SPRING))).isEqualTo("2027-05-12");
    assertThat(kinds(due("2 days after last day", SPRING))).isEmpty();
    assertThat(kinds(due("9 days after last day", SPRING))).containsExactly(Remark.Kind.OUTSIDE);
  }

  @Test
  void meetingsAreCountedWithoutThoseThatAreOffOrCancelled() {
    Meetings evenings =
        new Meetings(
            List.of(
                new Meetings.Weekly(DayOfWeek.TUESDAY, LocalTime.of(18, 30), LocalTime.of(21, 0)),
                new Meetings.Weekly(DayOfWeek.THURSDAY, LocalTime.of(18, 30), LocalTime.of(21, 0))),
            Set.of(day("2027-01-21")));
    CountedDays d = new CountedDays(Springs.spring(WeekCount.CALENDAR), evenings);
    assertThat(d.meetingDays()).startsWith(day("2027-01-19"), day("2027-01-26"));
    assertThat(d.meetingDays()).doesNotContain(day("2027-03-09"));
    When begins = new When(new DatePattern.Meeting(2), Optional.empty(), Optional.empty());
    Timing t = Timing.NONE.with(TimingPattern.NONE.with(Point.DUE, Optional.of(begins)));
    assertThat(plan(d, item("a", t)).get(new ItemKey("a")).timing().due())
        .as("without a time of its own, when the meeting begins")
        .contains(at("2027-01-26T18:30"));
    assertThat(kinds(due("meeting 90", d))).containsExactly(Remark.Kind.TOO_FEW_MEETINGS);
    assertThat(kinds(due("meeting 1", SPRING))).containsExactly(Remark.Kind.NO_MEETINGS);
  }

  private static Map<ItemKey, Dated> module(CountedDays in, String start, int weeks, int items) {
    ItemKey module = new ItemKey("module");
    TimingPattern within =
        TimingPattern.NONE.within(
            Optional.of(new ModuleDates(When.of(start, Point.OPENS).orElseThrow(), weeks, true)));
    List<Undated> all = new ArrayList<>();
    all.add(new Undated(module, Kind.MODULE, Optional.empty(), Timing.NONE.with(within)));
    for (int i = 0; i < items; i++) {
      all.add(new Undated(new ItemKey("i" + i), Kind.PAGE, Optional.of(module), Timing.NONE));
    }
    return DatePlan.of(all, in, OffDays.USUAL);
  }

  @Test
  void whatIsStaggeredByMeetingsClosesTheDayBeforeTheNextMeeting() {
    Meetings mondays =
        new Meetings(
            List.of(new Meetings.Weekly(DayOfWeek.MONDAY, LocalTime.of(9, 0), LocalTime.of(10, 0))),
            Set.of());
    CountedDays d = new CountedDays(Springs.spring(WeekCount.CALENDAR), mondays);
    Map<ItemKey, Dated> dates = module(d, "meeting 1", 1, 3);
    assertThat(dates.get(new ItemKey("i1")).timing().opens()).contains(at("2027-01-25T09:00"));
    assertThat(dates.get(new ItemKey("i0")).timing().closes()).contains(at("2027-01-24T23:59"));
  }

  @Test
  void whatIsStaggeredBeyondAllMeasureOpensAtTheEnd() {
    Map<ItemKey, Dated> dates = module(SPRING, "week 1 Mon", 52, 20);
    assertThat(dates.get(new ItemKey("i19")).timing().opens().orElseThrow().toLocalDate())
        .isEqualTo("2027-05-07");
  }

  @Test
  void whatIsMovedTogetherKeepsItsDistances() {
    Timing plan = item("plan", Point.DUE, "week 5 Mon").timing();
    Timing draft = item("draft", Point.DUE, "2 days after plan due").timing();
    Set<ItemKey> both = Set.of(new ItemKey("plan"), new ItemKey("draft"));
    Timing moved = Shifted.all(plan, 9, both);
    assertThat(moved.patterns().due().orElseThrow().text()).isEqualTo("week 6 Wed 23:59");
    assertThat(Shifted.all(draft, 9, both)).as("it follows").isEqualTo(draft);
    assertThat(Shifted.all(draft, 9, Set.of(new ItemKey("draft"))).patterns().due())
        .map(When::text)
        .contains("11 days after plan due 23:59");
    assertThat(Shifted.all(Springs.due("2027-02-01T10:00"), -1, both).due())
        .contains(at("2027-01-31T10:00"));
    assertThatThrownBy(() -> Shifted.all(plan, -40, both)).isInstanceOf(Shifted.NotPossible.class);
    assertThatThrownBy(() -> Shifted.all(Springs.due("2200-12-31T10:00"), 1, both))
        .isInstanceOf(Shifted.NotPossible.class);
  }

  @Test
  void calendarsThatCannotBeAreRefusedWithWhatToDo() {
    assertThatThrownBy(() -> new Days(day("2027-05-07"), day("2027-01-18")))
        .isInstanceOf(CalendarException.class)
        .hasMessage("The last day, 2027-01-18, is before the first, 2027-05-07.");
    Days term = new Days(day("2027-01-18"), day("2027-01-29"));
    assertThatThrownBy(
            () ->
                new TermCalendar(
                    term,
                    List.of(new DaysOff("Long break", term)),
                    Optional.empty(),
                    Springs.CENTRAL,
                    WeekCount.TEACHING,
                    TermCalendar.USUAL))
        .hasMessageContaining("Days off cover the whole term");
    Meetings never =
        new Meetings(
            List.of(new Meetings.Weekly(DayOfWeek.MONDAY, LocalTime.of(8, 0), LocalTime.of(9, 0))),
            Set.of());
    TermCalendar oneDay =
        new TermCalendar(
            new Days(day("2027-01-19"), day("2027-01-22")),
            List.of(),
            Optional.empty(),
            Springs.CENTRAL,
            WeekCount.CALENDAR,
            TermCalendar.USUAL);
    assertThatThrownBy(() -> new CountedDays(oneDay, never))
        .hasMessageContaining("would never meet");
  }

  @Test
  void aPatternIsItsTextAgain() {
    assertThat(
            Stream.of(
                "week 5 Mon",
                "teaching day 12",
                "meeting 7",
                "3 days after essay due",
                "1 day before essay opens",
                "essay closes",
                "2 days before first day",
                "last day",
                "finals Wed",
                "2027-03-05"))
        .allSatisfy(t -> assertThat(DatePattern.of(t).map(DatePattern::text)).as(t).contains(t));
    assertThat(DatePattern.of("Week 5  monday").map(DatePattern::text)).contains("week 5 Mon");
    assertThat(Stream.of("week 0 Mon", "week 5 Xyz", "soon", "", "meeting 999", "2027-13-40"))
        .allSatisfy(t -> assertThat(DatePattern.of(t)).as(t).isEmpty());
  }

  /** A calendar by chance. */
  private static TermCalendar calendar(Random r) {
    LocalDate first = day("2026-08-01").plusDays(r.nextInt(400));
    LocalDate last = first.plusDays(30 + r.nextInt(100));
    List<DaysOff> off = new ArrayList<>();
    for (int i = r.nextInt(4); i > 0; i--) {
      LocalDate from = first.plusDays(3 + r.nextInt(25));
      off.add(new DaysOff("off " + i, new Days(from, from.plusDays(r.nextInt(7)))));
    }
    Optional<Days> finals =
        r.nextBoolean()
            ? Optional.of(new Days(last.plusDays(1 + r.nextInt(4)), last.plusDays(9)))
            : Optional.empty();
    return new TermCalendar(
        new Days(first, last),
        off,
        finals,
        Springs.CENTRAL,
        WeekCount.values()[r.nextInt(2)],
        TermCalendar.USUAL);
  }

  private static Timing real(Random r, TermCalendar c) {
    LocalDateTime opens =
        c.teaching().first().minusDays(20).plusDays(r.nextInt(180)).atTime(r.nextInt(24), 0);
    LocalDateTime due = opens.plusHours(r.nextInt(400));
    LocalDateTime closes = due.plusHours(r.nextInt(400));
    return new Timing(
        Optional.of(opens).filter(x -> r.nextBoolean()),
        Optional.of(due).filter(x -> r.nextInt(5) > 0),
        Optional.of(closes).filter(x -> r.nextBoolean()));
  }

  @Test
  void realDatesBecomePatternsAndInTheSameCalendarTheSameDatesAgain() {
    Laws.hold(
        r -> {
          CountedDays c = new CountedDays(calendar(r));
          OldDates old = new OldDates(c, OldDates.By.values()[r.nextInt(3)]);
          OffDays any = new OffDays(OffRule.values()[r.nextInt(5)], Map.of(), Map.of());
          for (int i = 0; i < 20; i++) {
            Timing real = real(r, c.calendar());
            Timing pattern = old.patterns(real);
            assertThat(pattern.at(Point.DUE)).as("all are patterns").isEmpty();
            Map<ItemKey, Dated> again = DatePlan.of(List.of(item("a", pattern)), c, any);
            assertThat(again.get(new ItemKey("a")).timing()).as("%s", pattern).isEqualTo(real);
          }
        });
  }

  private static String pattern(Random r) {
    return switch (r.nextInt(6)) {
      case 0 ->
          "week " + (1 + r.nextInt(20)) + " " + List.of("Mon", "Wed", "Sun").get(r.nextInt(3));
      case 1 -> "teaching day " + (1 + r.nextInt(90));
      case 2 -> "finals Tue";
      case 3 -> "last day";
      case 4 -> r.nextInt(5) + " days after first day";
      default -> "week " + (1 + r.nextInt(12)) + " Fri";
    };
  }

  @Test
  void nothingIsLeftOnADayOffNorOutsideTheTermAndItemsAreInOrder() {
    Laws.hold(
        r -> {
          CountedDays c = new CountedDays(calendar(r));
          OffDays off = new OffDays(OffRule.values()[r.nextInt(4)], Map.of(), Map.of());
          TimingPattern p =
              new TimingPattern(
                  Optional.of(when(pattern(r))),
                  Optional.of(when(pattern(r))),
                  Optional.of(when(pattern(r))),
                  Optional.empty());
          Timing t =
              DatePlan.of(List.of(item("a", Timing.NONE.with(p))), c, off)
                  .get(new ItemKey("a"))
                  .timing();
          for (Point x : Point.values()) {
            LocalDate day = t.at(x).orElseThrow().toLocalDate();
            assertThat(c.calendar().off(day)).as("%s %s in %s", x, p, c.calendar()).isEmpty();
            assertThat(c.inTerm(day)).as("%s %s in %s", x, p, c.calendar()).isTrue();
          }
          assertThat(t.opens().get()).isBeforeOrEqualTo(t.due().get());
          assertThat(t.due().get()).isBeforeOrEqualTo(t.closes().get());
        });
  }

  @Test
  void aWholeTermFitsIntoAPartOfItInOrder() {
    Laws.hold(
        r -> {
          CountedDays whole = new CountedDays(calendar(r));
          CountedDays part = new CountedDays(calendar(r));
          List<Undated> items = new ArrayList<>();
          for (int i = 1; i <= 12; i++) {
            items.add(item("i" + i, Point.DUE, "teaching day " + i * 3));
          }
          Map<ItemKey, Dated> d =
              DatePlan.of(new Fitted(whole, part, Fit.SHARE).of(items), part, OffDays.USUAL);
          LocalDate last = LocalDate.MIN;
          for (Undated i : items) {
            LocalDate due = dueDay(d.get(i.key()));
            assertThat(due).isAfterOrEqualTo(last);
            assertThat(part.teachingDay(due)).isPresent();
            last = due;
          }
        });
  }

  @Test
  void fittedToTheSameWeekdayADeadlineKeepsItsWeekday() {
    CountedDays half =
        new CountedDays(TermCalendar.plain(day("2027-03-15"), day("2027-05-07"), Springs.CENTRAL));
    List<Undated> items =
        new Fitted(SPRING, half, Fit.SHARE_SAME_WEEKDAY)
            .of(List.of(item("essay", Point.DUE, "week 6 Fri")));
    LocalDate at = dueDay(DatePlan.of(items, half, OffDays.USUAL).get(Springs.ITEM));
    assertThat(at.getDayOfWeek()).isEqualTo(DayOfWeek.FRIDAY);
    assertThat(at).isEqualTo("2027-04-02");
  }

  @Test
  void weeklyOpeningsInAPartOfTheTermLeaveHalfOfTheWayToTheDueDate() {
    CountedDays part =
        new CountedDays(TermCalendar.plain(day("2027-03-15"), day("2027-05-07"), Springs.CENTRAL));
    ItemKey module = new ItemKey("module");
    When start = When.of("week 1 Mon", Point.OPENS).orElseThrow();
    TimingPattern within = TimingPattern.NONE.within(Optional.of(new ModuleDates(start, 1, true)));
    for (String weekday : List.of("Mon", "Wed", "Fri", "Sun")) {
      for (Fit fit : List.of(Fit.SHARE, Fit.SHARE_SAME_WEEKDAY)) {
        List<Undated> items = new ArrayList<>();
        items.add(new Undated(module, Kind.MODULE, Optional.empty(), Timing.NONE.with(within)));
        for (int i = 1; i <= 15; i++) {
          String due = "week " + (weekday.equals("Mon") ? i + 1 : i) + " " + weekday;
          Undated one = item("i" + i, Point.DUE, due);
          items.add(new Undated(one.key(), one.kind(), Optional.of(module), one.timing()));
        }
        Map<ItemKey, Dated> d =
            DatePlan.of(new Fitted(SPRING, part, fit).of(items), part, OffDays.USUAL);
        LocalDate last = LocalDate.MIN;
        for (int i = 1; i <= 14; i++) {
          ItemKey k = new ItemKey("i" + i);
          LocalDate opens = d.get(k).timing().opens().orElseThrow().toLocalDate();
          LocalDate due = dueDay(d.get(k));
          assertThat(opens).as(weekday + " " + i).isAfterOrEqualTo(last);
          if (due.isAfter(part.firstDay())) {
            assertThat(opens).as(weekday + " " + i).isBefore(due);
          }
          last = opens;
        }
        assertThat(last).as("spread over the part").isAfter(day("2027-04-20"));
      }
    }
  }
}
