package org.zephyrmist.core.merge;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.zephyrmist.core.content.Html;

/** A text in stretches of words, each with whose it is; to be shown beside others. */
public final class Runs {
  private static final Pattern WORD = Pattern.compile("\\S+|\\n|[^\\S\\n]+");

  private Runs() {}

  /** Whose words are. */
  public enum Whose {
    BASE,
    OURS,
    THEIRS
  }

  /** Words one after the other that are one side's. */
  public record Run(Whose whose, String text) {}

  /** The words of a text without its marks, a line for each block. */
  public static String plain(String html) {
    return Html.blocks(html).stream()
        .map(Html::text)
        .filter(t -> !t.isBlank())
        .collect(Collectors.joining("\n"));
  }

  /** A text with what is not in the base marked as one side's. */
  public static List<Run> of(String base, String text, Whose side) {
    List<String> words = words(text);
    int[] partner = Alignment.of(words, words(base));
    List<Run> runs = new ArrayList<>();
    for (int i = 0; i < words.size(); i++) {
      add(runs, partner[i] >= 0 ? Whose.BASE : side, words.get(i));
    }
    return runs;
  }

  /** A merged text, each word marked as that of the side which alone has it. */
  public static List<Run> merged(String ours, String theirs, String merged) {
    List<String> words = words(merged);
    int[] inOurs = Alignment.of(words, words(ours));
    int[] inTheirs = Alignment.of(words, words(theirs));
    List<Run> runs = new ArrayList<>();
    for (int i = 0; i < words.size(); i++) {
      boolean one = inOurs[i] < 0 != inTheirs[i] < 0;
      Whose whose = !one ? Whose.BASE : inOurs[i] < 0 ? Whose.THEIRS : Whose.OURS;
      add(runs, whose, words.get(i));
    }
    return runs;
  }

  private static void add(List<Run> runs, Whose whose, String word) {
    Run last = runs.isEmpty() ? null : runs.get(runs.size() - 1);
    if (last != null && (last.whose() == whose || word.isBlank() && !word.equals("\n"))) {
      runs.set(runs.size() - 1, new Run(last.whose(), last.text() + word));
    } else {
      runs.add(new Run(whose, word));
    }
  }

  private static List<String> words(String text) {
    List<String> all = new ArrayList<>();
    Matcher m = WORD.matcher(text);
    while (m.find()) {
      all.add(m.group());
    }
    return all;
  }
}
