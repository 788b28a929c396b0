package org.zephyrmist.server.archive;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.core.cartridge.WholeReader;
import org.zephyrmist.core.cartridge.WholeSource;
import org.zephyrmist.core.cartridge.WholeWriter;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.cartridge.Reading;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.IntakeRecord;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Writes archives, and takes them in. */
@Component
class Archives implements Reading {
  private final MasterArchives masters;
  private final CartridgeArchives cartridges;
  private final Trees trees;
  private final Bodies bodies;
  private final Files files;
  private final People people;
  private final TransactionTemplate transaction;
  private final Clock clock;

  Archives(
      MasterArchives masters,
      CartridgeArchives cartridges,
      Trees trees,
      Bodies bodies,
      Files files,
      People people,
      TransactionTemplate transaction,
      Clock clock) {
    this.people = people;
    this.transaction = transaction;
    this.clock = clock;
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

  @Override
  public boolean reads(IntakeRecord intake) {
    return intake.getArchive();
  }

  /** Looks at all of it before anything is kept, and without the database. */
  @Override
  public Kept keep(IntakeRecord intake, Path file) {
    try (WholeReader archive = WholeReader.open(file, OffsetDateTime.now(clock))) {
      return transaction.execute(t -> keep(intake, archive));
    } catch (CartridgeException e) {
      throw new Unreadable(e);
    } catch (Refusal e) {
      throw new Unreadable(new CartridgeException("", e.getMessage(), e.remedy()));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private Kept keep(IntakeRecord intake, WholeReader archive) {
    SignedIn who = people.get(intake.getPersonId());
    Received received = new Received(files, trees);
    WholeSource source;
    try {
      source = archive.receive(received);
    } catch (CartridgeException e) {
      throw new Unreadable(e);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    if (source.maker().isPresent()) {
      return new Kept(cartridges.take(source, source.maker().get(), received, who), null, false);
    }
    Optional<UUID> program = Optional.ofNullable(intake.getProgramId());
    return new Kept(null, masters.take(source, intake.getCode(), program, received, who), false);
  }
}
