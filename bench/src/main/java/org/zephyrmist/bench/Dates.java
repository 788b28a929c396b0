package org.zephyrmist.bench;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.Statement;
import java.sql.Timestamp;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.zephyrmist.browser.Chromium;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/**
 * Dates of many sections from the patterns of their master, each group of sections meeting on days
 * of its own: computed, and as the table of what shells have, against writing as many rows; and the
 * ribbon, in the browser.
 */
final class Dates {
  private static final int WEEKS = 15;
  private static final List<String> DAYS = List.of("Mon", "Tue", "Wed", "Thu", "Fri");

  /** Groups of sections that meet at times of their own. */
  private static final int GROUPS = 8;

  private final int sections;
  private final int items;

  Dates(int sections, int items) {
    this.sections = sections;
    this.items = items;
  }

  List<Figure> run() throws Exception {
    Path folder = Folders.fresh("dates");
    try (Stage s = Measuring.stage();
        Chromium chromium = new Chromium()) {
      College college = College.found(sections, folder);
      college.make(college.takeIn(Samples.cartridge(folder, 10)));
      try (Connection db = s.connect()) {
        term(db);
        meet(college, college.sections(db));
        work(college);
        college.freeze("Dates");
        Deliver.deliver(college, college.sections(db));
        String term = college.api.get("/api/coverage/terms").get(0).path("id").asString();
        String ribbon = "/api/calendars/ribbon?term=" + term;
        everyDate(college.api.get(ribbon));
        double computed = Coverage.percentile(() -> college.api.raw(ribbon));
        String due = "/api/calendars/due/file?format=CSV&term=" + term;
        double table = Coverage.percentile(() -> college.api.raw(due));
        double written = Coverage.percentile(() -> write(db));
        List<Figure> all = new ArrayList<>();
        all.add(figure(Figure.of("dates of all sections computed", computed, written, 2.0, "s")));
        all.add(figure(Figure.of("dates of all sections as a table", table, written, 2.0, "s")));
        chromium.signIn(Stage.address(0), College.COORDINATOR, College.PASSWORD);
        all.add(figure(ribbon(chromium.page)));
        return all;
      }
    }
  }

  private Figure figure(Figure f) {
    return f.with("sections", sections).with("items", items).with("dates", sections * items);
  }

  /** Otherwise something else would be measured. */
  private void everyDate(JsonNode ribbon) {
    int dates = 0;
    for (JsonNode row : ribbon.path("rows")) {
      for (JsonNode d : row.path("dates")) {
        dates += d.path("sections").asInt();
      }
    }
    if (dates != sections * items) {
      throw new IllegalStateException(dates + " dates, not " + sections * items);
    }
  }

  /** Of {@link #WEEKS} weeks. */
  private static void term(Connection db) throws Exception {
    try (Statement s = db.createStatement()) {
      s.execute("update term set first_day = '2027-01-18', last_day = '2027-05-01'");
    }
  }

  private static void meet(College college, List<String> ids) {
    for (int g = 0; g < GROUPS; g++) {
      List<String> group = new ArrayList<>();
      for (int i = g; i < ids.size(); i += GROUPS) {
        group.add(ids.get(i));
      }
      Map<String, Object> weekly =
          Map.of("weekday", 1 + g % 5, "begins", "1" + g + ":00", "ends", "1" + g + ":50");
      college.api.put(
          "/api/calendars/meetings",
          Map.of("sections", group, "weekly", List.of(weekly), "cancelled", List.of()));
    }
  }

  /** Work that is due by weeks and by meetings, from the first week to the last. */
  private void work(College college) {
    String draft = "/api/masters/" + college.master + "/draft/items";
    for (int n = 0; n < items; n++) {
      Map<String, String> made = Map.of("kind", "ASSIGNMENT", "title", "Work " + n);
      String key = college.api.post(draft, made).path("key").asString();
      String week = "week " + (1 + n % WEEKS) + " " + DAYS.get(n % DAYS.size()) + " 23:59";
      String due = n % 4 == 0 ? "meeting " + (1 + n % (WEEKS - 1)) : week;
      college.api.patch(draft + "/" + key, Map.of("due", due));
    }
  }

  /** As many rows of section, item and time, in one transaction that is kept. */
  private void write(Connection db) throws Exception {
    try (Statement s = db.createStatement()) {
      s.execute("drop table if exists due_written");
      s.execute("create table due_written (section text, item text, at timestamptz)");
    }
    db.setAutoCommit(false);
    try (PreparedStatement p = db.prepareStatement("insert into due_written values (?, ?, ?)")) {
      for (int i = 0; i < sections * items; i++) {
        p.setString(1, "section " + i / items);
        p.setString(2, "item " + i % items);
        p.setTimestamp(3, new Timestamp(1_800_000_000_000L + i));
        p.addBatch();
      }
      p.executeBatch();
    }
    db.commit();
    db.setAutoCommit(true);
  }

  private Figure ribbon(Page page) {
    page.navigate(Stage.address(0) + "/calendar");
    Locator ribbon = page.getByRole(AriaRole.GRID);
    ribbon.waitFor(new Locator.WaitForOptions().setTimeout(120_000));
    Answers answers = new Answers(page);
    for (String key :
        List.of(
            "ArrowRight",
            "ArrowDown",
            "]",
            "n",
            "ArrowUp",
            "[",
            "Shift+ArrowRight",
            "]",
            "Space",
            "ArrowDown",
            "ArrowLeft")) {
      answers.press(ribbon, key);
    }
    Locator days = ribbon.getByRole(AriaRole.GRIDCELL);
    for (int i = 0; i < Math.min(days.count(), 200); i += 20) {
      answers.click(days.nth(i));
    }
    return answers.figure("input: ribbon");
  }
}
