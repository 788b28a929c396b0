package org.zephyrmist.core.calendar;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.core.calendar.Springs.at;
import static org.zephyrmist.core.calendar.Springs.day;
import static org.zephyrmist.core.calendar.Springs.days;
import static org.zephyrmist.core.calendar.Springs.due;
import static org.zephyrmist.core.calendar.Springs.dueDay;
import static org.zephyrmist.core.calendar.Springs.item;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.ModuleDates;
import org.zephyrmist.core.content.OffRule;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.TimingPattern;
import org.zephyrmist.core.content.When;

/** Cases that were worked out by hand, for the spring of 2027. */
class WorkedCasesTest {
  private static Dated fromAutumn(String real, OffRule rule) {
    Timing pattern = new OldDates(Springs.autumn(), OldDates.By.WEEK).patterns(due(real));
    OffDays off = new OffDays(rule, Map.of(), Map.of());
    return DatePlan.of(List.of(item("essay", pattern)), days(WeekCount.CALENDAR), off)
        .get(Springs.ITEM);
  }

  @Test
  void friday16OctoberOfATermFrom31AugustBecomesFriday5March() {
    Dated d = fromAutumn("2026-10-16T23:59", OffRule.NEXT_TEACHING_DAY);
    assertThat(d.timing().due()).contains(at("2027-03-05T23:59"));
    assertThat(d.remarks()).isEmpty();
  }

  @Test
  void friday23OctoberFallsIntoTheBreakAndBecomesMonday15March() {
    Dated d = fromAutumn("2026-10-23T23:59", OffRule.NEXT_TEACHING_DAY);
    assertThat(dueDay(d)).isEqualTo("2027-03-15");
    assertThat(d.remarks())
        .containsExactly(
            new Remark(Remark.Kind.MOVED_OFF_DAY, Point.DUE, day("2027-03-12"), "Spring break"));
  }

  @Test
  void orFriday5MarchByTheOneBefore() {
    assertThat(dueDay(fromAutumn("2026-10-23T23:59", OffRule.TEACHING_DAY_BEFORE)))
        .isEqualTo("2027-03-05");
  }

  @Test
  void fridayOfWeek9Is19MarchByCalendarWeeksAnd26MarchByTeachingWeeks() {
    assertThat(dueDay(due("week 9 Fri", days(WeekCount.CALENDAR)))).isEqualTo("2027-03-19");
    assertThat(dueDay(due("week 9 Fri", days(WeekCount.TEACHING)))).isEqualTo("2027-03-26");
  }

  @Test
  void aTermFromWednesday20JanuaryHasNoWeek1MondaySoItIsTheFirstTeachingDayTold() {
    CountedDays late =
        new CountedDays(TermCalendar.plain(day("2027-01-20"), day("2027-05-07"), Springs.CENTRAL));
    Dated d = due("week 1 Mon", late);
    assertThat(dueDay(d)).isEqualTo("2027-01-20");
    assertThat(d.remarks())
        .containsExactly(new Remark(Remark.Kind.NO_SUCH_DAY, Point.DUE, day("2027-01-18"), ""));
  }

  @Test
  void monday15FebruaryBecomesTuesday16() {
    assertThat(dueDay(due("week 5 Mon", days(WeekCount.CALENDAR)))).isEqualTo("2027-02-16");
  }

  @Test
  void teachingDayKOf75BecomesItsShareOf39() {
    CountedDays half =
        new CountedDays(TermCalendar.plain(day("2027-03-15"), day("2027-05-06"), Springs.CENTRAL));
    CountedDays whole = days(WeekCount.CALENDAR);
    CountedDays of75 =
        new CountedDays(
            TermCalendar.plain(
                whole.firstDay(), whole.firstDay().plusDays(15 * 7 - 3), Springs.CENTRAL));
    assertThat(of75.teachingDays()).hasSize(75);
    assertThat(half.teachingDays()).hasSize(39);
    Fitted fitted = new Fitted(of75, half, Fit.SHARE);
    for (int k = 1; k <= 75; k++) {
      assertThat(fitted.share(k)).isEqualTo(1 + (int) Math.round((k - 1) * 38 / 74.0));
    }
    List<Undated> items = fitted.of(List.of(item("essay", Point.DUE, "teaching day 38")));
    LocalDate day = dueDay(DatePlan.of(items, half, OffDays.USUAL).get(Springs.ITEM));
    assertThat(day).isEqualTo(half.teachingDays().get(19));
  }

  @Test
  void aTwoWeekStaggerIs18January1And16February1And15March() {
    ItemKey module = new ItemKey("plots");
    When start = new When(DatePattern.of("week 1 Mon").orElseThrow(), LocalTime.of(8, 0));
    TimingPattern within = TimingPattern.NONE.within(Optional.of(new ModuleDates(start, 2, true)));
    List<Undated> items =
        new java.util.ArrayList<>(
            List.of(new Undated(module, Kind.MODULE, Optional.empty(), Timing.NONE.with(within))));
    IntStream.rangeClosed(1, 5)
        .forEach(
            i ->
                items.add(
                    new Undated(
                        new ItemKey("plot" + i), Kind.PAGE, Optional.of(module), Timing.NONE)));
    Map<ItemKey, Dated> dates = DatePlan.of(items, days(WeekCount.CALENDAR), OffDays.USUAL);
    assertThat(
            IntStream.rangeClosed(1, 5)
                .mapToObj(i -> dates.get(new ItemKey("plot" + i)).timing().opens().orElseThrow()))
        .containsExactly(
            at("2027-01-18T08:00"),
            at("2027-02-01T08:00"),
            at("2027-02-16T08:00"),
            at("2027-03-01T08:00"),
            at("2027-03-15T08:00"));
    assertThat(dates.get(new ItemKey("plot1")).timing().closes())
        .as("the day before the next opens")
        .contains(at("2027-01-31T23:59"));
    assertThat(dates.get(new ItemKey("plot5")).timing().closes())
        .as("the last stays open until the end")
        .contains(at("2027-05-07T23:59"));
  }

  @Test
  void clockTimeStaysLocalThroughTheChangeToSummerTime() {
    CountedDays d = days(WeekCount.CALENDAR);
    Dated friday = due("week 8 Fri", d, OffRule.LEAVE);
    assertThat(utc(friday)).isEqualTo("2027-03-13T05:59");
    assertThat(utc(due("week 9 Fri", d))).isEqualTo("2027-03-20T04:59");
  }

  private static String utc(Dated d) {
    return d.timing()
        .due()
        .orElseThrow()
        .atZone(Springs.CENTRAL)
        .withZoneSameInstant(ZoneOffset.UTC)
        .toLocalDateTime()
        .toString();
  }

  @Test
  void aClosingDateAfter14MayIsAFinding() {
    CountedDays d = days(WeekCount.CALENDAR);
    Map<ItemKey, Dated> dates =
        DatePlan.of(
            List.of(
                item("late", Point.CLOSES, "2027-05-15"), item("last", Point.CLOSES, "2027-05-14")),
            d,
            OffDays.USUAL);
    assertThat(dates.get(new ItemKey("late")).remarks())
        .containsExactly(new Remark(Remark.Kind.OUTSIDE, Point.CLOSES, day("2027-05-15"), ""));
    assertThat(dates.get(new ItemKey("last")).remarks()).isEmpty();
  }
}
