package org.zephyrmist.core.tool;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Mentions;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.tool.RelinkRule.Link;

/** Links to tools, wherever they stand in an item. */
public final class ToolLinks {
  private ToolLinks() {}

  /** Where a link stands. */
  public enum Stands {
    /** The item is the link. */
    ITEM,
    /** The item is a task that is done in the tool. */
    SETTING,
    /** Its text leads there. */
    TEXT
  }

  /**
   * @param host in lower case; empty if it leads to none
   */
  public record Found(Stands stands, String host, Link link) {}

  /**
   * Links of an item, each address of a text once. A tool link is one whatever its host, and so is
   * the tool of a task; other addresses are where the host is a tool's.
   *
   * @param tools whether a host, in lower case, is a tool's
   */
  public static List<Found> in(Item i, Predicate<String> tools) {
    List<Found> all = new ArrayList<>();
    String address = i.content().launch().address();
    String host = Frames.host(address);
    boolean setting = i.kind() == Kind.ASSIGNMENT && !address.isEmpty();
    if (i.kind() == Kind.TOOL_LINK || setting || tools.test(host)) {
      Link link = new Link(address, i.content().launch().parameters());
      all.add(new Found(setting ? Stands.SETTING : Stands.ITEM, host, link));
    }
    for (String a : new LinkedHashSet<>(Html.addresses(i.content().html()))) {
      String of = Frames.host(a);
      if (tools.test(of)) {
        all.add(new Found(Stands.TEXT, of, new Link(a, new TreeMap<>())));
      }
    }
    return all;
  }

  /**
   * An item with its links written otherwise. Addresses of texts are asked about too; what is sent
   * along has no place there.
   */
  public static Aspects relinked(Aspects a, UnaryOperator<Link> rules) {
    Aspects to = a;
    if (!a.launch().address().isEmpty()) {
      Link link = rules.apply(new Link(a.launch().address(), a.launch().parameters()));
      to =
          to.with(
              a.launch()
                  .withAddress(link.address())
                  .withParameters(new TreeMap<>(link.parameters())));
    }
    Wording w = a.wording();
    Wording text = Mentions.addresses(w, x -> rules.apply(new Link(x, new TreeMap<>())).address());
    return text.equals(w) ? to : to.with(text);
  }
}
