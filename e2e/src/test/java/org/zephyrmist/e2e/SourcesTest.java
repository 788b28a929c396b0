package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
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
import org.zephyrmist.stage.Samples;

/** The life of a source: adapted, a new edition taken over, packed, found again. */
@TestMethodOrder(OrderAnnotation.class)
class SourcesTest {
  private static final int ITEMS = 300;
  @TempDir static Path folder;
  private static Walk walk;
  private static Page page;
  private static String master;

  @BeforeAll
  static void open() throws Exception {
    walk = Walk.begin(folder, List.of("lgt-01"));
    page = walk.page;
  }

  @AfterAll
  static void close() {
    walk.close();
  }

  private static Locator button(String name) {
    return walk.button(name);
  }

  private static Locator item(String title) {
    return walk.item(title);
  }

  @Test
  @Order(1)
  void aCartridgeBecomesAMasterThatIsAdapted() throws Exception {
    walk.takeIn(Samples.cartridge(folder, ITEMS));
    master = walk.master();
    walk.write(
        "Reading 1",
        "<h2>Lamp 1</h2><p>A circuit carries what we measured; lamp 1 draws its share.</p>");
    walk.write("Reading 2", "<h2>Lamp 2</h2><p>Wholly ours.</p>");
  }

  @Test
  @Order(2)
  void whatIsTakenOutOrMovedIsUndone() {
    page.navigate(master);
    item("Reading 3").click();
    page.keyboard().press("Delete");
    assertThat(item("Reading 3")).hasCount(0);
    page.keyboard().press("Control+z");
    assertThat(item("Reading 3")).isVisible();
    assertThat(page.getByText("Taken back: took out “Reading 3”")).isVisible();
    item("Reading 3").click();
    page.keyboard().press("F2");
    page.getByLabel("Title of Reading 3").fill("Reading three");
    page.keyboard().press("Enter");
    assertThat(item("Reading three")).isVisible();
    page.keyboard().press("Control+z");
    assertThat(item("Reading 3")).isVisible();
  }

  @Test
  @Order(3)
  void aNewEditionIsTakenOverWithItsClashesAndDoubtfulPairsDecided() throws Exception {
    walk.takeIn(Samples.secondEdition(folder, ITEMS));
    button("Compare with LGT 110").click();
    assertThat(page.getByText("2 clashes with ours")).isVisible();
    assertThat(page.getByText("2 pairs in doubt")).isVisible();
    assertThat(page.getByText("1 new", new Page.GetByTextOptions().setExact(false)).first())
        .isVisible();
    WholePathTest.accessible(page, "edition beside edition");
    page.getByLabel("What the new edition does to the master").focus();
    while (!button("They are one").isVisible()) {
      page.keyboard().press("n");
      page.waitForTimeout(300);
    }
    button("They are one").click();
    // with one of two twins decided, nothing is left that the other could be mistaken for
    assertThat(page.getByText("0 pairs in doubt")).isVisible();
    button("Next to decide").click();
    button("Edition 2’s").click();
    button("Next to decide").click();
    button("Ours").click();
    assertThat(button("Next to decide")).hasCount(0);
    button("Take 5 changes into the draft").click();
    assertThat(page.getByText("taken into the draft")).isVisible();
    button("Undo").click();
    assertThat(page.getByText("Nothing is taken yet")).isVisible();
  }

  @Test
  @Order(4)
  void aVersionGoesOutAsAPackageAndIsKnownWhenItComesBack() throws Exception {
    page.navigate(master + "?version=1");
    button("More…").click();
    button("Package…").click();
    page.getByLabel(Pattern.compile("Common Cartridge 1.1")).check();
    assertThat(page.getByText("Assignments are pages in Common Cartridge 1.1.")).isVisible();
    WholePathTest.accessible(page, "package");
    button("Make a package of 300 items").click();
    Locator made =
        page.getByRole(
            AriaRole.LINK,
            new Page.GetByRoleOptions().setName("LGT 110, version 1, Common Cartridge 1.1.imscc"));
    made.waitFor();
    Download download = page.waitForDownload(made::click);
    Path packed = folder.resolve("packed.imscc");
    download.saveAs(packed);
    walk.takeIn(packed);
    assertThat(page.getByText("Written here from LGT 110, version 1")).isVisible();
    assertThat(page.getByText("No dead reference.")).isVisible();
  }

  @Test
  @Order(5)
  void anItemIsFoundInTheLibraryAndTakenIntoAMaster() {
    page.navigate(Walk.ADDRESS + "/sources/library?q=mixing");
    Locator found = page.locator("[role=option]:has-text('Mixing light') .box");
    page.waitForCondition(
        () -> {
          if (found.count() == 0) {
            page.reload();
            page.waitForTimeout(1000);
          }
          return found.count() > 0;
        });
    WholePathTest.accessible(page, "library");
    found.first().click();
    page.getByLabel("Master to take them into")
        .selectOption(new com.microsoft.playwright.options.SelectOption().setIndex(1));
    button("Take 1 item over").click();
    assertThat(page.getByText("1 item taken into LGT 110")).isVisible();
    page.navigate(master);
    page.getByLabel("Find in this outline").fill("Mixing");
    assertThat(item("Mixing light")).isVisible();
  }
}
