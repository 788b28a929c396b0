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

  private final Playwright playwright =
      Playwright.create(
          new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
  private final Browser browser =
      playwright
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
  public final BrowserContext context =
      browser.newContext(
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

  @Override
  public void close() {
    playwright.close();
  }
}
