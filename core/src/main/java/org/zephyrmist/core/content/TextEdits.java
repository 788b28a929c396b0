package org.zephyrmist.core.content;

import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.TextNode;
import org.jsoup.select.NodeTraversor;

/** Changes that are made alike in many texts. */
public final class TextEdits {
  private static final String NOTES = ".z-builder";

  private TextEdits() {}

  /**
   * Without what is certainly a note to builders: what is marked as one, and the smallest blocks
   * that begin by saying so, see {@link Suspicious}. What such a block stood in alone goes with it.
   */
  public static String withoutNotes(String html) {
    if (html.isEmpty()) {
      return html;
    }
    return Html.change(
        html,
        body -> {
          body.select(NOTES).remove();
          Suspicious.notes(body).forEach(TextEdits::remove);
          body.textNodes().stream()
              .filter(t -> Suspicious.certain(t.text()))
              .forEach(TextNode::remove);
        });
  }

  private static void remove(Element e) {
    Element up = e.parent();
    e.remove();
    boolean empty = up != null && up.text().isBlank() && up.select("img, iframe, video").isEmpty();
    if (empty && up.parent() != null && !up.nameIs("body")) {
      remove(up);
    }
  }

  /** With the words of these links, and without the links. */
  public static String unlinked(String html, Predicate<String> dead) {
    if (!html.contains("href")) {
      return html;
    }
    return Html.change(
        html,
        body ->
            body.select("a[href]").stream()
                .filter(a -> dead.test(a.attr("href")))
                .forEach(Element::unwrap));
  }

  /** With words put in the place of others, wherever they stand in the text; capitals count. */
  public static String replaced(String html, String find, String put) {
    return html.isEmpty()
        ? html
        : Html.change(
            html,
            body ->
                NodeTraversor.traverse(
                    (node, depth) -> {
                      if (node instanceof TextNode t) {
                        t.text(words(t.getWholeText(), find, put));
                      }
                    },
                    body));
  }

  /** The same in plain words; a part of a longer word is none. */
  public static String words(String text, String find, String put) {
    return Pattern.compile("(?<![\\p{L}\\p{N}])" + Pattern.quote(find) + "(?![\\p{L}\\p{N}])")
        .matcher(text)
        .replaceAll(java.util.regex.Matcher.quoteReplacement(put));
  }
}
