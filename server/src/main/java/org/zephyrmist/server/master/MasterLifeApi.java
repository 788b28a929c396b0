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
import org.jooq.impl.DSL;
import org.springframework.http.HttpStatus;
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
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;

/** A master's name and program, who else changes it, and its end; see {@link WhoChanges}. */
@RestController
@RequestMapping(path = "/api/masters/{id}", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class MasterLifeApi {
  private final Masters masters;
  private final MasterLife life;
  private final Reach reach;

  MasterLifeApi(Masters masters, MasterLife life, Reach reach) {
    this.reach = reach;
    this.masters = masters;
    this.life = life;
  }

  /**
   * What a master is called and whose it is.
   *
   * @param program absent: the whole college's
   */
  record Called(
      @NotBlank @Size(max = 40) @Pattern(regexp = MasterApi.SEEN, message = MasterApi.WORDS)
          String code,
      @NotBlank @Size(max = 200) @Pattern(regexp = MasterApi.SEEN, message = MasterApi.WORDS)
          String title,
      UUID program) {}

  record HolderView(@NotNull String section, @NotNull String term, int version) {}

  /**
   * Who holds a master in terms that are not over.
   *
   * @param others how many there are beyond one's reach
   */
  record Holders(@NotNull List<HolderView> sections, int others) {}

  record KeeperView(@NotNull UUID id, @NotNull String name) {}

  record Keepers(@NotNull @Size(max = 200) Set<@NotNull UUID> people) {}

  @PutMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void call(
      @PathVariable UUID id, @Valid @RequestBody Called c, @AuthenticationPrincipal SignedIn who) {
    life.call(
        masters.get(id, who),
        c.code().strip(),
        c.title().strip(),
        Optional.ofNullable(c.program()),
        who);
  }

  /** Sections that hold something of it, in terms that are not over. */
  @GetMapping("/holders")
  Holders holders(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    UUID master = masters.get(id, who).getId();
    List<HolderView> mine =
        life.holders(master, reach.sections(who)).stream()
            .map(h -> new HolderView(h.section(), h.term(), h.version()))
            .toList();
    return new Holders(mine, life.holders(master, DSL.noCondition()).size() - mine.size());
  }

  /** Nobody is to receive it any more. */
  @PostMapping("/retire")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void retire(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    life.retire(masters.get(id, who), who);
  }

  @PostMapping("/bring-back")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void bringBack(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    life.bringBack(masters.get(id, who), who);
  }

  /** Deletes one that nothing ever held. */
  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void delete(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    life.delete(masters.get(id, who), who);
  }

  /** Who changes it beside those who reach the whole college. */
  @GetMapping("/keepers")
  List<KeeperView> keepers(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    return life.keepers(masters.get(id, who).getId()).stream()
        .map(k -> new KeeperView(k.id(), k.name()))
        .toList();
  }

  @PutMapping("/keepers")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void keepers(
      @PathVariable UUID id, @Valid @RequestBody Keepers k, @AuthenticationPrincipal SignedIn who) {
    life.keepers(masters.get(id, who), k.people(), who);
  }
}
