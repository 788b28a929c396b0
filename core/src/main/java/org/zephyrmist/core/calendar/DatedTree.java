package org.zephyrmist.core.calendar;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * A version with the real dates of a section.
 *
 * @param forms of timings that the version does not have
 */
public record DatedTree(Tree tree, Set<String> forms) {

  /** Timings of a version, whose forms have to be known. */
  public static Set<Fingerprint> timings(Tree version) {
    return version.nodes().stream().map(DatedTree::timing).collect(Collectors.toSet());
  }

  private static Fingerprint timing(Node n) {
    return n.aspects().get(Aspect.TIMING);
  }

  /** Whether any of these forms has a pattern, so that sections have dates of their own by it. */
  public static boolean patterned(Collection<String> forms) {
    return forms.stream().anyMatch(f -> f.contains("\"pattern\""));
  }

  /** The items of a version with their patterns, in their order. */
  public static List<Undated> undated(Tree version, Map<Fingerprint, String> forms) {
    Map<Fingerprint, Timing> known = new HashMap<>();
    List<Undated> all = new ArrayList<>();
    for (Node n : version.nodes()) {
      Timing t = known.computeIfAbsent(timing(n), f -> AspectForms.timing(forms.get(f)));
      all.add(new Undated(n.key(), n.kind(), n.parent(), t));
    }
    return all;
  }

  /**
   * @param forms of {@link #timings}
   * @param days none for a shell that is in no term: what is said by patterns has no date there
   */
  public static DatedTree of(
      Tree version,
      Map<Fingerprint, String> forms,
      Optional<TermDays> days,
      OffDays off,
      OwnDates own) {
    List<Undated> items = undated(version, forms);
    boolean patterns = items.stream().anyMatch(i -> i.timing().pattern().isPresent());
    if (!patterns && own.of().isEmpty()) {
      return new DatedTree(version, Set.of());
    }
    Map<ItemKey, Timing> dates = new HashMap<>();
    if (days.isPresent() && patterns) {
      days.get().dates(items, off).forEach((k, d) -> dates.put(k, d.timing()));
    } else {
      items.forEach(i -> dates.put(i.key(), real(i.timing())));
    }
    Map<ItemKey, Node> nodes = new LinkedHashMap<>();
    Set<String> made = new HashSet<>();
    for (Node n : version.nodes()) {
      String form = AspectForms.form(own.on(n.key(), dates.get(n.key())));
      Fingerprint print = Fingerprint.of(form);
      if (!print.equals(timing(n))) {
        made.add(form);
      }
      nodes.put(n.key(), n.withAspects(n.aspects().with(Aspect.TIMING, print)));
    }
    return new DatedTree(Tree.of(nodes.values()), made);
  }

  private static Timing real(Timing t) {
    return new Timing(t.opens(), t.due(), t.closes());
  }
}
