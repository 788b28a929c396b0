package org.zephyrmist.server.tool;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tool.TaskSides.Differs;
import org.zephyrmist.core.tool.TaskSides.Mend;
import org.zephyrmist.server.ledger.HeldVersions.Known;
import org.zephyrmist.server.master.Drafts;
import org.zephyrmist.server.master.ItemChange;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Points and dates of tasks that are done in tools: where the two sides differ, and its mend. */
@RestController
@RequestMapping(path = "/api/tools/tasks", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class TaskApi {
  private final TaskFindings findings;
  private final Masters masters;
  private final Drafts drafts;

  TaskApi(TaskFindings findings, Masters masters, Drafts drafts) {
    this.findings = findings;
    this.masters = masters;
    this.drafts = drafts;
  }

  /**
   * The same disagreement in some sections.
   *
   * @param master that the task is of; absent for one of the sections' own
   * @param code of the master; empty if there is none
   * @param key of the item in it
   * @param here what the shells say: points, or the date that students see
   * @param there what the tool says: points, or the date that counts
   */
  record TaskFinding(
      @NotNull Differs differs,
      @NotNull String title,
      UUID master,
      @NotNull String code,
      String key,
      @NotNull String here,
      @NotNull String there,
      @NotNull Mend mend,
      @NotNull List<UUID> sections) {}

  /**
   * Tasks of a host in a term.
   *
   * @param tasks how many, in all sections
   * @param scored in how many sections a score came back
   */
  record TasksOfTool(int tasks, int scored, @NotNull List<TaskFinding> findings) {}

  @GetMapping
  TasksOfTool of(
      @RequestParam UUID term, @RequestParam String host, @AuthenticationPrincipal SignedIn who) {
    TaskFindings.Found f = findings.of(term, host, who);
    return new TasksOfTool(
        f.tasks(), f.scored(), f.findings().stream().map(TaskApi::view).toList());
  }

  private static TaskFinding view(TaskFindings.Finding f) {
    return new TaskFinding(
        f.differs(),
        f.title(),
        f.item().map(Known::master).orElse(null),
        f.code(),
        f.item().map(i -> i.key().value()).orElse(null),
        f.here(),
        f.there(),
        f.mend(),
        f.sections());
  }

  /**
   * What a tool says of a task, to be put into the draft.
   *
   * @param there as the finding says it
   */
  record TaskTaken(
      @NotNull UUID term,
      @NotBlank @Size(max = 253) String host,
      @NotNull UUID master,
      @NotBlank @Size(max = 80) String key,
      @NotNull Differs differs,
      @NotBlank @Size(max = 40) String there) {}

  /** Puts the tool's points or date into the draft, as one step that can be undone. */
  @PostMapping("/take")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void take(@Valid @RequestBody TaskTaken t, @AuthenticationPrincipal SignedIn who) {
    var master = masters.toChange(t.master(), who);
    Known item = new Known(t.master(), new ItemKey(t.key()));
    boolean told =
        findings.of(t.term(), t.host(), who).findings().stream()
            .anyMatch(
                f ->
                    f.item().filter(item::equals).isPresent()
                        && f.differs() == t.differs()
                        && f.there().equals(t.there()));
    if (!told) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "The tool does not say so any more.",
          "Look at its tasks again; nothing was changed.");
    }
    ItemChange change =
        t.differs() == Differs.POINTS ? ItemChange.points(t.there()) : ItemChange.due(t.there());
    drafts.change(master, item.key(), change, who);
  }
}
