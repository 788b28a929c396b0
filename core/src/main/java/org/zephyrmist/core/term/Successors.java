package org.zephyrmist.core.term;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Which section of the next term follows which of this one: of the same course, one to one, the
 * same instructor first, then the same campus, then in the order of their codes. What a person has
 * said goes before.
 */
public final class Successors {
  private Successors() {}

  /** Why a section follows another, the strongest first. */
  public enum Why {
    BY_HAND,
    INSTRUCTOR_AND_CAMPUS,
    INSTRUCTOR,
    CAMPUS,
    COURSE;

    private boolean fits(TermSection a, TermSection b) {
      boolean campus = a.campus().equals(b.campus());
      return switch (this) {
        case BY_HAND -> false;
        case INSTRUCTOR_AND_CAMPUS -> campus && a.sharesInstructor(b);
        case INSTRUCTOR -> a.sharesInstructor(b);
        case CAMPUS -> campus;
        case COURSE -> true;
      };
    }
  }

  /** A section and the one that follows it. */
  public record Pair(String from, String to, Why why) {}

  /**
   * All sections of both terms, each once.
   *
   * @param pairs by the code of the section that is followed
   * @param without of the earlier term, that nothing follows
   * @param fresh of the later term, that follow nothing
   */
  public record Paired(List<Pair> pairs, List<String> without, List<String> fresh) {}

  /**
   * @param byHand by a section of the earlier term, what follows it; none: nothing does. What names
   *     sections that are not there any more is left out
   */
  public static Paired of(
      List<TermSection> from, List<TermSection> to, Map<String, Optional<String>> byHand) {
    List<TermSection> before = sorted(from);
    List<TermSection> after = sorted(to);
    Map<String, Pair> pairs = new HashMap<>();
    Set<String> taken = new HashSet<>();
    Set<String> there = new HashSet<>();
    after.forEach(s -> there.add(s.id()));
    Set<String> alone = new HashSet<>();
    for (TermSection a : before) {
      Optional<String> said = byHand.getOrDefault(a.id(), Optional.empty());
      if (byHand.containsKey(a.id()) && said.isEmpty()) {
        alone.add(a.id());
      }
      said.filter(there::contains)
          .filter(taken::add)
          .ifPresent(b -> pairs.put(a.id(), new Pair(a.id(), b, Why.BY_HAND)));
    }
    for (Why why : Why.values()) {
      for (TermSection a : before) {
        if (pairs.containsKey(a.id()) || alone.contains(a.id())) {
          continue;
        }
        after.stream()
            .filter(b -> b.course().equals(a.course()) && !taken.contains(b.id()))
            .filter(b -> why.fits(a, b))
            .findFirst()
            .ifPresent(
                b -> {
                  taken.add(b.id());
                  pairs.put(a.id(), new Pair(a.id(), b.id(), why));
                });
      }
    }
    return new Paired(
        before.stream().map(TermSection::id).filter(pairs::containsKey).map(pairs::get).toList(),
        before.stream().map(TermSection::id).filter(a -> !pairs.containsKey(a)).toList(),
        after.stream().map(TermSection::id).filter(b -> !taken.contains(b)).toList());
  }

  private static List<TermSection> sorted(List<TermSection> all) {
    List<TermSection> sorted = new ArrayList<>(all);
    sorted.sort(Comparator.comparing(TermSection::code).thenComparing(TermSection::id));
    return sorted;
  }
}
