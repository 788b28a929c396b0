package org.zephyrmist.server.content;

import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Values that texts fill in. */
@RestController
@RequestMapping(path = "/api/values", produces = MediaType.APPLICATION_JSON_VALUE)
class ValueApi {
  private final DSLContext db;
  private final Values values;
  private final Reach reach;

  ValueApi(DSLContext db, Values values, Reach reach) {
    this.db = db;
    this.values = values;
    this.reach = reach;
  }

  record ValueText(@NotBlank @Size(max = 60) String words, @NotNull @Size(max = 400) String text) {}

  /** All values, with their texts in a section if one is named. */
  @GetMapping
  @PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
  List<Values.Value> list(
      @RequestParam(required = false) UUID section, @AuthenticationPrincipal SignedIn who) {
    if (section != null
        && !db.fetchExists(SECTION, SECTION.ID.eq(section).and(reach.sections(who)))) {
      throw Refusal.notFound("section");
    }
    return values.list(Optional.ofNullable(section));
  }

  @PutMapping("/{value}")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  void put(
      @PathVariable String value,
      @Valid @RequestBody ValueText t,
      @AuthenticationPrincipal SignedIn who) {
    values.put(value, t.words(), t.text(), who);
  }

  @DeleteMapping("/{value}")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  void remove(@PathVariable String value, @AuthenticationPrincipal SignedIn who) {
    values.remove(value, who);
  }
}
