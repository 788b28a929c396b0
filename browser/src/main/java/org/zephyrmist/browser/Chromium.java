package org.zephyrmist.browser;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.ReducedMotion;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Debian’s headless Chromium, without the windows of a whole browser, at the size the interface is
 * judged by.
 */
public final class Chromium implements AutoCloseable {
  /** Milliseconds that a busy machine may take for anything a person would wait for. */
  private static final int PATIENCE = 60_000;

  /** One for all that a process does: to begin it takes as long as a whole walk of pages. */
  private static final class Begun {
    private static final Browser BROWSER =
        Playwright.create(
                new Playwright.CreateOptions()
                    .setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")))
            .chromium()
            .launch(
                new BrowserType.LaunchOptions()
                    .setExecutablePath(Path.of("/usr/bin/chromium-headless-shell"))
                    .setArgs(
                        List.of(
                            "--no-sandbox",
                            "--disable-gpu",
                            "--disable-quic",
                            "--no-first-run",
                            "--disable-background-networking",
                            "--disable-component-update",
                            "--disable-sync")));
  }

  public final BrowserContext context =
      Begun.BROWSER.newContext(
          new Browser.NewContextOptions()
              .setViewportSize(1280, 800)
              .setReducedMotion(ReducedMotion.REDUCE));
  public final Page page = context.newPage();

  /** Errors that scripts of the page threw, and what a policy forbade or withheld. */
  public final List<String> errors = new ArrayList<>();

  public Chromium() {
    page.onPageError(errors::add);
    page.onConsoleMessage(
        m -> {
          if (m.text().contains("Content Security Policy")
              || m.text().contains("BLOCKED_BY_RESPONSE")) {
            errors.add(m.text());
          }
        });
    page.setDefaultTimeout(PATIENCE);
    PlaywrightAssertions.setDefaultAssertionTimeout(PATIENCE);
  }

  public void signIn(String address, String email, String password) {
    page.navigate(address);
    page.getByLabel("Mail address").fill(email);
    page.getByLabel("Password").fill(password);
    page.getByText("Sign in").click();
    page.getByRole(com.microsoft.playwright.options.AriaRole.BANNER).waitFor();
  }

  /** Everybody's pages; the browser itself ends with the process. */
  @Override
  public void close() {
    List.copyOf(Begun.BROWSER.contexts()).forEach(BrowserContext::close);
  }
}
