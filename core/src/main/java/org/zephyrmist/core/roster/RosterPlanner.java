package org.zephyrmist.core.roster;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.zephyrmist.core.roster.Roster.Remark;

/** Compares a roster with the college as it is. Same input, same plan. */
public final class RosterPlanner {
  /** The program of courses that name none. */
  public static final String COLLEGE = "college";

  private final Roster roster;
  private final Present present;
  private final Optional<Set<String>> reach;
  private final double share;
  private final List<Remark> remarks;
  private final Map<String, Integer> beyond = new TreeMap<>();

  private RosterPlanner(Roster roster, Present present, Optional<Set<String>> reach, double share) {
    this.roster = roster;
    this.present = present;
    this.reach = reach;
    this.share = share;
    this.remarks = new ArrayList<>(roster.remarks());
  }

  /**
   * @param reach programs that whoever brings the roster may change; none for all of them
   * @param share of the sections of its terms, from 0 to 1, from which ending, stripping or
   *     changing them has to be confirmed in so many words
   */
  public static RosterPlan plan(
      Roster roster, Present present, Optional<Set<String>> reach, double share) {
    return new RosterPlanner(roster, present, reach, share).plan();
  }

  private RosterPlan plan() {
    Map<String, Roster.Course> courses = courses();
    List<Roster.Course> changedCourses =
        courses.values().stream().filter(c -> !c.equals(present.courses().get(c.id()))).toList();
    List<Roster.Section> added = new ArrayList<>();
    List<Roster.Section> changed = new ArrayList<>();
    Set<String> back = new TreeSet<>();
    int same = 0;
    for (Roster.Section s : roster.sections()) {
      Present.Kept kept = present.sections().get(s.id());
      if (!mine(s, kept, courses)) {
        beyond.merge("section", 1, Integer::sum);
      } else if (kept == null) {
        added.add(s);
      } else {
        if (!kept.inRoster()) {
          back.add(s.id());
        }
        if (!kept.section().equals(s)) {
          changed.add(s);
        } else {
          same += kept.inRoster() ? 1 : 0;
        }
      }
    }
    Set<String> ended = ended();
    Set<String> taken = new HashSet<>();
    added.forEach(s -> taken.add(s.id()));
    present.sections().keySet().stream()
        .filter(id -> mine(present.sections().get(id)))
        .forEach(taken::add);
    TeachingPlan teaching = TeachingPlan.of(roster, present, taken, ended);
    Map<String, Integer> students = new TreeMap<>(roster.students());
    students.keySet().retainAll(taken);
    Map<String, Roster.Part> parts = new TreeMap<>(roster.parts());
    parts.keySet().retainAll(taken);
    List<Roster.Org> programs = orgs(roster.programs(), present.programs(), "program");
    List<Roster.Org> campuses = orgs(roster.campuses(), present.campuses(), "campus");
    List<Roster.Term> terms = terms();
    List<Roster.Person> people =
        new PeoplePlanner(roster, present, remarks).people(teaching.teach(), reach.isEmpty());
    tellBeyond();
    return new RosterPlan(
        programs,
        campuses,
        terms,
        changedCourses,
        List.copyOf(added),
        List.copyOf(changed),
        back,
        ended,
        same,
        people,
        teaching.teach(),
        teaching.leave(),
        teaching.stripped(),
        students,
        parts,
        List.copyOf(remarks),
        asks(ended, teaching.stripped(), changed));
  }

  private boolean reaches(String program) {
    return reach.isEmpty() || reach.get().contains(program);
  }

  /** Courses that may be brought in or changed: neither in another's program now nor before. */
  private Map<String, Roster.Course> courses() {
    Map<String, Roster.Course> mine = new TreeMap<>();
    for (Roster.Course c : roster.courses()) {
      boolean known =
          roster.programs().stream().anyMatch(p -> p.id().equals(c.program()))
              || present.programs().containsKey(c.program());
      Roster.Course to = known ? c : new Roster.Course(c.id(), c.code(), c.title(), COLLEGE);
      Roster.Course was = present.courses().get(c.id());
      if (reaches(to.program()) && (was == null || reaches(was.program()))) {
        mine.put(to.id(), to);
      } else {
        beyond.merge("course", 1, Integer::sum);
      }
    }
    return mine;
  }

  private boolean mine(Roster.Section s, Present.Kept kept, Map<String, Roster.Course> courses) {
    Roster.Course course = courses.getOrDefault(s.course(), present.courses().get(s.course()));
    return course != null && reaches(course.program()) && (kept == null || mine(kept));
  }

  private boolean mine(Present.Kept kept) {
    Roster.Course course = present.courses().get(kept.section().course());
    return reach.isEmpty() || course != null && reaches(course.program());
  }

  private Set<String> ended() {
    Set<String> listed = new HashSet<>();
    roster.sections().forEach(s -> listed.add(s.id()));
    Set<String> told = new HashSet<>();
    roster.terms().forEach(t -> told.add(t.id()));
    Set<String> ended = new TreeSet<>();
    present
        .sections()
        .forEach(
            (id, kept) -> {
              boolean vanished =
                  roster.gone().otherSections()
                      && !listed.contains(id)
                      && kept.term().filter(told::contains).isPresent();
              if (kept.inRoster()
                  && (vanished || roster.gone().sections().contains(id))
                  && mine(kept)) {
                ended.add(id);
              }
            });
    return ended;
  }

  /** What many programs share may be added by everybody and changed by who reaches all. */
  private List<Roster.Org> orgs(List<Roster.Org> told, Map<String, String> known, String kind) {
    List<Roster.Org> all = new ArrayList<>();
    for (Roster.Org o : told) {
      String name = known.get(o.id());
      boolean may = reach.isEmpty() || kind.equals("campus") && name == null;
      if (!o.name().equals(name)) {
        if (may) {
          all.add(o);
        } else {
          beyond.merge(kind, 1, Integer::sum);
        }
      }
    }
    return all;
  }

  private List<Roster.Term> terms() {
    List<Roster.Term> all = new ArrayList<>();
    for (Roster.Term t : roster.terms()) {
      Roster.Term known = present.terms().get(t.id());
      if (!t.equals(known)) {
        if (known == null || reach.isEmpty()) {
          all.add(t);
        } else {
          beyond.merge("term", 1, Integer::sum);
        }
      }
    }
    return all;
  }

  private void tellBeyond() {
    beyond.forEach(
        (kind, n) ->
            remarks.add(
                new Remark(
                    "",
                    0,
                    "",
                    (n == 1 ? "1 " + kind + " is" : n + " " + plural(kind) + " are")
                        + " not in your programs.",
                    "It was left as it is; an administrator can take the whole bundle in.")));
  }

  private static String plural(String kind) {
    return kind.endsWith("s") ? kind + "es" : kind + "s";
  }

  private List<String> asks(Set<String> ended, Set<String> stripped, List<Roster.Section> changed) {
    Set<String> told = new HashSet<>();
    roster.terms().forEach(t -> told.add(t.id()));
    long all =
        present.sections().values().stream()
            .filter(k -> k.inRoster() && mine(k))
            .filter(k -> k.term().filter(told::contains).isPresent())
            .count();
    List<String> asks = new ArrayList<>();
    ask(asks, ended.size(), all, "It ends %d of %d sections.");
    ask(asks, stripped.size(), all, "It takes every teacher from %d of %d sections.");
    ask(asks, changed.size(), all, "It changes %d of %d sections.");
    return asks;
  }

  private void ask(List<String> asks, int n, long all, String words) {
    if (n > 0 && n >= all * share) {
      asks.add(words.formatted(n, Math.max(n, all)));
    }
  }
}
