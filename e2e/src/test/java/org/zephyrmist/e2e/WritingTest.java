package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
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
import org.zephyrmist.stage.Stage;

/** Items written where they stand, by one and by two, compared, and taken in from a shell. */
@TestMethodOrder(OrderAnnotation.class)
class WritingTest {
  private static final String PNG =
      "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==";
  @TempDir static Path folder;
  private static Walk walk;
  private static Page page;
  private static String master;

  @BeforeAll
  static void open() throws Exception {
    walk = Walk.begin(folder, List.of("lgt-01"));
    page = walk.page;
    walk.platform(List.of("lgt-01"));
  }

  @AfterAll
  static void close() {
    walk.close();
  }

  @Test
  @Order(1)
  void aPageIsWrittenWithAPictureAndThatIsUndone() throws Exception {
    walk.takeIn(Samples.cartridge(folder, 30));
    master = walk.master();
    walk.item("Reading 1").click();
    walk.tab("Write").click();
    Locator text = page.locator(".ProseMirror");
    text.click();
    page.keyboard().press("Control+End");
    page.keyboard().press("Enter");
    page.keyboard().type("Hang it as drawn: ");
    Path picture = folder.resolve("plot.png");
    Files.write(picture, Base64.getDecoder().decode(PNG));
    page.locator("input[type=file][multiple]").first().setInputFiles(picture);
    assertThat(text.locator("img").first()).isVisible();
    page.getByLabel("Insert").selectOption("section-code");
    WholePathTest.accessible(page, "write");
    walk.button("Save Reading 1").click();
    assertThat(page.getByText("Draft: 1 changed since v1")).isVisible();
    walk.tab("As students see it").click();
    Locator seen = page.frameLocator("iframe").getByText("Hang it as drawn:");
    assertThat(seen).isVisible();
    assertThat(page.frameLocator("iframe").locator("img").last())
        .hasAttribute("src", Pattern.compile("/api/files/[0-9a-f]{64}/plot.png"));
    page.getByLabel("Filled in for a section").fill("110-01");
    assertThat(page.frameLocator("iframe").getByText("Hang it as drawn: 110-01")).isVisible();
    walk.tab("Since version 1").click();
    assertThat(page.locator("mark.new").first()).containsText("Hang");
    walk.button("Undo").first().click();
    assertThat(page.getByText("The text is the same in both.")).isVisible();
  }

  @Test
  @Order(2)
  void questionsGradesAndConditionsAreWritten() {
    page.navigate(master);
    walk.button("Add an item").click();
    walk.button("quiz").click();
    page.getByLabel("Title").fill("Loads");
    walk.button("Add quiz").click();
    walk.tab("Questions").click();
    page.getByLabel("Add a question").selectOption("MULTIPLE_CHOICE");
    page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("What is asked"))
        .fill("How many amperes?");
    page.getByLabel("Answer 1", new Page.GetByLabelOptions().setExact(true)).fill("Fifteen");
    page.getByLabel("Answer 2", new Page.GetByLabelOptions().setExact(true)).fill("Ninety");
    walk.button("Save the question").click();
    assertThat(page.getByText("1 question, 1 point")).isVisible();
    WholePathTest.accessible(page, "questions");
    walk.tab("For whom, when").click();
    walk.button("Add a condition").click();
    page.getByLabel("Item, condition 1").selectOption("Reading 1");
    walk.button("Save for Loads").click();
    walk.tab("As students see it").click();
    assertThat(page.getByText("opens when “Reading 1” was opened")).isVisible();
    WholePathTest.accessible(page, "item");
  }

  @Test
  @Order(3)
  void whatWantsALookIsListedBeforeFreezingAndLeadsThere() {
    walk.write("Reading 2", "<p>TODO: a table. <a href=\"#\">Here</a></p>");
    walk.button("Freeze version 2").click();
    assertThat(page.getByText("2 places want a look")).isVisible();
    assertThat(page.getByText("Sentences that look like a note")).isVisible();
    WholePathTest.accessible(page, "ready");
    walk.button("Reading 2").first().click();
    page.locator(".ProseMirror").waitFor();
    walk.button("Freeze version 2").click();
    page.getByLabel(Pattern.compile("What is new in version 2")).fill("A quiz");
    walk.button("Freeze it nevertheless").click();
    assertThat(walk.button("Freeze version 3")).isVisible();
  }

  @Test
  @Order(4)
  void twoPeopleAtOneItemSeeEachOtherAndLoseNothing() {
    page.navigate(Walk.ADDRESS + "/college");
    walk.button("Let somebody in").click();
    page.getByLabel("Name").nth(1).fill("Karl Hale");
    page.getByLabel("Mail address").fill("karl@larkmoor.example");
    page.getByLabel("First password").fill("another-long-password");
    page.getByLabel("Role").selectOption("ADMINISTRATOR");
    walk.button("Let this person in").click();
    assertThat(page.getByText("Karl Hale can sign in now.")).isVisible();
    Page other = walk.another("karl@larkmoor.example", "another-long-password");
    for (Page p : List.of(page, other)) {
      p.navigate(master);
      Walk.item(p, "Reading 1").click();
      Walk.tab(p, "Write").click();
      p.locator(".ProseMirror").waitFor();
    }
    assertThat(page.getByText("Karl Hale is writing this")).isVisible();
    other.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Reading one");
    Walk.button(other, "Save Reading 1").click();
    assertThat(Walk.item(other, "Reading one")).isVisible();
    page.locator(".ProseMirror").click();
    page.keyboard().type("Mine. ");
    walk.button("Save Reading 1").click();
    assertThat(page.getByText("Karl Hale changed the wording of")).isVisible();
    assertThat(page.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)))
        .hasValue("Reading one");
    walk.button("Save Reading one").click();
    assertThat(page.getByText("Saved in the draft.")).isVisible();
    other.context().close();
  }

  @Test
  @Order(5)
  void aFilledShellBecomesAMaster() {
    page.navigate(Walk.ADDRESS + "/college");
    new Practice()
        .form("/shells/lgt-01/add", Map.of("title", "House rules", "html", "<p>Quiet.</p>"));
    page.navigate(Walk.ADDRESS + "/sources");
    walk.button("From a shell").click();
    page.getByLabel("Section whose shell it is").fill("110-01");
    assertThat(page.getByText("1 item: 1 page")).isVisible();
    WholePathTest.accessible(page, "from a shell");
    page.getByLabel("Code").fill("HOUSE");
    page.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Our house");
    page.getByLabel("every section of the college").check();
    walk.button("Make master HOUSE").click();
    assertThat(walk.item("House rules")).isVisible();
  }

  @Test
  @Order(6)
  void twoSourcesStandSideBySide() {
    page.navigate(Walk.ADDRESS + "/sources/beside");
    page.getByLabel("On the left").selectOption("LGT 110, version 1");
    page.getByLabel("On the right").selectOption("HOUSE, draft");
    assertThat(page.getByText("Only in HOUSE, draft: 1")).isVisible();
    WholePathTest.accessible(page, "side by side");
  }

  @Test
  @Order(7)
  void oneItemGoesToASectionWithWhatItNeedsAndNothingElse() {
    page.navigate(Walk.ADDRESS + "/coverage");
    walk.button("Take in hand: LGT 110, never, 1 section").click();
    walk.button("Bring v2 to 1 section …").click();
    page.getByLabel("What", new Page.GetByLabelOptions().setExact(true)).selectOption("SOME");
    page.getByLabel("Find in version 2").fill("Loads");
    walk.item("Loads").click();
    page.getByLabel("Find in version 2").fill("Reading 1");
    assertThat(page.getByLabel("Reading 1, comes along, Loads opens after it")).isVisible();
    page.getByLabel("How new items arrive").selectOption("HIDDEN");
    assertThat(page.getByText("3 items into 1 section")).isVisible();
    WholePathTest.accessible(page, "parts");
    walk.button("See the plan").click();
    assertThat(page.getByText("only chosen parts · new items hidden on arrival")).isVisible();
    walk.button("Deliver to 1 section").click();
    assertThat(page.getByText("read back, all as meant").first()).isVisible();
    page.navigate(Stage.practiceAddress() + "/shells/lgt-01?work=true");
    assertThat(page.getByText("Loads")).isVisible();
    assertThat(page.getByText("Reading 1", new Page.GetByTextOptions().setExact(true))).isVisible();
    assertThat(page.getByText("Reading 3", new Page.GetByTextOptions().setExact(true))).hasCount(0);
    page.navigate(Stage.practiceAddress() + "/shells/lgt-01");
    assertThat(page.getByText("Loads")).hasCount(0);
  }

  @Test
  @Order(8)
  void aClashIsMergedAndBothTextsArrive() {
    page.navigate(Stage.practiceAddress() + "/shells/lgt-01?work=true");
    page.getByText("Reading 1", new Page.GetByTextOptions().setExact(true)).click();
    Locator text = page.getByLabel("Text").last();
    text.fill("<p>In our house it differs.</p>"); // the same words that the version changed
    walk.button("Save text").click();
    page.navigate(master);
    walk.button("Freeze version 3").click();
    page.getByLabel(Pattern.compile("What is new in version 3")).fill("Mine");
    walk.button("Freeze it nevertheless").click();
    assertThat(walk.button("Freeze version 4")).isVisible();
    page.navigate(Walk.ADDRESS + "/coverage");
    walk.button("Bring v3 to 1 section …").click();
    walk.button("See the plan").click();
    page.getByRole(AriaRole.GRID).waitFor();
    page.keyboard().press("n");
    assertThat(page.locator(".together")).containsText("Mine.");
    assertThat(page.locator(".together")).containsText("In our house it differs.");
    WholePathTest.accessible(page, "clash");
    walk.button("Take both").click();
    assertThat(page.getByText("Decided: both are taken.")).isVisible();
    walk.button("Deliver to 1 section").click();
    assertThat(page.getByText("read back, all as meant").first()).isVisible();
    page.navigate(Stage.practiceAddress() + "/shells/lgt-01?work=true");
    page.getByText("Reading one").click();
    assertThat(page.getByRole(AriaRole.ARTICLE)).containsText("Mine.");
    assertThat(page.getByRole(AriaRole.ARTICLE)).containsText("In our house it differs.");
  }
}
