package org.zephyrmist.core.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.TextEdits;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.CleanStart;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Sides;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.Step.AspectStep;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.delivery.StepKind;

/**
 * What an edit does in one shell: an ordinary plan, made from what the shell holds now. Made again
 * after it was carried out, it does nothing. Items on which students have handed in work are never
 * removed.
 */
public final class Edits {
  private final List<InShell> shell;
  private final Edit edit;
  private final ShellNames names;
  private final Function<String, Optional<String>> idOf;
  private final Map<String, InShell> byId = new LinkedHashMap<>();
  private final Map<Optional<String>, List<InShell>> below = new HashMap<>();
  private final Set<String> reached = new HashSet<>();
  private final Map<Subject, Integer> called = new HashMap<>();
  private final Map<ItemKey, Integer> keys = new HashMap<>();
  private final Map<String, Aspects> changed = new LinkedHashMap<>();
  private final Set<String> gone = new HashSet<>();

  /**
   * A plan.
   *
   * @param forms of all that it writes
   */
  public record Edited(List<Step> steps, List<String> forms) {}

  private Edits(List<InShell> shell, Edit edit, Function<String, Optional<String>> idOf) {
    this.shell = shell;
    this.edit = edit;
    this.idOf = idOf;
    Map<String, List<Given>> given = new HashMap<>();
    shell.forEach(
        i -> {
          byId.put(i.id(), i);
          given.put(i.id(), i.given());
        });
    shell.forEach(
        i ->
            below
                .computeIfAbsent(
                    i.held().parent().filter(byId::containsKey), k -> new ArrayList<>())
                .add(i));
    reach(Optional.empty());
    shell.forEach(i -> called.merge(i.subject(), 1, Integer::sum));
    called.keySet().forEach(s -> keys.merge(plain(s), 1, Integer::sum));
    this.names = new ShellNames(given);
  }

  /**
   * @param shell in the order of the platform
   * @param idOf the platform's id of the item that an address of this shell means; none for any
   *     other address
   */
  public static Edited plan(
      List<InShell> shell, Edit edit, Function<String, Optional<String>> idOf) {
    return new Edits(shell, edit, idOf).plan();
  }

  /** What stands in a circle of modules is left alone. */
  private void reach(Optional<String> in) {
    for (InShell i : below.getOrDefault(in, List.of())) {
      reached.add(i.id());
      reach(Optional.of(i.id()));
    }
  }

  /**
   * The same in all shells where the item is called the same, unless two are in this one. Two
   * masters may each have brought what they share.
   */
  private ItemKey key(InShell i) {
    Subject s = i.subject();
    if (called.get(s) > 1) {
      return CleanStart.own(i.id());
    }
    return keys.get(plain(s)) > 1 ? ItemKey.named(s.text()) : plain(s);
  }

  private static ItemKey plain(Subject s) {
    return s.given().map(Given::key).orElseGet(() -> ItemKey.named(s.text()));
  }

  private Edited plan() {
    switch (edit.what()) {
      case PUT_BACK -> {
        return new Edited(putBack(), List.of());
      }
      case REMOVE -> each(i -> gone.add(i.id()));
      case UNWRAP -> unwrap();
      case REMOVE_EMPTY -> removeEmpty();
      case ONE_FRONT_PAGE -> oneFrontPage();
      default -> each(i -> put(i, becomes(i)));
    }
    List<Step> steps = new ArrayList<>();
    List<String> forms = new ArrayList<>();
    List<Step> removed = new ArrayList<>();
    for (InShell i : shell) {
      if (gone.contains(i.id())) {
        removed.add(0, removed(i)); // what stands in a module goes before it
      } else if (changed.containsKey(i.id())) {
        Map<Aspect, String> to = changed.get(i.id()).forms();
        Step s = updated(i, AspectForms.fingerprints(to));
        if (!s.aspects().isEmpty()) {
          steps.add(s);
          s.writes().forEach(a -> forms.add(to.get(a)));
        }
      }
    }
    steps.addAll(removed);
    return new Edited(List.copyOf(steps), forms);
  }

  private void each(Consumer<InShell> what) {
    shell.stream()
        .filter(i -> reached.contains(i.id()))
        .filter(i -> edit.about().isEmpty() || i.is(edit.about()))
        .forEach(what);
  }

  private void put(InShell i, Aspects to) {
    changed.put(i.id(), to);
  }

  private Aspects becomes(InShell i) {
    Aspects a = i.aspects();
    Visibility v = a.visibility();
    return switch (edit.what()) {
      case SHOW -> v.instructorsOnly() ? a : a.with(v.withShown(true));
      case HIDE -> a.with(v.withShown(false));
      case OPEN_FROM -> openFrom(i);
      case OPEN_AFTER -> openAfter(i);
      case STRIP_NOTES -> a.with(html(a.wording(), TextEdits.withoutNotes(a.wording().html())));
      case UNINDENT -> a.with(a.wording().withTitle(Titles.unindented(a.wording().title())));
      case UNLINK -> a.with(relinked(i));
      case CARRY, FILL_BLANKS -> i.delivered().map(a::with).orElse(a);
      case DROP_ENTRIES -> a.with(entries(i));
      case DROP_CONDITIONS ->
          a.with(v.withConditions(v.conditions().stream().filter(c -> !lost(i, c)).toList()));
      case REPLACE ->
          a.with(
              html(a.wording(), TextEdits.replaced(a.wording().html(), edit.find(), edit.put()))
                  .withTitle(TextEdits.words(a.wording().title(), edit.find(), edit.put())));
      case REMOVE, UNWRAP, REMOVE_EMPTY, ONE_FRONT_PAGE, PUT_BACK ->
          throw new IllegalStateException();
    };
  }

  /**
   * Where only its links are otherwise than they were delivered, they lead again where they are
   * meant to; else those that lead nowhere become words.
   */
  private Wording relinked(InShell i) {
    Wording w = i.aspects().wording();
    String live = TextEdits.unlinked(w.html(), x -> dead(i, x));
    if (live.equals(w.html())) {
      return w;
    }
    return i.delivered()
        .filter(d -> Html.text(d.html()).equals(Html.text(w.html())))
        .filter(d -> TextEdits.unlinked(d.html(), x -> dead(i, x)).equals(d.html()))
        .orElseGet(() -> w.withHtml(live));
  }

  private static Wording html(Wording w, String to) {
    return w.html().equals(to) ? w : w.withHtml(to);
  }

  private Aspects openFrom(InShell i) {
    Aspects a = i.aspects();
    boolean opens =
        i.held().kind().fields().contains(Kind.Field.OPEN)
            || i.held().kind().fields().contains(Kind.Field.WITHIN);
    return !opens || a.visibility().instructorsOnly()
        ? a
        : a.with(a.visibility().withShown(true)).with(a.timing().with(Point.OPENS, edit.from()));
  }

  private Aspects openAfter(InShell i) {
    Optional<InShell> other =
        shell.stream()
            .filter(x -> x.is(List.of(edit.after().orElseThrow())))
            .filter(x -> !x.id().equals(i.id()))
            .findFirst();
    if (other.isEmpty()) {
      return i.aspects();
    }
    String name = names.name(i.given(), other.get().id());
    List<Condition> all = new ArrayList<>(i.aspects().visibility().conditions());
    all.add(
        new Condition(Condition.What.READ, Optional.of(name), Optional.empty(), Optional.empty()));
    return i.aspects().with(i.aspects().visibility().withConditions(all));
  }

  private boolean lost(InShell from, Condition c) {
    return c.item().filter(n -> names.id(from.given(), n).isEmpty()).isPresent();
  }

  private boolean dead(InShell from, String address) {
    if (address.equals(References.NOWHERE)) {
      return true;
    }
    return References.asItem(address)
        .map(r -> names.id(from.given(), r.key().value()).isEmpty())
        .orElseGet(() -> idOf.apply(address).filter(id -> !byId.containsKey(id)).isPresent());
  }

  private Wording entries(InShell i) {
    Wording w = i.aspects().wording();
    List<Content.Entry> live =
        w.entries().stream().filter(e -> e.value().isEmpty() || !dead(i, e.value())).toList();
    boolean leads =
        w.subject().filter(s -> s == SetupSubject.MENU || s == SetupSubject.FRONT_PAGE).isPresent();
    return leads && live.size() < w.entries().size() ? w.withSetup(w.subject(), live) : w;
  }

  /** What stands in a module goes where it stood, in its order; a wrapper in a wrapper too. */
  private void unwrap() {
    each(
        i -> {
          if (i.held().kind() == Kind.MODULE) {
            gone.add(i.id());
          }
        });
    close(Optional.empty());
    shell.stream()
        .filter(i -> reached.contains(i.id()) && !gone.contains(i.id()))
        .forEach(i -> close(Optional.of(i.id())));
  }

  /** Gives what comes into a module, or to the top, ranks between its neighbours there. */
  private void close(Optional<String> in) {
    List<InShell> all = flat(in);
    String low = "";
    for (int n = 0; n < all.size(); n++) {
      InShell i = all.get(n);
      if (parent(i).equals(in)) {
        low = i.aspects().place().rank();
        continue;
      }
      String from = low;
      String high =
          all.stream()
              .skip(n + 1L)
              .filter(x -> parent(x).equals(in))
              .map(x -> x.aspects().place().rank())
              .filter(r -> r.compareTo(from) > 0)
              .findFirst()
              .orElse("");
      low = Rank.between(low, high);
      put(i, i.aspects().with(new Place(in.map(p -> names.name(i.given(), p)), low)));
    }
  }

  /** What stands there once the wrappers are gone. */
  private List<InShell> flat(Optional<String> in) {
    List<InShell> all = new ArrayList<>();
    for (InShell i : below.getOrDefault(in, List.of())) {
      if (gone.contains(i.id())) {
        all.addAll(flat(Optional.of(i.id())));
      } else {
        all.add(i);
      }
    }
    return all;
  }

  private Optional<String> parent(InShell i) {
    return i.held().parent().filter(byId::containsKey);
  }

  /** Modules with nothing in them but modules that go too. */
  private void removeEmpty() {
    shell.stream().filter(i -> reached.contains(i.id()) && empty(i)).forEach(i -> gone.add(i.id()));
  }

  private boolean empty(InShell i) {
    return i.held().kind() == Kind.MODULE
        && (edit.about().isEmpty() || i.is(edit.about()))
        && below.getOrDefault(Optional.of(i.id()), List.of()).stream().allMatch(this::empty);
  }

  /** That of a master stays before one of nobody's. */
  private void oneFrontPage() {
    List<InShell> pages =
        shell.stream()
            .filter(
                i -> i.aspects().wording().subject().equals(Optional.of(SetupSubject.FRONT_PAGE)))
            .sorted(java.util.Comparator.comparing(i -> i.given().isEmpty()))
            .toList();
    if (pages.size() < 2) {
      return;
    }
    InShell stays = pages.get(0);
    Wording w = stays.aspects().wording();
    List<String> blocks = new ArrayList<>(Html.blocks(w.html()));
    List<Content.Entry> entries = new ArrayList<>(w.entries());
    for (InShell other : pages.subList(1, pages.size())) {
      Wording o = other.aspects().wording();
      Html.blocks(o.html()).stream().filter(b -> !blocks.contains(b)).forEach(blocks::add);
      o.entries().stream()
          .filter(e -> entries.stream().noneMatch(x -> x.value().equals(e.value())))
          .forEach(entries::add);
      gone.add(other.id());
    }
    put(
        stays,
        stays
            .aspects()
            .with(
                w.withHtml(Html.canonical(String.join("", blocks)))
                    .withSetup(w.subject(), entries)));
  }

  private List<Step> putBack() {
    List<Step> steps = new ArrayList<>();
    each(
        i ->
            i.base()
                .ifPresent(
                    b -> {
                      Set<Aspect> moved = i.held().aspects().differing(b.shown());
                      moved.retainAll(edit.aspects());
                      if (!moved.isEmpty()) {
                        steps.add(updated(i, i.held().aspects().with(moved, b.sent())));
                      }
                    }));
    return steps;
  }

  /** It has students' work, or something in it that stays. */
  private boolean stays(InShell i) {
    boolean wrapper = edit.what() == Edit.What.UNWRAP;
    return i.held().studentWork()
        || below.getOrDefault(Optional.of(i.id()), List.of()).stream()
            .anyMatch(x -> !wrapper && (!gone.contains(x.id()) || stays(x)));
  }

  private Step removed(InShell i) {
    Held h = i.held();
    boolean stays = stays(i);
    return new Step(
        key(i),
        h.kind(),
        h.title(),
        stays ? StepKind.BLOCKED : StepKind.RETIRE,
        Optional.of(h.id()),
        Map.of(),
        Set.of(),
        h.studentWork()
            ? Reason.STUDENT_WORK
            : stays ? Reason.GONE_BUT_HOLDS_OTHERS : Reason.EDITED,
        new Sides(Optional.empty(), Optional.of(h.aspects()), Optional.empty(), Optional.empty()));
  }

  /** How work counts that students have handed in is not changed. */
  private Step updated(InShell i, Fingerprints to) {
    Held h = i.held();
    Set<Aspect> writes = h.aspects().differing(to);
    boolean stays = h.studentWork() && writes.contains(Aspect.GRADING);
    Map<Aspect, AspectStep> aspects = new HashMap<>();
    writes.forEach(a -> aspects.put(a, stays ? AspectStep.BLOCKED : AspectStep.UPDATE));
    return new Step(
        key(i),
        h.kind(),
        h.title(),
        stays ? StepKind.BLOCKED : StepKind.UPDATE,
        Optional.of(h.id()),
        aspects,
        stays ? Set.of() : writes,
        stays ? Reason.STUDENT_WORK : Reason.EDITED,
        new Sides(Optional.empty(), Optional.of(h.aspects()), Optional.of(to), Optional.of(to)));
  }
}
