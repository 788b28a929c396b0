package org.zephyrmist.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import java.nio.file.Path;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.zephyrmist.browser.Chromium;

/** Makes docs/screenshots/ from the running demo; called by {@code ./zephyrmist shots}. */
class Shots {
  private final String address = System.getProperty("shots.address");
  private final Path folder = Path.of(System.getProperty("root"), "docs/screenshots");
  private Page page;

  @Test
  void makeEveryPicture() {
    try (Chromium chromium = new Chromium()) {
      page = chromium.page;
      chromium.signIn(address, "ines@larkmoor.example", "larkmoor-demo");
      colours("light");
      go("/coverage");
      button("Take in hand: LGT 110, 2 behind").click();
      button("Take in hand: LGT 110, 1 behind").click();
      shot("coverage-spread");
      go("/coverage?view=grid&sort=worst&group=none");
      shot("coverage-grid");
      go("/sources");
      shot("sources");
      page.locator("aside a", with("Foundations of Stage Light")).first().click();
      page.getByText("Everything was understood.").waitFor();
      shot("cartridge");
      go("/sources");
      page.locator("main a", with("Stage Lighting Fundamentals")).first().click();
      page.getByLabel("Open Week 3 · Load and power").click();
      page.getByRole(
              AriaRole.TREEITEM, new Page.GetByRoleOptions().setName("Reading: load and power"))
          .click();
      shot("master");
      page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("Write")).click();
      page.locator(".ProseMirror img:not(.ProseMirror-separator)").first().waitFor();
      shot("write");
      page.getByText(Pattern.compile("Edition 2 is here")).click();
      page.getByText(Pattern.compile("clash(es)? with ours")).waitFor();
      button("Next to decide").click();
      page.getByText("both changed the wording.").waitFor();
      shot("edition");
      go("/sources/library?q=power");
      page.locator("main [role=option]").first().click();
      shot("library");
      go("/coverage");
      page.getByRole(
              AriaRole.BUTTON,
              new Page.GetByRoleOptions().setName(Pattern.compile("^Bring v3 to \\d+ sections")))
          .click();
      page.getByLabel("What", new Page.GetByLabelOptions().setExact(true)).selectOption("CHANGED");
      page.getByLabel("Another master in the same order")
          .selectOption(new SelectOption().setLabel("FRAME"));
      page.getByText("Comes along, because").waitFor();
      shot("order");
      go("/deliveries");
      page.getByText("waits for your word").last().click();
      page.getByRole(AriaRole.GRID).waitFor();
      page.keyboard().press("n");
      page.getByText("Delivered before").waitFor();
      shot("plan");
      go("/deliveries");
      page.getByText(Pattern.compile("sections done, \\d+ need you")).first().click();
      shot("run");
      go("/deliveries");
      page.getByText(Pattern.compile("sections done, \\d+ not yet")).first().click();
      page.getByText("to be brought in.").waitFor();
      shot("packages");
      go("/coverage?view=grid&show=changed&course=SAF%20100");
      page.getByRole(AriaRole.ROW).nth(2).click();
      page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Every item of it"))
          .click();
      page.getByText("What it got, and when").waitFor();
      page.getByRole(
              AriaRole.BUTTON,
              new Page.GetByRoleOptions().setName(Pattern.compile("^\\d+ changed here$")))
          .click();
      page.locator("main .own:not(:empty)").first().click();
      shot("section");
      page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("in all sections")).click();
      page.getByText("Take it into the master’s draft").waitFor();
      shot("variants");
      go("/deliveries/ledger");
      page.getByText("The newest 200 receipts").waitFor();
      shot("ledger");
      page.evaluate("sessionStorage.removeItem('hand')");
      go("/tools?host=cuebench.example");
      page.getByRole(
              AriaRole.BUTTON,
              new Page.GetByRoleOptions()
                  .setName(Pattern.compile("Take in hand: CueBench, not connected")))
          .click();
      shot("hosts");
      page.evaluate("sessionStorage.removeItem('hand')");
      go("/calendar");
      page.getByRole(AriaRole.GRID).focus();
      for (String key : new String[] {"n", "n", "n", " "}) {
        page.keyboard().press(key);
      }
      page.getByText("sections in hand").first().waitFor();
      shot("calendar");
      page.evaluate("sessionStorage.removeItem('hand')");
      go("/checks");
      page.getByLabel("Term").selectOption(new SelectOption().setIndex(0)); // the next one
      page.getByRole(
              AriaRole.BUTTON,
              new Page.GetByRoleOptions().setName(Pattern.compile("^A builder note is in view")))
          .first()
          .click();
      page.getByText("For the builder").first().waitFor();
      shot("checks");
      page.getByLabel("Term").selectOption(new SelectOption().setIndex(1));
      colours("dark");
      go("/hand-overs");
      page.getByRole(
              AriaRole.BUTTON,
              new Page.GetByRoleOptions().setName(Pattern.compile("^Open CueBench once")))
          .click();
      shot("hand-overs");
    }
  }

  private static Page.LocatorOptions with(String text) {
    return new Page.LocatorOptions().setHasText(text);
  }

  private Locator button(String name) {
    return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name)).first();
  }

  private void colours(String theme) {
    page.evaluate("t => localStorage.setItem('theme', t)", theme);
  }

  private void go(String path) {
    page.navigate(address + path);
    page.waitForLoadState(com.microsoft.playwright.options.LoadState.NETWORKIDLE);
  }

  private void shot(String name) {
    page.waitForTimeout(700);
    page.screenshot(new Page.ScreenshotOptions().setPath(folder.resolve(name + ".png")));
  }
}
