package org.zephyrmist.server.cartridge;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.function.Consumer;
import java.util.function.Function;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.Intake;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.KeySpace;
import org.zephyrmist.server.content.FileIntake;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Trees;

/** Puts what a reading finds into a tree, a few hundred items at a time. */
final class TreeIntake implements Intake, AutoCloseable {
  interface Progress {
    void at(int done, int total, String what);
  }

  private static final int BATCH = 200;
  private final UUID tree;
  private final Trees trees;
  private final FileIntake files;
  private final Progress progress;
  private final Function<CartridgeFacts, KeySpace> keySpace;
  private final Consumer<Runnable> writer;
  private final List<Item> batch = new ArrayList<>();

  /**
   * @param keySpace of the source that the package is an edition of
   * @param writer runs what is to be written, in its order
   */
  TreeIntake(
      UUID tree,
      Trees trees,
      Files files,
      Progress progress,
      Function<CartridgeFacts, KeySpace> keySpace,
      Consumer<Runnable> writer) {
    this.keySpace = keySpace;
    this.writer = writer;
    this.tree = tree;
    this.trees = trees;
    this.files = files.intake(tree, writer);
    this.progress = progress;
  }

  @Override
  public FileRef file(String path, String name, String mediaType, InputStream in)
      throws IOException {
    return files.keep(path, name, mediaType, in);
  }

  @Override
  public FileRef made(String name, String mediaType, byte[] content) {
    return files.made(name, mediaType, content);
  }

  @Override
  public KeySpace keySpace(CartridgeFacts facts) {
    return keySpace.apply(facts);
  }

  @Override
  public void item(Item item) {
    batch.add(item);
    if (batch.size() == BATCH) {
      write();
    }
  }

  /** Writes what waits. */
  void flush() {
    files.flush();
    write();
  }

  private void write() {
    List<Item> items = List.copyOf(batch);
    batch.clear();
    writer.accept(() -> trees.put(tree, items));
  }

  @Override
  public void progress(int done, int total, String what) {
    progress.at(done, total, what);
  }

  @Override
  public void close() {
    files.close();
  }
}
