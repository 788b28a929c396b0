package org.zephyrmist.server.delivery;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.SignedIn;

/** Choices of deliveries, kept for the next time. */
@RestController
@RequestMapping(path = "/api/deliveries/recipes", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class RecipeApi {
  private final Recipes recipes;

  RecipeApi(Recipes recipes) {
    this.recipes = recipes;
  }

  /**
   * A delivery's choices under a name.
   *
   * @param others masters that come with it as one order, of those that are within reach
   * @param gone of these, how many are not there any more, or have no version
   * @param used deliveries made by it
   * @param sections of the last of them
   */
  record Recipe(
      @NotNull UUID id,
      @NotNull String name,
      @NotNull DeliveryApi.Chosen choices,
      @NotNull String madeBy,
      @NotNull OffsetDateTime madeAt,
      @NotNull List<UUID> others,
      int gone,
      int used,
      OffsetDateTime usedAt,
      int sections) {}

  record NewRecipe(
      @NotNull UUID master,
      @NotBlank @Size(max = 100) String name,
      @NotNull @Valid DeliveryApi.Chosen choices,
      @Size(max = 7) List<@NotNull UUID> others) {}

  record KeptRecipe(@NotNull UUID id) {}

  /** Those of a master, the last used first. */
  @GetMapping
  List<Recipe> list(@RequestParam UUID master, @AuthenticationPrincipal SignedIn who) {
    return recipes.of(master, who);
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  KeptRecipe keep(@Valid @RequestBody NewRecipe n, @AuthenticationPrincipal SignedIn who) {
    return new KeptRecipe(recipes.keep(n, who));
  }

  @DeleteMapping("/{recipe}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void drop(@PathVariable UUID recipe, @AuthenticationPrincipal SignedIn who) {
    recipes.drop(recipe, who);
  }
}
