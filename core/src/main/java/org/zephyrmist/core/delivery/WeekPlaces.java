package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * The places that a shell has for weeks. A week beyond the last of them would be piled into the
 * last: so places are added, or the week does not come.
 *
 * @param id the platform's id of the setup that says them
 * @param wording of the setup; each entry is a place
 */
public record WeekPlaces(String id, Wording wording) {
  private static final Pattern NUMBERED =
      Pattern.compile("^(\\p{L}+)\\.?\\s+0*(\\d{1,2})(?:\\s*[-–&/+]\\s*0*(\\d{1,2}))?(?!\\d).*");
  private static final String USUAL = "Week";

  /** The places, if the setup is about them. */
  public static Optional<WeekPlaces> of(String id, Wording w) {
    return w.subject().filter(s -> s == SetupSubject.WEEK_PLACES).map(s -> new WeekPlaces(id, w));
  }

  /**
   * A week of a version.
   *
   * @param n its number, from 1; of several in one module the last
   */
  public record Week(int n, ItemKey module) {}

  /** “Week 05 · Loads” is number 5 of the series “week”. */
  private record Numbered(String word, String series, int n) {
    static Optional<Numbered> of(String title) {
      Matcher m = NUMBERED.matcher(title.strip());
      if (!m.matches()) {
        return Optional.empty();
      }
      int n = Integer.parseInt(m.group(3) == null ? m.group(2) : m.group(3));
      String word = m.group(1).toLowerCase(Locale.ROOT);
      String series = word.endsWith("s") ? word.substring(0, word.length() - 1) : word;
      return Optional.of(new Numbered(m.group(1), series, n));
    }
  }

  /**
   * The weeks of a version: the modules at its top that are numbered after the word after which
   * most of them are, whatever the college calls it.
   */
  public static List<Week> weeks(Tree version) {
    List<Node> modules =
        version.in(Optional.empty()).stream().filter(n -> n.kind() == Kind.MODULE).toList();
    List<Week> weeks = new ArrayList<>();
    longest(modules.stream().map(Node::title).toList())
        .forEach((at, n) -> weeks.add(new Week(n, modules.get(at).key())));
    return weeks;
  }

  /** The last number of the weeks among modules with these titles; 0 if none is a week. */
  public static int last(List<String> titles) {
    return longest(titles).values().stream().mapToInt(Integer::intValue).max().orElse(0);
  }

  /** The numbers of the longest series, by the place of the title. */
  private static Map<Integer, Integer> longest(List<String> titles) {
    Map<String, Map<Integer, Integer>> series = new HashMap<>();
    for (int i = 0; i < titles.size(); i++) {
      int at = i;
      Numbered.of(titles.get(i))
          .ifPresent(t -> series.computeIfAbsent(t.series(), k -> new TreeMap<>()).put(at, t.n()));
    }
    return series.entrySet().stream()
        .max(
            Comparator.comparingInt(
                    (Map.Entry<String, Map<Integer, Integer>> e) -> e.getValue().size())
                .thenComparing(Map.Entry::getKey))
        .map(Map.Entry::getValue)
        .orElse(Map.of());
  }

  /** Those that a plan brings and for which there is no place. */
  public List<Week> without(List<Week> weeks, List<Step> steps) {
    Set<ItemKey> coming = new HashSet<>();
    steps.stream().filter(s -> s.kind() == StepKind.ADD).forEach(s -> coming.add(s.key()));
    return weeks.stream().filter(w -> w.n() > count() && coming.contains(w.module())).toList();
  }

  private int count() {
    return wording.entries().size();
  }

  /** These modules and all that stands in them. */
  public static Set<ItemKey> in(Tree meant, List<Week> weeks) {
    Set<ItemKey> all = new HashSet<>();
    weeks.forEach(w -> meant.subtree(w.module()).forEach(n -> all.add(n.key())));
    return all;
  }

  /**
   * The same with a place for each of these.
   *
   * @param called how the version calls its weeks, in their order; may be empty
   */
  public Wording withPlacesFor(List<Week> weeks, List<Content.Entry> called) {
    int last = weeks.stream().mapToInt(Week::n).max().orElse(0);
    List<Content.Entry> all = new ArrayList<>(wording.entries());
    String word =
        all.stream()
            .flatMap(e -> Numbered.of(e.label()).stream())
            .reduce((a, b) -> b)
            .map(Numbered::word)
            .orElse(USUAL);
    for (int n = count() + 1; n <= last; n++) {
      all.add(n <= called.size() ? called.get(n - 1) : new Content.Entry(word + " " + n, ""));
    }
    return wording.withSetup(wording.subject(), all);
  }

  /** The step that adds them; the shell's own setup stays its own. */
  public Step adding(Held here, Fingerprint withThem) {
    Set<Aspect> writes = Set.of(Aspect.WORDING);
    Sides sides =
        new Sides(
            Optional.empty(),
            Optional.of(here.aspects()),
            Optional.empty(),
            Optional.of(here.aspects().with(Aspect.WORDING, withThem)));
    return new Step(
        CleanStart.own(id),
        Kind.SETUP,
        here.title(),
        StepKind.UPDATE,
        Optional.of(id),
        Map.of(Aspect.WORDING, Step.AspectStep.UPDATE),
        writes,
        Reason.WEEKS_ADDED,
        sides);
  }
}
