package org.zephyrmist.bench;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * How long inputs wait for the picture that answers them, as the browser itself times it (Event
 * Timing, W3C; in steps of 8 ms, and what is quicker than 16 ms counts as 16). Compared with the
 * 100 ms that people take for at once.
 */
final class Answers {
  private static final double AT_ONCE = 0.1;
  private static final int TIMES = Boolean.getBoolean("short.life") ? 2 : 10;

  /** Between two strokes of a quick hand, in milliseconds. */
  private static final int HAND = 60;

  private static final String WATCH =
      "() => { window.inputs = new Map(); new PerformanceObserver(l => { for (const e of"
          + " l.getEntries()) if (e.interactionId) window.inputs.set(e.interactionId,"
          + " Math.max(e.duration, window.inputs.get(e.interactionId) ?? 0)); })"
          + ".observe({ type: 'event', durationThreshold: 16 }); }";
  private static final String SEEN =
      "() => { const all = [...window.inputs.values()]; window.inputs.clear(); return all; }";
  private final Page page;

  /** Seconds of every input. */
  private final List<Double> all = new ArrayList<>();

  /** The slowest, by kind of input. */
  private final Map<String, Double> slowest = new TreeMap<>();

  Answers(Page page) {
    this.page = page;
    page.waitForTimeout(3_000);
    page.evaluate(WATCH);
  }

  /** A key, some times. */
  void press(Locator where, String key) {
    where.focus();
    for (int i = 0; i < TIMES; i++) {
      page.keyboard().press(key);
      page.waitForTimeout(HAND);
    }
    collect(key, TIMES);
  }

  void type(Locator where, String text) {
    where.focus();
    page.keyboard().type(text, new com.microsoft.playwright.Keyboard.TypeOptions().setDelay(HAND));
    collect("typing", text.length());
  }

  void click(Locator where) {
    String name = where.textContent().replaceAll("[\\d,\\s]+", " ").strip();
    where.click();
    collect("click on " + name, 1);
  }

  private void collect(String input, int times) {
    page.waitForTimeout(300);
    double[] seconds = new double[times];
    Arrays.fill(seconds, 0.016);
    List<?> seen = (List<?>) page.evaluate(SEEN);
    for (int i = 0; i < Math.min(times, seen.size()); i++) {
      seconds[i] = Math.max(0.016, ((Number) seen.get(i)).doubleValue() / 1000);
    }
    for (double s : seconds) {
      all.add(s);
      slowest.merge(input, s, Math::max);
    }
  }

  /** What 95 of 100 answers keep to, against what is at once; and the slowest of each kind. */
  Figure figure(String name) {
    Collections.sort(all);
    return Figure.of(name, all.get((int) (all.size() * 0.95)), AT_ONCE, 1.0, "s")
        .with("median", all.get(all.size() / 2))
        .with("inputs", all.size())
        .with("slowest", slowest);
  }
}
