package org.zephyrmist.server.master;

import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.io.InputStream;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
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
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.db.tables.records.MadePackageRecord;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Attachment;

/** Packages that are made in the background. */
@RestController
@RequestMapping(path = "/api/masters/{id}/packages", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class MadePackageApi {
  private final Masters masters;
  private final Packages packages;
  private final MadePackages made;
  private final Consents consents;
  private final Queue queue;
  private final Events events;

  MadePackageApi(
      Masters masters,
      Packages packages,
      MadePackages made,
      Consents consents,
      Queue queue,
      Events events) {
    this.masters = masters;
    this.packages = packages;
    this.made = made;
    this.consents = consents;
    this.queue = queue;
    this.events = events;
  }

  /**
   * @param parts modules and items, with all below; empty for everything
   */
  record OrderedPackage(
      int version,
      @NotNull PackageFormat format,
      boolean parameters,
      boolean grading,
      boolean instructorsOnly,
      @NotNull @Size(max = 5_000) List<@NotNull String> parts,
      UUID section) {}

  record BegunPackage(@NotNull UUID id) {}

  @GetMapping
  List<MadePackages.MadePackage> list(
      @PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    masters.get(id, who);
    return made.list(id, who);
  }

  @PostMapping
  @ResponseStatus(HttpStatus.ACCEPTED)
  BegunPackage begin(
      @PathVariable UUID id,
      @Valid @RequestBody OrderedPackage o,
      @AuthenticationPrincipal SignedIn who) {
    MasterRecord master = masters.get(id, who);
    consents.check(masters.tree(master, o.version()));
    Optional.ofNullable(o.section()).ifPresent(s -> packages.section(s, who));
    Set<String> parts = new LinkedHashSet<>();
    o.parts().forEach(p -> parts.add(Previews.key(p).value()));
    String what = o.version() == 0 ? "draft" : "version " + o.version();
    String name = master.getCode() + ", " + what + ", " + o.format().words();
    events.add(who.id(), "wrote a package of", master.getCode() + ", " + what, o.format().words());
    return new BegunPackage(
        made.begin(
            new Packages.Order(
                id,
                o.version(),
                parts,
                o.section(),
                o.format(),
                o.parameters(),
                o.grading(),
                o.instructorsOnly()),
            name.replaceAll("[/\\\\:]", "-") + ".imscc",
            who,
            queue));
  }

  @GetMapping(path = "/{package}", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  void download(
      @PathVariable UUID id,
      @PathVariable("package") UUID made,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    MasterRecord master = masters.get(id, who);
    MadePackageRecord r = this.made.ready(id, made, who);
    consents.check(masters.tree(master, this.made.order(r).version()));
    Attachment.begin(response, r.getFileName());
    response.setContentLengthLong(r.getBytes());
    try (InputStream in = this.made.open(r)) {
      in.transferTo(response.getOutputStream());
    }
  }
}
