package org.zephyrmist.server.master;

import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.merge.Beside;
import org.zephyrmist.core.merge.Runs;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** What the text of an item was in one version and is in another. */
@RestController
@RequestMapping(path = "/api/masters/{id}/changes", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class TextApi {
  private final Masters masters;
  private final Trees trees;

  TextApi(Masters masters, Trees trees) {
    this.masters = masters;
    this.trees = trees;
  }

  /** A block of a text, as words and as source. */
  record BlockView(@NotNull List<BlockRun> words, @NotNull List<BlockRun> source) {}

  /**
   * Words one after the other.
   *
   * @param only whether the other version lacks them
   */
  record BlockRun(@NotNull String text, boolean only) {}

  /** A block before and after; absent where it is new or gone. */
  record BlockChange(boolean same, BlockView before, BlockView after) {}

  /**
   * An item in two versions.
   *
   * @param blocks of its text, in their order
   */
  record TextView(@NotNull String title, @NotNull List<BlockChange> blocks) {}

  /** 0 is the draft. */
  @GetMapping("/{key}")
  TextView text(
      @PathVariable UUID id,
      @PathVariable String key,
      @RequestParam int from,
      @RequestParam int to,
      @AuthenticationPrincipal SignedIn who) {
    MasterRecord m = masters.get(id, who);
    Optional<Item> before = item(masters.tree(m, from), Previews.key(key));
    Optional<Item> after = item(masters.tree(m, to), Previews.key(key));
    Item any = after.or(() -> before).orElseThrow(() -> Refusal.notFound("item"));
    return new TextView(
        any.title(),
        Beside.of(html(before), html(after)).stream()
            .map(
                b ->
                    new BlockChange(
                        b.same(),
                        b.before().map(TextApi::view).orElse(null),
                        b.after().map(TextApi::view).orElse(null)))
            .toList());
  }

  private Optional<Item> item(UUID tree, ItemKey key) {
    return trees.tree(tree).get(key).map(n -> trees.items(List.of(n)).get(0));
  }

  private static String html(Optional<Item> i) {
    return i.map(x -> x.content().html()).orElse("");
  }

  private static BlockView view(Beside.Block b) {
    return new BlockView(runs(b.words()), runs(b.source()));
  }

  private static List<BlockRun> runs(List<Runs.Run> all) {
    return all.stream().map(r -> new BlockRun(r.text(), r.whose() != Runs.Whose.BASE)).toList();
  }
}
