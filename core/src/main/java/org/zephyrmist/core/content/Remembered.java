package org.zephyrmist.core.content;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.UnaryOperator;

/**
 * The results of a costly idempotent function, kept for texts that come again: the same page stands
 * in hundreds of shells. Bounded; the longest unused go first.
 */
final class Remembered {
  private final int mostChars;
  private final int longest;
  private final LinkedHashMap<String, String> known = new LinkedHashMap<>(256, 0.75f, true);
  private int chars;

  /**
   * @param mostChars of all texts together
   */
  Remembered(int mostChars) {
    this.mostChars = mostChars;
    this.longest = mostChars / 100;
  }

  String get(String text, UnaryOperator<String> function) {
    synchronized (this) {
      String result = known.get(text);
      if (result != null) {
        return result;
      }
    }
    return keep(text, function.apply(text));
  }

  /** Keeps a result that was found in another way. */
  String keep(String text, String result) {
    if (text.length() + result.length() <= longest) {
      synchronized (this) {
        put(text, result);
        put(result, result);
        shrink();
      }
    }
    return result;
  }

  private void put(String text, String result) {
    if (known.put(text, result) == null) {
      chars += size(text, result);
    }
  }

  private void shrink() {
    var oldest = known.entrySet().iterator();
    while (chars > mostChars) {
      Map.Entry<String, String> e = oldest.next();
      chars -= size(e.getKey(), e.getValue());
      oldest.remove();
    }
  }

  @SuppressWarnings("StringEquality")
  private static int size(String text, String result) {
    return text == result ? text.length() : text.length() + result.length();
  }
}
