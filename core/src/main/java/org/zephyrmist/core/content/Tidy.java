package org.zephyrmist.core.content;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Comment;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;

/** Brings a parsed text into its canonical form, in place; see {@link Html#canonical}. */
final class Tidy {
  /**
   * At whose edges white space does not count. The list is our own: canonical forms must outlast
   * any change of a parser's.
   */
  private static final Set<String> BLOCKS =
      Set.of(
          ("html head body frameset script noscript style meta link title frame noframes section nav"
                  + " aside hgroup header footer p h1 h2 h3 h4 h5 h6 blockquote hr ul ol pre div"
                  + " fieldset ins del dl dt dd li table caption thead tfoot tbody colgroup col tr"
                  + " th td video audio canvas details menu plaintext template article main center"
                  + " dir applet marquee listing br button form figure figcaption address")
              .split(" "));

  /** A parser takes line breaks right after {@code <pre>} away, so they cannot count. */
  private static final Pattern LINE_BREAKS_FIRST = Pattern.compile("^(\\r?\\n)+");

  private static final Pattern SPACE = Pattern.compile("[ \\t\\n\\r\\f]+");

  private Tidy() {}

  static boolean isBlock(Element e) {
    return BLOCKS.contains(e.normalName());
  }

  /** Without recursion, so that any depth of nesting will do. */
  static void body(Element body) {
    Set<Element> kept = Collections.newSetFromMap(new IdentityHashMap<>());
    for (Element e : body.getAllElements()) {
      boolean own = e.nameIs("pre") || e.nameIs("textarea");
      boolean keep = own || kept.contains(e.parent());
      if (keep) {
        kept.add(e);
      }
      tidy(e, own, keep);
    }
  }

  /** The children are gone through once and put back at once, so that it takes linear time. */
  private static void tidy(Element e, boolean pre, boolean keep) {
    sortAttributes(e);
    List<Node> children = joined(e);
    List<Node> kept = new ArrayList<>(children.size());
    for (int i = 0; i < children.size(); i++) {
      Node child = children.get(i);
      if (child instanceof TextNode t) {
        String text = t.getWholeText();
        if (pre && i == 0) {
          text = LINE_BREAKS_FIRST.matcher(text).replaceFirst("");
        } else if (!keep) {
          Node before = kept.isEmpty() ? null : kept.get(kept.size() - 1);
          Node after = i + 1 < children.size() ? children.get(i + 1) : null;
          text = fold(text, edge(before, e), edge(after, e));
        }
        if (text.isEmpty()) {
          continue;
        }
        t.text(text);
      }
      kept.add(child);
    }
    if (kept.size() != e.childNodeSize()) {
      e.empty();
      e.appendChildren(kept);
    }
  }

  /** The children without comments, texts that stand side by side as one. */
  private static List<Node> joined(Element e) {
    List<Node> all = new ArrayList<>(e.childNodeSize());
    StringBuilder text = new StringBuilder();
    TextNode first = null;
    for (Node n : e.childNodes()) {
      if (n instanceof TextNode t) {
        first = first == null ? t : first;
        text.append(t.getWholeText());
      } else if (!(n instanceof Comment)) {
        add(all, first, text);
        first = null;
        all.add(n);
      }
    }
    add(all, first, text);
    return all;
  }

  private static void add(List<Node> all, TextNode first, StringBuilder text) {
    if (first != null) {
      if (text.length() != first.getWholeText().length()) {
        first.text(text.toString());
      }
      all.add(first);
      text.setLength(0);
    }
  }

  private static String fold(String text, boolean edgeBefore, boolean edgeAfter) {
    String s = SPACE.matcher(text).replaceAll(" ");
    if (s.startsWith(" ") && edgeBefore) {
      s = s.substring(1);
    }
    return s.endsWith(" ") && edgeAfter ? s.substring(0, s.length() - 1) : s;
  }

  private static boolean edge(Node beside, Element around) {
    return beside == null ? block(around) : beside instanceof Element e && block(e);
  }

  private static boolean block(Element e) {
    return BLOCKS.contains(e.normalName());
  }

  private static void sortAttributes(Element e) {
    if (e.attributesSize() < 2) {
      return;
    }
    TreeMap<String, String> sorted = new TreeMap<>();
    for (Attribute a : e.attributes()) {
      sorted.put(a.getKey(), a.getValue());
    }
    e.clearAttributes();
    sorted.forEach(e::attr);
  }
}
