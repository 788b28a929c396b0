package org.zephyrmist.server.delivery;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.db.tables.records.DeliveryStepRecord;
import org.zephyrmist.server.delivery.LinePlanner.Planned;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.PlatformGateway.Write;
import org.zephyrmist.server.platform.PlatformGateway.Written;

/** Carries one line out: read, check the plan, write, read back, receipts and standing. */
@Component
class LineRunner {
  private final Lines lines;
  private final LinePlanner planner;
  private final ShellReader reader;
  private final VersionContent versions;
  private final Writes writes;
  private final Ledger ledger;
  private final Files files;
  private final Bodies bodies;
  private final Settings settings;
  private final TransactionTemplate transaction;

  LineRunner(
      Lines lines,
      LinePlanner planner,
      ShellReader reader,
      VersionContent versions,
      Writes writes,
      Ledger ledger,
      Files files,
      Bodies bodies,
      Settings settings,
      TransactionTemplate transaction) {
    this.lines = lines;
    this.planner = planner;
    this.reader = reader;
    this.versions = versions;
    this.writes = writes;
    this.ledger = ledger;
    this.files = files;
    this.bodies = bodies;
    this.settings = settings;
    this.transaction = transaction;
  }

  void run(Lines.Open open) {
    UUID line = open.line().getId();
    if (lines.nothingPlanned(open) && stillSo(open)) {
      return;
    }
    lines.activity(line, LineState.RUNNING, "reading the shell");
    Planned p = planner.make(open);
    int news = newOverwrites(line, p.steps());
    planner.store(p, LineState.RUNNING);
    if (news > 0) {
      lines.needsPerson(
          line,
          "Read again before writing: the section changed "
              + (news == 1 ? "an item" : news + " items")
              + " that this delivery would overwrite.",
          "Look at the plan of this section, then go on.");
      return;
    }
    Map<ItemKey, String> ids = ids(p);
    Map<String, String> left = new HashMap<>();
    List<Step> moving = p.steps().stream().filter(Step::moves).toList();
    Map<ItemKey, Item> items =
        versions.items(
            p.version(),
            moving.stream().filter(s -> s.kind() != StepKind.RETIRE).map(Step::key).toList());
    upload(line, p, items);
    List<Step> linksLater = write(line, p, moving, items, ids, left);
    writeLinks(line, p, linksLater, items, ids, left);
    finish(line, p, ids, left);
  }

  /**
   * A plan with nothing to do stands if the shell is still in the state it was read in; then it
   * need not be read again.
   */
  private boolean stillSo(Lines.Open open) {
    PlatformGateway gateway = reader.gateway(open.section());
    if (!lines.unsettled(open.section().getId()).isEmpty()
        || !gateway.unchanged(open.section().getShell(), open.line().getReadTag())) {
      return false;
    }
    VersionContent.Loaded version = versions.load(open.delivery().getVersionId());
    return Boolean.TRUE.equals(
        transaction.execute(
            t -> {
              lines.hold(open.section());
              boolean stands =
                  ledger.stillStands(Settlement.origin(open, version), version.meant().size());
              if (stands) {
                lines.done(open.line().getId(), nothingToDo(version));
              }
              return stands;
            }));
  }

  private static String nothingToDo(VersionContent.Loaded version) {
    return "nothing to do: it holds version " + version.number();
  }

  /** Overwriting what a section changed is only done if the plan that was confirmed showed it. */
  private int newOverwrites(UUID line, List<Step> steps) {
    Set<String> shown =
        lines.steps(line).stream()
            .filter(s -> s.getMoves() && overwrites(s))
            .map(DeliveryStepRecord::getItemKey)
            .collect(Collectors.toSet());
    return (int)
        steps.stream()
            .filter(LineRunner::overwrites)
            .filter(s -> !shown.contains(s.key().value()))
            .count();
  }

  private static boolean overwrites(DeliveryStepRecord s) {
    return s.getKind().equals(StepKind.CLASH.name())
        || s.getReason().equals(Step.Reason.FIXED_PUT_BACK.name());
  }

  private static boolean overwrites(Step s) {
    return s.moves() && (s.kind() == StepKind.CLASH || s.reason() == Step.Reason.FIXED_PUT_BACK);
  }

  /** The platform's ids of our items that are in the shell. */
  private static Map<ItemKey, String> ids(Planned p) {
    Map<ItemKey, String> ids = new HashMap<>();
    p.reading().holdings().stream()
        .filter(h -> p.reading().byId().containsKey(h.getPlatformItem()))
        .forEach(h -> ids.put(new ItemKey(h.getItemKey()), h.getPlatformItem()));
    p.steps().stream()
        .filter(s -> s.kind() == StepKind.TWIN && s.reason() == Step.Reason.ALIKE_ADOPTED)
        .forEach(s -> ids.put(s.key(), s.id().orElseThrow()));
    return ids;
  }

  private void upload(UUID line, Planned p, Map<ItemKey, Item> items) {
    Map<String, FileRef> needed = new TreeMap<>();
    for (Item i : items.values()) {
      Content c = i.content();
      if (c instanceof Content.File f) {
        needed.put(f.file().sha256(), f.file());
      } else if (c instanceof Content.Quiz q) {
        needed.put(q.questions().sha256(), q.questions());
      } else if (c instanceof Content.QuestionBank b) {
        needed.put(b.questions().sha256(), b.questions());
      }
      References.files(AspectForms.html(c))
          .forEach(f -> needed.computeIfAbsent(f.sha256(), s -> files.ref(s, f.name())));
    }
    List<FileRef> missing = p.gateway().missing(List.copyOf(needed.values()));
    int n = 0;
    for (FileRef f : missing) {
      lines.activity(
          line,
          LineState.RUNNING,
          "uploading " + f.name() + ", " + (missing.size() - n++) + " missing");
      try (var in = files.open(f.sha256())) {
        p.gateway().upload(f, in);
      } catch (java.io.IOException e) {
        throw new java.io.UncheckedIOException(e);
      }
    }
  }

  /** Modules level by level, then what stands in them, then changes, then what goes. */
  private List<Step> write(
      UUID line,
      Planned p,
      List<Step> moving,
      Map<ItemKey, Item> items,
      Map<ItemKey, String> ids,
      Map<String, String> left) {
    Map<Integer, List<Step>> waves = new TreeMap<>();
    for (Step s : moving) {
      waves.computeIfAbsent(wave(s, p), k -> new ArrayList<>()).add(s);
    }
    List<Step> linksLater = new ArrayList<>();
    for (List<Step> wave : waves.values()) {
      for (int from = 0; from < wave.size(); from += settings.stepsPerCall()) {
        List<Step> batch =
            wave.subList(from, Math.min(wave.size(), from + settings.stepsPerCall()));
        lines.activity(line, LineState.RUNNING, "writing " + batch.get(0).title());
        send(line, p, batch, items, ids, left, linksLater);
      }
    }
    return linksLater;
  }

  private static int wave(Step s, Planned p) {
    return switch (s.kind()) {
      case ADD -> s.itemKind() == Kind.MODULE ? depth(s.key(), p.meant()) : 1000;
      case RETIRE -> 3000;
      default -> s.itemKind() == Kind.MODULE ? 1001 : 2000;
    };
  }

  private static int depth(ItemKey key, Map<ItemKey, Meant> meant) {
    int depth = 0;
    Optional<ItemKey> up = meant.get(key).parent();
    while (up.isPresent() && depth < 900) {
      depth++;
      up = Optional.ofNullable(meant.get(up.get())).flatMap(Meant::parent);
    }
    return depth;
  }

  private void send(
      UUID line,
      Planned p,
      List<Step> batch,
      Map<ItemKey, Item> items,
      Map<ItemKey, String> ids,
      Map<String, String> left,
      List<Step> linksLater) {
    List<Write> out = new ArrayList<>();
    Map<String, String> keys = new LinkedHashMap<>();
    for (Step s : batch) {
      Meant m = p.meant().get(s.key());
      String key =
          Writes.key(line, s.key(), s.kind(), s.writes(), m == null ? null : m.aspects().pack());
      Writes.Made made =
          writes.make(
              key,
              s,
              items.get(s.key()),
              ids,
              p.reading().revisions(),
              p.version().letter(),
              p.open().section());
      out.add(made.write());
      keys.put(s.key().value(), key);
      if (!made.complete()) {
        linksLater.add(s);
      }
    }
    lines.sending(p.open(), keys);
    Map<String, Written> answers = apply(p, out, keys.keySet());
    Map<String, Written> written = new LinkedHashMap<>();
    keys.forEach((item, key) -> written.put(item, answers.get(key)));
    lines.written(p.open(), written);
    batch.stream()
        .filter(s -> s.kind() != StepKind.RETIRE)
        .forEach(
            s -> {
              Written w = written.get(s.key().value());
              ids.put(s.key(), w.id());
              left.put(w.id(), w.revision());
            });
  }

  private Map<String, Written> apply(Planned p, List<Write> out, Set<String> items) {
    try {
      return p.gateway().apply(p.open().section().getShell(), out);
    } catch (PlatformException e) {
      if (e.kind() == PlatformException.Kind.CONFLICT) {
        lines.notDone(p.open(), items);
      }
      throw e;
    }
  }

  /** Texts that refer to items which were not there yet when they were written. */
  private void writeLinks(
      UUID line,
      Planned p,
      List<Step> later,
      Map<ItemKey, Item> items,
      Map<ItemKey, String> ids,
      Map<String, String> left) {
    List<Write> out = new ArrayList<>();
    for (Step s : later) {
      ShellTranslator.Written w =
          new ShellTranslator(p.open().section().getShell(), Map.of())
              .out(items.get(s.key()), ids, p.version().letter());
      Meant m = p.meant().get(s.key());
      String key =
          Writes.key(line, s.key(), StepKind.UPDATE, Set.of(Aspect.WORDING), m.aspects().pack());
      String id = ids.get(s.key());
      out.add(
          new Write.Update(
              key + "-links", id, left.get(id), Writes.only(w.forms(), Set.of(Aspect.WORDING))));
    }
    for (int from = 0; from < out.size(); from += settings.stepsPerCall()) {
      lines.activity(line, LineState.RUNNING, "writing links between items");
      p.gateway()
          .apply(
              p.open().section().getShell(),
              out.subList(from, Math.min(out.size(), from + settings.stepsPerCall())))
          .values()
          .forEach(w -> left.put(w.id(), w.revision()));
    }
  }

  private void finish(UUID line, Planned p, Map<ItemKey, String> ids, Map<String, String> left) {
    lines.activity(line, LineState.RUNNING, "reading back");
    boolean moved = p.steps().stream().anyMatch(Step::moves);
    ShellReader.Reading now = moved ? readBack(p, ids) : p.reading();
    List<Ledger.Entry> entries = new ArrayList<>();
    int withheld = 0;
    int expected = 0;
    int missing = 0;
    int kept = 0;
    for (Step s : p.steps()) {
      Meant m = p.meant().get(s.key());
      Held held = Optional.ofNullable(ids.get(s.key())).map(now.byId()::get).orElse(null);
      expected += m == null ? 0 : 1;
      boolean blocked = m != null && s.kind() == StepKind.BLOCKED;
      withheld += blocked && held != null ? 1 : 0;
      missing += s.moves() && s.kind() != StepKind.RETIRE && held == null ? 1 : 0;
      kept += s.kind() == StepKind.KEEP || s.kind() == StepKind.CLASH ? 1 : 0;
      Ledger.Entry e = entry(s, m, asWeLeftIt(s, m, held, now, left), p.bases().get(s.key()));
      if (e != null) {
        entries.add(e);
      }
    }
    int all = expected;
    int held = withheld;
    now.keep(
        bodies,
        p.steps().stream().map(s -> ids.get(s.key())).filter(java.util.Objects::nonNull).toList());
    String end = end(p, moved, missing, kept);
    transaction.executeWithoutResult(
        t -> {
          lines.hold(p.open().section());
          Ledger.Origin origin = Settlement.origin(p.open(), p.version());
          ledger.record(origin, entries);
          lines.recorded(
              line, p.steps().stream().filter(Step::moves).map(s -> s.key().value()).toList());
          ledger.standing(origin, all, held);
          UUID section = p.open().section().getId();
          ledger.seen(section, ledger.holdings(section), now.byId());
          lines.done(line, end);
        });
  }

  /**
   * An item that somebody changed between our write and the reading back: what the shell shows is
   * theirs, so the base of what we wrote is what we meant.
   */
  private static Held asWeLeftIt(
      Step s, Meant m, Held now, ShellReader.Reading reading, Map<String, String> left) {
    if (now == null || m == null || !left.containsKey(now.id())) {
      return now;
    }
    if (left.get(now.id()).equals(reading.revisions().get(now.id()))) {
      return now;
    }
    Fingerprints f = now.aspects();
    for (Aspect a : s.kind() == StepKind.ADD ? Set.of(Aspect.values()) : s.writes()) {
      f = f.with(a, m.aspects().get(a));
    }
    return now.with(f);
  }

  private ShellReader.Reading readBack(Planned p, Map<ItemKey, String> ids) {
    Map<String, ShellTranslator.Known> fresh = new HashMap<>();
    ids.forEach(
        (key, id) -> {
          if (p.meant().containsKey(key)) {
            fresh.put(id, new ShellTranslator.Known(key, p.version().letter()));
          }
        });
    return reader.read(p.gateway(), p.open().section(), fresh);
  }

  private static String end(Planned p, boolean moved, int missing, int kept) {
    String local =
        kept == 0 ? "" : kept == 1 ? "; 1 local change kept" : "; " + kept + " local changes kept";
    if (!moved) {
      return nothingToDo(p.version()) + local;
    }
    return missing == 0
        ? "read back, all as meant" + local
        : "read back, " + missing + " items are not there" + local;
  }

  /** The receipt of a step; none if nothing of the item's base has moved. */
  private static Ledger.Entry entry(Step s, Meant m, Held now, Base old) {
    if (s.kind() == StepKind.RETIRE) {
      return new Ledger.Entry(old, Ledger.How.RETIRED, Set.of());
    }
    if (m == null || now == null) {
      return null;
    }
    if (s.kind() == StepKind.TWIN) {
      return s.reason() == Step.Reason.ALIKE_ADOPTED
          ? new Ledger.Entry(Base.adopted(m, now), Ledger.How.ADOPTED, s.writes())
          : null;
    }
    if (s.kind() == StepKind.ADD) {
      Base b = new Base(m.key(), m.kind(), m.title(), now.id(), m.aspects(), now.aspects());
      return new Ledger.Entry(b, Ledger.How.ADDED, s.writes());
    }
    if (old == null || s.kind() == StepKind.BLOCKED) {
      return null;
    }
    Base after = old.after(s, m, now.aspects());
    boolean same = after.sent().equals(old.sent()) && after.shown().equals(old.shown());
    if (same && s.writes().isEmpty()) {
      return null;
    }
    return new Ledger.Entry(
        after, s.writes().isEmpty() ? Ledger.How.KEPT : Ledger.How.UPDATED, s.writes());
  }
}
