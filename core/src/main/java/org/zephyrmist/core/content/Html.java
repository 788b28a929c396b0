package org.zephyrmist.core.content;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Comment;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;
import org.jsoup.safety.Safelist;

/** HTML fragments: one canonical text, references, safe text, plain text. */
public final class Html {
  /** Attributes that hold one address. */
  private static final Set<String> ADDRESSES =
      Set.of("href", "src", "poster", "longdesc", "background");

  private static final Safelist SAFE =
      Safelist.relaxed()
          .addTags(
              "article",
              "section",
              "header",
              "footer",
              "main",
              "aside",
              "figure",
              "figcaption",
              "details",
              "summary",
              "hr",
              "audio",
              "video",
              "source",
              "track",
              "mark",
              "time",
              "abbr",
              "kbd",
              "samp",
              "var",
              "ins",
              "del",
              "s",
              "bdi",
              "bdo",
              "wbr")
          .addAttributes(":all", "class", "id", "title", "lang", "dir", "role", "aria-label")
          .addAttributes("a", "target", "rel")
          .addAttributes("audio", "src", "controls")
          .addAttributes("video", "src", "controls", "poster", "width", "height")
          .addAttributes("source", "src", "type")
          .addAttributes("track", "src", "kind", "srclang", "label")
          .addAttributes("td", "headers")
          .removeProtocols("a", "href", "ftp")
          .addProtocols("a", "href", "#", "http", "https", "mailto", "tel", "zref")
          .addProtocols("img", "src", "http", "https", "zref")
          .addProtocols("audio", "src", "http", "https", "zref")
          .addProtocols("video", "src", "http", "https", "zref")
          .addProtocols("video", "poster", "http", "https", "zref")
          .addProtocols("source", "src", "http", "https", "zref")
          .addProtocols("track", "src", "http", "https", "zref");

  private static final Pattern MAY_HOLD_ADDRESS =
      Pattern.compile("href|src|data|poster|longdesc|background", Pattern.CASE_INSENSITIVE);

  private static final Pattern SPACE = Pattern.compile("[ \\t\\n\\r\\f]+");

  private static final Remembered CLEANED = new Remembered(8_000_000);
  private static final Remembered CANONICAL = new Remembered(16_000_000);

  private Html() {}

  /**
   * One text for what means the same: names in lower case, attributes sorted, white space outside
   * {@code pre} folded, none at the edges of blocks, comments gone. Idempotent.
   */
  public static String canonical(String html) {
    return html.isBlank() ? "" : CANONICAL.get(html, Html::canonicalAnew);
  }

  private static String canonicalAnew(String html) {
    Document doc = parse(html);
    tidy(doc.body());
    return doc.body().html();
  }

  /**
   * The body of a whole page in canonical form, every address replaced, and its head's title if it
   * has one. The encoding is read from a byte order mark or the page's own declaration (HTML
   * Standard, 13.2.3.2); UTF-8 if it has neither.
   */
  public static Body body(byte[] page, UnaryOperator<String> map) {
    Document doc;
    try {
      doc = Jsoup.parse(new ByteArrayInputStream(page), null, "");
    } catch (IOException | IllegalArgumentException e) {
      // the page declares an encoding that does not exist
      doc = Jsoup.parse(new String(page, StandardCharsets.UTF_8));
    }
    doc.outputSettings(settings(doc));
    replaceAddresses(doc, map);
    return new Body(doc.title(), canonicalBody(doc));
  }

  /**
   * @param title may be empty
   * @param html what stands in the body
   */
  public record Body(String title, String html) {}

  /**
   * The canonical text with every address replaced; an unchanged address may be returned. Without
   * anything that could be one, nothing is taken apart.
   */
  public static String mapAddresses(String html, UnaryOperator<String> map) {
    if (html.isEmpty()) {
      return html;
    }
    if (!MAY_HOLD_ADDRESS.matcher(html).find()) {
      return canonical(html);
    }
    Document doc = parse(html);
    replaceAddresses(doc, map);
    return canonicalBody(doc);
  }

  private static void replaceAddresses(Document doc, UnaryOperator<String> map) {
    for (Element e : doc.body().getAllElements()) {
      for (Attribute a : e.attributes()) {
        boolean address =
            ADDRESSES.contains(a.getKey()) || a.getKey().equals("data") && e.nameIs("object");
        if (address) {
          a.setValue(map.apply(a.getValue()));
        }
      }
    }
  }

  /** All addresses, in the order of the text. */
  public static List<String> addresses(String html) {
    List<String> all = new ArrayList<>();
    mapAddresses(
        html,
        a -> {
          all.add(a);
          return a;
        });
    return all;
  }

  /** What may be shown or written to a shell: no script, handler, frame, style or odd address. */
  public static String safe(String html) {
    return html.isEmpty() ? html : CLEANED.get(html, Html::safeAnew);
  }

  private static String safeAnew(String html) {
    return canonical(
        Jsoup.clean(html, "", SAFE.preserveRelativeLinks(true), settings(new Document(""))));
  }

  /** The words alone, one space between them. */
  public static String text(String html) {
    return parse(html).body().text();
  }

  private static String canonicalBody(Document doc) {
    tidy(doc.body());
    String html = doc.body().html();
    return html.isBlank() ? "" : CANONICAL.keep(html, html);
  }

  private static Document parse(String html) {
    Document doc = Jsoup.parseBodyFragment(html);
    doc.outputSettings(settings(doc));
    return doc;
  }

  private static Document.OutputSettings settings(Document doc) {
    return doc.outputSettings().prettyPrint(false).charset("UTF-8");
  }

  /** Without recursion, so that any depth of nesting will do. */
  private static void tidy(Element body) {
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

  private static void tidy(Element e, boolean pre, boolean keep) {
    sortAttributes(e);
    for (Node child : new ArrayList<>(e.childNodes())) {
      if (child instanceof Comment) {
        child.remove();
      }
    }
    joinTexts(e);
    if (pre && e.childNodeSize() > 0 && e.childNode(0) instanceof TextNode t) {
      dropFirstLineBreak(t);
    }
    if (!keep) {
      for (TextNode t : new ArrayList<>(e.textNodes())) {
        fold(t);
      }
    }
  }

  /** A parser takes a line break right after {@code <pre>} away, so it cannot count. */
  private static void dropFirstLineBreak(TextNode t) {
    String s = t.getWholeText().replaceFirst("^(\\r?\\n)+", "");
    if (s.isEmpty()) {
      t.remove();
    } else {
      t.text(s);
    }
  }

  /** Removing a comment may leave two texts side by side. */
  private static void joinTexts(Element e) {
    TextNode last = null;
    for (Node n : new ArrayList<>(e.childNodes())) {
      if (n instanceof TextNode t && last != null) {
        last.text(last.getWholeText() + t.getWholeText());
        t.remove();
      } else {
        last = n instanceof TextNode t ? t : null;
      }
    }
  }

  private static void fold(TextNode t) {
    String s = SPACE.matcher(t.getWholeText()).replaceAll(" ");
    if (s.startsWith(" ") && edge(t.previousSibling(), t)) {
      s = s.substring(1);
    }
    if (s.endsWith(" ") && edge(t.nextSibling(), t)) {
      s = s.substring(0, s.length() - 1);
    }
    if (s.isEmpty()) {
      t.remove();
    } else {
      t.text(s);
    }
  }

  private static boolean edge(Node beside, TextNode t) {
    return beside == null
        ? t.parent() != null && t.parent().isBlock()
        : beside instanceof Element e && (e.isBlock() || e.nameIs("br"));
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
