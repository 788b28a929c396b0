package org.zephyrmist.core.content;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;
import org.jsoup.safety.Cleaner;
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
          .addAttributes(":all", "style")
          .addAttributes("img", "srcset", "sizes")
          .addTags("iframe")
          .addAttributes("iframe", "src", "title", "width", "height", "sandbox", "referrerpolicy")
          .removeProtocols("a", "href", "ftp")
          .addProtocols("a", "href", "#", "http", "https", "mailto", "tel", "zref")
          .addProtocols("img", "src", "http", "https", "zref")
          .addProtocols("audio", "src", "http", "https", "zref")
          .addProtocols("video", "src", "http", "https", "zref")
          .addProtocols("video", "poster", "http", "https", "zref")
          .addProtocols("source", "src", "http", "https", "zref")
          .addProtocols("track", "src", "http", "https", "zref");

  private static final Pattern MAY_HOLD_ADDRESS =
      Pattern.compile("href|src|data|poster|longdesc|background|url", Pattern.CASE_INSENSITIVE);

  /** Tables of one text; more of them, nested, take a parser longer and longer each. */
  private static final int TABLES = 1_000;

  private static final Pattern TABLE = Pattern.compile("(</?)table", Pattern.CASE_INSENSITIVE);

  /**
   * Elements within each other that are kept; what is nested deeper is taken one beside another.
   */
  private static final int DEPTH = 200;

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
    Tidy.body(doc.body());
    return doc.body().html();
  }

  /**
   * The body of a whole page in canonical form, every address replaced, and its head's title if it
   * has one. The encoding is read from a byte order mark or the page's own declaration (HTML
   * Standard, 13.2.3.2); UTF-8 if it has neither.
   *
   * @param map from the address that the page sets for others to be relative to, which may be empty
   */
  public static Body body(byte[] page, Function<String, UnaryOperator<String>> map) {
    Optional<Charset> guessed = Encoding.guessed(page);
    byte[] bounded = guessed.map(c -> utf8(page, c)).orElseGet(() -> bounded(page));
    Document doc;
    try {
      String charset = guessed.isPresent() ? "UTF-8" : null;
      doc = Jsoup.parse(new ByteArrayInputStream(bounded), charset, "", parser());
    } catch (IOException | IllegalArgumentException e) {
      // the page declares an encoding that does not exist
      doc = Jsoup.parse(new String(bounded, StandardCharsets.UTF_8), "", parser());
    }
    doc.outputSettings(settings(doc));
    Element base = doc.head().selectFirst("base[href]");
    replaceAddresses(doc, map.apply(base == null ? "" : base.attr("href")));
    return new Body(doc.title(), canonicalBody(doc), guessed.map(Charset::name));
  }

  private static byte[] utf8(byte[] page, Charset from) {
    return bounded(new String(page, from)).getBytes(StandardCharsets.UTF_8);
  }

  /** Tags are ASCII in every encoding but UTF-16, which a page has only with its mark. */
  private static byte[] bounded(byte[] page) {
    boolean wide = page.length > 1 && ((page[0] & 0xff) == 0xfe || (page[0] & 0xff) == 0xff);
    Charset charset = wide ? StandardCharsets.UTF_16 : StandardCharsets.ISO_8859_1;
    String text = new String(page, charset);
    String bounded = bounded(text);
    return bounded.equals(text) ? page : bounded.getBytes(charset);
  }

  /**
   * @param title may be empty
   * @param html what stands in the body
   * @param guessed the encoding that it was taken to be written in, if it did not say or said
   *     wrongly
   */
  public record Body(String title, String html, Optional<String> guessed) {}

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

  /** The canonical text after a change of its elements. */
  static String change(String html, Consumer<Element> change) {
    Document doc = parse(html);
    change.accept(doc.body());
    return canonicalBody(doc);
  }

  private static void replaceAddresses(Document doc, UnaryOperator<String> map) {
    for (Element e : doc.body().getAllElements()) {
      for (Attribute a : e.attributes()) {
        boolean address =
            ADDRESSES.contains(a.getKey()) || a.getKey().equals("data") && e.nameIs("object");
        if (address) {
          a.setValue(map.apply(a.getValue()));
        } else if (a.getKey().equals("srcset")) {
          a.setValue(Styles.mapCandidates(a.getValue(), map));
        } else if (a.getKey().equals("style")) {
          a.setValue(Styles.mapAddresses(a.getValue(), map));
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

  /** What may be shown or written to a shell, where no frame is approved. */
  public static String safe(String html) {
    return safe(html, Frames.NONE);
  }

  /**
   * What may be shown or written to a shell: no script, handler, odd address or style that covers
   * other things; a frame of a host that is not approved is a link to what it shows.
   */
  public static String safe(String html, Frames frames) {
    return html.isEmpty()
        ? html
        : frames.hosts().isEmpty()
            ? CLEANED.get(html, h -> safeAnew(h, frames))
            : Embedded.MAY_STAND.matcher(html).find()
                ? safeAnew(html, frames)
                : safe(html, Frames.NONE);
  }

  private static String safeAnew(String html, Frames frames) {
    Document doc = parse(html);
    Embedded.replace(doc.body(), frames);
    for (Element e : doc.body().select("[style]")) {
      e.attr("style", Styles.safe(e.attr("style")));
    }
    for (Element e : doc.body().select("[srcset]")) {
      e.attr("srcset", Styles.mapCandidates(e.attr("srcset"), Html::picture));
    }
    Document clean = new Cleaner(SAFE.preserveRelativeLinks(true)).clean(doc);
    clean
        .body()
        .select("[style=], [srcset=]")
        .forEach(e -> e.removeAttr("style").removeAttr("srcset"));
    settings(clean);
    return canonical(clean.body().html());
  }

  private static String picture(String address) {
    boolean scheme = address.matches("(?s)^[A-Za-z][A-Za-z0-9+.-]*:.*");
    return !scheme || Addresses.isWeb(address) || References.asFile(address).isPresent()
        ? address
        : References.NOWHERE;
  }

  /** What stands in a text besides text and pictures, and is shown otherwise or not at all. */
  public static List<Embedded> embedded(String html) {
    return Embedded.MAY_STAND.matcher(html).find() ? Embedded.in(parse(html).body()) : List.of();
  }

  /** The blocks of a canonical text at its top, each as it stands; text beside them by itself. */
  public static List<String> blocks(String html) {
    if (html.isEmpty()) {
      return List.of();
    }
    List<String> all = new ArrayList<>();
    StringBuilder inline = new StringBuilder();
    for (org.jsoup.nodes.Node n : parse(html).body().childNodes()) {
      boolean block = n instanceof Element e && Tidy.isBlock(e);
      if (block) {
        flush(inline, all);
        all.add(n.outerHtml());
      } else {
        inline.append(n.outerHtml());
      }
    }
    flush(inline, all);
    return all;
  }

  private static void flush(StringBuilder inline, List<String> all) {
    if (!inline.toString().isBlank()) {
      all.add(inline.toString());
    }
    inline.setLength(0);
  }

  /** The words alone, one space between them. */
  public static String text(String html) {
    return parse(html).body().text();
  }

  private static String canonicalBody(Document doc) {
    Tidy.body(doc.body());
    String html = doc.body().html();
    return html.isBlank() ? "" : CANONICAL.keep(html, html);
  }

  private static Document parse(String html) {
    Document doc = Document.createShell("");
    // as a fragment of a body (HTML Standard, 13.4)
    doc.body().appendChildren(parser().parseFragmentInput(bounded(html), doc.body(), ""));
    doc.outputSettings(settings(doc));
    return doc;
  }

  /** Without NUL, which no database keeps; thousands of tables become plain divisions. */
  private static String bounded(String html) {
    return TABLE.matcher(html).results().limit(2L * TABLES + 1).count() <= 2L * TABLES
        ? html.replace("\0", "")
        : TABLE.matcher(html).replaceAll("$1div").replace("\0", "");
  }

  private static Parser parser() {
    return Parser.htmlParser().setMaxDepth(DEPTH);
  }

  private static Document.OutputSettings settings(Document doc) {
    return doc.outputSettings().prettyPrint(false).charset("UTF-8");
  }
}
