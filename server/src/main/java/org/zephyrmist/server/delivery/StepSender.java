package org.zephyrmist.server.delivery;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.delivery.LinePlanner.Planned;
import org.zephyrmist.server.delivery.LineRunner.Work;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.PlatformGateway.Write;
import org.zephyrmist.server.platform.PlatformGateway.Written;

/** Writes what a plan says into a shell: files, items in their order, links between them. */
@Component
class StepSender {
  private final Lines lines;
  private final PlannedSteps stored;
  private final Writes writes;
  private final Files files;
  private final Settings settings;

  StepSender(Lines lines, PlannedSteps stored, Writes writes, Files files, Settings settings) {
    this.lines = lines;
    this.stored = stored;
    this.writes = writes;
    this.files = files;
    this.settings = settings;
  }

  void send(Work w) {
    upload(w);
    writeLinks(w, write(w));
  }

  private void upload(Work w) {
    Map<String, FileRef> needed = new TreeMap<>();
    Map<String, String> named = new TreeMap<>();
    for (VersionContent.Live i : w.items().values()) {
      Content c = i.item().content();
      if (c instanceof Content.File f) {
        needed.put(f.file().sha256(), f.file());
      } else if (c instanceof Content.Quiz q) {
        needed.put(q.questions().sha256(), q.questions());
      } else if (c instanceof Content.QuestionBank b) {
        needed.put(b.questions().sha256(), b.questions());
      }
      References.files(AspectForms.html(c)).forEach(f -> named.putIfAbsent(f.sha256(), f.name()));
    }
    needed.putAll(files.refs(named)); // a text may name what is not there: it goes without
    List<FileRef> missing = w.plan().gateway().missing(List.copyOf(needed.values()));
    int n = 0;
    for (FileRef f : missing) {
      lines.activity(
          w.line(),
          LineState.RUNNING,
          "uploading " + f.name() + ", " + (missing.size() - n++) + " missing");
      try (var in = files.open(f.sha256())) {
        w.plan().gateway().upload(f, in);
      } catch (java.io.IOException e) {
        throw new java.io.UncheckedIOException(e);
      }
    }
  }

  /** Modules level by level, then what stands in them, then changes, then what goes. */
  private List<Step> write(Work w) {
    List<Step> moving = w.plan().steps().stream().filter(Step::moves).toList();
    Map<Integer, List<Step>> waves = new TreeMap<>();
    for (Step s : moving) {
      waves.computeIfAbsent(wave(s, w.plan()), k -> new ArrayList<>()).add(s);
    }
    List<Step> linksLater = new ArrayList<>();
    for (List<Step> wave : waves.values()) {
      for (int from = 0; from < wave.size(); from += settings.stepsPerCall()) {
        List<Step> batch =
            wave.subList(from, Math.min(wave.size(), from + settings.stepsPerCall()));
        lines.activity(w.line(), LineState.RUNNING, "writing " + batch.get(0).title());
        send(w, batch, linksLater);
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

  private void send(Work w, List<Step> batch, List<Step> linksLater) {
    Planned p = w.plan();
    List<Write> out = new ArrayList<>();
    Map<String, String> keys = new LinkedHashMap<>();
    for (Step s : batch) {
      Meant m = p.meant().get(s.key());
      String key =
          Writes.key(
              w.line(), s.key(), s.kind(), s.writes(), m == null ? null : m.aspects().pack());
      Writes.Made made =
          writes.make(
              key,
              s,
              Optional.ofNullable(w.items().get(s.key())).map(VersionContent.Live::item),
              translator(w),
              p.version().master(),
              p.reading().revisions());
      out.add(made.write());
      keys.put(s.key().value(), key);
      if (!made.complete()) {
        linksLater.add(s);
      }
    }
    stored.sending(p.open(), keys);
    Map<String, Written> answers = apply(p, out, keys.keySet());
    Map<String, Written> written = new LinkedHashMap<>();
    keys.forEach((item, key) -> written.put(item, answers.get(key)));
    stored.written(p.open(), written);
    batch.stream()
        .filter(s -> s.kind() != StepKind.RETIRE)
        .forEach(
            s -> {
              Written now = written.get(s.key().value());
              w.written(s.key(), now.id());
              w.left().put(now.id(), now.revision());
            });
  }

  private ShellTranslator translator(Work w) {
    return writes.translator(w.section(), w.ours());
  }

  private Map<String, Written> apply(Planned p, List<Write> out, Set<String> items) {
    try {
      return p.gateway().apply(p.open().section().getShell(), out);
    } catch (PlatformException e) {
      if (e.kind() == PlatformException.Kind.CONFLICT) {
        stored.notDone(p.open(), items);
      }
      throw e;
    }
  }

  /** Texts that refer to items which were not there yet when they were written. */
  private void writeLinks(Work w, List<Step> later) {
    PlatformGateway gateway = w.plan().gateway();
    String shell = w.section().getShell();
    List<Write> out = new ArrayList<>();
    for (Step s : later) {
      ShellTranslator.Written linked =
          writes.out(translator(w), w.items().get(s.key()).item(), w.plan().version().master());
      Meant m = w.plan().meant().get(s.key());
      String key =
          Writes.key(
              w.line(), s.key(), StepKind.UPDATE, Set.of(Aspect.WORDING), m.aspects().pack());
      String id = w.id(s.key()).orElseThrow();
      out.add(
          new Write.Update(
              key + "-links",
              id,
              w.left().get(id),
              Writes.only(linked.forms(), Set.of(Aspect.WORDING))));
    }
    for (int from = 0; from < out.size(); from += settings.stepsPerCall()) {
      lines.activity(w.line(), LineState.RUNNING, "writing links between items");
      gateway
          .apply(shell, out.subList(from, Math.min(out.size(), from + settings.stepsPerCall())))
          .values()
          .forEach(x -> w.left().put(x.id(), x.revision()));
    }
  }
}
