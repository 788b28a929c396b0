package org.zephyrmist.bench;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.sql.Connection;
import java.util.List;
import org.zephyrmist.browser.Chromium;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;

/** Keys and clicks in the browser on a long outline and a large plan. */
final class Input {
  private final int items;
  private final int sections;
  private final int planned;

  /**
   * @param items of the outline
   * @param planned items of the plan
   */
  Input(int items, int sections, int planned) {
    this.items = items;
    this.sections = sections;
    this.planned = planned;
  }

  List<Figure> run() throws Exception {
    Path folder = Folders.fresh("input");
    try (Stage s = Measuring.stage();
        Chromium chromium = new Chromium()) {
      College college = College.found(sections, folder);
      college.make(college.takeIn(Samples.cartridge(folder, items)));
      String large = college.master;
      college.make(college.takeIn(Samples.cartridge(folder, planned)));
      String plan = mixedPlan(s, college);
      Page page = chromium.page;
      chromium.signIn(Stage.address(0), College.COORDINATOR, College.PASSWORD);
      return List.of(outline(page, large), plan(page, plan));
    }
  }

  /** A second version for all, when a third of the sections hold the first. */
  private String mixedPlan(Stage s, College college) throws Exception {
    try (Connection db = s.connect()) {
      List<String> ids = college.sections(db);
      Deliver.deliver(college, ids.subList(0, Math.max(1, sections / 3)));
      Plan.secondVersion(college);
      return college.plan(college.newest(), ids);
    }
  }

  private Figure outline(Page page, String master) {
    page.navigate(Stage.address(0) + "/sources/masters/" + master);
    page.getByRole(AriaRole.TREEITEM).first().click();
    Answers answers = new Answers(page);
    Locator tree = page.getByRole(AriaRole.TREE);
    for (String key : List.of("ArrowDown", "PageDown", "End", "PageUp", "Home")) {
      answers.press(tree, key);
    }
    answers.press(tree, "ArrowLeft"); // closes the first module
    answers.press(tree, "ArrowRight");
    Locator find = page.getByLabel("Find in this outline");
    answers.type(find, "reading 29");
    answers.press(find, "Backspace");
    return answers.figure("input: outline").with("items", items);
  }

  private Figure plan(Page page, String delivery) {
    page.navigate(Stage.address(0) + "/deliveries/" + delivery);
    Locator grid = page.getByRole(AriaRole.GRID);
    long asked = System.nanoTime();
    grid.waitFor(new Locator.WaitForOptions().setTimeout(120_000));
    double shown = (System.nanoTime() - asked) / 1e9;
    Answers answers = new Answers(page);
    List<String> keys =
        List.of("ArrowDown", "ArrowRight", "End", "PageDown", "Home", "PageUp", "Enter", "n");
    for (String key : keys) {
      answers.press(grid, key);
    }
    Locator kinds =
        page.getByRole(AriaRole.GROUP, new Page.GetByRoleOptions().setName("Steps by kind"))
            .getByRole(AriaRole.BUTTON);
    for (int i = 0; i < kinds.count(); i++) {
      if (kinds.nth(i).isEnabled()) {
        answers.click(kinds.nth(i));
        answers.click(kinds.nth(i));
      }
    }
    return answers
        .figure("input: plan")
        .with("sections", sections)
        .with("items", planned)
        .with("shown after", Math.round(shown * 10) / 10.0);
  }
}
