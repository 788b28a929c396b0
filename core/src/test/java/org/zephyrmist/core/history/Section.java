package org.zephyrmist.core.history;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Alongside;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.CleanStart;
import org.zephyrmist.core.delivery.Emptied;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Parts;
import org.zephyrmist.core.delivery.Planner;
import org.zephyrmist.core.delivery.Receipt;
import org.zephyrmist.core.delivery.Sides;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.delivery.Supplied;
import org.zephyrmist.core.delivery.TakeBack;
import org.zephyrmist.core.delivery.Twins;
import org.zephyrmist.core.tree.Tree;

/** A section: its shell on a platform, what the ledger has of it, and what was delivered to it. */
final class Section {
  /** What stands in a shell under one of the platform's ids; “in” is such an id too. */
  final Map<String, Said> shell = new LinkedHashMap<>();

  /** What students left, by the platform's ids. */
  final Map<String, Integer> work = new HashMap<>();

  final List<Delivered> deliveries = new ArrayList<>();
  private final Map<ItemKey, Base> bases = new LinkedHashMap<>();
  private final Texts texts;
  private final boolean tidies;
  private int next;

  /**
   * @param tidies whether the platform writes texts in another way than they come
   */
  Section(Texts texts, boolean tidies) {
    this.texts = texts;
    this.tidies = tidies;
  }

  /** A delivery as it was carried out, and what had been delivered before. */
  record Delivered(List<Step> steps, Map<ItemKey, Base> before, Map<ItemKey, Base> after) {
    TakeBack back(Texts texts) {
      Map<ItemKey, Step> moved = new TreeMap<>();
      steps.stream().filter(Step::moves).forEach(s -> moved.put(s.key(), s));
      Set<ItemKey> keys = new java.util.TreeSet<>(moved.keySet());
      before.forEach((k, b) -> add(keys, k));
      after.forEach((k, b) -> add(keys, k));
      return new TakeBack(
          keys.stream()
              .map(
                  k ->
                      new TakeBack.Done(
                          k,
                          Optional.ofNullable(moved.get(k)),
                          Optional.ofNullable(before.get(k)),
                          Optional.ofNullable(moved.get(k)).flatMap(s -> stood(s, texts))))
              .toList());
    }

    private void add(Set<ItemKey> keys, ItemKey k) {
      if (!Optional.ofNullable(before.get(k)).equals(Optional.ofNullable(after.get(k)))) {
        keys.add(k);
      }
    }

    private static Optional<ItemKey> stood(Step s, Texts texts) {
      return s.sides()
          .here()
          .map(h -> texts.of(h.get(Aspect.PLACE)))
          .filter(in -> !in.isEmpty())
          .map(ItemKey::new);
    }
  }

  String add(Said s) {
    String id = "p" + next++;
    shell.put(id, s);
    return id;
  }

  boolean ours(String id) {
    return bases.values().stream().anyMatch(b -> b.id().equals(id));
  }

  Optional<Base> base(String id) {
    return bases.values().stream().filter(b -> b.id().equals(id)).findFirst();
  }

  Map<ItemKey, Base> bases() {
    return Map.copyOf(bases);
  }

  /** The shell as it is read. */
  List<Held> read() {
    Map<String, ItemKey> keys = new HashMap<>();
    bases.forEach((k, b) -> keys.put(b.id(), k));
    List<Held> all = new ArrayList<>();
    shell.forEach(
        (id, s) ->
            all.add(
                new Held(
                    id,
                    s.kind(),
                    s.title(),
                    Optional.of(s.in()).filter(in -> !in.isEmpty()),
                    aspects(s, keys),
                    work.getOrDefault(id, 0) > 0,
                    !keys.containsKey(id))));
    return all;
  }

  private Fingerprints aspects(Said s, Map<String, ItemKey> keys) {
    String in = s.in();
    if (!in.isEmpty()) {
      ItemKey k = keys.get(in);
      in = (k == null ? CleanStart.own(in) : k).value();
    }
    return s.standingIn(in).aspects(texts);
  }

  boolean emptied() {
    return Emptied.is(bases.values(), b -> shell.containsKey(b.id()));
  }

  List<Step> plan(Tree version, Choices choices) {
    Choices c = choices.onto().anew() ? choices.with(Choices.EmptiedShell.ANEW) : choices;
    Map<ItemKey, Base> given =
        Emptied.counting(bases, b -> shell.containsKey(b.id()), c, emptied());
    return Planner.plan(
        new Meant(version, Parts.EVERYTHING),
        read(),
        given,
        c,
        emptied(),
        new Alongside(Twins.NONE, Supplied.NOTHING, texts.merges()));
  }

  void deliver(Tree version, Choices choices) {
    carryOut(plan(version, choices), Optional.empty());
  }

  List<Step> planTakeBack(Delivered d, Choices choices) {
    TakeBack back = d.back(texts);
    List<Held> shell = read();
    Map<ItemKey, Base> some = back.concerned(bases, shell);
    return back.plan(back.meant(shell, some), shell, bases, choices, Set.of());
  }

  void takeBack(Delivered d, Choices choices) {
    carryOut(planTakeBack(d, choices), Optional.of(d.back(texts)));
  }

  private void carryOut(List<Step> steps, Optional<TakeBack> back) {
    Map<ItemKey, Base> before = Map.copyOf(bases);
    Map<ItemKey, String> ids = new HashMap<>();
    bases.forEach((k, b) -> ids.put(k, b.id()));
    for (Step s : steps) {
      if (s.moves()) {
        write(s, ids);
      } else {
        s.id().ifPresent(id -> ids.put(s.key(), id));
      }
    }
    Map<String, ItemKey> keys = new HashMap<>();
    ids.forEach((k, id) -> keys.put(id, k));
    List<Step> done = new ArrayList<>();
    for (Step s : steps) {
      String id = ids.get(s.key());
      Optional<Held> now = Optional.ofNullable(id).map(shell::get).map(x -> held(id, x, keys));
      Optional<Base> old = Optional.ofNullable(bases.get(s.key()));
      Optional<Receipt> r = Receipt.of(s, now, true, old);
      back.map(b -> b.noted(s, r, old)).orElse(r).ifPresent(this::note);
      done.add(now.filter(h -> s.moves()).map(h -> became(s, h)).orElse(s));
    }
    deliveries.add(new Delivered(done, before, Map.copyOf(bases)));
  }

  private Held held(String id, Said s, Map<String, ItemKey> keys) {
    return new Held(
        id, s.kind(), s.title(), Optional.empty(), aspects(s, keys), work.containsKey(id), false);
  }

  /** As it is kept: with the platform's id, and as the shell shows it. */
  private static Step became(Step s, Held now) {
    Sides sides = s.sides();
    Optional<Fingerprints> becomes = sides.becomes().map(b -> now.aspects());
    return new Step(
        s.key(),
        s.itemKind(),
        s.title(),
        s.kind(),
        Optional.of(now.id()),
        s.aspects(),
        s.writes(),
        s.reason(),
        new Sides(sides.base(), sides.here(), sides.version(), becomes),
        s.evidence());
  }

  private void write(Step s, Map<ItemKey, String> ids) {
    if (s.kind() == StepKind.RETIRE) {
      shell.remove(s.id().orElseThrow());
      return;
    }
    Said said = Said.of(s.itemKind(), s.sides().becomes().orElseThrow(), texts);
    String in = said.in();
    if (!in.isEmpty()) {
      String parent = ids.get(new ItemKey(in));
      String own = in.startsWith("own.") ? in.substring(4) : "";
      said =
          said.standingIn(
              parent != null && shell.containsKey(parent)
                  ? parent
                  : shell.containsKey(own) ? own : "");
    }
    if (tidies && s.writes().contains(Aspect.WORDING)) {
      said = said.withHtml(said.html().replace("<b>", "<strong>").replace("</b>", "</strong>"));
    }
    String id = s.id().orElseGet(() -> "p" + next++);
    shell.put(id, said);
    ids.put(s.key(), id);
  }

  private void note(Receipt r) {
    if (r.how().ends()) {
      bases.remove(r.base().key());
    } else {
      bases.put(r.base().key(), r.base());
    }
  }

  /** What a person sees there, whatever the platform calls it: each item with its module's name. */
  List<String> seen() {
    return shell.values().stream()
        .map(
            s -> {
              String in = shell.containsKey(s.in()) ? shell.get(s.in()).title() : "";
              return s.standingIn(in).toString();
            })
        .sorted()
        .toList();
  }
}
