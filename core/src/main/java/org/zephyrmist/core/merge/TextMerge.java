package org.zephyrmist.core.merge;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zephyrmist.core.content.Html;

/**
 * Merges two HTML texts that came from a third: block by block (a paragraph, a list, a table as a
 * whole), and where both changed one block, within it word by word.
 *
 * @param passages in their order
 */
public record TextMerge(List<Passage> passages) {
  private static final Pattern TOKEN =
      Pattern.compile("<[^>]*>|[\\p{L}\\p{N}'’]+|\\s+|.", Pattern.DOTALL);
  private static final Pattern OPENING = Pattern.compile("^<([a-z][a-z0-9]*)");

  public TextMerge {
    passages = List.copyOf(passages);
  }

  /**
   * Some blocks of the text.
   *
   * @param from whose they are; a clash only where both changed the same words
   * @param merged what they become together; of a clash, ours and then theirs
   */
  public record Passage(Merge.From from, String base, String ours, String theirs, String merged) {}

  public static TextMerge of(String base, String ours, String theirs) {
    List<Passage> all = new ArrayList<>();
    for (Merge.Stretch<String> s :
        Merge.of(Html.blocks(base), Html.blocks(ours), Html.blocks(theirs))) {
      if (s.from() == Merge.From.CLASH) {
        clash(s, all);
      } else {
        all.add(passage(s.from(), s, String.join("", s.result())));
      }
    }
    return new TextMerge(all);
  }

  private static Passage passage(Merge.From from, Merge.Stretch<String> s, String merged) {
    return new Passage(
        from,
        String.join("", s.base()),
        String.join("", s.ours()),
        String.join("", s.theirs()),
        merged);
  }

  /**
   * As many blocks in each: one by one. Where one side only put blocks between, the other's stand
   * in place of the old ones. Else by which blocks are alike.
   */
  private static void clash(Merge.Stretch<String> s, List<Passage> all) {
    int n = s.base().size();
    if (n == s.ours().size() && n == s.theirs().size()) {
      for (int i = 0; i < n; i++) {
        all.add(words(s.base().get(i), s.ours().get(i), s.theirs().get(i)));
      }
    } else if (n == s.theirs().size() && places(s.base(), s.ours()).isPresent()) {
      between(s, places(s.base(), s.ours()).get(), true, all);
    } else if (n == s.ours().size() && places(s.base(), s.theirs()).isPresent()) {
      between(s, places(s.base(), s.theirs()).get(), false, all);
    } else {
      all.addAll(BlockMerge.of(s));
    }
  }

  /** Where the old blocks stand among a side's, all of them and in their order. */
  private static Optional<List<Integer>> places(List<String> base, List<String> side) {
    List<Integer> places = new ArrayList<>();
    int from = 0;
    for (String b : base) {
      int at = side.subList(from, side.size()).indexOf(b);
      if (at < 0) {
        return Optional.empty();
      }
      places.add(from + at);
      from += at + 1;
    }
    return Optional.of(places);
  }

  private static void between(
      Merge.Stretch<String> s, List<Integer> places, boolean ours, List<Passage> all) {
    List<String> more = ours ? s.ours() : s.theirs();
    List<String> changed = ours ? s.theirs() : s.ours();
    int old = 0;
    for (int i = 0; i < more.size(); i++) {
      if (old < places.size() && places.get(old) == i) {
        String b = s.base().get(old);
        String c = changed.get(old++);
        all.add(ours ? words(b, b, c) : words(b, c, b));
      } else {
        String b = more.get(i);
        Merge.From from = ours ? Merge.From.OURS : Merge.From.THEIRS;
        all.add(new Passage(from, "", ours ? b : "", ours ? "" : b, b));
      }
    }
  }

  static Passage words(String base, String ours, String theirs) {
    boolean alike = opening(base).equals(opening(ours)) && opening(base).equals(opening(theirs));
    StringBuilder merged = new StringBuilder();
    boolean clash = !alike;
    boolean mine = false;
    boolean others = false;
    if (alike) {
      for (Merge.Stretch<String> s : Merge.of(tokens(base), tokens(ours), tokens(theirs))) {
        Optional<List<String>> both =
            s.from() == Merge.From.CLASH ? further(s.ours(), s.theirs()) : Optional.of(s.result());
        clash |= both.isEmpty();
        mine |= s.from() == Merge.From.OURS || s.from() == Merge.From.CLASH;
        others |= s.from() == Merge.From.THEIRS || s.from() == Merge.From.CLASH;
        both.ifPresent(words -> words.forEach(merged::append));
      }
    }
    String together = clash ? "" : Html.canonical(merged.toString());
    boolean whole = !clash && Html.blocks(together).size() == 1;
    Merge.From from =
        ours.equals(theirs)
            ? Merge.From.BOTH
            : !whole
                ? Merge.From.CLASH
                : !others ? Merge.From.OURS : !mine ? Merge.From.THEIRS : Merge.From.MERGED;
    return new Passage(from, base, ours, theirs, whole ? together : ours + theirs);
  }

  /** Where both made the same change and one went further, the one that went further. */
  private static Optional<List<String>> further(List<String> ours, List<String> theirs) {
    int shorter = Math.min(ours.size(), theirs.size());
    int first = 0;
    while (first < shorter && ours.get(first).equals(theirs.get(first))) {
      first++;
    }
    int last = 0;
    while (last < shorter - first
        && ours.get(ours.size() - 1 - last).equals(theirs.get(theirs.size() - 1 - last))) {
      last++;
    }
    boolean same = shorter > 0 && first + last == shorter;
    return same ? Optional.of(ours.size() > theirs.size() ? ours : theirs) : Optional.empty();
  }

  private static String opening(String block) {
    Matcher m = OPENING.matcher(block);
    return m.find() ? m.group(1) : "";
  }

  /** Words, tags and what stands between them. */
  static List<String> tokens(String block) {
    List<String> all = new ArrayList<>();
    Matcher m = TOKEN.matcher(block);
    while (m.find()) {
      all.add(m.group());
    }
    return all;
  }

  /** Whether nobody has to decide anything. */
  public boolean clean() {
    return passages.stream().noneMatch(p -> p.from() == Merge.From.CLASH);
  }

  /** The merged text; where both changed the same words, ours and then theirs. */
  public String together() {
    return joined(passages.stream().map(Passage::merged).toList());
  }

  private static String joined(List<String> blocks) {
    return Html.canonical(String.join("", blocks));
  }
}
