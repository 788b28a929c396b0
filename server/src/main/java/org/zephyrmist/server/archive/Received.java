package org.zephyrmist.server.archive;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.UUID;
import org.zephyrmist.core.cartridge.WholeReader;
import org.zephyrmist.core.cartridge.WholeSource;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Trees;

/** Keeps the files and trees of an archive that is read. */
final class Received implements WholeReader.Receiver {
  private final Files files;
  private final Trees trees;
  private final SortedMap<Integer, Kept> kept = new TreeMap<>();

  /**
   * A state that was kept.
   *
   * @param tree where its items are
   */
  record Kept(WholeSource.State state, UUID tree) {}

  Received(Files files, Trees trees) {
    this.files = files;
    this.trees = trees;
  }

  /** By number, a draft first. */
  SortedMap<Integer, Kept> kept() {
    return kept;
  }

  @Override
  public FileRef file(String mediaType, InputStream in) throws IOException {
    return files.keep("file", mediaType, in);
  }

  @Override
  public void state(WholeSource.State s, List<Item> items) {
    UUID tree = trees.create();
    trees.put(tree, items);
    own(tree, s.items());
    kept.put(s.number(), new Kept(s, tree));
  }

  /** For whom items are meant and what they go with, a call for each answer. */
  private void own(UUID tree, List<WholeSource.Entry> items) {
    Map<AppliesTo, List<ItemKey>> meant = new HashMap<>();
    Map<String, List<ItemKey>> tied = new HashMap<>();
    for (WholeSource.Entry e : items) {
      if (!e.appliesTo().equals(AppliesTo.EVERY_SECTION)) {
        meant.computeIfAbsent(e.appliesTo(), x -> new ArrayList<>()).add(e.key());
      }
      e.goesWith().ifPresent(t -> tied.computeIfAbsent(t, x -> new ArrayList<>()).add(e.key()));
    }
    meant.forEach((to, keys) -> trees.appliesTo(tree, keys, to));
    tied.forEach((tie, keys) -> trees.tie(tree, keys, java.util.Optional.of(tie)));
  }
}
