package org.zephyrmist.core.edition;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.zephyrmist.core.content.Embedded;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.question.QuestionSet;

/**
 * Two sources side by side: how much each holds, and what the one has that the other lacks.
 *
 * @param shared items that are one and the same in both, in the order of the left
 * @param onlyLeft in its order
 * @param onlyRight in its order
 */
public record SecondLook(
    Counts left, Counts right, List<Shared> shared, List<Item> onlyLeft, List<Item> onlyRight) {

  /** A source, in outline order, with the questions of its quizzes and banks. */
  public record Source(List<Item> items, Map<ItemKey, QuestionSet> questions) {}

  /**
   * An item that both have.
   *
   * @param equal whether it says the same to the letter
   * @param certain whether it is sure that they are one
   */
  public record Shared(Item left, Item right, boolean equal, boolean certain) {}

  /**
   * How much a source holds.
   *
   * @param kinds how many items of each kind
   * @param questions in quizzes and banks, each once
   * @param modules of them at the top
   * @param depth of the outline, 1 if nothing stands in a module
   * @param words in all texts
   * @param empty items that ought to have a text and have none
   * @param files different ones
   * @param bytes of these
   * @param instructorsOnly items
   * @param asks items that ask for something before they may be used
   * @param tools hosts that tool links lead to
   * @param frames hosts whose frames stand in texts
   */
  public record Counts(
      Map<Kind, Integer> kinds,
      int questions,
      int modules,
      int depth,
      int words,
      int empty,
      int files,
      long bytes,
      int instructorsOnly,
      int asks,
      Set<String> tools,
      Set<String> frames) {}

  public static SecondLook of(Source left, Source right) {
    List<Entry> older = entries(left);
    List<Entry> newer = entries(right);
    Pairing p = Pairing.of(older, newer, Pairing.Decided.NOTHING);
    Map<ItemKey, Fingerprint> said = forms(older);
    Map<ItemKey, Fingerprint> says = forms(newer);
    Map<ItemKey, Item> l = byKey(left);
    Map<ItemKey, Item> r = byKey(right);
    List<Shared> shared = new ArrayList<>();
    for (Pair pair : p.pairs()) {
      shared.add(
          new Shared(
              l.get(pair.older()),
              r.get(pair.newer()),
              said.get(pair.older()).equals(says.get(pair.newer())),
              pair.certainty() != Pair.Certainty.DOUBTFUL));
    }
    return new SecondLook(
        counts(left),
        counts(right),
        shared,
        p.gone().stream().map(l::get).toList(),
        p.fresh().stream().map(r::get).toList());
  }

  private static Map<ItemKey, Fingerprint> forms(List<Entry> entries) {
    Map<ItemKey, Fingerprint> all = new java.util.HashMap<>();
    entries.forEach(e -> all.put(e.key(), e.form()));
    return all;
  }

  private static Map<ItemKey, Item> byKey(Source s) {
    Map<ItemKey, Item> all = new java.util.HashMap<>();
    s.items().forEach(i -> all.put(i.key(), i));
    return all;
  }

  private static List<Entry> entries(Source s) {
    return s.items().stream()
        .map(i -> Entry.of(i, Optional.ofNullable(s.questions().get(i.key()))))
        .toList();
  }

  private static Counts counts(Source s) {
    Map<Kind, Integer> kinds = new EnumMap<>(Kind.class);
    Map<ItemKey, Integer> depths = new java.util.HashMap<>();
    Set<String> asked = new HashSet<>();
    Map<String, Long> files = new java.util.HashMap<>();
    Set<String> tools = new TreeSet<>();
    Set<String> frames = new TreeSet<>();
    int words = 0;
    int empty = 0;
    int top = 0;
    int depth = s.items().isEmpty() ? 0 : 1;
    int instructors = 0;
    int asks = 0;
    for (Item i : s.items()) {
      String html = i.content().html();
      kinds.merge(i.kind(), 1, Integer::sum);
      int level =
          i.place().parent().map(ItemKey::new).map(k -> depths.getOrDefault(k, 0)).orElse(0) + 1;
      depths.put(i.key(), level);
      depth = Math.max(depth, level);
      top += i.kind() == Kind.MODULE && level == 1 ? 1 : 0;
      words += words(html);
      empty += i.kind() == Kind.PAGE && html.isEmpty() ? 1 : 0;
      instructors += i.visibility().instructorsOnly() ? 1 : 0;
      asks += i.visibility().asks().isEmpty() ? 0 : 1;
      boolean launched = !i.content().launch().address().isEmpty();
      if (i.kind() == Kind.TOOL_LINK || i.kind() == Kind.ASSIGNMENT && launched) {
        tools.add(Frames.host(i.content().launch().address()));
      }
      Html.embedded(html).stream()
          .filter(Embedded::frame)
          .forEach(e -> frames.add(Frames.host(e.address())));
      i.content().attached().forEach(f -> files.put(f.sha256(), f.size()));
      i.content().madeOf().filter(f -> i.kind() == Kind.FILE).ifPresent(f -> add(files, f));
      References.files(html).forEach(f -> files.putIfAbsent(f.sha256(), 0L));
      Optional.ofNullable(s.questions().get(i.key()))
          .ifPresent(q -> q.questions().forEach(x -> asked.add(x.html() + x.answers())));
    }
    tools.remove("");
    frames.remove("");
    long bytes = files.values().stream().mapToLong(Long::longValue).sum();
    return new Counts(
        kinds,
        asked.size(),
        top,
        depth,
        words,
        empty,
        files.size(),
        bytes,
        instructors,
        asks,
        tools,
        frames);
  }

  private static int words(String html) {
    String text = html.isEmpty() ? "" : Html.text(html).strip();
    return text.isEmpty() ? 0 : text.split("\\s+").length;
  }

  private static void add(Map<String, Long> files, FileRef f) {
    files.put(f.sha256(), f.size());
  }
}
