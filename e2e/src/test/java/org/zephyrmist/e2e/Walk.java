package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.zephyrmist.stage.Chromium;
import org.zephyrmist.stage.Practice;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;

/** A walk through the started product with one person signed in, and what is met on every page. */
final class Walk implements AutoCloseable {
  static final String ADDRESS = Stage.address(0);
  private final Stage stage;
  private final Chromium chromium = new Chromium();
  final Page page = chromium.page;

  private Walk(Stage stage) {
    this.stage = stage;
  }

  /** An empty installation with its first administrator and a roster of these sections. */
  static Walk begin(Path folder, List<String> sections) throws Exception {
    return begin(folder, sections, Map.of());
  }

  /**
   * @param settings of the server, as its environment names them
   */
  static Walk begin(Path folder, List<String> sections, Map<String, String> settings)
      throws Exception {
    Walk w = new Walk(new Stage("e2e", settings, List.of("-Xmx512m")).open(1));
    Page page = w.page;
    page.navigate(ADDRESS);
    page.getByLabel("Your name").fill("Rosalind Achterberg");
    page.getByLabel("Mail address").fill("rosalind@larkmoor.example");
    page.getByLabel(Pattern.compile("Password")).fill("a-long-password");
    w.button("Begin").click();
    assertThat(page.getByText("Four steps to the first delivery")).isVisible();
    page.navigate(ADDRESS + "/college");
    page.getByLabel("OneRoster bundle").setInputFiles(Samples.roster(folder, sections));
    w.button("Take this roster in").click();
    assertThat(page.getByText("Taken in:")).isVisible();
    return w;
  }

  /** Nothing was forbidden or thrown on the way. */
  @Override
  public void close() {
    try {
      assertThat(chromium.errors).isEmpty();
    } finally {
      chromium.close();
      stage.close();
    }
  }

  /** Somebody else, in a browser of their own. */
  Page another(String mail, String password) {
    BrowserContext own =
        chromium
            .context
            .browser()
            .newContext(new Browser.NewContextOptions().setViewportSize(1280, 800));
    Page other = own.newPage();
    other.navigate(ADDRESS);
    other.getByLabel("Mail address").fill(mail);
    other.getByLabel("Password").fill(password);
    other.getByText("Sign in").click();
    other.getByRole(AriaRole.BANNER).waitFor();
    return other;
  }

  Locator button(String name) {
    return button(page, name);
  }

  static Locator button(Page page, String name) {
    return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
  }

  Locator heading(String name) {
    return page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName(name));
  }

  Locator item(String title) {
    return item(page, title);
  }

  static Locator item(Page page, String title) {
    // “Reading 1” is not “Reading 13”
    return page.getByRole(
        AriaRole.TREEITEM, new Page.GetByRoleOptions().setName(Pattern.compile(title + "(?!\\d)")));
  }

  Locator tab(String name) {
    return tab(page, name);
  }

  static Locator tab(Page page, String name) {
    return page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName(name));
  }

  /** Names the practice platform, on which there are shells for these sections. */
  void platform(List<String> shells) {
    new Practice().makeShells(shells);
    page.navigate(ADDRESS + "/college");
    page.getByLabel("Name").first().fill("Practice platform");
    page.getByLabel("Address", new Page.GetByLabelOptions().setExact(true))
        .fill(Stage.practiceAddress());
    page.getByLabel(Pattern.compile("Token")).fill("practice-token");
    button("Name this platform").click();
    assertThat(page.getByText(Pattern.compile("holds " + shells.size() + " shells?"))).isVisible();
  }

  void takeIn(Path file) {
    page.navigate(ADDRESS + "/sources");
    page.getByLabel("Cartridge file").setInputFiles(file);
    page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Look inside")).click();
    assertThat(heading("Reading report")).isVisible();
  }

  /** A master of the edition that is looked at, frozen as version 1; gives its address. */
  String master() {
    button("Make it a master").click();
    page.getByLabel(Pattern.compile("LGT 110")).check();
    button("Make master LGT 110").click();
    assertThat(heading("LGT 110 Stage Lighting")).isVisible();
    freeze(1, "As it came");
    return page.url().replaceAll("\\?.*", "");
  }

  void freeze(int number, String note) {
    button("Freeze version " + number).click();
    page.getByLabel(Pattern.compile("What is new in version " + number)).fill(note);
    button("Freeze it").click();
    assertThat(button("Freeze version " + (number + 1))).isVisible();
  }

  /** Writes the source of an item's text. */
  void write(String title, String html) {
    item(title).click();
    tab("Write").click();
    page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Text of " + title))
        .first()
        .waitFor();
    button("Source").click();
    page.getByLabel("Text of " + title + ", source").fill(html);
    button("Save " + title).click();
    assertThat(page.getByText(Pattern.compile("\\d+ changed.* since v"))).isVisible();
  }

  /** What stands in a shell of the practice platform. */
  static List<String> titles(String shell) {
    return new Practice()
        .items(shell)
        .valueStream()
        .map(i -> i.path("wording").path("title").asString())
        .toList();
  }

  /** Takes only these sections in hand. */
  void inHand(String codes) {
    page.navigate(ADDRESS + "/coverage");
    page.getByText("Paste codes").waitFor();
    if (button("Put all back").isVisible()) {
      button("Put all back").click();
    }
    button("Paste codes").click();
    page.getByLabel("Codes of sections").fill(codes);
    button("Take them").click();
  }

  /** Makes the past what it is to have been: nobody can do that through the interface. */
  void past(String... deeds) throws SQLException {
    try (Connection db = stage.connect();
        Statement s = db.createStatement()) {
      for (String d : deeds) {
        s.execute(d);
      }
    }
  }
}
