package org.zephyrmist.core.content;

import java.text.BreakIterator;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.TextNode;
import org.jsoup.select.NodeTraversor;

/**
 * Sentences that look like a note from builder to builder and are not marked as one. Only a block
 * that begins by saying that it is one is certainly a note; of all else a person is asked: a blank
 * that is to be filled in looks like one too.
 */
public final class Suspicious {
  private static final int BEFORE = 12;
  private static final int AFTER = 40;

  private static final Pattern WORDS =
      Pattern.compile(
          String.join(
              "|",
              List.of(
                  "\\bto-?do\\b\\s*:",
                  "(?-i:\\bTO ?DO\\b)",
                  "\\bTBD\\b",
                  "\\bFIXME\\b",
                  "\\bXXX+\\b",
                  "\\blorem ipsum\\b",
                  "\\[\\s*(insert|add|your|name|date|link|tbd|todo|fill)\\b[^\\]]{0,80}\\]",
                  "<\\s*(insert|your)\\b[^>]{0,80}>",
                  "\\b(note|reminder) to (self|builder|designer|editor|developer)s?\\b",
                  "\\b(builder|designer|developer|editor)'?s? notes?\\b",
                  "\\bfor the (builder|designer|developer)s?\\b",
                  "\\b(delete|remove|replace) (this|before|when|once)\\b",
                  "\\b(do not|don't) (publish|release|show)\\b",
                  "\\bplaceholder\\b",
                  "\\bask (the )?(publisher|vendor|designer|IT)\\b",
                  "\\bcheck with\\b")),
          Pattern.CASE_INSENSITIVE);

  private static final Pattern CERTAIN =
      Pattern.compile( // designers and editors may be whom a course teaches
          "[\\s\\[(*]*(?:FIXME\\b|TODO:"
              + "|(?i:(?:note|reminder) to (?:the )?(?:course )?builders?\\s*[:,–-])"
              + "|(?i:builder(?:['’]s|s['’]?)? notes?\\s*[:,–-])"
              + "|(?i:for the (?:course )?builders?\\s*[:,–-]))");

  /** Where the block of a text ends that a note may be. */
  static final Set<String> BLOCKS =
      Set.of("p", "li", "aside", "div", "blockquote", "td", "th", "figcaption", "section", "dd");

  private Suspicious() {}

  /** Whether a block of text is certainly a note: it begins by saying so. */
  static boolean certain(String block) {
    return CERTAIN.matcher(block).lookingAt();
  }

  /** What the first block of a text says that is certainly a note. */
  public static Optional<String> certainIn(String html) {
    if (html.isEmpty() || !CERTAIN.matcher(Html.text(html)).find()) {
      return Optional.empty();
    }
    List<String> found = new ArrayList<>();
    Html.change(html, body -> notes(body).forEach(e -> found.add(e.text())));
    return found.stream().findFirst();
  }

  /** The smallest blocks below an element that are certainly notes. */
  static List<Element> notes(Element body) {
    List<Element> blocks =
        body.select("*").stream()
            .filter(e -> BLOCKS.contains(e.normalName()) && certain(e.text()))
            .toList();
    return blocks.stream()
        .filter(e -> blocks.stream().noneMatch(x -> x != e && x.parents().contains(e)))
        .toList();
  }

  /** The whole sentence, as it stands in a title or a text, that is perhaps a note. */
  public static Optional<String> sentence(String title, String html) {
    if (stands(title)) {
      return Optional.of(title);
    }
    if (html.isEmpty() || !stands(Html.text(html))) {
      return Optional.empty();
    }
    List<String> found = new ArrayList<>();
    Html.change(
        html,
        body ->
            NodeTraversor.traverse(
                (node, depth) -> {
                  if (node instanceof TextNode t && stands(t.text())) {
                    found.add(sentence(t.text()));
                  }
                },
                body));
    return found.stream().findFirst().or(() -> found(Html.text(html)));
  }

  private static String sentence(String text) {
    Matcher m = WORDS.matcher(text);
    if (!m.find()) {
      return text;
    }
    BreakIterator sentences = BreakIterator.getSentenceInstance(Locale.ENGLISH);
    sentences.setText(text);
    int end = sentences.following(m.start());
    return text.substring(sentences.previous(), end).strip();
  }

  /** The first such place in a title or a text, with a few words around it. */
  public static Optional<String> in(String title, String html) {
    return found(title).or(() -> found(Html.text(Marks.filled(html, name -> Optional.of("")))));
  }

  /** Whether such words stand in a text without marks. */
  static boolean stands(String text) {
    return WORDS.matcher(text).find();
  }

  private static Optional<String> found(String text) {
    Matcher m = WORDS.matcher(text);
    if (!m.find()) {
      return Optional.empty();
    }
    int from = text.lastIndexOf(' ', Math.max(0, m.start() - BEFORE)) + 1;
    int end = text.indexOf(' ', Math.min(text.length(), m.end() + AFTER));
    String some = text.substring(from, end < 0 ? text.length() : end);
    return Optional.of((from > 0 ? "… " : "") + some + (end < 0 ? "" : " …"));
  }
}
