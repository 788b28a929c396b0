package org.zephyrmist.server.handover;

import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.handover.HandOverKind;
import org.zephyrmist.core.handover.Steps;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.section.Instructors;
import org.zephyrmist.server.tool.ToolReach;

/** Hand-overs: what others have to do, of all kinds, as one list. */
@RestController
@RequestMapping(path = "/api/hand-overs", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class HandOverApi {
  private final HandOvers handOvers;
  private final HandOverEdits edits;
  private final Reminding reminding;
  private final Instructors instructors;
  private final Reach reach;
  private final ToolReach sections;
  private final Clock clock;

  HandOverApi(
      HandOvers handOvers,
      HandOverEdits edits,
      Reminding reminding,
      Instructors instructors,
      Reach reach,
      ToolReach sections,
      Clock clock) {
    this.handOvers = handOvers;
    this.edits = edits;
    this.reminding = reminding;
    this.instructors = instructors;
    this.reach = reach;
    this.sections = sections;
    this.clock = clock;
  }

  /**
   * A hand-over.
   *
   * @param tool what the host's tool is called; empty if it is about none
   * @param instructors of the section
   * @param owner who was named; empty: whose it is by itself
   * @param due day; absent if nothing says one
   * @param dueSet whether somebody set it; else it is the day before the term begins
   * @param reminded when mail was last written
   * @param link where it is done
   * @param platform of the section's shell; absent if it has none
   * @param platformName what it is called; empty if there is none
   * @param steps how it is done at this college
   */
  record HandOverView(
      @NotNull HandOverKind kind,
      @NotNull HandOverKind.Who who,
      @NotNull UUID section,
      @NotNull String code,
      @NotNull String title,
      @NotNull String campus,
      @NotNull String instructors,
      @NotNull String host,
      @NotNull String tool,
      @NotNull String owner,
      @NotNull String ownerMail,
      LocalDate due,
      boolean dueSet,
      boolean overdue,
      @NotNull String note,
      OffsetDateTime reminded,
      String link,
      UUID platform,
      @NotNull String platformName,
      @NotNull String steps,
      @NotNull String contact) {}

  /** Of the sections of a term that are within reach; what is overdue first. */
  @GetMapping
  List<HandOverView> list(@RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    Map<UUID, String> names = instructors.all();
    LocalDate today = LocalDate.now(clock);
    return handOvers.of(SECTION.TERM_ID.eq(term).and(reach.sections(who))).stream()
        .map(h -> view(h, names, today))
        .sorted(Comparator.comparing(v -> !v.overdue()))
        .toList();
  }

  private static HandOverView view(HandOvers.HandOver h, Map<UUID, String> names, LocalDate today) {
    return new HandOverView(
        h.kind(),
        h.kind().who(),
        h.section().id(),
        h.section().code(),
        h.section().title(),
        h.section().campus(),
        names.getOrDefault(h.section().id(), ""),
        h.host(),
        h.step().tool(),
        h.added().ownerName(),
        h.added().ownerMail(),
        h.due().day().orElse(null),
        h.due().own().isPresent(),
        h.due().overdue(today),
        h.added().note(),
        h.added().reminded().orElse(null),
        h.step().link().orElse(null),
        h.section().platform().orElse(null),
        h.section().platformName(),
        h.steps().map(Steps::text).orElse(""),
        h.steps().map(Steps::contact).orElse(""));
  }

  /**
   * What is set of hand-overs of one kind.
   *
   * @param due absent: the day before the term begins
   * @param owner mail address of a person; empty: whose it is by itself
   */
  record HandOverSet(
      @NotNull HandOverKind kind,
      @NotNull @Size(max = 2100) String host,
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections,
      LocalDate due,
      @NotNull @Size(max = 320) String owner,
      @NotNull @Size(max = 1000) String note) {}

  @PutMapping
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  void set(@Valid @RequestBody HandOverSet s, @AuthenticationPrincipal SignedIn who) {
    edits.set(
        s.kind(), s.host(), sections.all(s.sections(), who), s.due(), s.owner(), s.note(), who);
  }

  record HandOversOf(
      @NotNull HandOverKind kind,
      @NotNull @Size(max = 2100) String host,
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections) {}

  /**
   * @param people that were written to
   */
  record RemindedPeople(int people) {}

  /** Writes to those whose they are, with steps, contact and note; once a day at most. */
  @PostMapping("/remind")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  RemindedPeople remind(@Valid @RequestBody HandOversOf h, @AuthenticationPrincipal SignedIn who) {
    return new RemindedPeople(
        reminding.of(h.kind(), h.host(), sections.all(h.sections(), who), who));
  }

  /**
   * How a kind is done at this college.
   *
   * @param platform absent: on each
   * @param host empty: for each tool
   */
  record HandOverSteps(
      @NotNull HandOverKind kind,
      UUID platform,
      @NotNull @Size(max = 2100) String host,
      @NotNull @Size(max = 4000) String steps,
      @NotNull @Size(max = 400) String contact) {}

  @PutMapping("/steps")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  void steps(@Valid @RequestBody HandOverSteps s, @AuthenticationPrincipal SignedIn who) {
    edits.steps(s.kind(), s.platform(), s.host(), s.steps(), s.contact(), who);
  }
}
