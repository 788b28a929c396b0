package org.zephyrmist.core.tree;

import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Titles;

/**
 * Finds, among some items, the one that another is alike to: first the same wording and launch,
 * then the same title, kind by kind. One to one: what is taken is not found again.
 *
 * @param <T> the items among which is looked
 */
public final class Likeness<T extends Alike> {
  private record Exact(Kind kind, Fingerprint wording, Fingerprint launch) {
    static Exact of(Alike a) {
      return new Exact(a.kind(), a.aspects().get(Aspect.WORDING), a.aspects().get(Aspect.LAUNCH));
    }
  }

  private record Titled(Kind kind, String title) {
    static Titled of(Alike a) {
      return new Titled(a.kind(), Titles.folded(a.title()));
    }
  }

  private final Map<Exact, Set<T>> exact = new HashMap<>();
  private final Map<Titled, Set<T>> titled = new HashMap<>();

  /** The first of several that are alike is found first. */
  public Likeness(List<T> others) {
    for (T o : others) {
      exact.computeIfAbsent(Exact.of(o), k -> new LinkedHashSet<>()).add(o);
      titled.computeIfAbsent(Titled.of(o), k -> new LinkedHashSet<>()).add(o);
    }
  }

  /** The one that is alike. */
  public Optional<T> find(Alike item) {
    return first(exact.get(Exact.of(item))).or(() -> first(titled.get(Titled.of(item))));
  }

  /** It is no longer among them. */
  public void remove(T found) {
    exact.get(Exact.of(found)).remove(found);
    titled.get(Titled.of(found)).remove(found);
  }

  /** The one that is alike, which is then no longer among them. */
  public Optional<T> take(Alike item) {
    Optional<T> found = find(item);
    found.ifPresent(this::remove);
    return found;
  }

  private static <T> Optional<T> first(Set<T> found) {
    return found == null ? Optional.empty() : found.stream().findFirst();
  }
}
