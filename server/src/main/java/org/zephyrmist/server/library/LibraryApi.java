package org.zephyrmist.server.library;

import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.UUID;
import org.springframework.beans.propertyeditors.StringArrayPropertyEditor;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.WebDataBinder;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.InitBinder;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.people.SignedIn;

/** Items of all sources. */
@RestController
@RequestMapping(path = "/api/library", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class LibraryApi {
  private final Library library;

  LibraryApi(Library library) {
    this.library = library;
  }

  /** A value may hold a comma. */
  @InitBinder
  void whole(WebDataBinder binder) {
    binder.registerCustomEditor(String[].class, new StringArrayPropertyEditor(null));
  }

  /** By what items are counted and chosen. */
  enum Facet {
    KIND,
    SOURCE,
    MAKER,
    LICENCE,
    LANGUAGE,
    LEVEL,
    COST,
    SUBJECT,
    HOST,
    AUDIENCE
  }

  /**
   * An item of a source.
   *
   * @param edition it is of; absent if it is of a master's draft
   * @param source title of the source
   * @param masters how many masters have it, or had it taken over
   * @param sections how many sections hold it; changed and gone: how many of these changed it, or
   *     took it out
   */
  record FoundItem(
      UUID edition,
      UUID master,
      @NotNull String source,
      @NotNull String key,
      @NotNull Kind kind,
      @NotNull String title,
      boolean instructorsOnly,
      boolean asks,
      int masters,
      int sections,
      int changed,
      int gone) {}

  /** How many of those found have a value. */
  record FacetCount(@NotNull Facet facet, @NotNull String value, int items) {}

  record LibraryAnswer(
      int total, @NotNull List<FoundItem> items, @NotNull List<FacetCount> counts) {}

  /**
   * Items whose title or text has these words, best first.
   *
   * @param facet chosen values, each as {@code FACET:value}; all have to fit
   */
  @GetMapping
  LibraryAnswer search(
      @RequestParam(defaultValue = "") String q,
      @RequestParam(required = false) String[] facet,
      @RequestParam(defaultValue = "0") int from,
      @AuthenticationPrincipal SignedIn who) {
    List<String> facets = facet == null ? List.of() : List.of(facet);
    return library.search(q, facets, Math.max(0, Math.min(from, 100_000)), who);
  }
}
