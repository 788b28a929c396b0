package org.zephyrmist.core.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;

/** Conditions that nobody can meet: about an item that is not here, or about each other. */
final class Conditions {
  private final Map<String, Item> items = new HashMap<>();

  Conditions(List<Item> all) {
    all.forEach(i -> items.put(i.key().value(), i));
  }

  /** What is wrong with the conditions of an item, one sentence each. */
  List<String> wrong(Item i) {
    List<String> wrong = new ArrayList<>();
    for (Condition c : i.visibility().conditions()) {
      c.item()
          .ifPresent(
              key -> {
                Item about = items.get(key);
                if (about == null) {
                  wrong.add("It waits for an item that is not here.");
                } else if (about.key().equals(i.key()) || leadsTo(about, i.key())) {
                  wrong.add("It waits for “" + about.title() + "”, which waits for it.");
                } else if (c.what() == Condition.What.SCORE
                    && about.content().grading().points().isEmpty()) {
                  wrong.add(
                      "It waits for a score in “" + about.title() + "”, which has no points.");
                }
              });
    }
    return wrong;
  }

  private boolean leadsTo(Item from, ItemKey to) {
    List<Item> next = new ArrayList<>(List.of(from));
    Set<ItemKey> seen = new HashSet<>();
    while (!next.isEmpty()) {
      Item i = next.remove(next.size() - 1);
      if (!seen.add(i.key())) {
        continue;
      }
      for (Condition c : i.visibility().conditions()) {
        if (c.item().filter(to.value()::equals).isPresent()) {
          return true;
        }
        c.item().map(items::get).ifPresent(next::add);
      }
    }
    return false;
  }
}
