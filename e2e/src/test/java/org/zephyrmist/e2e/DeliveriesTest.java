package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
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
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** Deliveries that wait, start clean, are taken back; and what sections make of them. */
@TestMethodOrder(OrderAnnotation.class)
class DeliveriesTest {
  private static final String SAFETY =
      "Nobody walks under a bar that is being flown; call it out, wait for the answer, and only then"
          + " let the line go through your gloves.";
  @TempDir static Path folder;
  private static final Practice PRACTICE = new Practice();
  private static Walk walk;
  private static Page page;
  private static String master;

  @BeforeAll
  static void open() throws Exception {
    List<String> all = List.of("lgt-01", "lgt-02", "lgt-03", "lgt-04", "lgt-05");
    walk = Walk.begin(folder, all);
    page = walk.page;
    walk.platform(List.of("lgt-01", "lgt-02", "lgt-03", "lgt-05"));
    walk.takeIn(Samples.cartridge(folder, 20));
    master = walk.master();
  }

  @AfterAll
  static void close() {
    walk.close();
  }

  private static JsonNode item(String shell, String title) {
    return PRACTICE
        .items(shell)
        .valueStream()
        .filter(i -> i.path("wording").path("title").asString().equals(title))
        .findFirst()
        .orElseThrow();
  }

  private static void clear(String shell) {
    while (!PRACTICE.items(shell).isEmpty()) {
      String id = PRACTICE.items(shell).get(0).path("id").asString();
      PRACTICE.form("/shells/" + shell + "/items/" + id + "/delete", Map.of());
    }
  }

  private static void add(String shell, String title, String text) {
    PRACTICE.form("/shells/" + shell + "/add", Map.of("title", title, "html", text));
  }

  /** Takes these sections in hand and says an order of the newest version. */
  private static void order(String codes, int version, int sections) {
    walk.inHand(codes);
    String what = "Bring v" + version + " to " + sections;
    page.getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile(what + " sec")))
        .click();
  }

  private static void ran(String heading) {
    assertThat(walk.heading(heading))
        .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(60_000));
  }

  @Test
  @Order(1)
  void aSectionWhoseShellAppearsLaterIsFilledByItself() {
    order("110-01 110-02 110-03 110-04", 1, 4);
    walk.button("See the plan").click();
    assertThat(page.getByText("1 section has no shell yet (110-04)")).isVisible();
    WholePathTest.accessible(page, "waiting plan");
    walk.button("Deliver to 3 sections, 1 later").click();
    ran("LGT 110, version 1: 3 of 4 sections done, 1 not yet");
    WholePathTest.accessible(page, "waiting run");
    PRACTICE.makeShells(List.of("lgt-04"));
    ran("Delivered: LGT 110, version 1, to 4 sections");
    assertThat(Walk.titles("lgt-04")).contains("Reading 1");
  }

  @Test
  @Order(2)
  void aDeliveryIsTakenBackAndWhatWasChangedSinceStays() {
    page.navigate(master);
    walk.write("Reading 2", "<p>" + SAFETY + "</p>");
    walk.freeze(2, "A safer second reading");
    order("110-01 110-02", 2, 2);
    walk.button("See the plan").click();
    walk.button("Deliver to 2 sections").click();
    ran("Delivered: LGT 110, version 2, to 2 sections");
    String id = item("lgt-02", "Reading 2").path("id").asString();
    PRACTICE.form(
        "/shells/lgt-02/items/" + id + "/text",
        Map.of("title", "Reading 2", "html", "<p>As we do it.</p>"));
    walk.button("Take it back …").click();
    assertThat(walk.heading("Take back LGT 110, version 2, in 2 sections")).isVisible();
    assertThat(page.getByText("what was changed since stays")).isVisible();
    WholePathTest.accessible(page, "take back");
    walk.button("Take back in").click();
    ran("Taken back: LGT 110, version 2, in 2 sections");
    assertThat(item("lgt-01", "Reading 2").toString()).doesNotContain("being flown");
    assertThat(item("lgt-02", "Reading 2").toString()).contains("As we do it.");
  }

  @Test
  @Order(3)
  void aShellIsStartedCleanAndThatIsTakenBackFromItsRestorePoint() {
    add("lgt-03", "Old notes", "<p>From last year.</p>");
    order("110-03", 2, 1);
    page.getByLabel("What the shells are like").selectOption("CLEAN");
    walk.button("See the plan").click();
    assertThat(page.getByText("cleared first, then started clean")).isVisible();
    assertThat(page.getByText("Old notes")).isVisible();
    walk.button("Deliver to 1 section").click();
    ran("Delivered: LGT 110, version 2, to 1 section");
    assertThat(Walk.titles("lgt-03")).doesNotContain("Old notes");
    page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("110-03")).click();
    page.getByText("1 restore point").click();
    walk.button("What is otherwise now").click();
    assertThat(page.getByText("1 missing now: Old notes (page)")).isVisible();
    WholePathTest.accessible(page, "restore point");
    walk.button("Take that delivery back here …").click();
    walk.button("Take back in 1 section").click();
    ran("Taken back: LGT 110, version 2, in 1 section");
    assertThat(Walk.titles("lgt-03")).contains("Old notes");
  }

  @Test
  @Order(4)
  void onlyIfEmptyWaitsForTheShellToBeClearedAndGoesOnByItself() {
    order("110-03", 2, 1);
    page.getByLabel("What the shells are like").selectOption("IF_EMPTY");
    walk.button("See the plan").click();
    assertThat(page.getByText("1 shell is not empty (110-03)")).isVisible();
    walk.button("Let 1 section wait").click();
    ran("LGT 110, version 2: 0 of 1 section done, 1 not yet");
    clear("lgt-03");
    ran("Delivered: LGT 110, version 2, to 1 section");
    assertThat(Walk.titles("lgt-03")).contains("Reading 2");
  }

  @Test
  @Order(5)
  void anEmptiedShellIsAskedAboutAndDeliveredToAnew() {
    clear("lgt-04");
    order("110-04", 2, 1);
    walk.button("See the plan").click();
    assertThat(page.getByText("1 shell was emptied")).isVisible();
    walk.button("Deliver anew").click();
    walk.button("Deliver to 1 section").click();
    ran("Delivered: LGT 110, version 2, to 1 section");
    assertThat(Walk.titles("lgt-04")).contains("Reading 2");
  }

  @Test
  @Order(6)
  void aTwinWithAnotherTitleIsAdopted() {
    add("lgt-05", "Before you fly", "<p>" + SAFETY + "</p><p>Ask me first.</p>");
    order("110-05", 2, 1);
    walk.button("See the plan").click();
    page.getByRole(AriaRole.GRID).waitFor();
    page.keyboard().press("n");
    assertThat(page.getByText(Pattern.compile("Its text is \\d+ % alike"))).isVisible();
    walk.button("Deliver to 1 section").click();
    ran("Delivered: LGT 110, version 2, to 1 section");
    assertThat(Walk.titles("lgt-05")).contains("Before you fly").doesNotContain("Reading 2");
  }

  @Test
  @Order(7)
  void anImprovementMadeInSectionsIsTakenIntoTheMaster() {
    for (String shell : List.of("lgt-03", "lgt-04")) {
      String id = item(shell, "Reading 2").path("id").asString();
      PRACTICE.form(
          "/shells/" + shell + "/items/" + id + "/text",
          Map.of("title", "Reading 2", "html", "<p>" + SAFETY + "</p><p>Wear a helmet.</p>"));
    }
    walk.inHand("110-03 110-04");
    walk.button("Read shells again").click();
    assertThat(page.getByText("Reading again")).hasCount(0);
    page.getByText("What sections changed of it").click();
    assertThat(page.getByText("wording in")).isVisible();
    WholePathTest.accessible(page, "drift");
    page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Reading 2")).click();
    page.getByText("changed in 2 sections, equal in all").first().click();
    assertThat(page.locator("aside ins")).containsText("Wear a helmet.");
    WholePathTest.accessible(page, "variants");
    walk.button("Take it into the master’s draft").click();
    assertThat(page.getByText("It is in the master’s draft now")).isVisible();
    page.navigate(master);
    walk.item("Reading 2").click();
    assertThat(page.frameLocator("iframe").getByText("Wear a helmet.")).isVisible();
  }

  @Test
  @Order(8)
  void theLedgerTellsWhatASectionGot() {
    page.navigate(Walk.ADDRESS + "/deliveries");
    walk.button("The ledger …").click();
    page.getByLabel("Section").fill("110-05");
    page.getByLabel("Item").fill("Reading 2");
    assertThat(walk.heading("1 receipt")).isVisible();
    assertThat(page.getByText("adopted")).isVisible();
    WholePathTest.accessible(page, "ledger");
  }

  @Test
  @Order(9)
  void theSenderWasToldByMail() {
    page.navigate(Stage.practiceAddress() + "/mailbox");
    assertThat(page.getByText("Taken back: LGT 110 Stage Lighting").first()).isVisible();
    assertThat(page.getByText("rosalind@larkmoor.example").first()).isVisible();
  }

  @Test
  @Order(10)
  void aPlanIsNamedFoundAndThrownAway() {
    order("110-01", 2, 1);
    walk.button("See the plan").click();
    page.getByLabel("Name of this delivery").fill("Before opening night");
    page.keyboard().press("Tab");
    page.navigate(Walk.ADDRESS + "/deliveries");
    page.getByLabel("Find a delivery").fill("opening 110-01");
    assertThat(page.getByRole(AriaRole.LISTITEM)).hasCount(1);
    WholePathTest.accessible(page, "deliveries found");
    page.getByText("Before opening night").click();
    walk.button("Throw this plan away").click();
    walk.button("Yes, throw this plan away").click();
    assertThat(walk.heading("deliver")).isVisible();
    page.getByLabel("Find a delivery").fill("opening");
    assertThat(page.getByText("No delivery has all of these words.")).isVisible();
  }
}
