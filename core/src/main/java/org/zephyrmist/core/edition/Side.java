package org.zephyrmist.core.edition;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;

/** One edition while it is paired: its items by number, and what stands around each. */
final class Side {
  private final List<Entry> entries;
  private final Map<ItemKey, Integer> places = new HashMap<>();
  private final int[] parent;
  private final int[] before;
  private final int[] after;
  private final List<List<Integer>> below = new ArrayList<>();

  Side(List<Entry> entries) {
    this.entries = List.copyOf(entries);
    int n = entries.size();
    parent = new int[n];
    before = new int[n];
    after = new int[n];
    for (int i = 0; i < n; i++) {
      places.put(entries.get(i).key(), i);
      below.add(new ArrayList<>());
    }
    Map<Integer, Integer> last = new HashMap<>();
    for (int i = 0; i < n; i++) {
      parent[i] = entries.get(i).parent().map(places::get).orElse(-1);
      before[i] = last.getOrDefault(parent[i], -1);
      after[i] = -1;
      if (before[i] >= 0) {
        after[before[i]] = i;
      }
      last.put(parent[i], i);
      if (parent[i] >= 0) {
        below.get(parent[i]).add(i);
      }
    }
  }

  int size() {
    return entries.size();
  }

  Entry get(int i) {
    return entries.get(i);
  }

  List<Entry> entries() {
    return entries;
  }

  Integer place(ItemKey key) {
    return places.get(key);
  }

  boolean isModule(int i) {
    return entries.get(i).kind() == Kind.MODULE;
  }

  /** Whether it says nothing but its title. */
  boolean silent(int i) {
    return entries.get(i).words().isBlank();
  }

  /** The module it stands in, or -1. */
  int parent(int i) {
    return parent[i];
  }

  /** The one before it in its module, or -1. */
  int before(int i) {
    return before[i];
  }

  /** The one after it in its module, or -1. */
  int after(int i) {
    return after[i];
  }

  List<Integer> below(int i) {
    return below.get(i);
  }
}
