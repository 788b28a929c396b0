package org.zephyrmist.server.master;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Comparison;
import org.zephyrmist.server.content.ItemView;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.roster.Courses;

/** Masters: make, edit, freeze, compare. */
@RestController
@RequestMapping(path = "/api/masters", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class MasterApi {
  private final Masters masters;
  private final Drafts drafts;
  private final Trees trees;
  private final Previews previews;
  private final MasterViews views;
  private final Courses courses;
  private final MasterItems items;
  private final Packages packages;

  MasterApi(
      Masters masters,
      Drafts drafts,
      Trees trees,
      Previews previews,
      MasterViews views,
      Courses courses,
      MasterItems items,
      Packages packages) {
    this.items = items;
    this.packages = packages;
    this.masters = masters;
    this.drafts = drafts;
    this.trees = trees;
    this.previews = previews;
    this.views = views;
    this.courses = courses;
  }

  /** Something that people can see, and no line break or control. */
  static final String SEEN = "\\P{Cntrl}*[\\p{L}\\p{N}]\\P{Cntrl}*";

  static final String WORDS = "needs a letter or a digit, all on one line";

  record Made(@NotNull UUID id) {}

  /**
   * A master to be made.
   *
   * @param program whose it is and in whose sections it is expected, if no courses are named;
   *     absent: the only one of who makes it, or the whole college for those who reach all of it
   */
  record NewMaster(
      @NotBlank @Size(max = 40) @Pattern(regexp = SEEN, message = WORDS) String code,
      @NotBlank @Size(max = 200) @Pattern(regexp = SEEN, message = WORDS) String title,
      UUID edition,
      UUID program,
      List<@NotNull UUID> courses) {}

  record ChangeView(
      @NotNull String key,
      @NotNull Kind kind,
      @NotNull String title,
      @NotNull String before,
      @NotNull Comparison.How how,
      @NotNull Set<Aspect> aspects,
      boolean rule) {}

  record Freeze(@NotBlank @Size(max = 2000) String note) {}

  record Move(String parent, String before) {}

  record NewItem(
      @NotNull Kind kind,
      @NotBlank @Size(max = 400) String title,
      @Size(max = 2_000_000) String html,
      @Size(max = 40) String points,
      @Size(max = 2000) String address,
      @Valid ItemChange.Named file,
      String parent,
      String before) {}

  record Key(@NotNull String key) {}

  /**
   * What is known of a kind of item.
   *
   * @param fromNothing whether one can be added here; others come with a package
   */
  record KindView(@NotNull Kind kind, boolean fromNothing, @NotNull Set<Kind.Field> fields) {}

  @GetMapping("/kinds")
  List<KindView> kinds() {
    return Stream.of(Kind.values()).map(k -> new KindView(k, k.fromNothing(), k.fields())).toList();
  }

  @GetMapping
  List<MasterViews.MasterView> list(@AuthenticationPrincipal SignedIn who) {
    return views.list(who);
  }

  @GetMapping("/{id}")
  MasterViews.MasterView get(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    masters.get(id, who);
    return views.one(id, who);
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  Made make(@Valid @RequestBody NewMaster n, @AuthenticationPrincipal SignedIn who) {
    List<UUID> chosen = Optional.ofNullable(n.courses()).orElse(List.of());
    Optional<UUID> program = courses.programOf(chosen, Optional.ofNullable(n.program()), who);
    return new Made(
        masters.make(
            n.code().strip(),
            n.title().strip(),
            program,
            Optional.ofNullable(n.edition()),
            chosen,
            who));
  }

  /** Says that it is taken anew each term, and never from a shell of the term before. */
  @PutMapping("/{id}/fresh")
  void fresh(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    masters.fresh(id, true, who);
  }

  @DeleteMapping("/{id}/fresh")
  void notFresh(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    masters.fresh(id, false, who);
  }

  @PostMapping("/{id}/versions")
  @ResponseStatus(HttpStatus.CREATED)
  Made freeze(
      @PathVariable UUID id, @Valid @RequestBody Freeze f, @AuthenticationPrincipal SignedIn who) {
    return new Made(masters.freeze(id, f.note().strip(), who));
  }

  /** Deletes a version that no delivery has used. */
  @DeleteMapping("/{id}/versions/{number}")
  void delete(
      @PathVariable UUID id, @PathVariable int number, @AuthenticationPrincipal SignedIn who) {
    masters.delete(masters.get(id, who), number, who);
  }

  /** The outline of a version; 0 is the draft. */
  @GetMapping("/{id}/versions/{number}/outline")
  List<ItemView.Node> outline(
      @PathVariable UUID id, @PathVariable int number, @AuthenticationPrincipal SignedIn who) {
    UUID tree = masters.tree(masters.get(id, who), number);
    return ItemView.outline(trees.tree(tree), trees.ties(tree));
  }

  @GetMapping("/{id}/versions/{number}/items/{key}")
  ItemView item(
      @PathVariable UUID id,
      @PathVariable int number,
      @PathVariable String key,
      @AuthenticationPrincipal SignedIn who) {
    return items.view(masters.tree(masters.get(id, who), number), key);
  }

  @GetMapping(
      path = "/{id}/versions/{number}/items/{key}/page",
      produces = MediaType.TEXT_HTML_VALUE)
  ResponseEntity<String> page(
      @PathVariable UUID id,
      @PathVariable int number,
      @PathVariable String key,
      @RequestParam(required = false) UUID section,
      @AuthenticationPrincipal SignedIn who) {
    MasterRecord m = masters.get(id, who);
    Optional<UUID> in = Optional.ofNullable(section).map(s -> packages.section(s, who).id());
    return previews.page(masters.tree(m, number), key, in);
  }

  /** What differs from one version to another; 0 is the draft. */
  @GetMapping("/{id}/changes")
  List<ChangeView> changes(
      @PathVariable UUID id,
      @RequestParam int from,
      @RequestParam int to,
      @AuthenticationPrincipal SignedIn who) {
    MasterRecord m = masters.get(id, who);
    return masters.changes(masters.tree(m, from), masters.tree(m, to)).stream()
        .map(MasterApi::view)
        .toList();
  }

  private static ChangeView view(Comparison.Change c) {
    return new ChangeView(
        c.key().value(), c.kind(), c.title(), c.before(), c.how(), c.aspects(), c.rule());
  }

  @PatchMapping("/{id}/draft/items/{key}")
  void change(
      @PathVariable UUID id,
      @PathVariable String key,
      @Valid @RequestBody ItemChange c,
      @AuthenticationPrincipal SignedIn who) {
    drafts.change(masters.get(id, who), Previews.key(key), c, who);
  }

  @PostMapping("/{id}/draft/items/{key}/place")
  void move(
      @PathVariable UUID id,
      @PathVariable String key,
      @RequestBody Move m,
      @AuthenticationPrincipal SignedIn who) {
    drafts.move(
        masters.get(id, who),
        List.of(Previews.key(key)),
        Optional.ofNullable(m.parent()).map(Previews::key),
        Optional.ofNullable(m.before()).map(Previews::key),
        who);
  }

  @DeleteMapping("/{id}/draft/items/{key}")
  void remove(
      @PathVariable UUID id,
      @PathVariable String key,
      @RequestParam(defaultValue = "") String seen,
      @AuthenticationPrincipal SignedIn who) {
    drafts.remove(masters.get(id, who), List.of(Previews.key(key)), seen, who);
  }

  @PostMapping("/{id}/draft/items")
  @ResponseStatus(HttpStatus.CREATED)
  Key add(
      @PathVariable UUID id, @Valid @RequestBody NewItem n, @AuthenticationPrincipal SignedIn who) {
    ItemKey key =
        drafts.add(
            masters.get(id, who),
            new Drafts.Addition(
                n.kind(),
                n.title(),
                Optional.ofNullable(n.html()).orElse(""),
                Optional.ofNullable(n.points()).orElse(""),
                Optional.ofNullable(n.address()).orElse(""),
                Optional.ofNullable(n.file()),
                Optional.ofNullable(n.parent()).map(Previews::key),
                Optional.ofNullable(n.before()).map(Previews::key)),
            who);
    return new Key(key.value());
  }
}
