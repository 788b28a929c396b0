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
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * Taking back what a delivery did in one section: an ordinary plan, whose version is what was there
 * before. What it wrote becomes as it was, what it added goes, what it removed comes again; and
 * what was changed since is kept, or asked about, by the same rules as ever. The ledger then says
 * what it said before.
 */
public final class TakeBack {
  private final Map<ItemKey, Done> done = new LinkedHashMap<>();

  /**
   * What the delivery did with one item.
   *
   * @param step as it was carried out, and what the item became by it as the shell showed it; none
   *     if only the ledger noted something of the item
   * @param before what had been delivered of it until then
   * @param parent the module in which it stood before
   */
  public record Done(
      ItemKey key, Optional<Step> step, Optional<Base> before, Optional<ItemKey> parent) {
    /** As it was before; nothing if it was not there. */
    private Optional<Fingerprints> was() {
      return step.flatMap(s -> s.sides().here());
    }

    /**
     * What it wrote, as it left it. Where the shell still shows what the ledger has, that is how it
     * left it, whatever was noted of the step.
     */
    private Base left(Base b, Optional<Held> now) {
      Set<Aspect> wrote = new HashSet<>(wrote());
      wrote.removeAll(Receipt.unfinished(b, wrote));
      now.ifPresent(h -> wrote.removeIf(a -> h.aspects().get(a).equals(b.shown().get(a))));
      return step.flatMap(s -> s.sides().becomes()).map(l -> b.asLeft(wrote, l)).orElse(b);
    }

    private Set<Aspect> wrote() {
      return step.map(Step::writes).orElse(Set.of());
    }

    /** It was another master's, and what this one's says came into it. */
    private boolean joined() {
      return step.filter(s -> s.kind() == StepKind.UPDATE || s.kind() == StepKind.CLASH)
          .isPresent();
    }

    private boolean tookOut() {
      return step.filter(s -> s.kind() == StepKind.RETIRE).isPresent();
    }

    private boolean cameWithIt() {
      return step.filter(s -> s.kind() == StepKind.ADD).isPresent();
    }

    /** What came again with it of a section's own, of which no ledger knows. */
    private Optional<Retiring.Leaving> own(Map<String, Held> shell) {
      return step.filter(s -> cameWithIt() && before.isEmpty())
          .flatMap(s -> s.id().map(shell::get))
          .filter(Held::free)
          .map(
              h ->
                  new Retiring.Leaving(
                      key,
                      h.kind(),
                      h.title(),
                      h.id(),
                      step.flatMap(s -> s.sides().becomes()),
                      false,
                      Reason.GONE_FROM_VERSION));
    }
  }

  public TakeBack(List<Done> done) {
    done.forEach(d -> this.done.put(d.key(), d));
  }

  /** The items it is about. */
  public Set<ItemKey> keys() {
    return done.keySet();
  }

  /**
   * Of what the section holds, what this is about, as the delivery left it: whether anybody changed
   * it since is told by that, whatever of it was the section's own. What the delivery took out
   * counts as never there, and what was accepted is no reason here.
   */
  public Map<ItemKey, Base> concerned(Map<ItemKey, Base> bases, List<Held> shell) {
    Map<String, Held> there = new HashMap<>();
    shell.forEach(h -> there.put(h.id(), h));
    Map<ItemKey, Base> some = new HashMap<>(bases);
    some.keySet().retainAll(done.keySet());
    some.values().removeIf(b -> done.get(b.key()).tookOut() && !there.containsKey(b.id()));
    some.replaceAll((k, b) -> done.get(k).left(b.plain(), Optional.ofNullable(there.get(b.id()))));
    return some;
  }

  /**
   * The items as they are to be: as they were before, in what the delivery wrote.
   *
   * @param bases what was last delivered, of the concerned
   */
  public Meant meant(List<Held> shell, Map<ItemKey, Base> bases) {
    Map<String, Held> byId = new HashMap<>();
    shell.forEach(h -> byId.put(h.id(), h));
    Map<ItemKey, Node> nodes = new LinkedHashMap<>();
    for (Done d : done.values()) {
      Optional<Base> base = Optional.ofNullable(bases.get(d.key()));
      wanted(d, base, base.map(b -> byId.get(b.id()))).ifPresent(n -> nodes.put(d.key(), n));
    }
    return new Meant(Tree.of(standing(nodes)), Parts.only(done.keySet()));
  }

  /** What of it has gone meanwhile is meant as well: the planner says that it was removed. */
  private static Optional<Node> wanted(Done d, Optional<Base> base, Optional<Held> now) {
    if (d.cameWithIt()) {
      return Optional.empty();
    }
    Optional<Fingerprints> was = d.was();
    if (base.isEmpty()) {
      return was.filter(w -> d.tookOut()).map(w -> node(d, w));
    }
    Fingerprints here = now.map(Held::aspects).orElse(base.get().shown());
    return Optional.of(node(d, was.map(w -> here.with(d.wrote(), w)).orElse(here)));
  }

  private static Node node(Done d, Fingerprints a) {
    return new Node(
        d.key(),
        d.step().map(Step::itemKind).orElseGet(() -> d.before().orElseThrow().kind()),
        d.before().map(Base::title).orElseGet(() -> d.step().orElseThrow().title()),
        d.parent(),
        Rank.nth(0),
        EditRule.ADAPTABLE,
        Visibility.SHOWN,
        AppliesTo.EVERY_SECTION,
        a);
  }

  /** Each in its module if that is among them, and in no circle. */
  private static List<Node> standing(Map<ItemKey, Node> nodes) {
    List<Node> all = new ArrayList<>();
    for (Node n : nodes.values()) {
      Set<ItemKey> above = new HashSet<>(Set.of(n.key()));
      Optional<ItemKey> up = n.parent();
      while (up.isPresent() && nodes.containsKey(up.get()) && above.add(up.get())) {
        up = nodes.get(up.get()).parent();
      }
      boolean fits =
          n.parent().filter(nodes::containsKey).isPresent()
              && up.filter(nodes::containsKey).isEmpty();
      all.add(fits ? n : n.standingAt(Optional.empty()));
    }
    return all;
  }

  /**
   * The plan.
   *
   * @param theirs the platform's ids of all items that any other master has there
   */
  public List<Step> plan(
      Meant meant,
      List<Held> shell,
      Map<ItemKey, Base> bases,
      Choices choices,
      Set<String> theirs) {
    Map<ItemKey, Base> some = concerned(bases, shell);
    List<Step> steps =
        new ArrayList<>(Planner.coming(meant, shell, some, choices, Alongside.NOTHING, true));
    Map<String, Held> byId = new LinkedHashMap<>();
    shell.forEach(h -> byId.put(h.id(), h));
    List<Retiring.Leaving> leaving =
        new ArrayList<>(
            Retiring.notMeant(meant, some.values()).stream()
                .filter(l -> done.get(l.key()).cameWithIt())
                .toList());
    done.values().stream()
        .filter(d -> !some.containsKey(d.key()))
        .forEach(d -> d.own(byId).ifPresent(leaving::add));
    steps.addAll(
        new Retiring(byId, Supplied.by(List.of(), List.of(), theirs), choices.decisions())
            .after(steps, meant, some)
            .steps(leaving));
    return steps.stream().map(TakeBack::told).toList();
  }

  private static Step told(Step s) {
    return switch (s.reason()) {
      case NEW_IN_VERSION, VERSION_MOVED, GONE_FROM_VERSION, FIXED_PUT_BACK ->
          s.because(Reason.TAKEN_BACK);
      default -> s;
    };
  }

  /**
   * What the ledger notes of a step of this plan: the item's base is again what it was before the
   * delivery, but for what was written just now, which starts from what the shell shows.
   *
   * @param noted what it would note of any other step
   * @param base what was last delivered of the item
   */
  public Optional<Receipt> noted(Step s, Optional<Receipt> noted, Optional<Base> base) {
    Done d = done.get(s.key());
    if (d == null) {
      return noted;
    }
    if (s.kind() == StepKind.RETIRE) {
      return d.before().map(b -> new Receipt(b, Receipt.How.KEPT, Set.of())).or(() -> noted);
    }
    boolean adopted = d.step().filter(Step::adopts).isPresent();
    if (adopted && d.before().isPresent()) { // what was delivered then was gone from the shell
      return d.before()
          .filter(b -> base.filter(b::equals).isEmpty())
          .map(b -> new Receipt(b, Receipt.How.KEPT, s.writes()));
    }
    if (d.before().isEmpty() && d.joined()) {
      return noted
          .map(Receipt::base)
          .or(() -> base)
          .map(b -> new Receipt(b, Receipt.How.GIVEN_BACK, s.writes()));
    }
    if (d.before().isEmpty()) {
      return adopted
          ? base.map(b -> new Receipt(b, Receipt.How.GIVEN_BACK, s.writes()))
          : Optional.empty();
    }
    Base before = d.before().get();
    Fingerprints shown = before.shown();
    Optional<Base> after = noted.map(Receipt::base);
    for (Aspect a : after.isPresent() ? s.writes() : EnumSet.noneOf(Aspect.class)) {
      boolean asDelivered = d.was().map(w -> w.get(a).equals(before.shown().get(a))).orElse(true);
      shown = asDelivered ? shown.with(a, after.get().shown().get(a)) : shown;
    }
    Fingerprints sent = before.sent();
    Set<Aspect> again = noted.map(Receipt::unfinished).orElse(Set.of());
    if (after.isPresent()) {
      sent = sent.with(again, after.get().sent());
      shown = shown.with(again, after.get().shown());
    }
    String id = after.or(() -> base).map(Base::id).orElse(before.id());
    Base back =
        new Base(
            s.key(),
            before.kind(),
            before.title(),
            id,
            sent,
            shown,
            base.map(Base::accepted).orElse(Set.of()));
    return base.filter(back::equals).isPresent() && s.writes().isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Receipt(back, noted.map(Receipt::how).orElse(Receipt.How.KEPT), s.writes()));
  }
}
