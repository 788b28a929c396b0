package org.zephyrmist.core.merge;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.Html;

/**
 * Two texts side by side, block by block: a paragraph, a list, a table as a whole.
 *
 * @param before none where the block is new
 * @param after none where it is gone
 */
public record Beside(Optional<Block> before, Optional<Block> after) {
  /**
   * A block of one side.
   *
   * @param html as it stands
   * @param words its words, those that the other side lacks marked as this side's
   * @param source its source in the same way
   */
  public record Block(String html, List<Runs.Run> words, List<Runs.Run> source) {}

  /** Whether both are the same. */
  public boolean same() {
    return before.map(Block::html).equals(after.map(Block::html));
  }

  /** All blocks in their order; what was changed stands beside what it became. */
  public static List<Beside> of(String before, String after) {
    List<String> old = Html.blocks(before);
    List<String> now = Html.blocks(after);
    int[] partner = Alignment.of(old, now);
    List<Beside> all = new ArrayList<>();
    int at = 0;
    List<String> gone = new ArrayList<>();
    for (int i = 0; i <= old.size(); i++) {
      if (i < old.size() && partner[i] < 0) {
        gone.add(old.get(i));
        continue;
      }
      int until = i < old.size() ? partner[i] : now.size();
      pair(gone, now.subList(at, until), all);
      gone.clear();
      at = until;
      if (i < old.size()) {
        all.add(same(old.get(i)));
        at++;
      }
    }
    return all;
  }

  private static void pair(List<String> gone, List<String> fresh, List<Beside> all) {
    for (int i = 0; i < Math.max(gone.size(), fresh.size()); i++) {
      Optional<String> b = i < gone.size() ? Optional.of(gone.get(i)) : Optional.empty();
      Optional<String> a = i < fresh.size() ? Optional.of(fresh.get(i)) : Optional.empty();
      all.add(
          new Beside(
              b.map(x -> block(x, a.orElse(""), Runs.Whose.OURS)),
              a.map(x -> block(x, b.orElse(""), Runs.Whose.THEIRS))));
    }
  }

  private static Beside same(String html) {
    Block b =
        new Block(
            html,
            List.of(new Runs.Run(Runs.Whose.BASE, Html.text(html))),
            List.of(new Runs.Run(Runs.Whose.BASE, html)));
    return new Beside(Optional.of(b), Optional.of(b));
  }

  private static Block block(String html, String other, Runs.Whose side) {
    return new Block(
        html, Runs.of(Html.text(other), Html.text(html), side), Runs.of(other, html, side));
  }
}
