package org.zephyrmist.server.master;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BiFunction;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.HandIn;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Kind.Field;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.server.content.Files;

/** What an item becomes by a change. */
@Component
class Edits {
  private final Files files;

  Edits(Files files) {
    this.files = files;
  }

  Item changed(Item i, ItemChange c) {
    Change to = new Change(i.kind(), Aspects.of(i));
    wording(to, c);
    grading(to, c);
    to.set(c.due(), Field.DUE, (a, v) -> a.with(Entries.timing(a.timing(), Point.DUE, v)));
    to.set(c.opens(), Field.OPEN, (a, v) -> a.with(Entries.timing(a.timing(), Point.OPENS, v)));
    to.set(c.closes(), Field.OPEN, (a, v) -> a.with(Entries.timing(a.timing(), Point.CLOSES, v)));
    to.set(c.within(), Field.WITHIN, (a, v) -> a.with(Entries.within(a.timing(), v)));
    to.set(c.shown(), (a, v) -> a.with(a.visibility().withShown(v)));
    to.set(c.instructorsOnly(), (a, v) -> a.with(a.visibility().withInstructorsOnly(v)));
    to.set(
        c.conditions(),
        (a, v) ->
            a.with(a.visibility().withConditions(v.stream().map(Entries::condition).toList())));
    to.set(c.address(), (a, v) -> a.with(a.launch().withAddress(Entries.address(i.kind(), v))));
    to.set(
        c.parameters(),
        Field.PARAMETERS,
        (a, v) -> a.with(a.launch().withParameters(new TreeMap<>(v))));
    to.set(c.newWindow(), Field.NEW_WINDOW, (a, v) -> a.with(a.launch().withNewWindow(v)));
    return to.aspects.item(i.key(), i.kind(), Optional.ofNullable(c.rule()).orElse(i.rule()));
  }

  private void wording(Change to, ItemChange c) {
    to.set(
        c.title() == null || c.title().isBlank() ? null : c.title(),
        (a, v) -> a.with(a.wording().withTitle(Entries.title(v))));
    to.wording(c.html(), Field.TEXT, Wording::withHtml);
    to.wording(
        c.criteria(),
        Field.CRITERIA,
        (w, v) -> w.withCriteria(v.stream().map(Entries::criterion).toList()));
    to.wording(c.groups(), Field.GROUPS, (w, v) -> w.withGroups(Entries.names(v)));
    to.wording(
        c.oneTerm(),
        Field.LASTING,
        (w, v) -> w.withLasting(v ? Optional.of(Wording.Lasting.ONE_TERM) : Optional.empty()));
    to.wording(c.subject(), Field.SETUP, (w, v) -> w.withSetup(Optional.of(v), w.entries()));
    to.wording(c.entries(), Field.SETUP, (w, v) -> w.withSetup(w.subject(), setup(w, v)));
    to.wording(c.attached(), Field.ATTACHED, (w, v) -> w.withAttached(kept(v)));
    if (c.file() != null && to.kind == Kind.SETUP) {
      to.wording(c.file(), Field.SETUP, (w, v) -> w.withFile(Optional.of(kept(v))));
    } else {
      to.wording(c.file(), Field.FILE, (w, v) -> w.withFile(Optional.of(kept(v))));
    }
  }

  private static List<Content.Entry> setup(Wording w, List<Content.Entry> entries) {
    return Entries.entries(w.subject().orElse(SetupSubject.MENU), entries);
  }

  private static void grading(Change to, ItemChange c) {
    to.set(c.points(), Field.POINTS, (a, v) -> a.with(a.grading().withPoints(Entries.points(v))));
    to.set(
        c.category(), Field.CATEGORY, (a, v) -> a.with(a.grading().withCategory(Entries.key(v))));
    to.set(c.rubric(), Field.RUBRIC, (a, v) -> a.with(a.grading().withRubric(Entries.key(v))));
    to.set(
        c.groupSet(), Field.GROUP_SET, (a, v) -> a.with(a.grading().withGroupSet(Entries.key(v))));
    to.set(
        c.attempts(),
        Field.ATTEMPTS,
        (a, v) ->
            a.with(a.grading().withLimits(Entries.count(v, "Attempts"), a.grading().minutes())));
    to.set(
        c.minutes(),
        Field.MINUTES,
        (a, v) ->
            a.with(a.grading().withLimits(a.grading().attempts(), Entries.count(v, "Minutes"))));
    to.set(c.weight(), Field.WEIGHT, (a, v) -> a.with(a.grading().withWeight(Entries.points(v))));
    to.set(
        c.handIn(),
        Field.HAND_IN,
        (a, v) -> a.with(a.grading().withHandIn(Optional.of(v).filter(h -> !nothing(h)))));
  }

  private static boolean nothing(HandIn h) {
    return h.ways().isEmpty() && h.endings().isEmpty() && !h.checked();
  }

  /** Files that are kept, by what they are called here. */
  private List<FileRef> kept(List<ItemChange.Named> named) {
    Map<String, String> names = new TreeMap<>();
    named.forEach(n -> names.put(n.sha256(), n.name()));
    Map<String, FileRef> there = files.refs(names);
    List<FileRef> all = new ArrayList<>();
    for (ItemChange.Named n : named) {
      all.add(Entries.kept(there.get(n.sha256()), n.name()));
    }
    return all;
  }

  FileRef kept(ItemChange.Named named) {
    return kept(List.of(named)).get(0);
  }

  private static final class Change {
    private final Kind kind;
    private Aspects aspects;

    Change(Kind kind, Aspects aspects) {
      this.kind = kind;
      this.aspects = aspects;
    }

    <T> void set(T value, BiFunction<Aspects, T, Aspects> how) {
      if (value != null) {
        aspects = how.apply(aspects, value);
      }
    }

    <T> void set(T value, Field field, BiFunction<Aspects, T, Aspects> how) {
      if (value != null) {
        Entries.check(kind, field);
        set(value, how);
      }
    }

    <T> void wording(T value, Field field, BiFunction<Wording, T, Wording> how) {
      set(value, field, (a, v) -> a.with(how.apply(a.wording(), v)));
    }
  }
}
