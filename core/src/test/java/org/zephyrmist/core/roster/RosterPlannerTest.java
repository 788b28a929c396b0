package org.zephyrmist.core.roster;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.roster.Roster.Section;
import org.zephyrmist.core.roster.Roster.Teaching;

class RosterPlannerTest {
  private static final Roster.Term AUTUMN =
      new Roster.Term("au", "Autumn", LocalDate.of(2026, 9, 7), LocalDate.of(2026, 12, 18));
  private static final Roster.Course LIGHT = new Roster.Course("l", "LGT 110", "Light", "light");
  private static final Roster.Course SOUND = new Roster.Course("s", "SND 120", "Sound", "sound");

  private static Section section(String id, String course) {
    return new Section(id, "T", id, course, "north", Optional.of("au"));
  }

  private static Present college(Map<String, Present.Kept> sections) {
    return new Present(
        Map.of("light", "Lighting", "sound", "Sound"),
        Map.of("north", "North"),
        Map.of("au", AUTUMN),
        Map.of("l", LIGHT, "s", SOUND),
        sections,
        Map.of(
            "u1",
            new Present.Teacher("Agnes Pell", true),
            "boss",
            new Present.Teacher("Rosalind", false)),
        Map.of("a@x.example", Optional.of("u1"), "hand@x.example", Optional.empty()));
  }

  private static Present.Kept kept(Section s, String... teachers) {
    Set<Teaching> all = new HashSet<>();
    for (String t : teachers) {
      all.add(new Teaching(s.id(), t, false));
    }
    return new Present.Kept(s, true, all);
  }

  private static Roster full(
      List<Section> sections, List<Teaching> teaching, List<Roster.Course> courses) {
    return new Roster(
        List.of(new Roster.Org("light", "Lighting"), new Roster.Org("sound", "Sound")),
        List.of(new Roster.Org("north", "North")),
        List.of(AUTUMN),
        courses,
        sections,
        List.of(
            new Roster.Person("u1", "Agnes New-Name", "a@x.example", 2),
            new Roster.Person("boss", "Somebody Else", "", 3)),
        teaching,
        Map.of(),
        Map.of(),
        new Roster.Gone(true, true, Set.of(), Set.of()),
        List.of());
  }

  private static RosterPlan plan(Roster r, Present p) {
    return RosterPlanner.plan(r, p, Optional.empty(), 0.2);
  }

  @Test
  void whatIsNewChangedEndedAndTheSameIsTold() {
    Map<String, Present.Kept> was = new HashMap<>();
    was.put("a", kept(section("a", "l"), "u1"));
    was.put("b", kept(section("b", "l"), "u1"));
    was.put("c", kept(section("c", "l"), "u1"));
    Section moved = new Section("b", "Another title", "b", "l", "north", Optional.of("au"));
    RosterPlan p =
        plan(
            full(
                List.of(section("a", "l"), moved, section("d", "l")),
                List.of(new Teaching("a", "u1", false), new Teaching("d", "u1", true)),
                List.of(LIGHT)),
            college(was));
    assertThat(p.added()).extracting(Section::id).containsExactly("d");
    assertThat(p.changed()).extracting(Section::id).containsExactly("b");
    assertThat(p.ended()).containsExactly("c");
    assertThat(p.same()).isEqualTo(1);
    assertThat(p.teach()).containsExactly(new Teaching("d", "u1", true));
    assertThat(p.leave()).containsExactly(new Teaching("b", "u1", false));
    assertThat(p.stripped()).containsExactly("b");
  }

  @Test
  void endingOrStrippingManyIsAskedInSoManyWords() {
    Map<String, Present.Kept> was = new HashMap<>();
    List<Section> all = new ArrayList<>();
    for (int i = 0; i < 10; i++) {
      all.add(section("x" + i, "l"));
      was.put("x" + i, kept(all.get(i), "u1"));
    }
    List<Teaching> teaching = new ArrayList<>();
    all.forEach(s -> teaching.add(new Teaching(s.id(), "u1", false)));
    assertThat(plan(full(all, teaching, List.of(LIGHT)), college(was)).asks()).isEmpty();
    assertThat(plan(full(all.subList(0, 9), teaching, List.of(LIGHT)), college(was)).asks())
        .isEmpty();
    assertThat(plan(full(all.subList(0, 8), teaching, List.of(LIGHT)), college(was)).asks())
        .containsExactly("It ends 2 of 10 sections.");
    assertThat(plan(full(all, List.of(), List.of(LIGHT)), college(was)).asks())
        .containsExactly("It takes every teacher from 10 of 10 sections.");
  }

  @Test
  void aRosterActsWithinReachAndSaysWhatItLeft() {
    Map<String, Present.Kept> was = new HashMap<>();
    was.put("lit", kept(section("lit", "l"), "u1"));
    was.put("snd", kept(section("snd", "s"), "u1"));
    Roster.Course taken = new Roster.Course("l", "LGT 110", "Light, mine now", "sound");
    Roster r =
        full(
            List.of(section("snd2", "s"), section("lit", "s")),
            List.of(new Teaching("lit", "boss", true)),
            List.of(taken, SOUND));
    RosterPlan p = RosterPlanner.plan(r, college(was), Optional.of(Set.of("sound")), 0.2);
    assertThat(p.courses()).isEmpty();
    assertThat(p.added()).extracting(Section::id).containsExactly("snd2");
    assertThat(p.changed()).isEmpty();
    assertThat(p.ended()).containsExactly("snd");
    assertThat(p.people()).isEmpty();
    assertThat(p.teach()).noneMatch(t -> t.section().equals("lit"));
    assertThat(p.remarks())
        .extracting(Roster.Remark::problem)
        .contains("1 course is not in your programs.", "1 section is not in your programs.");
  }

  @Test
  void onlyWhoIsAnInstructorStillIsRenamed() {
    RosterPlan p = plan(full(List.of(), List.of(), List.of()), college(Map.of()));
    assertThat(p.people()).extracting(Roster.Person::id).containsExactly("u1");
  }

  @Test
  void anAddressThatIsAnothersIsToldWithItsLineBeforeAnythingIsTaken() {
    Roster r = full(List.of(section("d", "l")), List.of(), List.of(LIGHT));
    List<Roster.Person> people =
        List.of(
            new Roster.Person("u7", "Same As By Hand", "hand@x.example", 7),
            new Roster.Person("u8", "Second", "hand@x.example", 8),
            new Roster.Person("u9", "Not Agnes", "a@x.example", 9),
            new Roster.Person("u10", "None", "", 10),
            new Roster.Person("u11", "None Either", "", 11));
    List<Teaching> teaching = people.stream().map(p -> new Teaching("d", p.id(), false)).toList();
    RosterPlan p =
        plan(
            new Roster(
                r.programs(),
                r.campuses(),
                r.terms(),
                r.courses(),
                r.sections(),
                people,
                teaching,
                Map.of(),
                Map.of(),
                r.gone(),
                List.of()),
            college(Map.of()));
    assertThat(p.people())
        .extracting(Roster.Person::email)
        .containsExactly("hand@x.example", "", "", "", "");
    assertThat(p.remarks()).extracting(Roster.Remark::line).containsExactly(8L, 9L);
    assertThat(p.remarks())
        .extracting(Roster.Remark::problem)
        .containsExactly(
            "Users u7 and u8 have one address, hand@x.example.",
            "Users u1 and u9 have one address, a@x.example.");
  }

  /** Carries a plan out as the college would. */
  private static Map<String, Present.Kept> after(Present was, RosterPlan p) {
    Map<String, Present.Kept> now = new HashMap<>(was.sections());
    List<Section> put = new ArrayList<>(p.added());
    put.addAll(p.changed());
    p.back()
        .forEach(
            id ->
                put.add(Optional.ofNullable(now.get(id)).map(Present.Kept::section).orElseThrow()));
    for (Section s : p.added()) {
      now.put(s.id(), new Present.Kept(s, true, Set.of()));
    }
    for (Section s : p.changed()) {
      now.put(s.id(), new Present.Kept(s, now.get(s.id()).inRoster(), now.get(s.id()).teaching()));
    }
    for (String id : p.back()) {
      now.put(id, new Present.Kept(now.get(id).section(), true, now.get(id).teaching()));
    }
    for (String id : p.ended()) {
      now.put(id, new Present.Kept(now.get(id).section(), false, now.get(id).teaching()));
    }
    for (String id : List.copyOf(now.keySet())) {
      Set<Teaching> t = new HashSet<>(now.get(id).teaching());
      t.removeIf(x -> p.leave().contains(x) || p.teach().stream().anyMatch(y -> same(x, y)));
      p.teach().stream().filter(x -> x.section().equals(id)).forEach(t::add);
      now.put(id, new Present.Kept(now.get(id).section(), now.get(id).inRoster(), t));
    }
    return now;
  }

  private static boolean same(Teaching x, Teaching y) {
    return x.section().equals(y.section()) && x.person().equals(y.person());
  }

  private static Roster any(Random random) {
    List<Section> sections = new ArrayList<>();
    List<Teaching> teaching = new ArrayList<>();
    for (int i = 0; i < 8; i++) {
      if (random.nextInt(3) > 0) {
        Section s = section("x" + i, random.nextBoolean() ? "l" : "s");
        sections.add(s);
        if (random.nextBoolean()) {
          teaching.add(
              new Teaching(s.id(), random.nextBoolean() ? "u1" : "u2", random.nextBoolean()));
        }
      }
    }
    return full(sections, teaching, List.of(LIGHT, SOUND));
  }

  @Test
  void takenInAgainNothingIsLeftToDo() {
    Laws.hold(
        random -> {
          Present start = college(Map.of());
          Present first = college(after(start, plan(any(random), start)));
          Roster next = any(random);
          Present second = college(after(first, plan(next, first)));
          RosterPlan again = plan(next, second);
          assertThat(again.added()).isEmpty();
          assertThat(again.changed()).isEmpty();
          assertThat(again.back()).isEmpty();
          assertThat(again.ended()).isEmpty();
          assertThat(again.teach()).isEmpty();
          assertThat(again.asks()).isEmpty();
        });
  }
}
