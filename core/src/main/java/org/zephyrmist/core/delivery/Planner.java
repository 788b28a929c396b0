package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Step.AspectStep;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.tree.Likeness;
import org.zephyrmist.core.tree.Node;

/** Plans one section. Same input, same plan. */
public final class Planner {
  private final Meant meant;
  private final Map<String, Held> shell = new LinkedHashMap<>();
  private final Map<ItemKey, Base> bases;
  private final Choices choices;
  private final Likeness<Held> likeness;
  private final Alongside alongside;
  private final Map<ItemKey, Held> free = new HashMap<>();

  private Planner(
      Meant meant,
      List<Held> shell,
      Map<ItemKey, Base> bases,
      Choices choices,
      Alongside alongside) {
    this.alongside = alongside;
    this.meant = meant;
    shell.forEach(h -> this.shell.put(h.id(), h));
    this.bases = bases;
    this.choices = choices;
    Set<String> ours = new HashSet<>();
    bases.values().forEach(b -> ours.add(b.id()));
    List<Held> others = shell.stream().filter(h -> h.free() && !ours.contains(h.id())).toList();
    this.likeness = new Likeness<>(others);
    others.forEach(h -> free.put(CleanStart.own(h.id()), h));
  }

  /**
   * The plan of one section.
   *
   * @param meant what is meant for this section
   * @param shell what the shell holds now
   * @param bases what was last delivered, by item key
   * @return one step per item that is meant, in outline order, then one per item to retire
   */
  public static List<Step> plan(
      Meant meant, List<Held> shell, Map<ItemKey, Base> bases, Choices choices) {
    Set<String> there = new HashSet<>();
    shell.forEach(h -> there.add(h.id()));
    boolean emptied = Emptied.is(bases.values(), b -> there.contains(b.id()));
    return plan(meant, shell, bases, choices, emptied, Alongside.NOTHING);
  }

  /**
   * The same, of a line that may have begun.
   *
   * @param bases what counts as delivered, see {@link Emptied#counting}
   * @param emptied whether the shell was emptied before it began
   */
  public static List<Step> plan(
      Meant meant,
      List<Held> shell,
      Map<ItemKey, Base> bases,
      Choices choices,
      boolean emptied,
      Alongside alongside) {
    if (choices.onto() == Choices.Onto.CLEAN) {
      return CleanStart.plan(meant, shell, bases, choices, alongside);
    }
    Planner p = new Planner(meant, shell, bases, choices, alongside);
    return emptied && choices.emptied() != Choices.EmptiedShell.ANEW
        ? p.untouched(Reason.EMPTIED)
        : p.plan();
  }

  /** The step of one item that was delivered before, whatever else the shell holds. */
  static Step one(
      Meant meant, Node m, Base base, Optional<Held> here, Choices choices, Merges merges) {
    Map<ItemKey, Base> alone = Map.of(m.key(), base);
    return new Planner(meant, here.stream().toList(), alone, choices, Alongside.of(merges)).step(m);
  }

  /**
   * The steps of what is meant, without what is to go.
   *
   * @param back of a take back: also modules in which nothing stands, and nobody is asked whether
   *     what has a title alone is what comes back
   */
  static List<Step> coming(
      Meant meant,
      List<Held> shell,
      Map<ItemKey, Base> bases,
      Choices choices,
      Alongside alongside,
      boolean back) {
    return new Planner(meant, shell, bases, choices, alongside).coming(back);
  }

  private List<Step> coming(boolean back) {
    Set<ItemKey> needed = neededModules();
    List<Node> all =
        meant.items().nodes().stream()
            .filter(
                m ->
                    back
                        || m.kind() != Kind.MODULE
                        || needed.contains(m.key())
                        || bases.containsKey(m.key()))
            .toList();
    Map<ItemKey, Step> twins = twins(all, back);
    List<Step> steps = new ArrayList<>();
    all.forEach(m -> steps.add(twins.containsKey(m.key()) ? twins.get(m.key()) : step(m)));
    return steps;
  }

  /**
   * Of what was never delivered here: what says the same is its twin, then what says nearly the
   * same, then what a person said is; of the rest that has its title alone a person is asked.
   */
  private Map<ItemKey, Step> twins(List<Node> all, boolean back) {
    List<Node> fresh =
        all.stream().filter(m -> !bases.containsKey(m.key()) && supplied(m).isEmpty()).toList();
    Map<ItemKey, Step> found = new HashMap<>();
    List<Function<Node, Optional<Step>>> ways =
        List.of(
            m -> named(m).map(s -> twin(m, s, true)).or(() -> told(m, true)),
            m -> perhaps(m).filter(s -> decided(m, s).isPresent()).map(s -> twin(m, s, false)),
            m -> told(m, false).or(() -> likeness.find(m).map(s -> twin(m, s, false))));
    for (Function<Node, Optional<Step>> way : back ? ways.subList(0, 1) : ways) {
      for (Node m : fresh) {
        if (!found.containsKey(m.key())) {
          way.apply(m).ifPresent(s -> found.put(m.key(), s));
        }
      }
    }
    return found;
  }

  /**
   * What says the same, or a module that is called the same. A link from an earlier term may lead
   * to that term's course on the tool's side.
   */
  private Optional<Held> named(Node m) {
    return likeness
        .find(m)
        .filter(
            s ->
                m.kind() == Kind.MODULE
                    || m.saysTheSame(s)
                    || alongside.twins().earlierTerm() && sameWording(m, s));
  }

  private static boolean sameWording(Node m, Held s) {
    return m.aspects().get(Aspect.WORDING).equals(s.aspects().get(Aspect.WORDING));
  }

  /** What a person is asked about. */
  private Optional<Held> perhaps(Node m) {
    return match(m, false).map(t -> free.get(t.there())).or(() -> likeness.find(m));
  }

  private List<Step> plan() {
    List<Step> steps = coming(false);
    Retiring retiring =
        new Retiring(shell, alongside.supplied(), choices.decisions()).after(steps, meant, bases);
    steps.addAll(retiring.steps(Retiring.notMeant(meant, bases.values())));
    return List.copyOf(steps);
  }

  private List<Step> untouched(Reason reason) {
    List<Step> steps = new ArrayList<>();
    for (Node m : meant.items().nodes()) {
      Optional<Held> here = Optional.ofNullable(bases.get(m.key())).map(b -> shell.get(b.id()));
      steps.add(left(m, StepKind.KEEP, here, reason));
    }
    return List.copyOf(steps);
  }

  /** A module is only worth creating if something stands in it. */
  private Set<ItemKey> neededModules() {
    Set<ItemKey> needed = new HashSet<>();
    for (Node n : meant.items().nodes()) {
      if (n.kind() != Kind.MODULE && meant.placed().isEmpty() && !standsElsewhere(n)) {
        meant.items().above(n.key()).forEach(m -> needed.add(m.key()));
      }
    }
    return needed;
  }

  /** Another master's item stands for it, unless a person decided otherwise. */
  private boolean standsElsewhere(Node m) {
    return !bases.containsKey(m.key())
        && supplied(m).filter(s -> s.reason() == Reason.SUPPLIED).isPresent();
  }

  private Optional<Step> supplied(Node m) {
    return alongside.supplied().of(m).map(x -> supplied(m, x));
  }

  private Step supplied(Node m, Supplied.Match match) {
    Held s = match.there();
    Optional<Decisions.Take> decided = decided(m, s);
    if (decided.filter(t -> t == Decisions.Take.ADD).isPresent()) {
      return add(m, Reason.ALIKE_ADDED_BESIDE);
    }
    Reason reason = match.sure() || decided.isPresent() ? Reason.SUPPLIED : Reason.ALIKE_DOUBTFUL;
    return left(m, StepKind.TWIN, Optional.of(s), reason);
  }

  private Optional<Decisions.Take> decided(Node m, Held s) {
    return choices
        .decisions()
        .of(m.key(), m.aspects().differing(s.aspects()), s.aspects(), m.aspects())
        .map(Decisions.Decision::take);
  }

  private Step step(Node m) {
    Base b = bases.get(m.key());
    if (b == null) {
      return supplied(m).orElseGet(() -> add(m, Reason.NEW_IN_VERSION));
    }

    Held s = shell.get(b.id());
    if (s == null) {
      if (m.rule() == EditRule.ADAPTABLE && choices.clash(m.kind()) == Choices.Clash.PUT_BACK) {
        return add(m, Reason.PUT_BACK);
      }
      return m.rule() == EditRule.FIXED
          ? add(m, Reason.FIXED_PUT_BACK)
          : left(m, StepKind.KEEP, Optional.empty(), Reason.REMOVED_HERE);
    }
    return merge(m, b, s);
  }

  private Step merge(Node m, Base b, Held s) {
    ThreeWay three = ThreeWay.of(m, b, s, choices, alongside.merges());
    Map<Aspect, AspectStep> aspects = three.aspects();
    Set<Aspect> writes = EnumSet.noneOf(Aspect.class);
    writes.addAll(three.writes());
    StepKind kind;
    Reason reason;
    if (aspects.containsValue(AspectStep.BLOCKED)) {
      kind = StepKind.BLOCKED;
      reason = Reason.STUDENT_WORK;
      writes.clear();
    } else if (aspects.values().stream().anyMatch(AspectStep::clash)) {
      kind = StepKind.CLASH;
      reason = Reason.BOTH_MOVED;
    } else if (aspects.containsValue(AspectStep.MERGED)) {
      kind = writes.isEmpty() ? StepKind.KEEP : StepKind.UPDATE;
      reason = writes.isEmpty() ? Reason.CHANGED_HERE : Reason.MERGED;
    } else if (!writes.isEmpty()) {
      kind = StepKind.UPDATE;
      Reason back = m.rule() == EditRule.ADAPTABLE ? Reason.PUT_BACK : Reason.FIXED_PUT_BACK;
      boolean hides = writes.stream().anyMatch(m::hides);
      Reason overwritten = hides ? Reason.FIXED_PUT_BACK : back;
      boolean own = writes.stream().anyMatch(a -> !s.aspects().get(a).equals(b.shown().get(a)));
      reason = !own && movedByVersion(m, b, writes) ? Reason.VERSION_MOVED : overwritten;
    } else if (aspects.containsValue(AspectStep.KEEP)) {
      kind = StepKind.KEEP;
      reason =
          m.rule() == EditRule.STARTER
              ? Reason.STARTER_BELONGS_TO_SECTION
              : onlyAccepted(aspects, b) ? Reason.ACCEPTED_HERE : Reason.CHANGED_HERE;
    } else if (aspects.containsValue(AspectStep.LEFT)) {
      kind = StepKind.KEEP;
      reason = Reason.DATES_LEFT;
    } else {
      kind = StepKind.SAME;
      reason = Reason.EQUAL;
    }
    return step(m, kind, Optional.of(s), aspects, writes, reason, three.becomes());
  }

  private static boolean onlyAccepted(Map<Aspect, AspectStep> aspects, Base b) {
    return aspects.entrySet().stream()
        .filter(e -> e.getValue() == AspectStep.KEEP)
        .allMatch(e -> b.accepted().contains(e.getKey()));
  }

  private static boolean movedByVersion(Node m, Base b, Set<Aspect> writes) {
    return writes.stream().anyMatch(a -> !m.aspects().get(a).equals(b.sent().get(a)));
  }

  /** A twin that was found by what it says, unless it has been taken for another. */
  private Optional<Twins.Match> match(Node m, boolean sure) {
    if (m.kind() == Kind.MODULE && !sure) {
      return Optional.empty(); // what stands in it needs a module, whatever a person decides
    }
    return alongside
        .twins()
        .of(m.key())
        .filter(t -> t.sure() == sure && free.containsKey(t.there()));
  }

  private Optional<Step> told(Node m, boolean sure) {
    return match(m, sure).map(t -> twin(m, free.get(t.there()), sure).with(t.evidence()));
  }

  private Step twin(Node m, Held s, boolean sure) {
    Optional<Decisions.Take> decided = decided(m, s);
    Choices.Twin what =
        switch (decided.orElse(Decisions.Take.SECTION)) {
          case ADOPT -> Choices.Twin.ADOPT;
          case ADD -> Choices.Twin.ADD;
          case LEAVE -> Choices.Twin.LEAVE;
          case SECTION, VERSION, TOGETHER, CHANGE_GRADING, HIDE -> choices.twin(m.kind());
        };
    if (m.kind() == Kind.SETUP && what == Choices.Twin.ADD) {
      what = Choices.Twin.ADOPT; // a shell has one for each subject
    }
    if (!sure && decided.isEmpty()) {
      return left(m, StepKind.TWIN, Optional.of(s), Reason.ALIKE_DOUBTFUL);
    }
    if (what != Choices.Twin.ADD) {
      likeness.remove(s); // beside which ours is added may still be another's
      free.remove(CleanStart.own(s.id()));
    }
    return switch (what) {
      case ADOPT -> adopt(m, s);
      case LEAVE -> left(m, StepKind.TWIN, Optional.of(s), Reason.ALIKE_LEFT);
      case ADD -> add(m, Reason.ALIKE_ADDED_BESIDE);
    };
  }

  /**
   * Nothing is written but what is fixed, which must equal the master at once, and what an earlier
   * term left: its dates and tool ties are not the section's wishes.
   */
  private Step adopt(Node m, Held s) {
    EnumSet<Aspect> writes = EnumSet.noneOf(Aspect.class);
    boolean earlier = false;
    for (Aspect a : m.aspects().differing(s.aspects())) {
      boolean work = a == Aspect.GRADING && s.studentWork();
      boolean left = alongside.twins().earlierTerm() && (a == Aspect.TIMING || a == Aspect.LAUNCH);
      boolean back =
          choices.clash(m.kind()) == Choices.Clash.PUT_BACK
              && m.rule() == EditRule.ADAPTABLE
              && !Aspect.OF_THE_SECTION.contains(a);
      if ((m.rule(a) == EditRule.FIXED || left || back) && !work && !choices.leaves(a)) {
        writes.add(a);
        earlier |= left;
      }
    }
    Reason reason = earlier ? Reason.ALIKE_EARLIER_TERM : Reason.ALIKE_ADOPTED;
    return step(m, StepKind.TWIN, Optional.of(s), Map.of(), writes, reason);
  }

  private Step add(Node m, Reason reason) {
    if (!meant.hasPlace(m.key())) {
      return left(m, StepKind.BLOCKED, Optional.empty(), Reason.NO_PLACE);
    }
    if (meant.withoutWeek().contains(m.key())) {
      return left(m, StepKind.BLOCKED, Optional.empty(), Reason.NO_WEEK);
    }
    Set<Aspect> all = EnumSet.allOf(Aspect.class);
    return step(m, StepKind.ADD, Optional.empty(), Map.of(), all, reason);
  }

  private Step left(Node m, StepKind kind, Optional<Held> s, Reason reason) {
    return step(m, kind, s, Map.of(), Set.of(), reason);
  }

  /** Nothing is done with anything that is meant. */
  static List<Step> untouched(
      Meant meant, List<Held> shell, Map<ItemKey, Base> bases, Choices choices, Reason reason) {
    return new Planner(meant, shell, bases, choices, Alongside.NOTHING).untouched(reason);
  }

  /** The item becomes the version's in what is written and stays as it is here in the rest. */
  private Step step(
      Node m,
      StepKind kind,
      Optional<Held> s,
      Map<Aspect, AspectStep> aspects,
      Set<Aspect> writes,
      Reason reason) {
    return step(m, kind, s, aspects, writes, reason, m.aspects());
  }

  /**
   * @param written what the aspects that are written become
   */
  private Step step(
      Node m,
      StepKind kind,
      Optional<Held> s,
      Map<Aspect, AspectStep> aspects,
      Set<Aspect> writes,
      Reason reason,
      Fingerprints written) {
    Optional<Fingerprints> here = s.map(Held::aspects);
    Optional<Fingerprints> becomes =
        kind == StepKind.ADD
            ? Optional.of(meant.arriving(m.key(), choices.arriving(m.aspects())))
            : here.map(h -> h.with(writes, written));
    Optional<Fingerprints> base = Optional.ofNullable(bases.get(m.key())).map(Base::shown);
    Sides sides = new Sides(base, here, Optional.of(m.aspects()), becomes);
    return new Step(
        m.key(),
        m.kind(),
        m.title(),
        kind,
        s.flatMap(Supplied::id),
        aspects,
        writes,
        reason,
        sides);
  }
}
