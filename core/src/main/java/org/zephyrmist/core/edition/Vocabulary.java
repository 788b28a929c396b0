package org.zephyrmist.core.edition;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Words as numbers with weights: a rare word says more than one that stands in every text (inverse
 * document frequency; Sparck Jones, 1972).
 */
final class Vocabulary {
  private static final Pattern WORD = Pattern.compile("[\\p{L}\\p{N}]+");

  /** Words of a text that are looked at; longer texts are known well enough by then. */
  private static final int MOST = 3_000;

  private final Map<String, Integer> numbers = new HashMap<>();
  private int[] texts = new int[1_024];
  private int count;

  /**
   * A text as the numbers of its words and pairs of words, rising, each once.
   *
   * @param norm its length as a vector of weights
   */
  record Profile(int[] words, double norm) {
    boolean empty() {
      return words.length == 0;
    }
  }

  /** The numbers of the words of a text; each text is to be added once, before any is weighed. */
  int[] add(String text) {
    int[] all = new int[256];
    int n = 0;
    String before = "";
    Matcher m = WORD.matcher(text.toLowerCase(Locale.ROOT));
    while (m.find() && n < 2 * MOST) {
      String word = m.group();
      if (n + 2 > all.length) {
        all = Arrays.copyOf(all, all.length * 2);
      }
      all[n++] = number(word);
      if (!before.isEmpty()) {
        all[n++] = number(before + " " + word);
      }
      before = word;
    }
    int[] once = Arrays.stream(all, 0, n).sorted().distinct().toArray();
    count++;
    for (int w : once) {
      texts[w]++;
    }
    return once;
  }

  private int number(String word) {
    int n = numbers.computeIfAbsent(word, w -> numbers.size());
    if (n >= texts.length) {
      texts = Arrays.copyOf(texts, texts.length * 2);
    }
    return n;
  }

  /** In how many texts a word stands. */
  int texts(int word) {
    return texts[word];
  }

  double weight(int word) {
    return Math.log(1 + (double) count / texts[word]);
  }

  Profile profile(int[] words) {
    double sum = 0;
    for (int w : words) {
      double weight = weight(w);
      sum += weight * weight;
    }
    return new Profile(words, Math.sqrt(sum));
  }

  /** Cosine of two texts, from 0 to 1. */
  double likeness(Profile a, Profile b) {
    if (a.empty() || b.empty()) {
      return 0;
    }
    double shared = 0;
    int i = 0;
    int j = 0;
    while (i < a.words().length && j < b.words().length) {
      int d = Integer.compare(a.words()[i], b.words()[j]);
      if (d == 0) {
        double w = weight(a.words()[i]);
        shared += w * w;
      }
      i += d <= 0 ? 1 : 0;
      j += d >= 0 ? 1 : 0;
    }
    return shared / (a.norm() * b.norm());
  }

  /** The words of texts by number, those that stand in few of them. */
  Map<Integer, List<Integer>> index(List<int[]> all, int most) {
    Map<Integer, List<Integer>> index = new HashMap<>();
    for (int t = 0; t < all.size(); t++) {
      for (int w : all.get(t)) {
        if (texts(w) <= most) {
          index.computeIfAbsent(w, k -> new java.util.ArrayList<>(4)).add(t);
        }
      }
    }
    return index;
  }
}
