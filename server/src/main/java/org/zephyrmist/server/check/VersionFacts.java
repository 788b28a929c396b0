package org.zephyrmist.server.check;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Marks;
import org.zephyrmist.core.delivery.InSection;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Needs;
import org.zephyrmist.core.delivery.Parts;
import org.zephyrmist.core.delivery.SectionFacts;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.master.VersionNeeds;
import org.zephyrmist.server.master.Versions;

/** What checks ask of the versions that sections hold; for one look, in which few are held. */
@Component
class VersionFacts {
  private final Versions versions;
  private final VersionNeeds needs;

  VersionFacts(Versions versions, VersionNeeds needs) {
    this.versions = versions;
    this.needs = needs;
  }

  /**
   * A version.
   *
   * @param blanks by item, as they read until somebody fills them in
   * @param notes keys of notes to instructors, which are items of their own in a shell
   */
  record Facts(
      Versions.Version version,
      Needs needs,
      Map<ItemKey, List<String>> blanks,
      Set<ItemKey> notes,
      Map<SectionFacts, Tree> meant) {
    Set<ItemKey> banks(ItemKey key) {
      return needs.of().getOrDefault(key, List.of()).stream()
          .filter(n -> n.why() == Needs.Why.BANK)
          .map(Needs.Need::item)
          .collect(Collectors.toSet());
    }

    /** Whether it has an item, or one whose note to instructors this is. */
    boolean has(ItemKey key) {
      return version.tree().has(key) || notes.contains(key);
    }

    /** Its items that are meant for such a section. */
    Tree meant(SectionFacts section) {
      return meant.computeIfAbsent(
          section, s -> Meant.of(version.tree(), Parts.EVERYTHING, s).items());
    }
  }

  Map<UUID, Facts> of(Set<UUID> ids) {
    Map<UUID, Facts> all = new HashMap<>();
    for (UUID id : new HashSet<>(ids)) {
      Versions.Version v = versions.get(id);
      Map<ItemKey, List<String>> blanks = new HashMap<>();
      for (Item i : v.marked()) {
        List<String> open = Marks.blanks(i.content().html()).stream().map(Marks::blank).toList();
        if (!open.isEmpty()) {
          blanks.put(i.key(), open);
        }
      }
      Set<ItemKey> notes =
          v.marked().stream().map(i -> InSection.noteOf(i.key())).collect(Collectors.toSet());
      all.put(id, new Facts(v, needs.of(v), blanks, notes, new ConcurrentHashMap<>()));
    }
    return all;
  }
}
