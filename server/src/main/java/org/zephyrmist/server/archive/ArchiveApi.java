package org.zephyrmist.server.archive;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.cartridge.WholeSource;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.cartridge.Intakes;
import org.zephyrmist.server.cartridge.Intakes.AsSource;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Attachment;
import org.zephyrmist.server.web.Heavy;

/** Whole sources as archives. */
@RestController
@RequestMapping("/api")
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class ArchiveApi {
  private final Masters masters;
  private final MasterArchives wholeMasters;
  private final CartridgeArchives wholeCartridges;
  private final Archives archives;
  private final Intakes intakes;
  private final Reach reach;
  private final Events events;

  ArchiveApi(
      Masters masters,
      MasterArchives wholeMasters,
      CartridgeArchives wholeCartridges,
      Archives archives,
      Intakes intakes,
      Reach reach,
      Events events) {
    this.wholeMasters = wholeMasters;
    this.wholeCartridges = wholeCartridges;
    this.events = events;
    this.masters = masters;
    this.archives = archives;
    this.intakes = intakes;
    this.reach = reach;
  }

  /** The archive of a master, written while it is sent. */
  @Heavy
  @GetMapping(path = "/masters/{id}/archive", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  void archive(
      @PathVariable UUID id, @AuthenticationPrincipal SignedIn who, HttpServletResponse response)
      throws IOException {
    MasterRecord m = masters.get(id, who);
    send(wholeMasters.of(m), m.getCode(), who, response);
  }

  /** The archive of a cartridge, written while it is sent. */
  @Heavy
  @GetMapping(
      path = "/cartridges/{cartridge}/archive",
      produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  void cartridge(
      @PathVariable UUID cartridge,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    WholeSource whole = wholeCartridges.of(cartridge);
    send(whole, whole.title(), who, response);
  }

  private void send(WholeSource whole, String name, SignedIn who, HttpServletResponse response)
      throws IOException {
    events.add(who.id(), "kept an archive of", name, whole.title());
    Attachment.begin(response, name.replaceAll("[^\\p{L}\\p{N}]+", "-") + ".zip");
    archives.write(whole, response.getOutputStream());
  }

  record Begun(@NotNull UUID id) {}

  /**
   * Takes an archive in as a source of its own: it waits and is read as packages are, and what
   * becomes of it stands at its intake. The body is the archive.
   */
  @PostMapping(
      path = "/archives",
      consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE,
      produces = MediaType.APPLICATION_JSON_VALUE)
  @ResponseStatus(HttpStatus.ACCEPTED)
  Begun take(
      @RequestParam(defaultValue = "archive.zip") String fileName,
      @RequestParam(defaultValue = "") @Size(max = 40) String code,
      @RequestParam(required = false) UUID program,
      HttpServletRequest request,
      @AuthenticationPrincipal SignedIn who)
      throws IOException {
    if (program != null) {
      reach.bound(Optional.of(program), who);
    }
    String name = Titles.clean(fileName);
    AsSource source = new AsSource(code.strip(), Optional.ofNullable(program));
    return new Begun(
        intakes.begin(
            name.isEmpty() ? "archive.zip" : name,
            request.getInputStream(),
            Optional.of(source),
            who));
  }
}
