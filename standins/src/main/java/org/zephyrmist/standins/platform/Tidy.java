package org.zephyrmist.standins.platform;

import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.safety.Safelist;

/** As platforms do, this one does not keep a text quite as it was sent. */
final class Tidy {
  private static final Safelist KEPT =
      Safelist.relaxed()
          .addTags("hr", "section", "article", "figure", "figcaption", "audio", "video", "source")
          .addAttributes(":all", "title", "lang", "id")
          .addAttributes("a", "target", "rel")
          .addAttributes("video", "src", "controls")
          .addAttributes("audio", "src", "controls")
          .addProtocols("a", "href", "#")
          .preserveRelativeLinks(true);

  private Tidy() {}

  /** Classes go, and a link to a new window gets a rel. */
  static String html(String html) {
    if (html == null || html.isEmpty()) {
      return "";
    }
    Document doc =
        Jsoup.parseBodyFragment(
            Jsoup.clean(
                html,
                "http://practice.invalid",
                KEPT,
                new Document.OutputSettings().prettyPrint(false)));
    doc.outputSettings().prettyPrint(false);
    doc.select("a[target=_blank]").attr("rel", "noopener");
    return doc.body().html();
  }
}
