package org.zephyrmist.server.line;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Into;
import org.zephyrmist.core.delivery.PartSet;
import org.zephyrmist.core.delivery.PartsChoice;

/**
 * The parts of a version that a delivery brings, as they are sent and kept; what is not said is
 * empty.
 *
 * @param into absent: where the version has them
 * @param items by key; a module stands for all that stands in it
 * @param titles words with which a word of a title begins
 * @param withoutAttachments whether files attached to items do not come; absent: they come
 */
public record ChosenParts(
    @NotNull PartsChoice.What what,
    List<@NotNull Kind> kinds,
    List<@NotNull String> items,
    @Size(max = 50) List<@NotNull @Size(max = 100) String> titles,
    List<@NotNull Kind> withoutKinds,
    List<@NotNull String> without,
    @Size(max = 50) List<@NotNull @Size(max = 100) String> withoutTitles,
    Boolean withoutAttachments,
    @Valid Place into) {

  /**
   * The place in each shell into which chosen items go.
   *
   * @param module by its name; empty if by its number
   * @param nth of the modules at the top, from 1; 0 if by its name
   * @param neighbour by its title, for BEFORE and AFTER
   */
  public record Place(
      @NotNull @Size(max = 500) String module,
      @Min(0) @Max(500) int nth,
      @NotNull Into.Side side,
      @NotNull @Size(max = 500) String neighbour) {
    Into into() {
      return new Into(module, nth, side, neighbour);
    }
  }

  public ChosenParts {
    kinds = kinds == null ? List.of() : kinds;
    items = items == null ? List.of() : items;
    titles = titles == null ? List.of() : titles;
    withoutKinds = withoutKinds == null ? List.of() : withoutKinds;
    without = without == null ? List.of() : without;
    withoutTitles = withoutTitles == null ? List.of() : withoutTitles;
    withoutAttachments = Boolean.TRUE.equals(withoutAttachments);
  }

  public static ChosenParts of(PartsChoice c) {
    return new ChosenParts(
        c.what(),
        c.some().kinds().stream().sorted().toList(),
        names(c.some().items()),
        c.some().titles().stream().sorted().toList(),
        c.without().kinds().stream().sorted().toList(),
        names(c.without().items()),
        c.without().titles().stream().sorted().toList(),
        !c.attachments(),
        c.into().map(i -> new Place(i.module(), i.nth(), i.side(), i.neighbour())).orElse(null));
  }

  private static List<String> names(Set<ItemKey> keys) {
    return keys.stream().map(ItemKey::value).sorted().toList();
  }

  /** What is no key names nothing. */
  public PartsChoice choice() {
    return new PartsChoice(
        what,
        new PartSet(Set.copyOf(kinds), keys(items), Set.copyOf(titles)),
        new PartSet(Set.copyOf(withoutKinds), keys(without), Set.copyOf(withoutTitles)),
        !withoutAttachments,
        Optional.ofNullable(into).map(Place::into));
  }

  private static Set<ItemKey> keys(Collection<String> names) {
    return names.stream().flatMap(n -> ItemKey.of(n).stream()).collect(Collectors.toSet());
  }
}
