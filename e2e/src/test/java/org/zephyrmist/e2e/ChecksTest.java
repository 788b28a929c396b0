package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer.OrderAnnotation;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;
import org.zephyrmist.stage.Practice;
import org.zephyrmist.stage.Samples;

/** Findings in 48 shells, from what is found to what is mended; a shell as a student sees it. */
@TestMethodOrder(OrderAnnotation.class)
class ChecksTest {
  private static final List<String> SHELLS =
      IntStream.rangeClosed(1, 48).mapToObj("lgt-%02d"::formatted).toList();

  @TempDir static Path folder;
  private static Walk walk;
  private static Page page;

  @BeforeAll
  static void open() throws Exception {
    walk = Walk.begin(folder, SHELLS);
    page = walk.page;
    walk.platform(SHELLS);
    walk.takeIn(Samples.cartridge(folder, 22));
    walk.master();
    walk.inHand(String.join(" ", SHELLS).replace("lgt-", "110-"));
    walk.button("Bring v1 to 48 sections …").click();
    walk.button("See the plan").click();
    button("Deliver .*to 48 sections").click();
    within(walk.heading("Delivered: LGT 110, version 1, to 48 sections"));
    for (String s : SHELLS) {
      new Practice()
          .form(
              "/shells/" + s + "/add",
              Map.of(
                  "title",
                  "Before the first session",
                  "html",
                  "<p>Bring a pencil.</p><p>For the builder: put your own studio here.</p>"));
    }
  }

  @AfterAll
  static void close() {
    walk.close();
  }

  private static Locator button(String name) {
    return page.getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile(name)))
        .first();
  }

  private static void within(Locator seen) {
    assertThat(seen).isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(90_000));
  }

  private static String html(String shell) {
    return new Practice()
        .items(shell)
        .valueStream()
        .filter(i -> i.path("wording").path("title").asString().equals("Before the first session"))
        .findFirst()
        .orElseThrow()
        .path("wording")
        .path("html")
        .asString();
  }

  private static void readAgain() {
    page.navigate(Walk.ADDRESS + "/checks");
    walk.button("Read shells again").click();
  }

  @Test
  @Order(1)
  void whatIsFoundIn48ShellsIsMendedInOnePlan() {
    readAgain();
    within(button("^A builder note is in view.*48"));
    button("^A builder note is in view").click();
    assertThat(page.getByText("For the builder").first()).isVisible();
    WholePathTest.accessible(page, "checks with a finding");
    walk.button("Plan the mend for 48 sections").click();
    within(walk.heading("Take out builder notes, in 48 sections"));
    WholePathTest.accessible(page, "the plan of a change");
    button("^Change it in 48 sections").click();
    within(walk.heading("Done: Take out builder notes, in 48 sections"));
    assertThat(html("lgt-48")).isEqualTo("<p>Bring a pencil.</p>");
    readAgain();
    assertThat(button("^A builder note is in view"))
        .isHidden(new LocatorAssertions.IsHiddenOptions().setTimeout(90_000));
  }

  @Test
  @Order(2)
  void aFindingThatIsRightAsItIsIsGoneWithItsReasonKept() {
    page.navigate(Walk.ADDRESS + "/checks");
    button("^No front page").click();
    walk.button("Right as it is here …").click();
    page.getByLabel("Why it is right as it is").fill("The platform has one of its own");
    button("^Right in 48 sections").click();
    assertThat(button("^No front page")).isHidden();
    walk.button("Right as it is 48").click();
    assertThat(page.getByText("The platform has one of its own")).isVisible();
    walk.button("By course and campus").click();
    assertThat(page.getByText("48 of 48").first()).isVisible();
    WholePathTest.accessible(page, "readiness by course and campus");
    walk.button("What is checked").click();
    WholePathTest.accessible(page, "what is checked");
  }

  @Test
  @Order(3)
  void itemsAreOpenedFromADayOnAndSeenAsAStudentOnThatDay() {
    walk.inHand("110-01 110-02");
    walk.button("Change in all …").click();
    page.getByLabel("What is changed").selectOption("OPEN_FROM");
    page.getByLabel("from").fill("2026-12-01T08:00");
    page.getByLabel(Pattern.compile("^\\s*Reading 1\\D")).check();
    WholePathTest.accessible(page, "a change in all");
    walk.button("Plan it for 2 sections").click();
    button("^Change it in 2 sections").click();
    within(walk.heading("Done: Open from 2026-12-01, in 2 sections"));
    page.navigate(Walk.ADDRESS + "/coverage");
    page.navigate(page.url().replace("/coverage", "/seen/") + section("110-01"));
    on("2026-11-30");
    assertThat(page.getByText("opens Tuesday 1 December, 08:00").first()).isVisible();
    on("2026-12-01");
    assertThat(page.getByText("opens Tuesday 1 December, 08:00")).isHidden();
    button("^Reading 1").click();
    assertThat(page.frameLocator("iframe").locator("body")).containsText("circuit");
    WholePathTest.accessible(page, "as a student");
  }

  private static void on(String day) {
    page.getByLabel("on", new Page.GetByLabelOptions().setExact(true)).fill(day);
  }

  private static String section(String code) {
    return String.valueOf(
        page.evaluate(
            "async (code) => (await (await fetch('/api/sections/mine')).json()).find(s => s.code === code).id",
            code));
  }
}
