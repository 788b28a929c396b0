package org.zephyrmist.server.line;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.CleanStart;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Parts;
import org.zephyrmist.core.delivery.Receipt;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.core.edit.EditBack;
import org.zephyrmist.core.edit.Edits;
import org.zephyrmist.core.edit.Given;
import org.zephyrmist.core.edit.InShell;
import org.zephyrmist.core.edit.ShellNames;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.ledger.Holding;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.ledger.Origin;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.shell.Ours;
import org.zephyrmist.server.shell.Reading;

/**
 * Lines that make a change in a shell, or take one back. What the ledger says of the items stays as
 * it was, so that an edit counts as the section's own; only what comes again is tied to it anew.
 */
@Component
class EditLines {
  private final PlannedSteps stored;
  private final Lines lines;
  private final Bodies bodies;
  private final Versions versions;
  private final Ledger ledger;
  private final CarriedWords carried;

  EditLines(
      PlannedSteps stored,
      Lines lines,
      Bodies bodies,
      Versions versions,
      Ledger ledger,
      CarriedWords carried) {
    this.carried = carried;
    this.stored = stored;
    this.lines = lines;
    this.bodies = bodies;
    this.versions = versions;
    this.ledger = ledger;
  }

  /** The plan of a line that edits, or takes an edit back. */
  Planned plan(Line line, PlatformGateway gateway, Versions.Version version, Reading reading) {
    Map<String, List<Holding>> given = given(reading.holdings());
    List<Step> steps =
        line.edit().isPresent() ? edit(line, gateway, reading, given) : back(line, reading);
    Editing editing = editing(steps, given, back(line));
    return new Planned(
        line,
        gateway,
        version,
        new Meant(comingAgain(steps, editing), Parts.EVERYTHING),
        reading,
        Map.of(),
        steps,
        false,
        Optional.empty(),
        Map.of(),
        Optional.empty(),
        Optional.of(editing));
  }

  private List<Step> edit(
      Line line, PlatformGateway gateway, Reading reading, Map<String, List<Holding>> given) {
    Map<String, Wording> words = words(line, gateway, given, reading);
    List<InShell> shell =
        reading.items().stream()
            .map(
                h -> {
                  List<Holding> ours = given.getOrDefault(h.id(), List.of());
                  return new InShell(
                      h,
                      Aspects.read(reading.forms().get(h.id())),
                      ours.stream().map(EditLines::given).toList(),
                      ours.stream().findFirst().map(Holding::base),
                      Optional.ofNullable(words.get(h.id())));
                })
            .toList();
    String there = line.shell().there();
    Edits.Edited e =
        Edits.plan(
            shell,
            line.edit().orElseThrow(),
            a -> gateway.addresses().asItem(there, a).map(i -> i.id()));
    bodies.keep(e.forms());
    return e.steps();
  }

  /** Wordings that an edit asks for, by the platform's id of the item. */
  private Map<String, Wording> words(
      Line line, PlatformGateway gateway, Map<String, List<Holding>> given, Reading reading) {
    Map<String, Wording> all = new HashMap<>();
    Edit.What what = line.edit().orElseThrow().what();
    if (what == Edit.What.UNLINK) {
      Map<Fingerprint, String> forms = delivered(given);
      given.forEach(
          (id, of) ->
              Optional.ofNullable(forms.get(of.get(0).base().sent().get(Aspect.WORDING)))
                  .ifPresent(f -> all.put(id, AspectForms.wording(f))));
    }
    if (what == Edit.What.CARRY || what == Edit.What.FILL_BLANKS) {
      all.putAll(carried.of(line, gateway, given, reading, what == Edit.What.FILL_BLANKS));
    }
    return all;
  }

  private Map<Fingerprint, String> delivered(Map<String, List<Holding>> given) {
    Set<Fingerprint> all = new HashSet<>();
    given.values().forEach(of -> of.forEach(h -> all.add(h.base().sent().get(Aspect.WORDING))));
    return bodies.some(all);
  }

  /** Our items that come again, by what the platform calls them now. */
  static Ours tied(Editing e, Map<ItemKey, String> ids) {
    Ours ours = new Ours();
    e.tied()
        .forEach(
            (key, h) -> {
              if (ids.containsKey(key)) {
                ours.put(h.master(), h.base().key(), ids.get(key));
              }
            });
    return ours;
  }

  private static Given given(Holding h) {
    return new Given(h.master().toString(), h.base().key());
  }

  /** What is ours by the platform's id, in the order in which masters stand in a shell. */
  private Map<String, List<Holding>> given(List<Holding> holdings) {
    Map<UUID, String> letters = versions.letters();
    Map<String, List<Holding>> all = new HashMap<>();
    holdings.stream()
        .sorted(
            Comparator.comparing((Holding h) -> letters.get(h.master()))
                .thenComparing(Holding::master))
        .forEach(h -> all.computeIfAbsent(h.platformItem(), k -> new ArrayList<>()).add(h));
    return all;
  }

  /** Steps of the edit that a line takes back, what this line has done of it already left out. */
  private List<Step> back(Line line) {
    if (!line.editBack()) {
      return List.of();
    }
    Set<ItemKey> already =
        stored.recorded(line.id()).stream().map(Step::key).collect(Collectors.toSet());
    List<Step> done =
        new ArrayList<>(
            stored.recorded(lines.of(line.takesBack().orElseThrow(), line.section())).stream()
                .filter(s -> !already.contains(s.key()))
                .toList());
    Collections.reverse(done); // a module comes before what stood in it
    return done;
  }

  private List<Step> back(Line line, Reading reading) {
    boolean put = line.choices().clash() != Choices.Clash.KEEP_SECTION;
    return EditBack.plan(reading.items(), back(line), put);
  }

  private static Editing editing(
      List<Step> steps, Map<String, List<Holding>> given, List<Step> done) {
    Map<ItemKey, String> before = new HashMap<>();
    done.forEach(s -> before.put(s.key(), s.id().orElseThrow()));
    Map<ItemKey, UUID> masters = new HashMap<>();
    Map<ItemKey, String> again = new HashMap<>();
    Map<ItemKey, Holding> tied = new HashMap<>();
    for (Step s : steps) {
      String id = s.id().orElseGet(() -> before.get(s.key()));
      Optional<Holding> ours = given.getOrDefault(id, List.of()).stream().findFirst();
      ours.ifPresent(h -> masters.put(s.key(), h.master()));
      if (s.kind() == StepKind.ADD) {
        again.put(s.key(), id);
        ours.ifPresent(h -> tied.put(s.key(), h));
      }
    }
    return new Editing(masters, again, tied);
  }

  /** What comes again, in its modules as far as those come again too. */
  private Tree comingAgain(List<Step> steps, Editing editing) {
    List<Step> adds = steps.stream().filter(s -> s.kind() == StepKind.ADD).toList();
    Map<String, ItemKey> named = new HashMap<>();
    adds.forEach(
        s -> {
          named.put(ShellNames.HERE + editing.again().get(s.key()), s.key());
          Optional.ofNullable(editing.tied().get(s.key()))
              .ifPresent(h -> named.put(h.base().key().value(), s.key()));
        });
    Map<ItemKey, Fingerprint> places = new HashMap<>();
    adds.forEach(s -> places.put(s.key(), s.sides().becomes().orElseThrow().get(Aspect.PLACE)));
    Map<Fingerprint, String> forms = bodies.get(places.values());
    return Tree.of(
        adds.stream()
            .map(
                s ->
                    new Node(
                        s.key(),
                        s.itemKind(),
                        s.title(),
                        AspectForms.place(forms.get(places.get(s.key())))
                            .parent()
                            .map(named::get)
                            .filter(p -> !p.equals(s.key())),
                        Rank.nth(0),
                        EditRule.ADAPTABLE,
                        Visibility.SHOWN,
                        AppliesTo.EVERY_SECTION,
                        s.sides().becomes().orElseThrow()))
            .toList());
  }

  /**
   * Notes within the running transaction how the shell shows what was written, and ties what came
   * again to what the ledger has of it.
   *
   * @param ids what the platform calls the items of the steps now
   */
  void noted(Line line, Collection<Step> steps, Map<ItemKey, String> ids, Editing e, Reading now) {
    Map<ItemKey, Fingerprints> left = new LinkedHashMap<>();
    for (Step s : steps) {
      Optional<Held> held = Optional.ofNullable(ids.get(s.key())).flatMap(now::item);
      held.ifPresent(h -> left.put(s.key(), h.aspects()));
      Holding h = e.tied().get(s.key());
      if (h != null && held.isPresent()) {
        Base b = h.base();
        UUID version = ledger.from(line.section(), h.master(), b.key());
        Base again =
            new Base(
                b.key(), b.kind(), b.title(), held.get().id(), b.sent(), b.shown(), b.accepted());
        ledger.record(
            new Origin(line.section(), h.master(), version, line.delivery(), line.person()),
            List.of(new Receipt(again, Receipt.How.KEPT, Set.of())));
      }
    }
    stored.left(line.id(), left);
  }

  /** The same of a line that broke off, from its stored steps. */
  Editing settling(Line of, List<Holding> holdings, List<Step> sent) {
    return editing(sent, given(holdings), back(of));
  }

  /** Whose the items of a line's steps are; the version's master, unless it edits. */
  static UUID master(Optional<Editing> editing, UUID master, ItemKey key) {
    return editing
        .map(e -> e.master(key))
        .orElseGet(() -> CleanStart.isOwn(key) ? Ours.NOBODY : master);
  }

  /** Names what was put back for those that named it before. */
  static void again(Ours ours, Optional<Editing> editing, ItemKey key, String now) {
    editing.map(e -> e.again().get(key)).ifPresent(before -> ours.again(before, now));
  }
}
