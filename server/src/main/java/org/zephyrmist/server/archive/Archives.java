package org.zephyrmist.server.archive;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.core.cartridge.WholeReader;
import org.zephyrmist.core.cartridge.WholeSource;
import org.zephyrmist.core.cartridge.WholeWriter;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Writes archives, and takes them in. */
@Component
class Archives {
  private final MasterArchives masters;
  private final CartridgeArchives cartridges;
  private final Trees trees;
  private final Bodies bodies;
  private final Files files;

  Archives(
      MasterArchives masters,
      CartridgeArchives cartridges,
      Trees trees,
      Bodies bodies,
      Files files) {
    this.masters = masters;
    this.cartridges = cartridges;
    this.trees = trees;
    this.bodies = bodies;
    this.files = files;
  }

  static List<WholeSource.Entry> entries(Trees trees, UUID tree) {
    Map<ItemKey, String> ties = trees.ties(tree);
    return trees.tree(tree).nodes().stream().map(n -> entry(n, ties)).toList();
  }

  private static WholeSource.Entry entry(Node n, Map<ItemKey, String> ties) {
    return new WholeSource.Entry(
        n.key(),
        n.kind(),
        n.rule(),
        n.appliesTo(),
        Optional.ofNullable(ties.get(n.key())),
        n.aspects());
  }

  void write(WholeSource source, OutputStream out) throws IOException {
    WholeWriter.write(out, source, bodies::get, files::refs, files::open);
  }

  /**
   * Takes an archive in as a master or a cartridge of its own, all or nothing.
   *
   * @param code that a master is to have; empty for the one in the archive
   */
  @Transactional
  public ArchiveApi.TakenIn take(Path file, String code, Optional<UUID> program, SignedIn who)
      throws IOException {
    Received received = new Received(files, trees);
    WholeSource source;
    try {
      source = WholeReader.read(file, received);
    } catch (CartridgeException e) {
      String place = e.place().isEmpty() ? "" : e.place() + ": ";
      throw Refusal.bad(place + e.getMessage(), e.remedy());
    }
    return source
        .maker()
        .map(m -> new ArchiveApi.TakenIn(null, cartridges.take(source, m, received, who)))
        .orElseGet(
            () -> new ArchiveApi.TakenIn(masters.take(source, code, program, received, who), null));
  }
}
