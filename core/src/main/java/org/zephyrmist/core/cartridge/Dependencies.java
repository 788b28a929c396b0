package org.zephyrmist.core.cartridge;

import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Deque;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zephyrmist.core.cartridge.Manifest.Resource;

/** Which resources need which (Content Packaging 1.2, "dependency"). */
final class Dependencies {
  private Dependencies() {}

  private record Open(String id, Iterator<String> needs) {}

  /** Names needs that are missing and needs that go in a circle. */
  static void tell(Collection<Resource> resources, Findings findings) {
    Map<String, List<String>> needs = new LinkedHashMap<>();
    resources.forEach(r -> needs.put(r.id(), r.dependencies()));
    needs.forEach(
        (id, all) ->
            all.stream()
                .filter(n -> !needs.containsKey(n))
                .forEach(n -> findings.dead(id, "needs resource " + n + ", which is missing")));
    Set<String> done = new HashSet<>();
    needs.keySet().forEach(id -> circles(id, needs, done, findings));
  }

  /** Depth first, without recursion, so that any length of chain will do. */
  private static void circles(
      String from, Map<String, List<String>> needs, Set<String> done, Findings findings) {
    if (!done.add(from)) {
      return;
    }
    Deque<Open> path = new ArrayDeque<>();
    Set<String> open = new HashSet<>(Set.of(from));
    path.push(new Open(from, needs.get(from).iterator()));
    while (!path.isEmpty()) {
      Open top = path.peek();
      if (!top.needs().hasNext()) {
        open.remove(path.pop().id());
        continue;
      }
      String next = top.needs().next();
      if (open.contains(next)) {
        findings.adjusted(
            top.id(), "needs resource " + next + ", which needs it in turn; both were taken once");
      } else if (needs.containsKey(next) && done.add(next)) {
        open.add(next);
        path.push(new Open(next, needs.get(next).iterator()));
      }
    }
  }
}
