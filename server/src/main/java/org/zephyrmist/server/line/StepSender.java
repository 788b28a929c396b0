package org.zephyrmist.server.line;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.delivery.WeekPlaces;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway.Write;
import org.zephyrmist.server.platform.PlatformGateway.Written;
import org.zephyrmist.server.shell.ShellQuestions;
import org.zephyrmist.server.shell.ShellReader;
import org.zephyrmist.server.shell.ShellTranslator;

/** Writes what a plan says into a shell: files, items in their order, links between them. */
@Component
class StepSender {
  private static final int PLACES_FOR_WEEKS = -1;
  private static final int ADDITIONS = 1_000;
  private static final int CHANGED_MODULES = 1_001;
  private static final int CHANGES = 2_000;
  private static final int REMOVALS = 3_000;
  private final Lines lines;
  private final PlannedSteps stored;
  private final Writes writes;
  private final Files files;
  private final ShellReader reader;
  private final ShellQuestions questions;
  private final Settings settings;

  StepSender(
      Lines lines,
      PlannedSteps stored,
      Writes writes,
      Files files,
      ShellReader reader,
      ShellQuestions questions,
      Settings settings) {
    this.lines = lines;
    this.stored = stored;
    this.writes = writes;
    this.files = files;
    this.reader = reader;
    this.questions = questions;
    this.settings = settings;
  }

  void send(Work w) {
    upload(w);
    writeLinks(w, write(w));
  }

  private void upload(Work w) {
    Map<String, FileRef> needed = new TreeMap<>();
    Map<String, String> named = new TreeMap<>();
    for (Forms.Written f : w.forms().values()) {
      f.wording().flatMap(x -> file(w, x)).ifPresent(x -> needed.put(x.sha256(), x));
      f.wording().map(Wording::attached).orElse(List.of()).forEach(x -> needed.put(x.sha256(), x));
      f.wording()
          .map(x -> References.files(x.html()))
          .orElse(List.of())
          .forEach(x -> named.putIfAbsent(x.sha256(), x.name()));
    }
    needed.putAll(files.refs(named)); // a text may name what is not there: it goes without
    List<FileRef> missing = w.plan().gateway().missing(List.copyOf(needed.values()));
    int n = 0;
    for (FileRef f : missing) {
      activity(w, "uploading " + f.name() + ", " + (missing.size() - n++) + " missing");
      try (InputStream in = files.open(f.sha256())) {
        w.plan().gateway().upload(f, in);
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
  }

  private Optional<FileRef> file(Work w, Wording wording) {
    return ShellTranslator.pictured(wording)
        ? wording.file().map(f -> questions.sent(f, w.plan().gateway().addresses()))
        : wording.file();
  }

  private void activity(Work w, String what) {
    lines.activity(w.line().id(), LineState.RUNNING, what);
  }

  /**
   * Places for weeks, modules level by level, then what stands in them, then changes, then what
   * goes.
   */
  private List<Step> write(Work w) {
    Map<Integer, List<Step>> waves = new TreeMap<>();
    Optional<String> weeks = PlacesForWeeks.places(w.plan().reading()).map(WeekPlaces::id);
    w.plan().steps().stream()
        .filter(Step::moves)
        .forEach(
            s -> {
              boolean places = weeks.isPresent() && s.id().equals(weeks);
              int wave =
                  places && s.kind() != StepKind.RETIRE ? PLACES_FOR_WEEKS : wave(s, w.plan());
              waves.computeIfAbsent(wave, k -> new ArrayList<>()).add(s);
            });
    List<Step> linksLater = new ArrayList<>();
    for (List<Step> wave : waves.values()) {
      for (int from = 0; from < wave.size(); from += settings.stepsPerCall()) {
        List<Step> batch =
            wave.subList(from, Math.min(wave.size(), from + settings.stepsPerCall()));
        activity(w, "writing " + batch.get(0).title());
        send(w, batch, linksLater);
      }
    }
    return linksLater;
  }

  private static int wave(Step s, Planned p) {
    boolean module = s.itemKind() == Kind.MODULE;
    return switch (s.kind()) {
      case ADD -> module ? Math.min(ADDITIONS - 1, p.meant().items().depth(s.key())) : ADDITIONS;
      case RETIRE -> REMOVALS;
      default -> module ? CHANGED_MODULES : CHANGES;
    };
  }

  private void send(Work w, List<Step> batch, List<Step> linksLater) {
    Planned p = w.plan();
    ShellTranslator translator = translator(w);
    List<Write> out = new ArrayList<>();
    Map<String, String> keys = new LinkedHashMap<>();
    for (Step s : batch) {
      String key = Writes.key(w.line().id(), s);
      Optional<String> revision = s.id().map(p.reading().revisions()::get);
      Optional<Forms.Written> written = Optional.ofNullable(w.forms().get(s.key()));
      Writes.Made made = writes.make(key, s, written, translator, p.master(s.key()), revision);
      out.add(made.write());
      keys.put(s.key().value(), key);
      if (!made.complete()) {
        linksLater.add(s);
      }
    }
    stored.sending(p.line(), keys);
    Map<String, Written> answers = apply(p, out, keys.keySet());
    Map<String, Written> written = new LinkedHashMap<>();
    keys.forEach((item, key) -> written.put(item, answers.get(key)));
    stored.written(p.line(), written);
    batch.stream()
        .filter(s -> s.kind() != StepKind.RETIRE)
        .forEach(s -> w.written(s, written.get(s.key().value())));
  }

  private ShellTranslator translator(Work w) {
    return reader.translator(w.plan().gateway(), w.line().shell(), w.ours());
  }

  private Map<String, Written> apply(Planned p, List<Write> out, Set<String> items) {
    try {
      return p.gateway().apply(p.line().shell().there(), out);
    } catch (PlatformException e) {
      if (e.kind() == PlatformException.Kind.CONFLICT) {
        stored.notDone(p.line(), items);
      }
      throw e;
    }
  }

  /** What names items which were not there yet when it was written. */
  private void writeLinks(Work w, List<Step> later) {
    ShellTranslator translator = translator(w);
    List<Write> out = new ArrayList<>();
    for (Step s : later) {
      String id = w.id(s.key()).orElseThrow();
      out.add(
          writes.links(
              Writes.linksKey(w.line().id(), s),
              s,
              w.forms().get(s.key()),
              translator,
              w.plan().master(s.key()),
              id,
              Optional.ofNullable(w.left().get(id))));
    }
    for (int from = 0; from < out.size(); from += settings.stepsPerCall()) {
      activity(w, "writing links between items");
      w.plan()
          .gateway()
          .apply(
              w.line().shell().there(),
              out.subList(from, Math.min(out.size(), from + settings.stepsPerCall())))
          .values()
          .forEach(x -> w.left().put(x.id(), x.revision()));
    }
  }
}
