package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.DRAFT_STEP;
import static org.zephyrmist.server.db.Tables.PERSON;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
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
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Several items of a draft at once, and its steps: undone, done again, listed. */
@RestController
@RequestMapping(path = "/api/masters/{id}/draft", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class DraftApi {
  private static final int LISTED = 50;
  private final DSLContext db;
  private final Masters masters;
  private final Drafts drafts;
  private final DraftEdits edits;
  private final TakeOver takeOver;
  private final Presence presence;
  private final DraftFiles uploads;
  private final FromSections fromSections;

  DraftApi(
      DSLContext db,
      Masters masters,
      Drafts drafts,
      DraftEdits edits,
      TakeOver takeOver,
      Presence presence,
      DraftFiles uploads,
      FromSections fromSections) {
    this.fromSections = fromSections;
    this.presence = presence;
    this.uploads = uploads;
    this.db = db;
    this.masters = masters;
    this.drafts = drafts;
    this.edits = edits;
    this.takeOver = takeOver;
  }

  /**
   * A step of a draft.
   *
   * @param mine whether the caller took it, and so can undo it
   */
  record DraftStep(
      @NotNull String what,
      @NotNull String by,
      @NotNull OffsetDateTime at,
      boolean mine,
      boolean undone) {}

  record Turned(@NotNull String what) {}

  record Restored(int version) {}

  record SomeMoved(
      @NotNull @Size(min = 1, max = 5_000) List<@NotNull String> keys,
      String parent,
      String before) {}

  record SomeItems(@NotNull @Size(min = 1, max = 5_000) List<@NotNull String> keys) {}

  /**
   * Items of another source, or of another version of this one.
   *
   * @param edition they are taken from; none if from a master
   * @param master they are taken from; none if from an edition
   * @param version of that master, 0 for its draft
   * @param away they are taken out of that draft in the same step
   */
  record SomeTaken(
      UUID edition,
      UUID master,
      int version,
      @NotNull @Size(min = 1, max = 5_000) List<@NotNull String> keys,
      String parent,
      String before,
      Boolean away) {}

  record Taken(@NotNull List<String> keys, int along) {}

  /** The last steps, newest first. */
  @GetMapping("/steps")
  List<DraftStep> steps(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    masters.get(id, who);
    return db.select(
            DRAFT_STEP.WHAT, PERSON.NAME, DRAFT_STEP.AT, DRAFT_STEP.PERSON_ID, DRAFT_STEP.UNDONE)
        .from(DRAFT_STEP)
        .join(PERSON)
        .on(PERSON.ID.eq(DRAFT_STEP.PERSON_ID))
        .where(DRAFT_STEP.MASTER_ID.eq(id))
        .orderBy(DRAFT_STEP.ID.desc())
        .limit(LISTED)
        .fetch(
            r ->
                new DraftStep(
                    r.value1(), r.value2(), r.value3(), r.value4().equals(who.id()), r.value5()));
  }

  @PostMapping("/undo")
  Turned undo(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    return new Turned(edits.undo(masters.get(id, who), who));
  }

  @PostMapping("/redo")
  Turned redo(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    return new Turned(edits.redo(masters.get(id, who), who));
  }

  /** Makes the draft what a version is. */
  @PostMapping("/restore")
  void restore(
      @PathVariable UUID id,
      @Valid @RequestBody Restored r,
      @AuthenticationPrincipal SignedIn who) {
    MasterRecord master = masters.get(id, who);
    if (r.version() < 1) {
      throw Refusal.bad("The draft itself is no version.", "Name a version from 1 on.");
    }
    drafts.restore(master, masters.tree(master, r.version()), r.version(), who);
  }

  @PostMapping("/move")
  void move(
      @PathVariable UUID id,
      @Valid @RequestBody SomeMoved m,
      @AuthenticationPrincipal SignedIn who) {
    drafts.move(
        masters.get(id, who),
        keys(m.keys()),
        Optional.ofNullable(m.parent()).map(Previews::key),
        Optional.ofNullable(m.before()).map(Previews::key),
        who);
  }

  @PostMapping("/take-out")
  void takeOut(
      @PathVariable UUID id,
      @Valid @RequestBody SomeItems m,
      @AuthenticationPrincipal SignedIn who) {
    drafts.remove(masters.get(id, who), keys(m.keys()), "", who);
  }

  /** Takes items over from another source, with what they need. */
  @PostMapping("/take-over")
  Taken take(
      @PathVariable UUID id,
      @Valid @RequestBody SomeTaken t,
      @AuthenticationPrincipal SignedIn who) {
    return takeOver.take(
        masters.get(id, who),
        new TakeOver.Source(
            Optional.ofNullable(t.edition()), Optional.ofNullable(t.master()), t.version()),
        keys(t.keys()),
        Optional.ofNullable(t.parent()).map(Previews::key),
        Optional.ofNullable(t.before()).map(Previews::key),
        Boolean.TRUE.equals(t.away()),
        who);
  }

  /**
   * Items that go with each other.
   *
   * @param together false unties them
   */
  record TieItems(
      @NotNull @Size(min = 1, max = 500) List<@NotNull String> keys, boolean together) {}

  @PostMapping("/tie")
  void tie(
      @PathVariable UUID id,
      @Valid @RequestBody TieItems t,
      @AuthenticationPrincipal SignedIn who) {
    drafts.tie(masters.get(id, who), keys(t.keys()), t.together(), who);
  }

  /**
   * Where somebody is.
   *
   * @param key of the item they look at; may be empty
   */
  record At(@NotNull @Size(max = 80) String key, boolean writing) {}

  /** Says where the caller is; gives who else is at the draft. */
  @PostMapping("/here")
  List<Presence.Other> here(
      @PathVariable UUID id, @Valid @RequestBody At at, @AuthenticationPrincipal SignedIn who) {
    return presence.here(masters.get(id, who), at.key(), at.writing(), who);
  }

  /** Keeps a file, so that items can name it. The body is the file itself. */
  @PostMapping(path = "/files", consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  @ResponseStatus(HttpStatus.CREATED)
  FileRef file(
      @PathVariable UUID id,
      @RequestParam String fileName,
      HttpServletRequest request,
      @AuthenticationPrincipal SignedIn who)
      throws IOException {
    masters.get(id, who);
    return uploads.keep(fileName, request.getInputStream());
  }

  private static List<ItemKey> keys(List<String> keys) {
    return keys.stream().map(Previews::key).distinct().toList();
  }

  /**
   * @param section whose form of the item is taken
   * @param aspects that are taken
   */
  record FromSection(@NotNull UUID section, @NotEmpty Set<@NotNull Aspect> aspects) {}

  /** Takes what a section made of an item into the draft. */
  @PostMapping("/items/{key}/from-section")
  void fromSection(
      @PathVariable UUID id,
      @PathVariable String key,
      @Valid @RequestBody FromSection f,
      @AuthenticationPrincipal SignedIn who) {
    fromSections.take(masters.get(id, who), Previews.key(key), f.section(), f.aspects(), who);
  }
}
