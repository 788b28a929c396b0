package org.zephyrmist.server.master;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
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
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Attachment;
import org.zephyrmist.server.web.Uploads;
import org.zephyrmist.server.web.Workspace;

/** Whole masters as archives. */
@RestController
@RequestMapping("/api/masters")
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class ArchiveApi {
  private final Masters masters;
  private final Archives archives;
  private final Workspace workspace;
  private final Settings settings;
  private final Events events;

  ArchiveApi(
      Masters masters, Archives archives, Workspace workspace, Settings settings, Events events) {
    this.events = events;
    this.masters = masters;
    this.archives = archives;
    this.workspace = workspace;
    this.settings = settings;
  }

  /** The archive of a master, written while it is sent. */
  @GetMapping(path = "/{id}/archive", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  void archive(
      @PathVariable UUID id, @AuthenticationPrincipal SignedIn who, HttpServletResponse response)
      throws IOException {
    MasterRecord m = masters.get(id, who);
    WholeSource whole = archives.of(m);
    String name = m.getCode().replaceAll("[^\\p{L}\\p{N}]+", "-") + ".zip";
    events.add(who.id(), "kept an archive of", m.getCode(), m.getTitle());
    Attachment.begin(response, name);
    archives.write(whole, response.getOutputStream());
  }

  /** Takes an archive in as a master of its own. The body is the archive. */
  @PostMapping(
      path = "/archives",
      consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE,
      produces = MediaType.APPLICATION_JSON_VALUE)
  @ResponseStatus(HttpStatus.CREATED)
  MasterApi.Made take(
      @RequestParam(defaultValue = "") String code,
      HttpServletRequest request,
      @AuthenticationPrincipal SignedIn who)
      throws IOException {
    Path here = workspace.file("archive");
    try {
      Uploads.receive(
          request.getInputStream(),
          here,
          settings.uploadMostBytes(),
          "archive",
          "Raise the limit upload-most-bytes.");
      return new MasterApi.Made(archives.take(here, code, who));
    } finally {
      Files.deleteIfExists(here);
    }
  }
}
