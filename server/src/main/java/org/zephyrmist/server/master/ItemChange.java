package org.zephyrmist.server.master;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.HandIn;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.server.content.ItemView;

/**
 * What is to change of an item, as it is called; what is absent stays. An empty text takes away
 * what may be absent.
 *
 * @param opens a real time or one by a pattern, as {@code due} and {@code closes}
 * @param within of a module
 * @param category key of a grade category
 * @param rubric key of a rubric
 * @param groupSet key of a group set
 * @param oneTerm of an announcement
 * @param seen the item's aspects as the writer has seen them
 */
public record ItemChange(
    @Size(max = 400) String title,
    @Size(max = 2_000_000) String html,
    @Size(max = 40) String points,
    @Size(max = 2000) String address,
    @Size(max = 140) String opens,
    @Size(max = 140) String due,
    @Size(max = 140) String closes,
    @Valid ItemView.Within within,
    Boolean shown,
    EditRule rule,
    @Size(max = 80) String category,
    @Size(max = 80) String rubric,
    @Size(max = 80) String groupSet,
    @Size(max = 20) String attempts,
    @Size(max = 20) String minutes,
    @Size(max = 40) String weight,
    HandIn handIn,
    @Size(max = 200) List<ItemView.@NotNull RubricLine> criteria,
    @Size(max = 500) List<@NotNull @Size(max = 200) String> groups,
    @Size(max = 200) Map<String, @NotNull @Size(max = 2000) String> parameters,
    Boolean newWindow,
    Boolean oneTerm,
    SetupSubject subject,
    @Size(max = 500) List<Content.@NotNull Entry> entries,
    @Size(max = 50) List<ItemView.@NotNull Waits> conditions,
    Boolean instructorsOnly,
    @Valid Named file,
    @Size(max = 200) List<@NotNull @Valid Named> attached,
    Meets appliesTo,
    Map<Aspect, String> seen) {

  /** Another number of points and nothing else. */
  public static ItemChange points(String points) {
    return of(points, null);
  }

  /** Another date and nothing else. */
  public static ItemChange due(String due) {
    return of(null, due);
  }

  private static ItemChange of(String points, String due) {
    return new ItemChange(
        null, null, points, null, null, due, null, null, null, null, null, null, null, null, null,
        null, null, null, null, null, null, null, null, null, null, null, null, null, null, null);
  }

  /** A file that is kept, by its fingerprint, and what it is called here. */
  public record Named(
      @NotNull @Size(min = 64, max = 64) String sha256,
      @NotNull @Size(min = 1, max = 255) String name) {}

  /** The sections an item is meant for; where nothing is named, all. */
  public record Meets(
      @NotNull Set<@NotNull String> campuses,
      @NotNull Set<@NotNull String> modes,
      @NotNull Set<@NotNull String> tags,
      boolean nobody) {}
}
