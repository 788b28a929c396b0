package org.zephyrmist.server.shell;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Mentions;
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
    Function<String, Optional<String>> named =
        k -> {
          String id = k.startsWith(ShellTranslator.HERE) ? ShellTranslator.here(k) : ids.get(k);
          return Optional.of(id == null ? k : key(id).value());
        };
    Function<String, String> address =
        a ->
            addresses
                .asItem(shell, a)
                .map(i -> References.item(key(i.id()), i.fragment()))
                .orElse(a);
    return outline(
        reading,
        a -> {
          Aspects ours = Mentions.renamed(a, named);
          return ours.with(Mentions.addresses(ours.wording(), address));
        });
  }

  /** A platform's id may hold what no key of ours can. */
  public static ItemKey key(String id) {
    return id.matches("[A-Za-z0-9._-]{1,80}") ? new ItemKey(id) : ItemKey.named("shell\n" + id);
  }

  private static List<Placed> outline(Reading reading, UnaryOperator<Aspects> named) {
    Map<Optional<String>, List<Held>> below = new HashMap<>();
    for (Held h : reading.items()) {
      Optional<String> parent = h.parent().filter(p -> reading.byId().containsKey(p));
      below.computeIfAbsent(parent, p -> new ArrayList<>()).add(h);
    }
    List<Placed> all = new ArrayList<>();
    walk(reading, named, below, Optional.empty(), all);
    return all;
  }

  private static void walk(
      Reading reading,
      UnaryOperator<Aspects> named,
      Map<Optional<String>, List<Held>> below,
      Optional<String> at,
      List<Placed> all) {
    List<Held> here = below.getOrDefault(at, List.of());
    List<Item> items = new ArrayList<>();
    Map<Item, Held> of = new HashMap<>();
    for (Held h : here) {
      Aspects a = named.apply(Aspects.read(reading.forms().get(h.id())));
      Item i = a.item(key(h.id()), h.kind(), EditRule.ADAPTABLE);
      items.add(i);
      of.put(i, h);
    }
    items.sort(Comparator.comparing((Item i) -> i.place().rank()).thenComparing(Item::key));
    for (int n = 0; n < items.size(); n++) {
      Item i = items.get(n);
      Held h = of.get(i);
      Place place = new Place(at.map(p -> key(p).value()), Rank.nth(n));
      all.add(new Placed(i.withPlace(place), h));
      walk(reading, named, below, Optional.of(h.id()), all);
    }
  }
}
