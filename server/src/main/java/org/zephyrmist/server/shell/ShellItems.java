package org.zephyrmist.server.shell;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.server.platform.ShellAddresses;

/** The items of a shell as whole items, each with the platform's id as its key. */
public final class ShellItems {
  private ShellItems() {}

  /** An item with how it was held. */
  public record Placed(Item item, Held held) {}

  /**
   * In outline order, with ranks of their own, since those of several masters meet in a shell; what
   * their texts refer to within the shell is named by the platform's ids.
   */
  public static List<Placed> outline(Reading reading, ShellAddresses addresses, String shell) {
    Map<String, String> ids = new HashMap<>();
    reading.holdings().forEach(h -> ids.put(h.base().key().value(), h.platformItem()));
    UnaryOperator<String> refer =
        address ->
            References.asItem(address)
                .map(r -> item(ids.getOrDefault(r.key().value(), r.key().value()), r.fragment()))
                .or(() -> addresses.asItem(shell, address).map(i -> item(i.id(), i.fragment())))
                .orElse(address);
    return outline(reading, refer);
  }

  private static String item(String id, String fragment) {
    return References.item(key(id), fragment);
  }

  /** A platform's id may hold what no key of ours can. */
  public static ItemKey key(String id) {
    return id.matches("[A-Za-z0-9._-]{1,80}") ? new ItemKey(id) : ItemKey.named("shell\n" + id);
  }

  private static List<Placed> outline(Reading reading, UnaryOperator<String> refer) {
    Map<Optional<String>, List<Held>> below = new HashMap<>();
    for (Held h : reading.items()) {
      Optional<String> parent = h.parent().filter(p -> reading.byId().containsKey(p));
      below.computeIfAbsent(parent, p -> new ArrayList<>()).add(h);
    }
    List<Placed> all = new ArrayList<>();
    walk(reading, refer, below, Optional.empty(), all);
    return all;
  }

  private static void walk(
      Reading reading,
      UnaryOperator<String> refer,
      Map<Optional<String>, List<Held>> below,
      Optional<String> at,
      List<Placed> all) {
    List<Held> here = below.getOrDefault(at, List.of());
    List<Item> items = new ArrayList<>();
    Map<Item, Held> of = new HashMap<>();
    for (Held h : here) {
      Aspects a = Aspects.read(reading.forms().get(h.id()));
      String html = Html.mapAddresses(a.wording().html(), refer);
      Item i = a.with(a.wording().withHtml(html)).item(key(h.id()), h.kind(), EditRule.ADAPTABLE);
      items.add(i);
      of.put(i, h);
    }
    items.sort(Comparator.comparing((Item i) -> i.place().rank()).thenComparing(Item::key));
    for (int n = 0; n < items.size(); n++) {
      Item i = items.get(n);
      Held h = of.get(i);
      Place place = new Place(at.map(p -> key(p).value()), Rank.nth(n));
      all.add(new Placed(i.withPlace(place), h));
      walk(reading, refer, below, Optional.of(h.id()), all);
    }
  }
}
