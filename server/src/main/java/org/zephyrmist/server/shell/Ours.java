package org.zephyrmist.server.shell;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.server.ledger.Holding;

/** Our items in one shell. A key alone names no item: several masters may bring the same one. */
public final class Ours {
  /** An item of a master. */
  record Known(UUID master, ItemKey key) {}

  /** In the place of a master, of items that no master brought. */
  public static final UUID NOBODY = new UUID(0, 0);

  private final Map<String, String> again = new HashMap<>();
  private final Map<String, List<Known>> byId = new HashMap<>();
  private final Map<UUID, Map<ItemKey, String>> byMaster = new HashMap<>();

  public static Ours of(Iterable<Holding> holdings) {
    Ours ours = new Ours();
    holdings.forEach(h -> ours.put(h.master(), h.base().key(), h.platformItem()));
    return ours;
  }

  /**
   * @param id the platform's own id of the item
   */
  public void put(UUID master, ItemKey key, String id) {
    if (!master.equals(NOBODY)) {
      List<Known> all = byId.computeIfAbsent(id, k -> new ArrayList<>(1));
      all.removeIf(k -> k.master().equals(master));
      all.add(new Known(master, key));
    }
    byMaster.computeIfAbsent(master, m -> new HashMap<>()).put(key, id);
  }

  /** Where references to an item of a master lead for which another master's item stands. */
  public void standIn(UUID master, ItemKey key, String id) {
    byMaster.computeIfAbsent(master, m -> new HashMap<>()).putIfAbsent(key, id);
  }

  /** An item that was removed and put back is called otherwise now. */
  public void again(String before, String now) {
    again.put(before, now);
  }

  Optional<String> again(String before) {
    return Optional.ofNullable(again.get(before));
  }

  void putAll(Ours others) {
    others.byId.forEach((id, all) -> all.forEach(k -> put(k.master(), k.key(), id)));
  }

  /** Which item of ours this is: of several masters where their front pages are one. */
  List<Known> known(String id) {
    return byId.getOrDefault(id, List.of());
  }

  /** The platform's id of an item of this very master; what is nobody's may name any's. */
  public Optional<String> id(UUID master, ItemKey key) {
    return Optional.ofNullable(byMaster.getOrDefault(master, Map.of()).get(key))
        .or(() -> master.equals(NOBODY) ? ofAny(key) : Optional.empty());
  }

  private Optional<String> ofAny(ItemKey key) {
    return byMaster.entrySet().stream()
        .sorted(Map.Entry.comparingByKey())
        .flatMap(e -> Optional.ofNullable(e.getValue().get(key)).stream())
        .findFirst();
  }
}
