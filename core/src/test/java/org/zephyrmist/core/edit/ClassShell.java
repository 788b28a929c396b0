package org.zephyrmist.core.edit;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Launch;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;

/** A shell in memory that carries steps out as a platform would. */
public final class ClassShell {
  public static final String MASTER = "m1";
  private final Map<String, InShell> items = new LinkedHashMap<>();
  private final Map<Fingerprint, String> forms = new HashMap<>();

  /** An item that no master brought. */
  public ClassShell own(String id, Kind kind, String title, String parent, String html) {
    return put(id, kind, title, parent, html, List.of());
  }

  /** An item of the master, whose key is its id. */
  public ClassShell ours(String id, Kind kind, String title, String parent, String html) {
    return put(id, kind, title, parent, html, List.of(new Given(MASTER, new ItemKey(id))));
  }

  /** The same item as another master has it too, which stands here beside it. */
  public ClassShell anothers(String id, String key, String title, String html) {
    Given other = new Given("m2", new ItemKey(key));
    return put(id, Kind.PAGE, title, null, html, List.of(other));
  }

  private ClassShell put(
      String id, Kind kind, String title, String parent, String html, List<Given> given) {
    Optional<String> up = Optional.ofNullable(parent);
    Optional<String> named =
        up.map(p -> !given.isEmpty() && !items.get(p).given().isEmpty() ? p : "here:" + p);
    Aspects a =
        new Aspects(
            Wording.of(title, Html.canonical(html)),
            Grading.NONE,
            Timing.NONE,
            new Place(named, Rank.nth(items.size())),
            Visibility.SHOWN,
            Launch.NOWHERE);
    items.put(id, in(id, kind, up, a, given, false));
    return this;
  }

  private InShell in(
      String id, Kind kind, Optional<String> parent, Aspects a, List<Given> given, boolean work) {
    a.forms().values().forEach(f -> forms.put(Fingerprint.of(f), f));
    Held h =
        new Held(
            id,
            kind,
            a.wording().title(),
            parent,
            AspectForms.fingerprints(a.forms()),
            work,
            given.isEmpty());
    Optional<Base> base =
        given.stream()
            .findFirst()
            .map(
                g ->
                    Optional.ofNullable(items.get(id))
                        .flatMap(InShell::base)
                        .orElseGet(
                            () ->
                                new Base(g.key(), kind, h.title(), id, h.aspects(), h.aspects())));
    return new InShell(
        h,
        a,
        given,
        base,
        base.map(b -> forms.get(b.sent().get(Aspect.WORDING))).map(AspectForms::wording));
  }

  /** The same with an item otherwise. */
  public ClassShell with(String id, UnaryOperator<Aspects> change) {
    InShell i = items.get(id);
    items.put(
        id,
        in(
            id,
            i.held().kind(),
            i.held().parent(),
            change.apply(i.aspects()),
            i.given(),
            i.held().studentWork()));
    return this;
  }

  /** Students have handed in work on it. */
  public ClassShell work(String id) {
    InShell i = items.get(id);
    items.put(id, in(id, i.held().kind(), i.held().parent(), i.aspects(), i.given(), true));
    return this;
  }

  public ClassShell without(String id) {
    items.remove(id);
    return this;
  }

  public InShell get(String id) {
    return items.get(id);
  }

  public boolean has(String id) {
    return items.containsKey(id);
  }

  public List<InShell> items() {
    return List.copyOf(items.values());
  }

  public List<Held> held() {
    return items.values().stream().map(InShell::held).toList();
  }

  Edits.Edited plan(Edit edit) {
    return Edits.plan(items(), edit, a -> Optional.empty());
  }

  /** Carries steps out; what is written has to be among what is known. */
  ClassShell run(List<Step> steps, List<String> written) {
    written.forEach(f -> forms.put(Fingerprint.of(f), f));
    for (Step s : steps) {
      if (s.kind() == StepKind.RETIRE) {
        items.remove(s.id().orElseThrow());
      } else if (s.kind() == StepKind.ADD || s.kind() == StepKind.UPDATE) {
        write(s);
      }
    }
    return this;
  }

  private void write(Step s) {
    String id = s.id().orElseGet(() -> "again " + items.size() + " " + s.title());
    InShell old = items.get(id);
    Fingerprints becomes = s.sides().becomes().orElseThrow();
    Map<Aspect, String> all = new EnumMap<>(Aspect.class);
    for (Aspect a : Aspect.values()) {
      Fingerprint f = s.writes().contains(a) ? becomes.get(a) : old.held().aspects().get(a);
      all.put(a, forms.get(f));
    }
    Aspects now = Aspects.read(all);
    Optional<String> up = now.place().parent().map(p -> p.startsWith("here:") ? p.substring(5) : p);
    List<Given> given = old == null ? List.of() : old.given();
    items.put(id, in(id, s.itemKind(), up, now, given, old != null && old.held().studentWork()));
  }

  /** What students and instructors read, in order. */
  public List<String> titles() {
    List<String> all = new ArrayList<>();
    items.values().stream()
        .sorted(java.util.Comparator.comparing(i -> i.aspects().place().rank()))
        .forEach(i -> all.add(i.held().title()));
    return all;
  }
}
