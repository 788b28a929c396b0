package org.zephyrmist.core.edit;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What items of a shell call each other. An item of ours calls another of the same master by its
 * key; all others are called by the platform's id behind {@link #HERE}.
 */
public final class ShellNames {
  /** Before the platform's id of an item, where a key would stand. */
  public static final String HERE = "here:";

  private final Map<String, List<Given>> byId;
  private final Map<String, List<String>> byKey = new HashMap<>();

  /**
   * @param byId every item of the shell by the platform's id, with what it is of masters
   */
  public ShellNames(Map<String, List<Given>> byId) {
    this.byId = byId;
    byId.forEach(
        (id, all) ->
            all.forEach(
                g ->
                    byKey
                        .computeIfAbsent(g.key().value(), k -> new java.util.ArrayList<>())
                        .add(id)));
  }

  /** The platform's id of what an item calls so; none if it is not here. */
  public Optional<String> id(List<Given> from, String name) {
    if (name.startsWith(HERE)) {
      String id = name.substring(HERE.length());
      return byId.containsKey(id) ? Optional.of(id) : Optional.empty();
    }
    return byKey.getOrDefault(name, List.of()).stream()
        .filter(id -> from.isEmpty() || shared(from, byId.get(id)))
        .findFirst();
  }

  /** What an item calls another that is here. */
  public String name(List<Given> from, String id) {
    return byId.getOrDefault(id, List.of()).stream()
        .filter(g -> from.isEmpty() || from.stream().anyMatch(f -> f.master().equals(g.master())))
        .map(g -> g.key().value())
        .findFirst()
        .orElse(HERE + id);
  }

  private static boolean shared(List<Given> a, List<Given> b) {
    return a.stream().anyMatch(x -> b.stream().anyMatch(y -> x.master().equals(y.master())));
  }
}
