package org.zephyrmist.core.tool;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zephyrmist.core.tool.Seen.Tie;

/**
 * Which sections are tied to which courses on a tool's side, and what speaks against it: a course
 * has one section's students, and those of one term.
 */
public final class Ties {
  /**
   * A section and its course there.
   *
   * @param course as the tool calls it; empty if there is none
   */
  public record Tied(String section, String term, String course) {}

  private final Set<String> masters;
  private final Map<String, Set<String>> sections = new HashMap<>();
  private final Map<String, Set<String>> terms = new HashMap<>();

  /**
   * @param all sections of every term that are tied to a course of this tool
   * @param masters courses that the tool's masters are kept in
   */
  public Ties(List<Tied> all, Set<String> masters) {
    this.masters = Set.copyOf(masters);
    for (Tied t : all) {
      sections.computeIfAbsent(t.course(), c -> new HashSet<>()).add(t.section());
      terms.computeIfAbsent(t.course(), c -> new HashSet<>()).add(t.term());
    }
  }

  /** What is to be said of a section's tie; the worst, if several things are. */
  public Tie of(Tied t) {
    if (t.course().isEmpty()) {
      return Tie.NONE;
    }
    if (masters.contains(t.course())) {
      return Tie.MASTERS;
    }
    if (terms.getOrDefault(t.course(), Set.of()).stream().anyMatch(x -> !x.equals(t.term()))) {
      return Tie.OTHER_TERM;
    }
    boolean others =
        sections.getOrDefault(t.course(), Set.of()).stream().anyMatch(x -> !x.equals(t.section()));
    return others ? Tie.SHARED : Tie.OWN;
  }
}
