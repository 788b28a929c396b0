package org.zephyrmist.server.edition;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.edition.EditionMerge;
import org.zephyrmist.core.edition.Evidence;
import org.zephyrmist.core.edition.Pair;
import org.zephyrmist.core.edition.Taking;
import org.zephyrmist.core.merge.Runs;
import org.zephyrmist.server.content.ItemView;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.SignedIn;

/** A newer edition of the cartridge that a master was built from. */
@RestController
@RequestMapping(
    path = "/api/masters/{id}/editions/{edition}",
    produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class EditionApi {
  private final Masters masters;
  private final Merging merging;
  private final Pairings pairings;
  private final TakeEdition take;
  private final Sides sides;

  EditionApi(
      Masters masters,
      Merging merging,
      Pairings pairings,
      TakeEdition take,
      Sides sides,
      Lineages lineages) {
    this.masters = masters;
    this.merging = merging;
    this.pairings = pairings;
    this.take = take;
    this.sides = sides;
  }

  /**
   * Two items that are one.
   *
   * @param older key in the older edition; newer in the newer one
   */
  record PairView(
      @NotNull String older,
      @NotNull String newer,
      @NotNull Pair.Certainty certainty,
      @NotNull Evidence evidence,
      boolean changed) {}

  /**
   * What it does to an item of the master.
   *
   * @param key in the master
   */
  record ChangeOfEdition(
      @NotNull String key,
      String older,
      String newer,
      @NotNull Kind kind,
      @NotNull String title,
      @NotNull EditionMerge.What what,
      @NotNull Set<Aspect> theirs,
      @NotNull Set<Aspect> clash,
      @NotNull Set<Aspect> ours) {}

  record EditionView(
      @NotNull UUID olderEdition,
      @NotNull List<ItemView.Node> older,
      @NotNull List<ItemView.Node> newer,
      @NotNull List<PairView> pairs,
      @NotNull List<ChangeOfEdition> changes) {}

  record Became(String newer) {}

  record ToTake(
      @Size(max = 10_000) List<@NotNull String> keys,
      Map<String, Taking.Side> sides,
      Map<String, String> texts) {}

  record Run(@NotNull Runs.Whose whose, @NotNull String text) {}

  /**
   * The sides of an item.
   *
   * @param base as the older edition had it
   * @param merged what the texts become together; absent where they cannot be merged
   * @param clean whether nothing in the merged text is both sides' at once
   * @param stays what both changed and cannot stand side by side: together, ours stays
   * @param other differences that are no text, one sentence each
   */
  record SidesView(
      @NotNull String title,
      @NotNull List<Run> base,
      @NotNull List<Run> theirs,
      List<Run> ours,
      List<Run> merged,
      String mergedHtml,
      boolean clean,
      @NotNull List<String> stays,
      @NotNull List<String> other) {}

  @GetMapping
  EditionView view(
      @PathVariable UUID id, @PathVariable UUID edition, @AuthenticationPrincipal SignedIn who) {
    Merging.State s = merging.of(masters.get(id, who), edition);
    return new EditionView(
        s.olderId(),
        ItemView.outline(s.older()),
        ItemView.outline(s.newer()),
        s.pairing().pairs().stream().map(p -> view(p, s)).toList(),
        s.merge().changes().stream().map(EditionApi::view).toList());
  }

  private static PairView view(Pair p, Merging.State s) {
    Set<Aspect> differ =
        s.newer()
            .get(p.newer())
            .orElseThrow()
            .aspects()
            .differing(s.older().get(p.older()).orElseThrow().aspects());
    differ.remove(Aspect.PLACE);
    return new PairView(
        p.older().value(), p.newer().value(), p.certainty(), p.evidence(), !differ.isEmpty());
  }

  private static ChangeOfEdition view(EditionMerge.Change c) {
    return new ChangeOfEdition(
        c.key().value(),
        c.older().map(ItemKey::value).orElse(null),
        c.newer().map(ItemKey::value).orElse(null),
        c.kind(),
        c.title(),
        c.what(),
        c.theirs(),
        c.clash(),
        c.ours());
  }

  /** What the editions and the master say of an item, by its key in the master. */
  @GetMapping("/items/{key}")
  SidesView sides(
      @PathVariable UUID id,
      @PathVariable UUID edition,
      @PathVariable String key,
      @AuthenticationPrincipal SignedIn who) {
    return sides.of(merging.of(masters.get(id, who), edition), Previews.key(key));
  }

  /** Decides what an item of the older edition became, for every master built on it. */
  @PutMapping("/pairs/{key}")
  void decide(
      @PathVariable UUID id,
      @PathVariable UUID edition,
      @PathVariable String key,
      @RequestBody Became became,
      @AuthenticationPrincipal SignedIn who) {
    Merging.Base base = merging.base(masters.get(id, who), edition);
    pairings.decide(
        base.edition(),
        edition,
        base.lineage().inEdition(Previews.key(key)),
        Optional.ofNullable(became.newer()).map(Previews::key),
        who);
  }

  @DeleteMapping("/pairs/{key}")
  void forget(
      @PathVariable UUID id,
      @PathVariable UUID edition,
      @PathVariable String key,
      @AuthenticationPrincipal SignedIn who) {
    Merging.Base base = merging.base(masters.get(id, who), edition);
    pairings.forget(base.edition(), edition, base.lineage().inEdition(Previews.key(key)));
  }

  /** Takes changes into the draft; without keys all, of clashes those that are decided. */
  @PostMapping("/take")
  TakeEdition.Done take(
      @PathVariable UUID id,
      @PathVariable UUID edition,
      @Valid @RequestBody ToTake t,
      @AuthenticationPrincipal SignedIn who) {
    Map<ItemKey, Taking.Side> decided = new HashMap<>();
    Optional.ofNullable(t.sides())
        .orElse(Map.of())
        .forEach((k, s) -> decided.put(Previews.key(k), s));
    Map<ItemKey, String> texts = new HashMap<>();
    Optional.ofNullable(t.texts())
        .orElse(Map.of())
        .forEach((k, s) -> texts.put(Previews.key(k), s));
    Optional<Set<ItemKey>> keys =
        Optional.ofNullable(t.keys())
            .map(all -> all.stream().map(Previews::key).collect(Collectors.toSet()));
    return take.take(
        masters.get(id, who), edition, new TakeEdition.Wanted(keys, decided, texts), who);
  }

  /** Builds the master on this edition from now on. */
  @PostMapping("/finish")
  void finish(
      @PathVariable UUID id, @PathVariable UUID edition, @AuthenticationPrincipal SignedIn who) {
    take.finish(masters.get(id, who), edition, who);
  }
}
