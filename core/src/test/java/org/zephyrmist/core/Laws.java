package org.zephyrmist.core;

import java.util.Random;
import java.util.function.Consumer;

/**
 * Tries a law with a thousand drawn cases. The seed is printed once; {@code -Dlaws.seed=N} draws
 * the same cases again.
 */
public final class Laws {
  private static final int CASES = Integer.getInteger("laws.cases", 500);
  private static final long SEED = Long.getLong("laws.seed", System.nanoTime() % 1_000_000_000L);

  static {
    System.out.println("Laws are tried with seed " + SEED);
  }

  private Laws() {}

  public static void hold(Consumer<Random> law) {
    hold(CASES, law);
  }

  /** The same in fewer cases, of a law about long histories. */
  public static void some(Consumer<Random> law) {
    hold(CASES / 3, law);
  }

  /** Of so many whole packages as many as of a thousand cases are tried. */
  public static int of(int packages) {
    return packages * CASES / 1_000;
  }

  private static void hold(int cases, Consumer<Random> law) {
    for (int i = 0; i < cases; i++) {
      try {
        law.accept(new Random(SEED + i));
      } catch (RuntimeException | AssertionError e) {
        throw new AssertionError(
            "Case " + i + " of -Dlaws.seed=" + SEED + ": " + e.getMessage(), e);
      }
    }
  }

  /** Up to so many pieces of text, one after the other. */
  public static String text(Random random, int most, String... pieces) {
    StringBuilder s = new StringBuilder();
    for (int n = random.nextInt(most + 1); n > 0; n--) {
      s.append(pieces[random.nextInt(pieces.length)]);
    }
    return s.toString();
  }
}
