package org.zephyrmist.core.cartridge;

import java.net.URI;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.zephyrmist.core.cartridge.ReadingReport.Finding;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.question.QuestionSet;

/** Collects the report while the reading goes on. */
final class Findings {
  /** How many places of one thing are named. */
  private static final int PLACES = 5;

  private final CartridgeFacts facts;
  private final TreeMap<Kind, Integer> counts = new TreeMap<>();
  private final TreeMap<String, Integer> hosts = new TreeMap<>();
  private final TreeMap<String, Integer> frames = new TreeMap<>();
  private final TreeMap<String, Integer> questions = new TreeMap<>();
  private final TreeMap<String, Integer> others = new TreeMap<>();
  private final TreeMap<String, Integer> standards = new TreeMap<>();
  private final List<String> instructorsOnly = new ArrayList<>();
  private final Map<String, Set<String>> notUnderstood = new LinkedHashMap<>();
  private final Map<String, Set<String>> dead = new LinkedHashMap<>();
  private final List<Finding> restricted = new ArrayList<>();
  private final Map<String, Set<String>> adjusted = new LinkedHashMap<>();
  private List<String> unused = List.of();
  private int unplaced;

  Findings(CartridgeFacts facts) {
    this.facts = facts;
  }

  void count(Item item) {
    counts.merge(item.kind(), 1, Integer::sum);
    if (item.kind() == Kind.TOOL_LINK) {
      hosts.merge(host(item.content().launch().address()), 1, Integer::sum);
    }
    item.standards()
        .forEach(s -> standards.merge(s.label().isEmpty() ? s.id() : s.label(), 1, Integer::sum));
  }

  private static String host(String address) {
    try {
      String host = URI.create(address).getHost();
      return host == null ? address : host;
    } catch (IllegalArgumentException e) {
      return address;
    }
  }

  void frame(String address) {
    frames.merge(host(address), 1, Integer::sum);
  }

  void questions(QuestionSet set) {
    set.questions().forEach(q -> questions.merge(q.type().name(), 1, Integer::sum));
  }

  void other(String what) {
    others.merge(what, 1, Integer::sum);
  }

  void instructorsOnly(String title) {
    instructorsOnly.add(title);
  }

  void notUnderstood(String where, String what) {
    add(notUnderstood, where, what);
  }

  /** The same thing found in several places is one finding that names them. */
  void dead(String where, String what) {
    add(dead, where, what);
  }

  void restricted(String where, String asks) {
    restricted.add(new Finding(where, asks));
  }

  void adjusted(String where, String what) {
    add(adjusted, where, what);
  }

  private static void add(Map<String, Set<String>> to, String where, String what) {
    to.computeIfAbsent(what, w -> new LinkedHashSet<>()).add(where);
  }

  void unused(List<String> paths) {
    unused = paths;
  }

  void unplaced() {
    unplaced++;
  }

  ReadingReport report(PackageFiles.Total total) {
    return new ReadingReport(
        facts,
        counts,
        total.files(),
        total.bytes(),
        hosts,
        List.copyOf(instructorsOnly),
        atMost(notUnderstood),
        atMost(dead),
        unused.size(),
        unused.stream().limit(ReadingReport.MOST_UNUSED).toList(),
        unplaced,
        List.copyOf(restricted),
        atMost(adjusted),
        frames,
        questions,
        others,
        standards);
  }

  private static List<Finding> atMost(Map<String, Set<String>> all) {
    List<Finding> some =
        all.entrySet().stream()
            .limit(ReadingReport.MOST_FINDINGS)
            .map(e -> new Finding(places(e.getValue()), e.getKey()))
            .collect(Collectors.toCollection(ArrayList::new));
    if (all.size() > some.size()) {
      some.add(new Finding("…", all.size() - some.size() + " more of this sort"));
    }
    return List.copyOf(some);
  }

  private static String places(Collection<String> all) {
    String some = all.stream().limit(PLACES).collect(Collectors.joining(", "));
    return all.size() <= PLACES ? some : some + " and " + (all.size() - PLACES) + " more";
  }
}
