package org.zephyrmist.bench;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.sql.Connection;
import java.util.List;
import java.util.regex.Pattern;
import org.zephyrmist.browser.Chromium;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;

/** Keys and clicks in the browser on the spread and the grid of a large term. */
final class CoverageInput {
  private final int sections;
  private final int masters;

  CoverageInput(int sections, int masters) {
    this.sections = sections;
    this.masters = masters;
  }

  List<Figure> run() throws Exception {
    Path folder = Folders.fresh("coverage-input");
    try (Stage s = Measuring.stage();
        Chromium chromium = new Chromium()) {
      College college = College.found(1, folder);
      college.make(college.takeIn(Samples.cartridge(folder, 10)));
      try (Connection db = s.connect()) {
        ManySections.fill(db, sections, masters);
      }
      chromium.signIn(Stage.address(0), College.COORDINATOR, College.PASSWORD);
      return List.of(spread(chromium.page), grid(chromium.page));
    }
  }

  private Figure spread(Page page) {
    page.navigate(Stage.address(0) + "/coverage");
    Locator marks = grid(page, "Sections over the version they hold");
    Answers answers = new Answers(page);
    for (String key : List.of("ArrowRight", "ArrowDown", "Space", "Enter", "ArrowUp")) {
      answers.press(marks, key);
    }
    Locator takes = page.getByLabel(Pattern.compile("^Take in hand: M[2-4], [12] behind"));
    for (int i = 0; i < takes.count(); i++) {
      answers.click(takes.nth(i));
    }
    states(page, answers);
    answers.type(page.getByLabel("Find a section"), "x29");
    page.getByLabel("Find a section").fill("");
    return figure(answers, "input: spread");
  }

  private Figure grid(Page page) {
    page.navigate(Stage.address(0) + "/coverage?view=grid");
    Locator rows = grid(page, "Sections and masters");
    Answers answers = new Answers(page);
    for (String key : List.of("ArrowDown", "PageDown", "Space", "Enter", "End", "Home")) {
      answers.press(rows, key);
    }
    states(page, answers);
    answers.type(page.getByLabel("Find a section"), "x29");
    return figure(answers, "input: grid");
  }

  private static Locator grid(Page page, String name) {
    Locator grid = page.getByRole(AriaRole.GRID, new Page.GetByRoleOptions().setName(name));
    grid.waitFor(new Locator.WaitForOptions().setTimeout(120_000));
    return grid;
  }

  /** Shows only one state and all again. */
  private static void states(Page page, Answers answers) {
    Locator states =
        page.getByRole(AriaRole.GROUP, new Page.GetByRoleOptions().setName("Show only"))
            .getByRole(AriaRole.BUTTON);
    for (int i = 0; i < states.count(); i++) {
      answers.click(states.nth(i));
      answers.click(states.nth(i));
    }
  }

  private Figure figure(Answers answers, String name) {
    return answers.figure(name).with("sections", sections).with("masters", masters);
  }
}
