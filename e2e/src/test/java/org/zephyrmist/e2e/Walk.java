package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.zephyrmist.browser.Chromium;
import org.zephyrmist.stage.Caller;
import org.zephyrmist.stage.Practice;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** A walk through the started product with one person signed in, and what is met on every page. */
final class Walk implements AutoCloseable {
  static final String ADDRESS = Stage.address(0);
  private static final String ROSALIND = "rosalind@larkmoor.example";
  private static final String PASSWORD = "a-long-password";
  private final Stage stage;
  private final Caller api = new Caller(ADDRESS);
  private String edition = "";
  private final Chromium chromium = new Chromium();
  final Page page = chromium.page;

  private Walk(Stage stage) {
    this.stage = stage;
  }

  /** Looks again soon at what it waits for; with the practice tools. */
  private static final Map<String, String> SETTINGS =
      Map.of(
          Stage.TOOLS,
          Stage.toolsAddress(),
          "ZEPHYRMIST_LOOKSAROUND",
          "1s",
          "ZEPHYRMIST_LOOKSIFEMPTY",
          "1s",
          "ZEPHYRMIST_LOOKSIFTHERE",
          "1s");

  /** An empty installation: all walks of a process share one. */
  static Stage stage() throws Exception {
    return Stage.shared("e2e", SETTINGS, List.of("-Xmx1g"));
  }

  /**
   * An installation with its first administrator, signed in, and a roster of these sections. What
   * {@link WholePathTest} does on its way in the browser, walks have done by calls.
   */
  static Walk begin(Path folder, List<String> sections) throws Exception {
    Walk w = new Walk(stage());
    w.api.get("/api/ready");
    w.api.post(
        "/api/first-person",
        Map.of(
            "name",
            "Rosalind Achterberg",
            "email",
            ROSALIND,
            "role",
            "ADMINISTRATOR",
            "password",
            PASSWORD));
    w.api.signIn(ROSALIND, PASSWORD);
    w.api.roster(Samples.roster(folder, sections));
    w.chromium.signIn(ADDRESS, ROSALIND, PASSWORD);
    return w;
  }

  /** Nothing was forbidden or thrown on the way. */
  @Override
  public void close() {
    try {
      assertThat(chromium.errors).isEmpty();
    } finally {
      chromium.close();
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
    api.post(
        "/api/platforms",
        Map.of(
            "name",
            "Practice platform",
            "address",
            Stage.practiceAddress(),
            "token",
            "practice-token"));
  }

  /** Takes a cartridge in and looks at its edition. */
  void takeIn(Path file) throws IOException {
    String intake =
        "/api/cartridges/intakes/"
            + api.upload("/api/cartridges/intakes?fileName=" + file.getFileName(), file)
                .path("id")
                .asString();
    page.waitForCondition(() -> !api.get(intake).path("state").asString().equals("READING"));
    edition = api.get(intake).path("edition").asString();
    page.navigate(ADDRESS + "/sources/editions/" + edition);
    assertThat(heading("Reading report")).isVisible();
  }

  /** A master of the edition that was taken in, frozen as version 1; gives its address. */
  String master() {
    String course = "";
    for (JsonNode c : api.get("/api/courses")) {
      course = c.path("code").asString().equals("LGT 110") ? c.path("id").asString() : course;
    }
    String id =
        api.post(
                "/api/masters",
                Map.of(
                    "code",
                    "LGT 110",
                    "title",
                    "Stage Lighting",
                    "edition",
                    edition,
                    "courses",
                    List.of(course)))
            .path("id")
            .asString();
    api.post("/api/masters/" + id + "/versions", Map.of("note", "As it came"));
    page.navigate(ADDRESS + "/sources/masters/" + id);
    assertThat(heading("LGT 110 Stage Lighting")).isVisible();
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
