package org.zephyrmist.server.packages;

import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeWriter;
import org.zephyrmist.core.cartridge.PackageChoices;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.FrameHosts;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.Shell;
import org.zephyrmist.server.shell.ShellItems;
import org.zephyrmist.server.shell.ShellReader;
import org.zephyrmist.server.shell.Shells;

/** What the package of a section holds: only what is to change there. */
@Component
class SectionPackages {
  /** Begins the identifier of every package that goes into a shell. */
  static final String OURS = "zephyrmist-section:";

  private final Platforms platforms;
  private final Shells shells;
  private final ShellReader reader;
  private final Files files;
  private final FrameHosts frames;

  SectionPackages(
      Platforms platforms, Shells shells, ShellReader reader, Files files, FrameHosts frames) {
    this.platforms = platforms;
    this.shells = shells;
    this.reader = reader;
    this.files = files;
    this.frames = frames;
  }

  /**
   * What is to change in a shell, by titles.
   *
   * @param items of the package, with the modules they stand in
   * @param byHand what no package can say, with what is to be done
   */
  record Change(
      List<Item> items,
      List<String> added,
      List<String> changed,
      List<String> removed,
      List<String> byHand) {}

  Change of(WaitingPackages.One w) {
    Shell shell = shells.of(w.section());
    PlatformGateway meant = platforms.meant(w.platform());
    Reading will = reader.read(meant, shell);
    Reading is = reader.read(shells.gateway(shell), shell);
    List<Item> items = new ArrayList<>();
    List<String> added = new ArrayList<>();
    List<String> changed = new ArrayList<>();
    List<String> byHand = new ArrayList<>();
    Set<String> modules = new HashSet<>();
    List<ShellItems.Placed> outline = ShellItems.outline(will, meant.addresses(), shell.there());
    for (int n = outline.size() - 1; n >= 0; n--) {
      Item i = outline.get(n).item();
      Held h = outline.get(n).held();
      Optional<Fingerprints> before = is.item(h.id()).map(Held::aspects);
      boolean moves = !before.equals(Optional.of(h.aspects()));
      boolean module = i.kind() == Kind.MODULE;
      if (module ? modules.contains(h.id()) || moves : moves && w.format().holds(i.kind())) {
        items.add(0, i);
        h.parent().ifPresent(modules::add);
      }
      if (moves && !module) {
        (before.isPresent() ? changed : added).add(0, i.title());
        byHand(w, i).ifPresent(what -> byHand.add(0, what));
      }
    }
    List<String> removed =
        is.items().stream().filter(h -> will.item(h.id()).isEmpty()).map(Held::title).toList();
    return new Change(items, added, changed, removed, byHand);
  }

  private static Optional<String> byHand(WaitingPackages.One w, Item i) {
    List<String> what = new ArrayList<>();
    if (!w.format().holds(i.kind())) {
      what.add("make it (" + i.kind().words() + ")");
    }
    if (!i.timing().equals(Timing.NONE)) {
      what.add("set its dates (" + words(i.timing()) + ")");
    }
    if (!i.visibility().shown()) {
      what.add("hide it");
    }
    return what.isEmpty()
        ? Optional.empty()
        : Optional.of(i.title() + ": " + String.join(", ", what));
  }

  private static String words(Timing t) {
    List<String> all = new ArrayList<>();
    for (Point p : Point.values()) {
      t.at(p).ifPresent(at -> all.add(p.word() + " " + at.toString().replace('T', ' ')));
    }
    return String.join(", ", all);
  }

  void write(WaitingPackages.One w, Change change, OutputStream out) throws IOException {
    CartridgeFacts facts =
        new CartridgeFacts(
            w.code() + " " + w.masterCode() + " version " + w.number(),
            "",
            "",
            "",
            w.format().words(),
            false,
            OURS + w.section() + ":" + w.line(),
            "",
            "",
            List.of(),
            "",
            "");
    PackageChoices choices = new PackageChoices(w.format(), true, true, true, frames.approved());
    CartridgeWriter.write(out, facts, change.items(), choices, files::open);
  }
}
