package org.zephyrmist.server.shell;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.FrameHosts;
import org.zephyrmist.server.ledger.Holding;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;

/** Reads shells in our terms. */
@Component
public class ShellReader {
  private final Shells shells;
  private final Ledger ledger;
  private final Versions versions;
  private final Bodies bodies;
  private static final Pattern FILE = Pattern.compile("\"sha256\":\"([0-9a-f]{64})\"");
  private final FrameHosts frames;
  private final ShellQuestions questions;
  private final Settings settings;
  private final Looks looks;
  private final KeptReadings kept;

  ShellReader(
      Shells shells,
      Ledger ledger,
      Versions versions,
      Bodies bodies,
      FrameHosts frames,
      ShellQuestions questions,
      Settings settings,
      Looks looks,
      KeptReadings kept) {
    this.kept = kept;
    this.looks = looks;
    this.frames = frames;
    this.questions = questions;
    this.shells = shells;
    this.ledger = ledger;
    this.versions = versions;
    this.bodies = bodies;
    this.settings = settings;
  }

  public Reading read(PlatformGateway gateway, Shell shell) {
    return read(gateway, shell, new Ours());
  }

  /**
   * Reads with items known that the ledger has not got yet.
   *
   * @param fresh those items
   */
  public Reading read(PlatformGateway gateway, Shell shell, Ours fresh) {
    PlatformGateway.Contents contents = gateway.read(shell.there());
    List<Holding> holdings = ledger.holdings(shell.section());
    Ours ours = Ours.of(holdings);
    ours.putAll(fresh);
    questions.lookUp(questionFiles(contents.items()));
    ShellTranslator translator = translator(gateway, shell, ours);
    Map<String, Held> byId = new LinkedHashMap<>();
    Map<String, Map<Aspect, String>> forms = new HashMap<>();
    Map<String, String> revisions = new HashMap<>();
    Map<String, Reading.Change> changes = new HashMap<>();
    Map<String, Base> known = new HashMap<>();
    holdings.forEach(h -> known.put(h.platformItem(), h.base()));
    List<Reading.Unread> unread = new ArrayList<>();
    for (PlatformGateway.ShellItem i : contents.items()) {
      String wording = i.forms().get(Aspect.WORDING);
      try {
        ShellTranslator.Read r =
            ItemTime.within(
                settings.itemTimeout(), title(i), wording.length(), () -> translator.in(i));
        byId.put(i.id(), r.held());
        forms.put(i.id(), r.forms());
      } catch (PlatformException e) {
        unread.add(new Reading.Unread(i.id(), title(i), e));
        Base b = known.get(i.id());
        if (b == null) {
          continue;
        }
        byId.put(
            i.id(),
            new Held(i.id(), i.kind(), title(i), i.parent(), b.shown(), i.studentWork(), false));
        forms.put(i.id(), b.shown().forms(bodies.get(b.shown().asMap().values())));
      }
      revisions.put(i.id(), i.revision());
      changes.put(i.id(), new Reading.Change(i.changedBy(), i.changedAt()));
    }
    return new Reading(
        byId,
        forms,
        revisions,
        changes,
        contents.tag(),
        contents.counts(),
        holdings,
        unread,
        contents.open());
  }

  private static List<String> questionFiles(List<PlatformGateway.ShellItem> items) {
    return items.stream()
        .filter(i -> i.kind().fields().contains(Kind.Field.QUESTIONS))
        .flatMap(i -> FILE.matcher(i.forms().get(Aspect.WORDING)).results())
        .map(m -> m.group(1))
        .toList();
  }

  /** For what is read from this shell and written to it. */
  public ShellTranslator translator(PlatformGateway gateway, Shell shell, Ours ours) {
    return new ShellTranslator(
        gateway.addresses(),
        shell.there(),
        ours,
        versions.letters(),
        frames.approved(),
        new ShellTranslator.QuestionFiles() {
          @Override
          public FileRef sent(FileRef kept) {
            return questions.sent(kept, gateway.addresses());
          }

          @Override
          public FileRef kept(FileRef sent) {
            return questions.kept(sent);
          }
        });
  }

  private static String title(PlatformGateway.ShellItem i) {
    try {
      String title = AspectForms.title(i.forms().get(Aspect.WORDING));
      return title.isEmpty() ? i.id() : title;
    } catch (RuntimeException odd) {
      return i.id();
    }
  }

  /**
   * Reads a section, if its shell has moved since, and brings the ledger's view of it up to date.
   */
  public void refresh(UUID section) {
    Shell shell = shells.of(section);
    PlatformGateway gateway = shells.gateway(shell);
    boolean whole = !looks.lacks(section);
    if (whole && kept.has(section) && gateway.unchanged(shell.there(), looks.tag(section))) {
      looks.again(section);
      kept.again(section);
      return;
    }
    Reading r = read(gateway, shell);
    seen(shell, r);
    looks.read(section, r);
    kept.keep(section, r);
  }

  /** Brings the ledger's view of a section up to date. */
  public void seen(Shell shell, Reading r) {
    keep(
        r,
        r.holdings().stream()
            .filter(
                h ->
                    r.item(h.platformItem())
                        .filter(held -> !held.aspects().equals(h.base().shown()))
                        .isPresent())
            .map(Holding::platformItem)
            .toList());
    ledger.seen(shell.section(), r.holdings(), r.byId());
    ledger.changedBy(shell.section(), authors(r));
  }

  /** Who changed what is otherwise than it was delivered. */
  private static Map<String, Ledger.Author> authors(Reading r) {
    Map<String, Ledger.Author> all = new HashMap<>();
    for (Holding h : r.holdings()) {
      Reading.Change c = r.changes().get(h.platformItem());
      boolean changed =
          r.item(h.platformItem())
              .filter(held -> !held.aspects().equals(h.base().shown()))
              .isPresent();
      if (changed && c != null) {
        all.put(h.platformItem(), new Ledger.Author(c.by(), c.at()));
      }
    }
    return all;
  }

  /** Keeps the texts of these items, so that they can be shown and found again later. */
  public void keep(Reading r, Iterable<String> ids) {
    bodies.keep(r.texts(ids));
  }
}
