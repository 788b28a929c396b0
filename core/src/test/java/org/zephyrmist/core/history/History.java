package org.zephyrmist.core.history;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.Decisions;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.tree.Tree;

/** One section and its master, through what people do one after the other. */
final class History {
  private final Texts texts = new Texts();
  private final Course course;
  private final Section section;
  private final Oracle oracle = new Oracle();
  private final List<String> told = new ArrayList<>();
  private int words;

  /** How each delivery found and left the shell. */
  private final List<Around> around = new ArrayList<>();

  private record Around(
      List<String> before, List<String> after, Set<String> wordsBefore, Set<String> wordsAfter) {}

  private History(long seed) {
    Random random = new Random(seed);
    course = new Course(random, texts);
    section = new Section(texts, random.nextBoolean());
  }

  /** What was played and what did not hold; nothing if all held. */
  record Broken(int at, List<String> what, List<String> told) {}

  /** Plays until something does not hold. */
  static java.util.Optional<Broken> play(long seed, List<Play> plays) {
    History h = new History(seed);
    for (int i = 0; i < plays.size(); i++) {
      List<String> wrong = h.play(plays.get(i));
      if (!wrong.isEmpty()) {
        return java.util.Optional.of(new Broken(i, wrong, h.told));
      }
    }
    return java.util.Optional.empty();
  }

  private List<String> play(Play p) {
    Random random = new Random(p.seed());
    List<String> wrong = new ArrayList<>();
    switch (p.who()) {
      case INSTRUCTOR -> instructor(random);
      case STUDENT -> student(random);
      case DESIGNER -> course.by(random).edit();
      case FREEZE -> course.freeze();
      case DELIVER -> deliver(random, wrong);
      case TAKE_BACK -> takeBack(random, wrong);
    }
    if (p.who() == Play.Who.DESIGNER || p.who() == Play.Who.FREEZE) {
      told.add(p.who().toString());
    }
    wrong.addAll(oracle.broken(section));
    return wrong;
  }

  private String word() {
    return "i" + words++;
  }

  private void instructor(Random random) {
    List<String> ids = new ArrayList<>(section.shell.keySet());
    int what = random.nextInt(12);
    if (ids.isEmpty() || what == 0) {
      String word = word();
      String in = ids.isEmpty() ? "" : ids.get(random.nextInt(ids.size()));
      boolean module = !in.isEmpty() && section.shell.get(in).kind() == Kind.MODULE;
      String id = section.add(Said.page("Own", "<p>" + word + "</p>", module ? in : ""));
      oracle.wrote(word, id);
      told.add("own page " + id + " says " + word);
      return;
    }
    String id = ids.get(random.nextInt(ids.size()));
    Said s = section.shell.get(id);
    if (s.kind() == Kind.MODULE) {
      section.shell.put(id, s.withShown(!s.shown()));
      told.add("hides or shows " + id);
      return;
    }
    switch (what) {
      case 1 -> {
        if (!oracle.worked(id)) {
          section.shell.remove(id);
          oracle.tookOut(s);
          told.add("takes out " + id + " " + s.title());
        }
      }
      case 2 -> change(id, s.withPoints(1000 + random.nextInt(50)), "other points");
      case 3 -> change(id, s.withDue(1000 + random.nextInt(50)), "another day");
      case 4 -> change(id, s.withShown(!s.shown()), "hidden or shown");
      case 5 -> {
        List<String> modules =
            ids.stream().filter(i -> section.shell.get(i).kind() == Kind.MODULE).toList();
        if (!modules.isEmpty()) {
          change(id, s.standingIn(modules.get(random.nextInt(modules.size()))), "moved");
        }
      }
      case 6 -> {
        String word = word();
        oracle.wrote(word, id);
        change(id, s.withTitle(s.title() + " " + word), "title with " + word);
      }
      default -> {
        String word = word();
        oracle.wrote(word, id);
        change(id, s.withWord(random, word), "text with " + word);
      }
    }
  }

  private void change(String id, Said to, String how) {
    section.shell.put(id, to);
    told.add(how + ": " + id + " " + to);
  }

  private void student(Random random) {
    List<String> ids =
        section.shell.keySet().stream()
            .filter(
                i ->
                    section.shell.get(i).kind() == Kind.ASSIGNMENT
                        || section.shell.get(i).kind() == Kind.DISCUSSION)
            .toList();
    if (!ids.isEmpty() && random.nextInt(3) == 0) {
      String id = ids.get(random.nextInt(ids.size()));
      section.work.merge(id, 1, Integer::sum);
      oracle.left(id);
      told.add("students leave something on " + id);
    }
  }

  private void deliver(Random random, List<String> wrong) {
    Choices.Clash clash =
        random.nextInt(5) > 0
            ? Choices.Clash.KEEP_SECTION
            : Choices.Clash.values()[random.nextInt(Choices.Clash.values().length)];
    Choices c =
        new Choices(clash, Choices.Twin.ADOPT, Choices.Arrival.AS_IN_MASTER, Choices.Dates.ALONG);
    boolean clean = random.nextInt(10) == 0;
    c = clean ? c.with(Choices.Onto.CLEAN) : c;
    Tree version = course.by(random).some();
    boolean together = random.nextInt(3) == 0;
    if (together) {
      Map<Decisions.About, Decisions.Decision> made = new java.util.HashMap<>();
      for (Step s : section.plan(version, c)) {
        if (s.kind() == StepKind.CLASH) {
          made.put(
              new Decisions.About(s.key(), java.util.Optional.empty()),
              Decisions.Decision.of(Decisions.Take.TOGETHER));
        }
      }
      c = c.with(new Decisions(made));
    }
    List<String> before = section.seen();
    Set<String> words = Oracle.there(section);
    List<Step> steps = section.plan(version, c);
    told.add(
        "delivers "
            + clash
            + (clean ? " clean" : "")
            + (together ? " taking both" : "")
            + ": "
            + steps.stream().filter(s -> s.kind() != StepKind.SAME).map(History::brief).toList());
    section.deliver(version, c);
    if (clean || clash != Choices.Clash.KEEP_SECTION) {
      oracle.decided(section);
    } else {
      fixedMayGo(steps);
    }
    around.add(new Around(before, section.seen(), words, Oracle.there(section)));
    for (Step s : section.plan(version, c)) {
      if (s.moves()) {
        wrong.add("delivered again it is not nothing: " + brief(s));
      }
    }
  }

  private static String brief(Step s) {
    List<String> aspects = new ArrayList<>();
    s.aspects()
        .forEach(
            (a, did) -> {
              if (did != Step.AspectStep.SAME) {
                aspects.add(a + " " + did);
              }
            });
    return s.key() + " " + s.kind() + " " + s.reason() + aspects;
  }

  /** What must equal the master is overwritten, and the plan says so. */
  private void fixedMayGo(List<Step> steps) {
    if (steps.stream().anyMatch(Step::overwrites)) {
      Set<String> kept = new java.util.HashSet<>();
      steps.stream().filter(s -> !s.overwrites()).flatMap(s -> s.id().stream()).forEach(kept::add);
      oracle.decidedBut(section, kept);
    }
  }

  private void takeBack(Random random, List<String> wrong) {
    if (section.deliveries.isEmpty()) {
      return;
    }
    int last = section.deliveries.size() - 1;
    Section.Delivered d = section.deliveries.get(last);
    Around a = around.get(last);
    List<String> before = section.seen();
    boolean untouched = before.equals(a.after());
    Choices c =
        new Choices(
            Choices.Clash.KEEP_SECTION,
            Choices.Twin.ADD,
            Choices.Arrival.AS_IN_MASTER,
            Choices.Dates.ALONG);
    List<Step> steps = section.planTakeBack(d, c);
    boolean blocked = steps.stream().anyMatch(s -> s.kind() == StepKind.BLOCKED);
    told.add(
        "takes back: "
            + steps.stream().filter(s -> s.kind() != StepKind.SAME).map(History::brief).toList());
    Set<String> words = Oracle.there(section);
    section.takeBack(d, c);
    if (untouched && !blocked) {
      if (!section.seen().equals(a.before())) {
        wrong.add("taken back it is not as before:\n  " + section.seen() + "\n  " + a.before());
      }
      oracle.again(a.wordsBefore());
    }
    Set<String> brought = new java.util.HashSet<>(a.wordsAfter());
    brought.removeAll(a.wordsBefore());
    oracle.decided(section, brought);
    around.add(new Around(before, section.seen(), words, Oracle.there(section)));
  }

  /** Items of the version that are in a shell, by key; for named histories. */
  Set<ItemKey> holds() {
    return section.bases().keySet();
  }
}
