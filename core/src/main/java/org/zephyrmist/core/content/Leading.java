package org.zephyrmist.core.content;

import java.util.List;
import java.util.function.Predicate;
import org.jsoup.nodes.Element;

/** What of a text leads to items that are there. */
public final class Leading {
  private Leading() {}

  /**
   * The canonical text without list entries whose links all lead to items that are not there, and
   * without lists in which nothing is left.
   */
  public static String only(String html, Predicate<ItemKey> there) {
    if (References.items(html).stream().allMatch(r -> there.test(r.key()))) {
      return html;
    }
    return Html.change(
        html,
        body -> {
          body.select("li").forEach(li -> removeIfDead(li, there));
          body.select("ul, ol").stream()
              .filter(l -> l.children().isEmpty())
              .forEach(Element::remove);
        });
  }

  private static void removeIfDead(Element li, Predicate<ItemKey> there) {
    List<String> leads = li.select("a[href]").eachAttr("href");
    boolean dead =
        leads.stream()
            .allMatch(a -> References.asItem(a).filter(r -> !there.test(r.key())).isPresent());
    if (!leads.isEmpty() && dead) {
      li.remove();
    }
  }
}
