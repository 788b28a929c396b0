package org.zephyrmist.server.master;

import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.cartridge.PackageChoices;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.server.content.FrameHosts;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Attachment;
import org.zephyrmist.server.web.Heavy;

/** Packages of a master: what they would lose, and the packages themselves. */
@RestController
@RequestMapping("/api/masters/{id}/versions/{number}/package")
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class PackageApi {
  private static final int TITLES = 50;
  private final Masters masters;
  private final Packages packages;
  private final Consents consents;
  private final FrameHosts frames;
  private final Events events;

  PackageApi(
      Masters masters, Packages packages, Consents consents, FrameHosts frames, Events events) {
    this.masters = masters;
    this.packages = packages;
    this.consents = consents;
    this.frames = frames;
    this.events = events;
  }

  /**
   * Something that the format does not hold.
   *
   * @param handwork what it leaves to do at the other end; may be empty
   * @param items how many
   * @param titles the first of them
   */
  record Loss(
      @NotNull String what, @NotNull String handwork, int items, @NotNull List<String> titles) {}

  /**
   * What a package would be.
   *
   * @param items that it is made of, modules too
   */
  record Preview(int items, @NotNull List<Loss> losses) {}

  @GetMapping(path = "/losses", produces = MediaType.APPLICATION_JSON_VALUE)
  Preview losses(
      @PathVariable UUID id,
      @PathVariable int number,
      @RequestParam PackageFormat format,
      @RequestParam(defaultValue = "true") boolean parameters,
      @RequestParam(defaultValue = "true") boolean grading,
      @RequestParam(defaultValue = "true") boolean instructorsOnly,
      @RequestParam(defaultValue = "") List<String> part,
      @RequestParam(required = false) UUID section,
      @AuthenticationPrincipal SignedIn who) {
    Packages.Wanted wanted = wanted(id, number, part, section, who);
    PackageChoices choices =
        new PackageChoices(format, parameters, grading, instructorsOnly, frames.approved());
    return new Preview(
        packages.size(wanted),
        packages.losses(wanted, choices).stream()
            .map(
                l ->
                    new Loss(
                        l.what(),
                        l.handwork(),
                        l.titles().size(),
                        l.titles().stream().limit(TITLES).toList()))
            .toList());
  }

  /** Written while it is sent. */
  @Heavy
  @GetMapping(produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  void write(
      @PathVariable UUID id,
      @PathVariable int number,
      @RequestParam PackageFormat format,
      @RequestParam(defaultValue = "true") boolean parameters,
      @RequestParam(defaultValue = "true") boolean grading,
      @RequestParam(defaultValue = "true") boolean instructorsOnly,
      @RequestParam(defaultValue = "") List<String> part,
      @RequestParam(required = false) UUID section,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    Packages.Wanted wanted = wanted(id, number, part, section, who);
    PackageChoices choices =
        new PackageChoices(format, parameters, grading, instructorsOnly, frames.approved());
    consents.check(masters.tree(wanted.master(), number));
    String code = wanted.master().getCode();
    String what = number == 0 ? "draft" : "version " + number;
    String name = code + ", " + what + ", " + format.words();
    events.add(who.id(), "wrote a package of", code + ", " + what, format.words());
    Attachment.begin(response, name.replaceAll("[/\\\\:]", "-") + ".imscc");
    packages.write(wanted, choices, response.getOutputStream());
  }

  private Packages.Wanted wanted(
      UUID id, int number, List<String> part, UUID section, SignedIn who) {
    MasterRecord master = masters.get(id, who);
    Set<ItemKey> parts = new LinkedHashSet<>();
    part.stream().filter(p -> !p.isBlank()).forEach(p -> parts.add(Previews.key(p)));
    return new Packages.Wanted(
        master, number, parts, Optional.ofNullable(section).map(s -> packages.section(s, who)));
  }
}
