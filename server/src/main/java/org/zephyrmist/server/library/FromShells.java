package org.zephyrmist.server.library;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.calendar.OldDates;
import org.zephyrmist.core.cartridge.MediaTypes;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.shell.FromShell;
import org.zephyrmist.server.calendar.Calendars;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.Shell;
import org.zephyrmist.server.shell.ShellItems;
import org.zephyrmist.server.shell.ShellReader;
import org.zephyrmist.server.shell.Shells;
import org.zephyrmist.server.web.Refusal;
import org.zephyrmist.server.web.Workspace;

/** Makes masters of what shells hold. */
@Component
class FromShells {
  private final Recognised recognised;
  private final Masters masters;
  private final Trees trees;
  private final Files files;
  private final Shells shells;
  private final ShellReader reader;
  private final Workspace workspace;
  private final Calendars calendars;
  private final TransactionTemplate transaction;

  FromShells(
      Recognised recognised,
      Masters masters,
      Trees trees,
      Files files,
      Shells shells,
      ShellReader reader,
      Workspace workspace,
      Calendars calendars,
      TransactionTemplate transaction) {
    this.workspace = workspace;
    this.calendars = calendars;
    this.transaction = transaction;
    this.recognised = recognised;
    this.masters = masters;
    this.trees = trees;
    this.files = files;
    this.shells = shells;
    this.reader = reader;
  }

  /**
   * What of a shell would become a master.
   *
   * @param missing files that only the platform has: names by fingerprint
   */
  record Look(FromShell taken, Map<String, String> missing, PlatformGateway gateway) {}

  /** Reads the shell; nothing is kept. */
  Look look(UUID section) {
    Shell shell = shells.of(section);
    PlatformGateway gateway = shells.gateway(shell);
    Reading reading = reader.read(gateway, shell);
    List<FromShell.There> there = new ArrayList<>();
    for (ShellItems.Placed p : ShellItems.outline(reading, gateway.addresses(), shell.there())) {
      there.add(new FromShell.There(p.item(), p.held().studentWork()));
    }
    FromShell taken = FromShell.of(there, recognised.in(reading, there), patterns(section));
    return new Look(taken, missing(taken.items()), gateway);
  }

  /** By the calendar of the section's own term; of a part of one, dates stay what they are. */
  private UnaryOperator<Timing> patterns(UUID section) {
    return Optional.ofNullable(calendars.sections(List.of(section)).get(section))
        .filter(g -> g.days().fitted().isEmpty())
        .map(g -> new OldDates(g.days().days(), OldDates.By.WEEK))
        .<UnaryOperator<Timing>>map(old -> old::patterns)
        .orElse(t -> t);
  }

  private Map<String, String> missing(List<Item> items) {
    Map<String, String> named = new TreeMap<>();
    for (Item i : items) {
      References.files(i.content().html()).forEach(f -> named.put(f.sha256(), f.name()));
      i.content().madeOf().ifPresent(f -> named.put(f.sha256(), f.name()));
      i.content().attached().forEach(f -> named.put(f.sha256(), f.name()));
    }
    named.keySet().removeAll(files.refs(named).keySet());
    return named;
  }

  /** A new master whose draft is what the shell holds; all or nothing, once it is read. */
  public UUID make(
      UUID section,
      String code,
      String title,
      Optional<UUID> program,
      List<UUID> courses,
      SignedIn who) {
    Look look = look(section);
    look.missing().forEach((sha256, name) -> fetch(look.gateway(), sha256, name));
    FromShell taken = look.taken();
    return transaction.execute(t -> keep(section, taken, code, title, program, courses, who));
  }

  /** What the platform does not give is a dead link, which freezing the draft tells. */
  private void fetch(PlatformGateway gateway, String sha256, String name) {
    try {
      Path here = workspace.file("fetched");
      try {
        gateway.download(sha256, here);
        try (InputStream in = java.nio.file.Files.newInputStream(here)) {
          transaction.executeWithoutResult(t -> keep(sha256, name, in));
        }
      } catch (PlatformException e) {
        if (e.kind() != PlatformException.Kind.LASTING) {
          throw e;
        }
      } finally {
        java.nio.file.Files.deleteIfExists(here);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private void keep(String sha256, String name, InputStream in) {
    try {
      if (!files.keep(name, MediaTypes.of(name), in).sha256().equals(sha256)) {
        throw Refusal.bad(
            "The platform sent something else for “" + name + "”.", "Try again; nothing was made.");
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private UUID keep(
      UUID section,
      FromShell taken,
      String code,
      String title,
      Optional<UUID> program,
      List<UUID> courses,
      SignedIn who) {
    UUID master = masters.make(code, title, program, Optional.empty(), courses, who);
    UUID tree = masters.get(master, who).getDraftTreeId();
    masters.madeFrom(master, section);
    trees.put(tree, taken.items());
    Map<UUID, List<ItemKey>> origins = new HashMap<>();
    taken
        .origins()
        .forEach(
            (key, k) -> {
              if (!k.source().isEmpty()) {
                origins
                    .computeIfAbsent(UUID.fromString(k.source()), e -> new ArrayList<>())
                    .add(key);
              }
            });
    origins.forEach((edition, keys) -> trees.origin(tree, keys, edition));
    return master;
  }
}
