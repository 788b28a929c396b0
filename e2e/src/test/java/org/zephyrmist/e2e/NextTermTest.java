package org.zephyrmist.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zephyrmist.stage.Samples;

/** Sixty sections brought into the next term, and again; three hundred are measured in bench. */
class NextTermTest {
  private static final List<String> NOW =
      IntStream.rangeClosed(1, 61).mapToObj("lgt-%03d"::formatted).toList();
  private static final List<String> NEXT =
      IntStream.rangeClosed(1, 60).mapToObj("nxt-%03d"::formatted).toList();

  @TempDir static Path folder;
  private static Walk walk;
  private static Page page;

  @BeforeAll
  static void open() throws Exception {
    walk = Walk.begin(folder, Stream.concat(NOW.stream(), NEXT.stream()).toList());
    page = walk.page;
    walk.platform(NEXT);
    walk.takeIn(Samples.cartridge(folder, 4));
    walk.master();
    page.navigate(Walk.ADDRESS + "/coverage/rules");
    walk.button("Add the rule").click();
    assertThat(page.getByText("The board shows now who is missing.")).isVisible();
  }

  @AfterAll
  static void close() {
    walk.close();
  }

  private static void within(Locator seen) {
    assertThat(seen).isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(180_000));
  }

  @Test
  void aTermIsLookedThroughChangedAndBroughtAndASecondTimeThereIsNothing() {
    page.navigate(Walk.ADDRESS + "/coverage");
    page.getByLabel("Term", new Page.GetByLabelOptions().setExact(true)).selectOption("next");
    assertThat(page.getByText("60 sections followed · 1 without a successor")).isVisible();
    assertThat(page.getByText("has no calendar yet")).isVisible();
    page.getByLabel("Find a section").fill("110-007");
    walk.button("Change what follows 110-007").click();
    Locator follows =
        page.getByLabel("What follows 110-007", new Page.GetByLabelOptions().setExact(true));
    follows.selectOption("none");
    assertThat(page.getByText("nothing follows it")).isVisible();
    assertThat(page.getByText("60 sections followed · 1 without a successor")).isVisible();
    WholePathTest.accessible(page, "the next term");
    walk.button("Plan it for 60 sections").click();
    Locator deliver =
        page.getByRole(
            AriaRole.BUTTON,
            new Page.GetByRoleOptions().setName(Pattern.compile("Deliver .*to 60 sections")));
    within(deliver);
    deliver.click();
    within(walk.heading("Delivered: LGT 110, version 1, to 60 sections"));
    page.navigate(Walk.ADDRESS + "/next-term");
    assertThat(page.getByText("all brought")).isVisible();
    assertThat(walk.button("Plan it for 0 sections")).isDisabled();
  }
}
