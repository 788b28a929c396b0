package org.zephyrmist.server.picking;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
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
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.lti.Picked;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.PickingTools;

/** Picking resources of registered tools into a draft. */
@RestController
@RequestMapping(path = "/api/masters/{id}/draft/picks", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class PickApi {
  private final Picks picks;
  private final PickingTools tools;
  private final Masters masters;

  PickApi(Picks picks, PickingTools tools, Masters masters) {
    this.picks = picks;
    this.tools = tools;
    this.masters = masters;
  }

  record PickTool(@NotNull UUID connection, @NotNull String name) {}

  /** Tools that resources can be picked in. */
  @GetMapping
  List<PickTool> tools(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    masters.get(id, who);
    return tools.all().stream().map(t -> new PickTool(t.connection(), t.name())).toList();
  }

  /**
   * @param parent module that it is for; absent: the top
   */
  record NewPick(@NotNull UUID connection, String parent) {}

  /**
   * @param address of the tool, at which the browser goes on
   */
  record BegunPick(@NotNull String address) {}

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  BegunPick begin(
      @PathVariable UUID id, @Valid @RequestBody NewPick n, @AuthenticationPrincipal SignedIn who) {
    return new BegunPick(
        picks.begin(
            masters.get(id, who),
            n.connection(),
            Optional.ofNullable(n.parent()).map(Previews::key),
            who));
  }

  /**
   * A resource that was picked.
   *
   * @param points that it is graded with; empty if it is not
   */
  record PickedResource(
      boolean tool, @NotNull String title, @NotNull String address, @NotNull String points) {
    static PickedResource of(Picked.Resource r) {
      String points =
          r.points()
              .map(p -> BigDecimal.valueOf(p).stripTrailingZeros().toPlainString())
              .orElse("");
      return new PickedResource(r.tool(), r.title(), r.link().address(), points);
    }
  }

  /**
   * What a tool sent back.
   *
   * @param left types of what a master cannot hold
   * @param message the tool's own words
   * @param trouble why it cannot be taken; empty if it can
   * @param taken whether it is in the draft already
   */
  record PickView(
      @NotNull String tool,
      @NotNull List<PickedResource> resources,
      @NotNull List<String> left,
      @NotNull String message,
      @NotNull String trouble,
      boolean taken) {}

  @GetMapping("/{pick}")
  PickView get(
      @PathVariable UUID id, @PathVariable UUID pick, @AuthenticationPrincipal SignedIn who) {
    masters.get(id, who);
    Picks.Answer a = picks.get(pick, id, who);
    return new PickView(
        a.tool(),
        a.picked().resources().stream().map(PickedResource::of).toList(),
        a.picked().left(),
        a.picked().message(),
        a.trouble(),
        a.taken());
  }

  record TakenPick(@NotNull List<String> keys) {}

  /** Puts it into the draft, as one step that can be undone. */
  @PostMapping("/{pick}/take")
  TakenPick take(
      @PathVariable UUID id, @PathVariable UUID pick, @AuthenticationPrincipal SignedIn who) {
    return new TakenPick(
        picks.take(masters.get(id, who), pick, who).stream().map(ItemKey::value).toList());
  }
}
