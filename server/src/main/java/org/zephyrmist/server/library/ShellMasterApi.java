package org.zephyrmist.server.library;

import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.shell.FromShell;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.roster.Courses;
import org.zephyrmist.server.web.Refusal;

/** Masters that are made of what a shell holds. */
@RestController
@RequestMapping(path = "/api/masters/shells/{section}", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class ShellMasterApi {
  private static final int TITLES = 100;
  private final DSLContext db;
  private final Reach reach;
  private final FromShells fromShells;
  private final Courses courses;

  ShellMasterApi(DSLContext db, Reach reach, FromShells fromShells, Courses courses) {
    this.db = db;
    this.reach = reach;
    this.fromShells = fromShells;
    this.courses = courses;
  }

  /** What stays out for one reason; the first hundred titles. */
  record StaysOut(@NotNull FromShell.Why why, int items, @NotNull List<String> titles) {}

  /**
   * What of a shell would become a master.
   *
   * @param known items that a source of ours has
   * @param missing names of files that only the platform has; they are fetched from there
   */
  record ShellLook(
      @NotNull Map<Kind, Integer> kinds,
      int items,
      int known,
      @NotNull List<StaysOut> left,
      @NotNull List<String> missing) {}

  record MadeMaster(@NotNull UUID id) {}

  record NewFromShell(
      @NotBlank @Size(max = 40) String code,
      @NotBlank @Size(max = 200) String title,
      UUID program,
      List<@NotNull UUID> courses) {}

  /** Reads the shell; nothing is kept. */
  @GetMapping
  ShellLook look(@PathVariable UUID section, @AuthenticationPrincipal SignedIn who) {
    reached(section, who);
    FromShells.Look look = told(() -> fromShells.look(section));
    Map<Kind, Integer> kinds = new TreeMap<>();
    for (Item i : look.taken().items()) {
      kinds.merge(i.kind(), 1, Integer::sum);
    }
    Map<FromShell.Why, List<String>> left =
        look.taken().left().stream()
            .collect(
                Collectors.groupingBy(
                    FromShell.Left::why,
                    TreeMap::new,
                    Collectors.mapping(FromShell.Left::title, Collectors.toList())));
    List<StaysOut> out = new ArrayList<>();
    left.forEach(
        (why, titles) ->
            out.add(new StaysOut(why, titles.size(), titles.stream().limit(TITLES).toList())));
    return new ShellLook(
        kinds,
        look.taken().items().size(),
        look.taken().origins().size(),
        out,
        look.missing().values().stream().sorted().limit(TITLES).toList());
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  MadeMaster make(
      @PathVariable UUID section,
      @Valid @RequestBody NewFromShell n,
      @AuthenticationPrincipal SignedIn who) {
    reached(section, who);
    List<UUID> chosen = Optional.ofNullable(n.courses()).orElse(List.of());
    Optional<UUID> program = courses.programOf(chosen, Optional.ofNullable(n.program()), who);
    return new MadeMaster(
        told(
            () ->
                fromShells.make(
                    section, n.code().strip(), n.title().strip(), program, chosen, who)));
  }

  private void reached(UUID section, SignedIn who) {
    if (!db.fetchExists(SECTION, SECTION.ID.eq(section).and(reach.sections(who)))) {
      throw Refusal.notFound("section");
    }
  }

  private static <T> T told(java.util.function.Supplier<T> read) {
    try {
      return read.get();
    } catch (PlatformException e) {
      throw Refusal.bad(e.getMessage(), e.remedy());
    }
  }
}
