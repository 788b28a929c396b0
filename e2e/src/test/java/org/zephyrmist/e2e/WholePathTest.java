package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer.OrderAnnotation;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;
import org.zephyrmist.browser.Chromium;
import org.zephyrmist.stage.Practice;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;

/** From an empty installation to the ledger's answer, in the browser, one step after another. */
@TestMethodOrder(OrderAnnotation.class)
class WholePathTest {
  private static final List<String> SECTIONS =
      IntStream.rangeClosed(1, 20).mapToObj(i -> String.format("lgt-%02d", i)).toList();
  private static final String ADDRESS = Stage.address(0);
  @TempDir static Path folder;
  private static Chromium chromium;
  private static Page page;
  private static String master;

  @BeforeAll
  static void open() throws Exception {
    Walk.stage();
    new Practice().makeShells(SECTIONS);
    chromium = new Chromium();
    page = chromium.page;
  }

  @AfterAll
  static void close() {
    try {
      assertThat(chromium.errors).isEmpty();
    } finally {
      chromium.close();
    }
  }

  private static Locator button(String name) {
    return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
  }

  private static Locator link(String name) {
    return page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(name));
  }

  private static Locator tab(String name) {
    return page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName(name));
  }

  private static Locator heading(String name) {
    return page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName(name));
  }

  /** Nothing fades in or out any more: half-faded letters have another contrast than they will. */
  private static final String STILL =
      "() => document.getAnimations().every(a => a.playState !== 'running'"
          + " || a.effect.getComputedTiming().iterations === Infinity)";

  /** Rules that look at colours: the others find the same in the dark. */
  private static final List<String> OF_COLOURS = List.of("color-contrast", "link-in-text-block");

  /** No finding of axe on the page as it is, in light and in dark colours. */
  private static void accessible(String view) {
    accessible(page, view);
  }

  /** Widths of windows that people have, in CSS pixels. */
  private static final List<Integer> WIDTHS = List.of(1024, 1920, 1280);

  private static final String TOO_WIDE =
      """
      () => {
        const beside = e => e.getBoundingClientRect().right > innerWidth + 1;
        return document.documentElement.scrollWidth <= innerWidth ? '' : [...document.querySelectorAll('body *')]
          .filter(e => beside(e) && ![...e.children].some(beside))
          .map(e => e.tagName + '.' + e.className + ' ' + e.textContent.slice(0, 40)).join('; ') || 'something';
      }
      """;

  /** Nothing of it lies beside the window, however wide that is. */
  private static void fits(Page page, String view) {
    for (int width : WIDTHS) {
      page.setViewportSize(width, 800);
      assertThat(page.evaluate(TOO_WIDE)).as(view + ", " + width + " wide").isEqualTo("");
    }
  }

  static void accessible(Page page, String view) {
    page.waitForFunction(STILL);
    fits(page, view);
    dark(page, false);
    nothingFound(
        new AxeBuilder(page)
            .withTags(List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa")),
        view + ", light");
    dark(page, true);
    nothingFound(new AxeBuilder(page).withRules(OF_COLOURS), view + ", dark");
  }

  private static void dark(Page page, boolean dark) {
    page.evaluate("d => document.documentElement.classList.toggle('dark', d)", dark);
  }

  private static void nothingFound(AxeBuilder axe, String view) {
    // in the page itself: what is in frames is looked at elsewhere, and needs no page of its own
    assertThat(axe.exclude("iframe").setLegacyMode(true).analyze().getViolations())
        .as(view)
        .extracting(
            r ->
                r.getId()
                    + ": "
                    + r.getNodes().get(0).getTarget()
                    + " "
                    + r.getNodes().get(0).getHtml())
        .isEmpty();
  }

  @Test
  @Order(1)
  void theFirstPersonBeginsOnAnEmptyInstallation() {
    page.navigate(ADDRESS);
    accessible("first person");
    page.getByLabel("Your name").fill("Rosalind Achterberg");
    page.getByLabel("Mail address").fill("rosalind@larkmoor.example");
    page.getByLabel(Pattern.compile("Password")).fill("a-long-password");
    button("Begin").click();
    assertThat(page.getByText("Four steps to the first delivery")).isVisible();
    accessible("empty coverage");
  }

  @Test
  @Order(2)
  void sectionsComeFromARosterAndTheirShellsFromAPlatform() throws Exception {
    page.navigate(ADDRESS + "/college");
    page.getByLabel("Address", new Page.GetByLabelOptions().setExact(true))
        .fill(Stage.practiceAddress());
    page.getByLabel("Name").first().fill("Practice platform");
    page.getByLabel(Pattern.compile("Token")).fill("practice-token");
    button("Name this platform").click();
    assertThat(page.getByText("holds 0 shells")).isVisible();
    page.getByLabel("OneRoster bundle").setInputFiles(Samples.roster(folder, SECTIONS));
    assertThat(page.getByText("This roster would bring:")).isVisible();
    accessible("roster looked at");
    button("Take this roster in").click();
    assertThat(page.getByText("Taken in:")).isVisible();
    assertThat(page.getByText("holds 20 shells")).isVisible();
    accessible("college");
  }

  @Test
  @Order(3)
  void aFileThatIsNoCartridgeIsRefusedAndARealOneIsLookedInto() throws Exception {
    page.navigate(ADDRESS + "/sources");
    Path wrong = java.nio.file.Files.writeString(folder.resolve("wrong.imscc"), "hello");
    page.getByLabel("Cartridge file").setInputFiles(wrong);
    assertThat(page.getByText("This is not a ZIP archive, or it was cut off.")).isVisible();
    accessible("sources");
    page.getByLabel("Cartridge file").setInputFiles(Samples.illustrated(folder, 20));
    link("Look inside").click();
    assertThat(heading("Stage Light")).isVisible();
    assertThat(page.getByText("Everything was understood.")).isVisible();
    accessible("edition");
  }

  @Test
  @Order(4)
  void itBecomesAMasterAndIsFrozenAsVersionOne() {
    button("Make it a master").click();
    page.getByLabel(Pattern.compile("LGT 110")).check();
    button("Make master LGT 110").click();
    assertThat(heading("LGT 110 Stage Lighting")).isVisible();
    item("Reading 2").click();
    Locator picture = page.frameLocator("iframe").getByAltText("A lantern");
    picture.waitFor();
    page.waitForCondition(() -> picture.evaluate("i => i.naturalWidth").equals(1));
    item("Manual 8").click();
    tab("Take out").click();
    assertThat(item("Manual 8")).hasCount(0);
    button("Undo").first().click();
    assertThat(item("Manual 8")).isVisible();
    item("Manual 8").click();
    tab("Take out").click();
    assertThat(item("Manual 8")).hasCount(0);
    freeze(1, "The first version");
    accessible("master");
    master = page.url().replaceAll("\\?.*", "");
  }

  private static void freeze(int number, String note) {
    button("Freeze version " + number).click();
    page.getByLabel(Pattern.compile("What is new in version " + number)).fill(note);
    button("Freeze it").click();
    assertThat(button("Freeze version " + (number + 1))).isVisible();
  }

  @Test
  @Order(5)
  void versionOneIsPlannedForTwentySectionsAndDelivered() {
    page.navigate(ADDRESS + "/coverage");
    assertThat(heading("20 of 20 sections never received a master")).isVisible();
    button("Take in hand: LGT 110, never, 20 sections").click();
    button("Bring v1 to 20 sections …").click();
    assertThat(page.getByText("never received it")).isVisible();
    accessible("order");
    button("See the plan").click();
    assertThat(heading("LGT 110, version 1, to 20 sections")).isVisible();
    assertThat(page.getByText("Nothing has moved yet")).isVisible();
    assertThat(button("Deliver to 20 sections")).isEnabled();
    accessible("plan");
    button("Deliver to 20 sections").click();
    assertThat(heading("Delivered: LGT 110, version 1, to 20 sections")).isVisible();
    assertThat(page.getByText("read back, all as meant").first()).isVisible();
    accessible("run");
  }

  @Test
  @Order(6)
  void anInstructorEditsOneShell() {
    page.navigate(Stage.practiceAddress() + "/shells/lgt-03");
    assertThat(page.getByText("Reading 2")).isVisible();
    assertThat(page.getByText("Manual 8")).hasCount(0);
    page.getByText("Work on it as instructor").click();
    page.getByText("Reading 2").click();
    page.getByLabel("Text").last().fill("<p>In our house it is different.</p>");
    button("Save text").click();
    assertThat(page.getByText("In our house it is different.").first()).isVisible();
  }

  @Test
  @Order(7)
  void versionTwoChangesRenamesMovesRemovesAndAdds() {
    page.navigate(master);
    item("Week 1").waitFor();
    item("Reading 1").click();
    tab("Write").click();
    button("Source").click();
    page.getByLabel("Text of Reading 1, source").fill("<p>A circuit carries 1,920 watts.</p>");
    page.getByLabel("Title").fill("Reading 1, corrected");
    button("Save Reading 1").click();
    assertThat(draft()).hasText("Draft: 1 changed since v1");
    item("Talk 7").click();
    page.getByRole(AriaRole.TREE).press("Alt+ArrowUp");
    item("Manual 18").click();
    double top = page.getByRole(AriaRole.TREE).boundingBox().y;
    page.getByRole(AriaRole.TREE).press("Delete");
    assertThat(page.getByText("1 item taken out")).isVisible();
    org.assertj.core.api.Assertions.assertThat(page.getByRole(AriaRole.TREE).boundingBox().y)
        .as("nothing jumps")
        .isEqualTo(top);
    assertThat(differences()).containsText("gone");
    button("Add an item").click();
    heading("Add an item").waitFor();
    button("Freeze version 2").focus();
    page.keyboard().press("Escape"); // wherever the focus stands
    assertThat(heading("Add an item")).isHidden();
    button("Add an item").click();
    page.getByLabel("Title").fill("Checklist");
    button("Add page").click();
    assertThat(draft()).hasText("Draft: 2 changed, 1 added, 1 gone since v1");
    freeze(2, "Corrected, and a checklist");
    page.getByText("v2 ·").click();
    for (String how : List.of("changed", "moved", "added", "gone")) {
      assertThat(differences()).containsText(how);
    }
    accessible("changes");
  }

  private static Locator differences() {
    return page.getByRole(AriaRole.LIST, new Page.GetByRoleOptions().setName("Differences"));
  }

  /** Says on failure what stands there instead. */
  private static Locator draft() {
    return page.getByText(Pattern.compile("^Draft: "));
  }

  private static Locator item(String title) {
    return page.getByRole(AriaRole.TREEITEM, new Page.GetByRoleOptions().setName(title)).first();
  }

  @Test
  @Order(8)
  void versionTwoBringsOnlyWhatChangedAndKeepsTheInstructorsText() {
    page.navigate(ADDRESS + "/coverage");
    assertThat(heading("20 of 20 sections are behind")).isVisible();
    assertThat(page.getByText("20 sections in hand")).isVisible(); // the choice has stayed
    button("Bring v2 to 20 sections …").click();
    page.getByLabel("What", new Page.GetByLabelOptions().setExact(true)).selectOption("CHANGED");
    assertThat(page.getByLabel("Checklist, brought, new")).isVisible();
    assertThat(page.getByLabel("Reading 2, not brought, nothing new")).isVisible();
    button("See the plan").click();
    assertThat(page.getByRole(AriaRole.GROUP, new Page.GetByRoleOptions().setName("Steps by kind")))
        .containsText("20additions");
    button("Deliver to 20 sections").click();
    assertThat(heading("Delivered: LGT 110, version 2, to 20 sections")).isVisible();
    page.navigate(Stage.practiceAddress() + "/shells/lgt-03");
    assertThat(page.getByText("Reading 1, corrected")).isVisible();
    assertThat(page.getByText("Checklist")).isVisible();
    page.getByText("Reading 2").click();
    assertThat(page.getByText("In our house it is different.")).isVisible();
  }

  @Test
  @Order(9)
  void coverageShowsItAllDownToTheItem() {
    page.navigate(ADDRESS + "/coverage");
    assertThat(heading("20 sections, all in step")).isVisible();
    assertThat(button("1 changed here")).isVisible();
    accessible("spread");
    button("Grid").click();
    assertThat(page.getByRole(AriaRole.GRID)).isVisible();
    accessible("grid");
    button("Spread").click();
    Locator mark =
        page.getByLabel("LGT 110 in 110-03, North: in step, holds v2, 1 item changed here");
    page.getByRole(AriaRole.GRID).focus();
    for (int i = 0; i < 20 && mark.count() == 0; i++) {
      page.keyboard().press("ArrowRight");
    }
    BoundingBox at = mark.boundingBox();
    page.mouse().click(at.x + at.width / 2, at.y + at.height / 2);
    link("Every item of it").click();
    page.getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName("1 changed here").setExact(true))
        .click();
    page.getByText("Reading 2").click();
    assertThat(page.locator("aside").getByText("by Rosalind Achterberg").first()).isVisible();
    accessible("section");
  }

  @Test
  @Order(10)
  void deliveringAgainSaysThatNothingIsToDo() {
    page.navigate(ADDRESS + "/coverage");
    button("Bring v2 to 20 sections …").click();
    button("See the plan").click();
    assertThat(button("Record that nothing was to do")).isEnabled();
    button("Record that nothing was to do").click();
    assertThat(page.getByText("nothing to do: it holds version 2").first()).isVisible();
    page.navigate(ADDRESS + "/deliveries");
    accessible("deliveries");
  }

  @Test
  @Order(11)
  void theKeyboardAloneFindsOpensAndListsItsKeys() {
    page.navigate(ADDRESS + "/coverage");
    heading("20 sections, all in step").waitFor();
    page.keyboard().press("?");
    assertThat(page.getByText("Keys of this page")).isVisible();
    accessible("keys");
    page.keyboard().press("Escape");
    assertThat(page.getByText("Keys of this page")).isHidden();
    page.keyboard().press("/");
    page.keyboard().type("110-07");
    assertThat(page.locator("#hits").getByRole(AriaRole.OPTION).first()).containsText("110-07");
    page.keyboard().press("Enter");
    assertThat(heading("110-07 Light")).isVisible();
    page.goBack();
    assertThat(heading("20 sections, all in step")).isVisible();
  }

  @Test
  @Order(12)
  void aTokenIsShownOnceAndItsMakingStandsInTheRecord() {
    page.navigate(ADDRESS + "/myself");
    page.getByLabel("What it is for").fill("Nightly coverage");
    button("Make a token").click();
    assertThat(page.getByText("This is the only time it is shown.")).isVisible();
    assertThat(page.locator("code")).containsText("zephyrmist_");
    accessible("tokens");
    button("I have it").click();
    page.navigate(ADDRESS + "/record");
    assertThat(page.getByText("made token")).isVisible();
    assertThat(page.getByText("confirmed delivery of").first()).isVisible();
    accessible("record");
    page.navigate(ADDRESS + "/api-description");
    assertThat(page.getByText("/api/coverage/terms")).isVisible();
    accessible("API");
  }

  @Test
  @Order(13)
  void anInstructorSignsInAndSeesOnlyOwnSections() {
    page.navigate(ADDRESS + "/college");
    button("Let somebody in").click();
    page.getByLabel("Name").nth(1).fill("Karl Hale");
    page.getByLabel("Mail address").fill("karl@larkmoor.example");
    page.getByLabel("First password").fill("another-long-password");
    page.getByLabel("Role").selectOption("INSTRUCTOR");
    button("Let this person in").click();
    assertThat(page.getByText("Karl Hale can sign in now.")).isVisible();
    button("Change Karl Hale").click();
    page.getByLabel("Role").last().selectOption("DESIGNER");
    button("Save Karl Hale").click();
    assertThat(
            page.getByRole(AriaRole.ROW)
                .filter(new Locator.FilterOptions().setHasText("karl@larkmoor.example")))
        .containsText("designer");
    button("Change Karl Hale").click();
    page.getByLabel("Role").last().selectOption("INSTRUCTOR");
    accessible("people");
    button("Save Karl Hale").click();
    page.locator("#who").click();
    page.getByText("Sign out").click();
    button("Sign in").waitFor(); // the page is loaded anew
    accessible("sign-in");
    page.getByLabel("Mail address").fill("karl@larkmoor.example");
    page.getByLabel("Password").fill("wrong password");
    button("Sign in").click();
    assertThat(page.getByText("do not belong together")).isVisible();
    page.getByLabel("Password").fill("another-long-password");
    button("Sign in").click();
    assertThat(heading("0 sections of yours")).isVisible();
    assertThat(link("Coverage")).hasCount(0);
    accessible("my sections");
  }
}
