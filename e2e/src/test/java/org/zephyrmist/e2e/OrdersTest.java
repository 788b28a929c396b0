package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import java.nio.file.Path;
import java.util.List;
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
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** Who should hold what, sets of sections, and several masters in one order. */
@TestMethodOrder(OrderAnnotation.class)
class OrdersTest {
  @TempDir static Path folder;
  private static final Practice PRACTICE = new Practice();
  private static Walk walk;
  private static Page page;
  private static String master;
  private static String piece = "";

  @BeforeAll
  static void open() throws Exception {
    List<String> all = List.of("lgt-01", "lgt-02", "lgt-03");
    walk = Walk.begin(folder, List.of("lgt-01", "lgt-02", "lgt-03", "out-07"));
    page = walk.page;
    walk.platform(all);
    walk.takeIn(Samples.cartridge(folder, 12));
    String course = walk.master();
    master = course.replaceAll(".*/", "");
    frontPage(course, "Reading 2", "Stage Lighting");
    walk.freeze(2, "With a front page");
    page.navigate(Walk.ADDRESS + "/sources");
    walk.button("Begin an empty master").click();
    page.getByLabel("every section of the college").check();
    page.getByLabel("Code", exactLabel()).fill("FRAME");
    page.getByLabel("Title").fill("College frame");
    walk.button("Make master FRAME").click();
    walk.button("Add an item").first().click();
    walk.heading("Add an item").waitFor();
    page.getByLabel("Title").fill("Reading 1");
    walk.button("Add page").click();
    walk.item("Reading 1").waitFor();
    frontPage(page.url().replaceAll("\\?.*", ""), "Reading 1", "Welcome to the college");
    walk.freeze(1, "The college's own first reading");
  }

  /** A front page that greets and leads to an item. */
  private static void frontPage(String at, String item, String words) {
    page.navigate(at);
    walk.item(item).first().click();
    page.waitForURL(Pattern.compile("item="));
    String key = page.url().replaceAll(".*item=([^&]+).*", "$1");
    walk.button("Add an item").first().click();
    walk.heading("Add an item").waitFor();
    page.getByRole(AriaRole.GROUP, new Page.GetByRoleOptions().setName("Kind"))
        .getByText("setup")
        .click();
    page.getByLabel("Title").fill("Front page");
    walk.button("Add setup").click();
    page.getByLabel("It sets").selectOption("FRONT_PAGE");
    walk.button("Source").click();
    page.getByLabel("Text of Front page, source")
        .fill(
            "<p>%s</p><ul><li><a href=\"zref:item/%s\">%s</a></li></ul>"
                .formatted(words, key, item));
    walk.button("Save Front page").click();
    assertThat(page.getByText("Saved in the draft.")).isVisible();
  }

  @AfterAll
  static void close() {
    walk.close();
  }

  @Test
  @Order(1)
  void sectionsInHandAreKeptAsASetAndARuleStandsOnIt() {
    walk.inHand("110-01 110-02");
    walk.button("Keep as a set").click();
    page.getByLabel("Name of the set").fill("Pilot");
    walk.button("Keep it").click();
    assertThat(page.getByText("Kept as “Pilot”.")).isVisible();
    page.getByText("Who should hold it").click();
    assertThat(page.getByText("by hand")).isVisible();
    page.getByLabel("Master", exactLabel()).selectOption(new SelectOption().setLabel("LGT 110"));
    page.getByLabel("Where").selectOption(new SelectOption().setLabel("the set “Pilot”"));
    walk.button("Add the rule").click();
    assertThat(page.getByText("The board shows now who is missing.")).isVisible();
    walk.button("End the rule for LGT 110 in sections of LGT 110").click();
    assertThat(page.getByText("LGT 110 is no longer expected in sections of LGT 110.")).isVisible();
    WholePathTest.accessible(page, "rules");
    page.navigate(Walk.ADDRESS + "/coverage?set=");
    page.getByLabel("Section set").selectOption(new SelectOption().setLabel("Pilot"));
    assertThat(page.getByText("2 of 2 sections never received a master")).isVisible();
  }

  @Test
  @Order(2)
  void severalMastersAreOneOrderAndNothingIsDoubled() {
    walk.inHand("110-01 110-02");
    page.navigate(Walk.ADDRESS + "/deliveries/new?master=" + master);
    page.getByLabel("Another master in the same order")
        .selectOption(new SelectOption().setLabel("FRAME"));
    assertThat(page.getByText("leave it out")).isVisible();
    WholePathTest.accessible(page, "order of several");
    walk.button("See the plan").click();
    assertThat(page.getByRole(AriaRole.LINK, named("FRAME v1"))).isVisible();
    walk.button("Deliver all 2 to 2 sections").click();
    page.getByRole(AriaRole.LINK, named("LGT 110 v2")).click();
    assertThat(walk.heading("Delivered: LGT 110, version 2, to 2 sections"))
        .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(60_000));
    assertThat(Walk.titles("lgt-01")).contains("Reading 2").doesNotHaveDuplicates();
    theFrontPagesThatMetAreOne();
  }

  private static void theFrontPagesThatMetAreOne() {
    page.navigate(Stage.practiceAddress() + "/shells/lgt-01");
    assertThat(page.getByText("Welcome to the college")).isVisible();
    assertThat(page.getByText("Stage Lighting", new Page.GetByTextOptions().setExact(true)))
        .isVisible();
    String html =
        PRACTICE
            .items("lgt-01")
            .valueStream()
            .filter(i -> i.path("kind").asString().equals("SETUP"))
            .map(i -> i.path("wording").path("html").asString())
            .reduce((a, b) -> a + "\nsecond front page: " + b)
            .orElseThrow();
    for (JsonNode i : PRACTICE.items("lgt-01")) {
      if (i.path("wording").path("title").asString().matches("Reading [12]")) {
        assertThat(html).contains(i.path("id").asString()).doesNotContain("second front page");
      }
    }
  }

  private static Page.GetByRoleOptions named(String name) {
    return new Page.GetByRoleOptions().setName(name);
  }

  @Test
  @Order(3)
  void whatThePlatformHasOnlyAcceptedIsNotCalledDone() {
    PRACTICE.queue(true);
    walk.inHand("110-03");
    page.navigate(Walk.ADDRESS + "/deliveries/new?master=" + master);
    walk.button("See the plan").click();
    walk.button("Deliver to 1 section").click();
    assertThat(page.getByText("accepted, not there yet")).isVisible();
    WholePathTest.accessible(page, "accepted");
    PRACTICE.queue(false);
    assertThat(walk.heading("Delivered: LGT 110, version 2, to 1 section"))
        .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(60_000));
    assertThat(Walk.titles("lgt-03")).contains("Reading 1");
  }

  @Test
  @Order(4)
  void aSectionWithoutInterfaceGetsItsPackageAndItsExportProvesIt() {
    PRACTICE.makeShells(List.of("room"));
    page.navigate(Walk.ADDRESS + "/college");
    page.getByLabel("It has no interface").check();
    page.getByLabel("Name").last().waitFor();
    page.locator("form")
        .filter(new Locator.FilterOptions().setHasText("It has no interface"))
        .getByLabel("Name")
        .fill("South shells");
    page.getByLabel("South").check();
    walk.button("Name this platform").click();
    assertThat(page.getByText("without an interface: by packages")).isVisible();
    walk.button("Word its sheet").click();
    page.getByLabel("Where a package goes in").fill("Shell care, then Content from a package");
    walk.button("Keep what the sheets say").click();
    assertThat(page.getByText("The sheets for South shells say so from now on.")).isVisible();
    WholePathTest.accessible(page, "sheet words");

    walk.inHand("110-07");
    page.navigate(Walk.ADDRESS + "/deliveries/new?master=" + master);
    walk.button("See the plan").click();
    walk.button("Deliver to 1 section").click();
    assertThat(page.getByText("1 package waits to be brought in.")).isVisible();
    WholePathTest.accessible(page, "packages wait");
    Page sheet = page.waitForPopup(() -> page.getByRole(AriaRole.LINK, exactly("sheet")).click());
    assertThat(sheet.getByText("Shell care, then Content from a package")).isVisible();
    sheet.close();
    Path out = saved(() -> page.getByRole(AriaRole.LINK, exactly("package")).click());
    String delivery = page.url();

    page.navigate(Stage.practiceAddress() + "/shells/room?work=true");
    page.getByLabel("Package to bring in").setInputFiles(out);
    page.getByText("Bring in", new Page.GetByTextOptions().setExact(true)).click();
    assertThat(page.getByText("Reading 2").first()).isVisible();
    Path in = saved(() -> page.getByText("Export this shell").click());

    page.navigate(delivery);
    page.getByRole(AriaRole.LINK, exactly("110-07")).click();
    assertThat(page.getByText("waits to be brought in")).isVisible();
    page.getByLabel("Upload an export of the shell").setInputFiles(in);
    assertThat(page.getByText("of the package are there")).isVisible();
    WholePathTest.accessible(page, "shell by packages");
    page.navigate(delivery);
    assertThat(walk.heading("Delivered: LGT 110, version 2, to 1 section"))
        .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(60_000));
    assertThat(page.getByText("all as meant")).isVisible();
  }

  @Test
  @Order(5)
  void aPieceIsTriedInAShellOfItsOwnAndThenGoesToAllIntoANamedPlace() {
    toTryIn("tryout");
    WholePathTest.accessible(page, "other shells");

    walk.inHand("110-01 110-02");
    page.navigate(Walk.ADDRESS + "/deliveries/new?master=" + piece());
    page.getByLabel("Goes to")
        .selectOption(new SelectOption().setLabel("tryout (to try in, LGT 110)"));
    assertThat(page.getByText("one shell")).isVisible();
    walk.button("See the plan").click();
    walk.button("Deliver to 1 section").click();
    assertThat(page.getByText("Tried in tryout.")).isVisible();
    assertThat(page.getByText("See it as a student")).isVisible();
    WholePathTest.accessible(page, "tried");
    walk.button("The same to 2 sections in hand …").click();
    page.getByLabel("What", exactLabel()).selectOption("SOME");
    walk.item("Ropes").click();
    page.getByLabel("Where it goes").selectOption("MODULE");
    page.getByLabel("Name of the module").fill("Week 1");
    page.getByLabel("Where in the module").selectOption("BEGINNING");
    WholePathTest.accessible(page, "named place");
    walk.button("See the plan").click();
    walk.button("Deliver to 2 sections").click();
    assertThat(walk.heading("Delivered: ROPES, version 1, to 2 sections"))
        .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(60_000));
    JsonNode ropes = item("lgt-01", "Ropes");
    assertThat(ropes.path("parent").asString())
        .isEqualTo(item("lgt-01", "Week 1").path("id").asString());
    assertThat(Walk.titles("lgt-01")).doesNotContain("Pieces");
  }

  /** A shell of its own, in which things are tried. */
  private static void toTryIn(String shell) {
    PRACTICE.makeShells(List.of(shell));
    page.navigate(Walk.ADDRESS + "/college");
    page.getByLabel("Platform of the shell")
        .selectOption(new SelectOption().setLabel("Practice platform"));
    page.getByLabel("Shell that belongs to no section")
        .selectOption(new SelectOption().setLabel(shell));
    page.getByLabel("For the course").selectOption(new SelectOption().setLabel("LGT 110"));
    walk.button("Take this shell").click();
    assertThat(page.getByText("to try things in, for LGT 110").last()).isVisible();
  }

  @Test
  @Order(6)
  void weeksForWhichAShellHasNoPlaceGetOneOrDoNotCome() {
    toTryIn("few");
    page.navigate(Stage.practiceAddress() + "/shells/few?work=true");
    page.getByLabel("How many").fill("1");
    page.getByRole(AriaRole.BUTTON, exactly("Set")).click();
    page.navigate(Walk.ADDRESS + "/deliveries/new?master=" + master);
    page.getByLabel("Goes to")
        .selectOption(new SelectOption().setLabel("few (to try in, LGT 110)"));
    assertThat(page.getByLabel("Week places")).isVisible();
    walk.button("See the plan").click();
    walk.button("Leave those weeks out").click();
    assertThat(page.getByText("Weeks without a place do not come there")).isVisible();
    WholePathTest.accessible(page, "weeks without a place");
    walk.button("Add places").click();
    assertThat(page.getByText("Places are added")).isVisible();
    walk.button("Deliver to 1 section").click();
    assertThat(page.getByText("Tried in few.")).isVisible();
    assertThat(item("few", "Week 2").path("parent").asString("")).as("not in week 1").isEmpty();
    assertThat(Walk.titles("few")).contains("Reading 11").doesNotHaveDuplicates();

    page.navigate(Stage.practiceAddress() + "/shells/few");
    page.getByLabel("On this day").fill("2030-02-01");
    walk.button("See it so").click();
    assertThat(page.getByText("Stage Lighting", new Page.GetByTextOptions().setExact(true)))
        .isVisible();
  }

  @Test
  @Order(7)
  void aSetOfPartsIsKeptAndSparedInEveryMaster() {
    toTryIn("spare");
    walk.inHand("110-01 110-02");
    page.navigate(Walk.ADDRESS + "/deliveries/new?master=" + master);
    page.getByLabel("Goes to")
        .selectOption(new SelectOption().setLabel("spare (to try in, LGT 110)"));
    walk.button("Keep a set").click();
    page.getByLabel("Name of the set").fill("Mine to spare");
    page.getByLabel("Titles with these words").fill("reading 3, reading 4");
    assertThat(page.getByText("Names 2 items of this version")).isVisible();
    WholePathTest.accessible(page, "a set of parts");
    walk.button("Keep the set").click();
    page.getByLabel("Left out", exactLabel())
        .selectOption(new SelectOption().setLabel("“Mine to spare” left out"));
    assertThat(page.getByText("2 left out")).isVisible();
    walk.button("See the plan").click();
    walk.button("Deliver to 1 section").click();
    assertThat(page.getByText("Tried in spare.")).isVisible();
    assertThat(Walk.titles("spare"))
        .contains("Reading 2", "Reading 5")
        .doesNotContain("Reading 3", "Reading 4");

    page.navigate(Walk.ADDRESS + "/deliveries/new?master=" + piece());
    page.getByLabel("What", exactLabel())
        .selectOption(new SelectOption().setLabel("only “Mine to spare”"));
    assertThat(page.getByText("0 chosen")).isVisible();
    assertThat(walk.button("See the plan")).isDisabled();
  }

  private static Page.GetByLabelOptions exactLabel() {
    return new Page.GetByLabelOptions().setExact(true);
  }

  private static JsonNode item(String shell, String title) {
    return PRACTICE
        .items(shell)
        .valueStream()
        .filter(i -> i.path("wording").path("title").asString().equals(title))
        .findFirst()
        .orElseThrow();
  }

  /** A master of one page; its id. */
  private static String piece() {
    if (!piece.isEmpty()) {
      return piece;
    }
    page.navigate(Walk.ADDRESS + "/sources");
    walk.button("Begin an empty master").click();
    page.getByLabel("every section of the college").check();
    page.getByLabel("Code", exactLabel()).fill("ROPES");
    page.getByLabel("Title").fill("Ropes and knots");
    walk.button("Make master ROPES").click();
    walk.button("Add an item").first().click();
    walk.heading("Add an item").waitFor();
    page.getByLabel("Title").fill("Ropes");
    walk.button("Add page").click();
    walk.item("Ropes").waitFor();
    walk.freeze(1, "One page");
    piece = page.url().replaceAll("\\?.*", "").replaceAll(".*/", "");
    return piece;
  }

  private static Page.GetByRoleOptions exactly(String name) {
    return named(name).setExact(true);
  }

  /** What a click downloads. */
  private static Path saved(Runnable click) {
    Download d = page.waitForDownload(click);
    Path file = folder.resolve(d.suggestedFilename());
    d.saveAs(file);
    return file;
  }
}
