package org.zephyrmist.core.edition;

import java.util.HashSet;
import java.util.Set;
import org.zephyrmist.core.content.Titles;

/** How alike two titles are: by words and by letters; "Quiz 1" and "Quiz 2" are two. */
final class TitleLikeness {
  /** What is left of a likeness where the numbers in two titles differ. */
  private static final double OTHER_NUMBER = 0.3;

  /** A title taken apart once. */
  record Parts(String folded, Set<String> words, Set<String> letters, Set<String> numbers) {
    static Parts of(String title) {
      String folded = Titles.folded(title);
      Set<String> words = new HashSet<>();
      Set<String> numbers = new HashSet<>();
      for (String w : folded.split(" ")) {
        if (!w.isEmpty()) {
          (Character.isDigit(w.charAt(0)) ? numbers : words).add(w);
        }
      }
      Set<String> letters = new HashSet<>();
      for (int i = 0; i + 3 <= folded.length(); i++) {
        letters.add(folded.substring(i, i + 3));
      }
      return new Parts(folded, words, letters, numbers);
    }
  }

  private TitleLikeness() {}

  static double of(Parts a, Parts b) {
    if (a.folded().equals(b.folded())) {
      return 1;
    }
    double words = dice(a.words(), b.words());
    double letters = dice(a.letters(), b.letters());
    double alike = Math.max(words, letters);
    return a.numbers().equals(b.numbers()) ? alike : alike * OTHER_NUMBER;
  }

  private static double dice(Set<String> a, Set<String> b) {
    if (a.isEmpty() && b.isEmpty()) {
      return 0;
    }
    Set<String> small = a.size() <= b.size() ? a : b;
    Set<String> large = small == a ? b : a;
    long shared = small.stream().filter(large::contains).count();
    return 2.0 * shared / (a.size() + b.size());
  }
}
