package org.zephyrmist.server.check;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.check.Check;
import org.zephyrmist.core.check.CheckGroup;
import org.zephyrmist.core.check.Weight;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.edit.Subject;
import org.zephyrmist.core.shell.OpenDays;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.ToolReach;
import org.zephyrmist.server.web.Refusal;

/** Checks of shells: what is found, what mends it, what is right as it is. */
@RestController
@RequestMapping(path = "/api/checks", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class CheckApi {
  private final CheckBoard board;
  private final FoundInSections found;
  private final FindingWords words;
  private final Mends mends;
  private final CheckChoices choices;
  private final ToolReach reach;
  private final Openings openings;

  CheckApi(
      CheckBoard board,
      FoundInSections found,
      FindingWords words,
      Mends mends,
      CheckChoices choices,
      ToolReach reach,
      Openings openings) {
    this.openings = openings;
    this.board = board;
    this.found = found;
    this.words = words;
    this.mends = mends;
    this.choices = choices;
    this.reach = reach;
  }

  /** All sections of a term within reach, and what is found in them. */
  @GetMapping
  CheckBoard.Board all(@RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    return board.of(term, board.firstDay(term), who);
  }

  /** One finding, section by section. */
  @GetMapping("/{check}")
  List<FoundInSections.FoundIn> one(
      @PathVariable Check check,
      @RequestParam UUID term,
      @RequestParam String subject,
      @AuthenticationPrincipal SignedIn who) {
    return found.row(term, check, subject, who);
  }

  /** What is right as it is in sections of a term. */
  @GetMapping("/right")
  List<FoundInSections.RightRow> right(
      @RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    return found.right(term, who);
  }

  /**
   * @param subject of a row of the board
   */
  record FoundThere(
      @NotNull @Size(max = 2000) String subject,
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections) {}

  /**
   * @param find words that are replaced, where words are what is wrong
   * @param put words in their place
   */
  record MendThis(
      @NotNull @Size(max = 2000) String subject,
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections,
      @Size(max = 200) String find,
      @Size(max = 200) String put) {}

  record Mended(@NotNull List<UUID> deliveries) {}

  /** Plans that mend it, to be looked at and confirmed. */
  @PostMapping("/{check}/mend")
  @ResponseStatus(HttpStatus.CREATED)
  Mended mend(
      @PathVariable Check check,
      @Valid @RequestBody MendThis m,
      @AuthenticationPrincipal SignedIn who) {
    Optional<Mends.Replaced> put =
        Optional.ofNullable(m.find())
            .map(f -> new Mends.Replaced(f, Optional.ofNullable(m.put()).orElse("")));
    return new Mended(
        mends.make(check, subject(m.subject()), reach.all(m.sections(), who), put, who));
  }

  private static Subject subject(String text) {
    return Subject.parse(text).orElseThrow(() -> Refusal.notFound("finding"));
  }

  /**
   * @param reason why it is right as it is
   */
  record RightAsItIs(
      @NotNull @Size(max = 2000) String subject,
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections,
      @NotBlank @Size(max = 1000) String reason) {}

  record FoundCount(int sections) {}

  /** It is right as it is in these sections, as long as what is seen there stays the same. */
  @PostMapping("/{check}/right")
  FoundCount right(
      @PathVariable Check check,
      @Valid @RequestBody RightAsItIs r,
      @AuthenticationPrincipal SignedIn who) {
    return new FoundCount(
        words.right(check, r.subject(), reach.all(r.sections(), who), r.reason(), who));
  }

  /** It is looked at again. */
  @PostMapping("/{check}/again")
  FoundCount again(
      @PathVariable Check check,
      @Valid @RequestBody FoundThere f,
      @AuthenticationPrincipal SignedIn who) {
    return new FoundCount(words.again(check, f.subject(), reach.all(f.sections(), who), who));
  }

  /**
   * @param note to the instructors; may be empty
   */
  record AskThem(
      @NotNull @Size(max = 2000) String subject,
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections,
      @NotNull @Size(max = 1000) String note) {}

  /** A hand-over to the instructors of these sections. */
  @PostMapping("/{check}/ask")
  FoundCount ask(
      @PathVariable Check check,
      @Valid @RequestBody AskThem a,
      @AuthenticationPrincipal SignedIn who) {
    return new FoundCount(
        words.ask(check, a.subject(), reach.all(a.sections(), who), a.note(), who));
  }

  /**
   * @param opens from which day on students may enter; absent: at once
   * @param closes the last day on which they may; absent: for ever
   */
  record OpenThem(
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections,
      LocalDate opens,
      LocalDate closes) {}

  /** Has shells opened to students, in the background. */
  @PostMapping("/open")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  FoundCount open(@Valid @RequestBody OpenThem o, @AuthenticationPrincipal SignedIn who) {
    return new FoundCount(openings.ask(reach.all(o.sections(), who), days(o), who));
  }

  private static OpenDays days(OpenThem o) {
    for (LocalDate d : new LocalDate[] {o.opens(), o.closes()}) {
      if (d != null && Timing.at(d + "T00:00").isEmpty()) {
        throw Refusal.bad("No calendar reaches that day.", "Choose another day.");
      }
    }
    try {
      return new OpenDays(Optional.ofNullable(o.opens()), Optional.ofNullable(o.closes()));
    } catch (IllegalArgumentException e) {
      throw Refusal.bad(e.getMessage(), "Choose a later last day.");
    }
  }

  /**
   * A check of the college.
   *
   * @param words what a finding of it is called
   * @param looked whether it is looked at
   */
  record CheckRule(
      @NotNull Check check,
      @NotNull CheckGroup group,
      @NotNull String words,
      @NotNull String sentence,
      boolean looked,
      @NotNull Weight weight,
      @NotNull Weight usual) {}

  @GetMapping("/choices")
  List<CheckRule> choices() {
    Map<Check, CheckChoices.Choice> all = choices.all();
    return all.entrySet().stream()
        .map(
            e ->
                new CheckRule(
                    e.getKey(),
                    e.getKey().group(),
                    e.getKey().title("…"),
                    e.getKey().sentence(),
                    e.getValue().looked(),
                    e.getValue().weight(),
                    e.getKey().weight()))
        .toList();
  }

  record CheckChoice(boolean looked, @NotNull Weight weight) {}

  @PutMapping("/choices/{check}")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  void choose(
      @PathVariable Check check,
      @Valid @RequestBody CheckChoice c,
      @AuthenticationPrincipal SignedIn who) {
    choices.put(check, new CheckChoices.Choice(c.looked(), c.weight()), who);
  }
}
