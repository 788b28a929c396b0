package org.zephyrmist.core.cartridge;

import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import org.zephyrmist.core.cartridge.ReadingReport.Finding;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Kind;

/** Collects the report while the reading goes on. */
final class Findings {
  private final CartridgeFacts facts;
  private final TreeMap<Kind, Integer> counts = new TreeMap<>();
  private final TreeMap<String, Integer> hosts = new TreeMap<>();
  private final List<String> instructorsOnly = new ArrayList<>();
  private final List<Finding> notUnderstood = new ArrayList<>();
  private final List<Finding> dead = new ArrayList<>();
  private List<String> unused = List.of();
  private int unplaced;

  Findings(CartridgeFacts facts) {
    this.facts = facts;
  }

  void count(Content c) {
    counts.merge(c.kind(), 1, Integer::sum);
    if (c.kind() == Kind.TOOL_LINK) {
      hosts.merge(host(c.launch().address()), 1, Integer::sum);
    }
  }

  private static String host(String address) {
    try {
      String host = URI.create(address).getHost();
      return host == null ? address : host;
    } catch (IllegalArgumentException e) {
      return address;
    }
  }

  void instructorsOnly(String title) {
    instructorsOnly.add(title);
  }

  void notUnderstood(String where, String what) {
    notUnderstood.add(new Finding(where, what));
  }

  void dead(String where, String what) {
    dead.add(new Finding(where, what));
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
        unplaced);
  }

  private static List<Finding> atMost(List<Finding> all) {
    if (all.size() <= ReadingReport.MOST_FINDINGS) {
      return List.copyOf(all);
    }
    List<Finding> some = new ArrayList<>(all.subList(0, ReadingReport.MOST_FINDINGS));
    some.add(new Finding("…", all.size() - some.size() + " more of this sort"));
    return List.copyOf(some);
  }
}
