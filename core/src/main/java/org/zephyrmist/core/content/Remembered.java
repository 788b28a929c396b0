package org.zephyrmist.core.content;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.function.UnaryOperator;

/**
 * The results of a costly idempotent function, kept for texts that come again: the same page stands
 * in hundreds of shells. Bounded; what is least used goes first.
 */
final class Remembered {
  private final Cache<String, String> known;
  private final int longest;

  /**
   * @param mostChars of all texts together
   */
  Remembered(int mostChars) {
    longest = mostChars / 100;
    known =
        Caffeine.newBuilder()
            .maximumWeight(mostChars)
            .weigher((String text, String result) -> text.length() + result.length())
            .build();
  }

  String get(String text, UnaryOperator<String> function) {
    String result = known.getIfPresent(text);
    return result == null ? keep(text, function.apply(text)) : result;
  }

  /** Keeps a result that was found in another way. */
  String keep(String text, String result) {
    if (text.length() + result.length() <= longest) {
      known.put(text, result);
      known.put(result, result);
    }
    return result;
  }
}
