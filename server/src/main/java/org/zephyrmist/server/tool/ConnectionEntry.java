package org.zephyrmist.server.tool;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.zephyrmist.core.tool.DateMode;
import org.zephyrmist.core.tool.Pairing;
import org.zephyrmist.core.tool.Scope;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.core.tool.Way;

/**
 * A connection as it is entered.
 *
 * @param scopeOf see {@link Scope}
 * @param words what the tool says when it is tied, see {@link org.zephyrmist.core.tool.ToolWords}
 * @param key a pattern of the section's values, as the secret is
 * @param secret absent: as it is
 * @param approved whether it may be used from now on
 * @param terms in which it holds; none: in every term
 * @param course that launches name, a pattern of the section's values; empty: they name none
 * @param mastersCourses courses that the tool keeps its masters in
 * @param registration whose client is the key; absent unless it is the way
 */
public record ConnectionEntry(
    @NotBlank @Size(max = 200) String name,
    @NotEmpty @Size(max = 20) List<@NotBlank @Size(max = 253) String> hosts,
    @NotNull Way way,
    @NotNull Scope.Level level,
    @NotNull @Size(max = 200) String scopeOf,
    @NotNull @Size(max = 7) List<@NotNull Stage> stages,
    @NotNull Pairing pairing,
    @NotNull @Size(max = 200) String words,
    @Min(0) @Max(1440) int waitMinutes,
    boolean sendsName,
    boolean sendsMail,
    boolean grades,
    @NotNull DateMode dates,
    @NotNull @Size(max = 200) String owner,
    @NotNull @Size(max = 400) String key,
    @Size(max = 400) String secret,
    boolean approved,
    LocalDate expires,
    LocalDate bothUntil,
    @NotNull @Size(max = 50) Set<@NotNull UUID> terms,
    @Valid EnteredRegistration registration,
    @NotNull @Size(max = 400) String course,
    @NotNull @Size(max = 50) List<@NotBlank @Size(max = 200) String> mastersCourses) {
  @Override
  public String toString() {
    return "ConnectionEntry[" + name + "]";
  }
}
