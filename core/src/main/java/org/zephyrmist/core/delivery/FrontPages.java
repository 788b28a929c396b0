package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Leading;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Step.Reason;

/**
 * Front pages of several masters that meet in one shell are one page there: what the first says,
 * then what the others add to it. Its entries all lead to something that is there, and what an
 * earlier page leads to is not entered again.
 */
public final class FrontPages {
  private FrontPages() {}

  /**
   * The one page.
   *
   * @param pages what each master's says, in the order in which masters stand in a shell
   * @param at where in the shell an item is, by a name that is the same for items that are one
   *     there; none if it does not come there
   */
  public static Wording together(List<Wording> pages, Function<ItemKey, Optional<String>> at) {
    Set<String> said = new HashSet<>();
    List<String> blocks = new ArrayList<>();
    Set<String> ledTo = new HashSet<>();
    List<Content.Entry> entries = new ArrayList<>();
    for (Wording p : pages) {
      Set<String> before = Set.copyOf(ledTo);
      String html =
          Leading.only(p.html(), k -> at.apply(k).filter(w -> !before.contains(w)).isPresent());
      List<String> fresh = Html.blocks(html);
      fresh.stream().filter(b -> !said.contains(b)).forEach(blocks::add);
      said.addAll(fresh);
      References.items(html).forEach(r -> at.apply(r.key()).ifPresent(ledTo::add));
      for (Content.Entry e : p.entries()) {
        if (target(e, at).filter(t -> !before.contains(t)).filter(ledTo::add).isPresent()) {
          entries.add(e);
        }
      }
    }
    Wording first = pages.get(0);
    return first
        .withHtml(Html.canonical(String.join("", blocks)))
        .withSetup(first.subject(), entries);
  }

  private static Optional<String> target(Content.Entry e, Function<ItemKey, Optional<String>> at) {
    Optional<References.ToItem> item = References.asItem(e.value());
    return item.isPresent()
        ? item.flatMap(r -> at.apply(r.key()).map(where -> where + r.fragment()))
        : Optional.of(e.value());
  }

  /** The plan, in which it is told why the page is written. */
  public static List<Step> told(List<Step> plan, ItemKey page) {
    return plan.stream()
        .map(s -> s.key().equals(page) && s.kind() == StepKind.UPDATE ? s.because(Reason.MEETS) : s)
        .toList();
  }
}
