package org.zephyrmist.bench.history;

import java.util.List;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;

/** Words put into texts. */
final class Words {
  private Words() {}

  /** A word somewhere in the middle of a text: in a paragraph, a list, a table. */
  static String within(Turn of, String html, String word) {
    Document d = Jsoup.parseBodyFragment(html);
    d.outputSettings().prettyPrint(false);
    List<Element> blocks = d.body().select("p, li, td, h2");
    if (blocks.isEmpty()) {
      return html + "<p>" + word + "</p>";
    }
    Element e = of.any(blocks);
    switch (of.random().nextInt(3)) {
      case 0 -> e.appendText(" " + word);
      case 1 -> e.prependText(word + " ");
      default -> e.after("<" + e.normalName() + ">" + word + "</" + e.normalName() + ">");
    }
    return d.body().html();
  }
}
