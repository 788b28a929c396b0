package org.zephyrmist.server.delivery;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.core.edit.Subject;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Changes that are made alike in many shells, each as a plan. */
@RestController
@RequestMapping(path = "/api/deliveries/edits", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class EditApi {
  private final EditDeliveries edits;

  EditApi(EditDeliveries edits) {
    this.edits = edits;
  }

  /**
   * A change.
   *
   * @param about items, as checks and lists of items name them; absent: all that it finds
   * @param find words that are replaced
   * @param put words in their place
   * @param from when items open
   * @param after the item that has to be opened before
   */
  record NewEdit(
      @NotNull Edit.What what,
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections,
      @Size(max = 500) List<@NotNull @Size(max = 2000) String> about,
      @Size(max = 200) String find,
      @Size(max = 200) String put,
      LocalDateTime from,
      @Size(max = 2000) String after) {}

  record EditMade(@NotNull UUID id) {}

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  EditMade make(@Valid @RequestBody NewEdit n, @AuthenticationPrincipal SignedIn who) {
    if (n.what().carries()) { // from sections that are perhaps not within reach
      throw Refusal.bad(
          "What sections made of texts is carried over with their term.",
          "Go to Coverage, The next term.");
    }
    return new EditMade(edits.make(edit(n), n.sections(), who));
  }

  private static Edit edit(NewEdit n) {
    try {
      return new Edit(
          n.what(),
          Optional.ofNullable(n.about()).orElse(List.of()).stream().map(EditApi::subject).toList(),
          Optional.ofNullable(n.find()).orElse(""),
          Optional.ofNullable(n.put()).orElse(""),
          Optional.ofNullable(n.from()).map(EditApi::inRange),
          Optional.ofNullable(n.after()).map(EditApi::subject),
          Set.of());
    } catch (IllegalArgumentException e) {
      throw Refusal.bad(e.getMessage(), "Say what is to be changed, and how.");
    }
  }

  private static LocalDateTime inRange(LocalDateTime at) {
    return Timing.at(at.toString())
        .orElseThrow(() -> Refusal.bad("No calendar reaches that day.", "Choose another day."));
  }

  private static Subject subject(String text) {
    return Subject.parse(text).orElseThrow(() -> Refusal.notFound("item"));
  }
}
