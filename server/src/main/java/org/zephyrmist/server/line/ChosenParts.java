package org.zephyrmist.server.line;

import jakarta.validation.constraints.NotNull;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.PartsChoice;

/**
 * The parts of a version that a delivery brings, as they are sent and kept; what is not said is
 * empty.
 *
 * @param items by key; a module stands for all that stands in it
 */
public record ChosenParts(
    @NotNull PartsChoice.What what,
    List<@NotNull Kind> kinds,
    List<@NotNull String> items,
    List<@NotNull Kind> withoutKinds,
    List<@NotNull String> without) {

  public ChosenParts {
    kinds = kinds == null ? List.of() : kinds;
    items = items == null ? List.of() : items;
    withoutKinds = withoutKinds == null ? List.of() : withoutKinds;
    without = without == null ? List.of() : without;
  }

  public static ChosenParts of(PartsChoice c) {
    return new ChosenParts(
        c.what(),
        c.kinds().stream().sorted().toList(),
        names(c.items()),
        c.withoutKinds().stream().sorted().toList(),
        names(c.without()));
  }

  private static List<String> names(Set<ItemKey> keys) {
    return keys.stream().map(ItemKey::value).sorted().toList();
  }

  /** What is no key names nothing. */
  public PartsChoice choice() {
    return new PartsChoice(
        what, Set.copyOf(kinds), keys(items), Set.copyOf(withoutKinds), keys(without));
  }

  private static Set<ItemKey> keys(Collection<String> names) {
    return names.stream().flatMap(n -> ItemKey.of(n).stream()).collect(Collectors.toSet());
  }
}
