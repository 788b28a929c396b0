package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer.OrderAnnotation;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;
import org.zephyrmist.stage.Practice;
import org.zephyrmist.stage.Samples;

/** Patterns in a master, calendars of a term, and the dates that shells get by both. */
@TestMethodOrder(OrderAnnotation.class)
class CalendarTest {
  @TempDir static Path folder;
  private static Walk walk;
  private static Page page;
  private static String course;

  @BeforeAll
  static void open() throws Exception {
    List<String> all = List.of("lgt-01", "lgt-02", "lgt-03");
    walk = Walk.begin(folder, all);
    page = walk.page;
    walk.platform(all);
    walk.takeIn(Samples.cartridge(folder, 22));
    course = walk.master();
  }

  @AfterAll
  static void close() {
    walk.close();
  }

  private static String due(String shell, String title) {
    return new Practice()
        .items(shell)
        .valueStream()
        .filter(i -> i.path("wording").path("title").asString().equals(title))
        .findFirst()
        .orElseThrow()
        .path("timing")
        .path("due")
        .asString();
  }

  private static Locator ribbon() {
    return page.getByRole(AriaRole.GRID);
  }

  private static Locator deliver() {
    return page.getByRole(
            AriaRole.BUTTON,
            new Page.GetByRoleOptions().setName(Pattern.compile("^Deliver (all \\d+ )?to")))
        .first();
  }

  private static void calendar() {
    page.navigate(Walk.ADDRESS + "/calendar");
    ribbon().waitFor();
  }

  @Test
  @Order(1)
  void aPatternMadeFromLastTermsDateIsLaidOnTheCalendar() {
    page.navigate(course);
    walk.item("Exercise 6").click();
    walk.tab("Write").click();
    page.getByLabel("Due").fill("2026-10-16 18:00");
    walk.button("Save Exercise 6").click();
    assertThat(page.getByText("Due 2026-10-16 18:00")).isVisible();
    page.getByLabel("Due").fill("on some day");
    walk.button("Save Exercise 6").click();
    assertThat(page.getByText("“on some day” is no day and time.")).isVisible();
    calendar();
    walk.button("LGT 110").last().click(); // the master, below the calendars
    walk.button("See what they become").click();
    assertThat(page.getByText("week 6 Fri 18:00")).isVisible();
    walk.button("Make 1 pattern in the draft").click();
    page.navigate(course);
    walk.item("Exercise 6").click();
    assertThat(page.getByText("Due week 6 Fri 18:00")).isVisible();
    walk.freeze(2, "Dates as patterns");
  }

  @Test
  @Order(2)
  void aCalendarHasItsDaysOffFromAFileAndTheRibbonShowsWhatMoves() throws Exception {
    calendar();
    walk.button("Whole term").click();
    page.getByLabel("Last teaching day").fill("2026-12-18");
    walk.button("Save this calendar").click();
    walk.button("Whole term").click();
    Path file = Files.writeString(folder.resolve("days.ics"), days());
    page.getByLabel("Calendar file").setInputFiles(file);
    assertThat(page.getByText("1 day off found")).isVisible();
    WholePathTest.accessible(page, "a calendar");
    walk.button("Save this calendar").click();
    assertThat(page.getByText("1 item wants a look")).isVisible();
    ribbon().focus();
    page.keyboard().press("n");
    assertThat(walk.heading("Monday 19 October, LGT 110")).isVisible();
    assertThat(page.getByText("moved from a day off")).isVisible();
    WholePathTest.accessible(page, "ribbon");
  }

  private static String days() {
    return String.join(
        "\r\n",
        "BEGIN:VCALENDAR",
        "VERSION:2.0",
        "PRODID:-//Larkmoor//EN",
        "BEGIN:VEVENT",
        "UID:1",
        "SUMMARY:Harvest day",
        "DTSTART;VALUE=DATE:20261016",
        "END:VEVENT",
        "END:VCALENDAR",
        "");
  }

  @Test
  @Order(3)
  void datesAreMovedByKeyIntoThePatternAndTakenBack() {
    calendar();
    ribbon().focus();
    page.keyboard().press("n");
    walk.heading("Monday 19 October, LGT 110").waitFor();
    page.keyboard().press("Shift+ArrowLeft"); // to Thursday of week 6
    assertThat(page.getByText("wk 6 Thu")).isHidden();
    assertThat(page.getByText("1 move here")).isVisible();
    assertThat(page.getByText("all as the patterns say")).isVisible();
    walk.button("Take the last one back").click();
    assertThat(page.getByText("1 item wants a look")).isVisible();
  }

  @Test
  @Order(4)
  void aPartOfTheTermHasACalendarOfItsOwnAndEachSectionGetsItsDates() {
    calendar();
    walk.button("A calendar of a part of the term").click();
    page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Second half");
    page.getByLabel("First day", new Page.GetByLabelOptions().setExact(true)).fill("2026-10-19");
    walk.button("Take out Harvest day").click();
    walk.button("Make this calendar").click();
    assertThat(walk.button("Second half")).isVisible();
    walk.inHand("110-03");
    calendar();
    page.getByLabel("Calendar by which they go")
        .selectOption(new SelectOption().setLabel("Second half"));
    assertThat(page.getByText("1 section, Second half")).isVisible();
    walk.inHand("110-01 110-02 110-03");
    calendar();
    walk.button("Plan these dates for 3 sections").click();
    walk.button("See the plan").click();
    deliver().click();
    assertThat(walk.heading("Delivered: LGT 110, version 2, to 3 sections"))
        .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(60_000));
    assertThat(due("lgt-01", "Exercise 6")).isEqualTo("2026-10-19T18:00");
    assertThat(due("lgt-03", "Exercise 6")).startsWith("2026-11-").endsWith("T18:00");
  }

  @Test
  @Order(5)
  void aDayOffInMidTermIsOnePlanAndWhatASectionHasSetStays() {
    new Practice()
        .form("/shells/lgt-02/items/" + id("lgt-02") + "/due", Map.of("due", "2026-10-22T09:00"));
    calendar();
    walk.button("Whole term").click();
    walk.button("Add a day off").click();
    page.getByLabel("Name of day off 2").fill("Flooded workshops");
    page.getByLabel("Flooded workshops, first day").fill("2026-10-19");
    page.getByLabel("Flooded workshops, last day").fill("2026-10-20");
    walk.button("Save this calendar").click();
    walk.inHand("110-01 110-02");
    calendar();
    walk.button("Plan these dates for 2 sections").click();
    walk.button("See the plan").click();
    deliver().click();
    assertThat(walk.heading("Delivered: LGT 110, version 2, to 2 sections"))
        .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(60_000));
    assertThat(due("lgt-01", "Exercise 6")).isEqualTo("2026-10-21T18:00");
    assertThat(due("lgt-02", "Exercise 6")).as("the instructor's").isEqualTo("2026-10-22T09:00");
    calendar();
    assertThat(page.getByText("1 item wants a look")).isVisible();
  }

  private static String id(String shell) {
    return new Practice()
        .items(shell)
        .valueStream()
        .filter(i -> i.path("wording").path("title").asString().equals("Exercise 6"))
        .findFirst()
        .orElseThrow()
        .path("id")
        .asString();
  }
}
