package org.zephyrmist.server.platform;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;

/**
 * What the sheet with a package says, in the college's words, for one platform and its version.
 *
 * @param version of the platform
 * @param where the package goes in
 * @param avoid the entry that sounds alike
 * @param untick what to leave unticked
 * @param takes how long it takes
 * @param ends how one sees that it has ended
 */
public record SheetWords(
    @NotNull @Size(max = 200) String version,
    @NotNull @Size(max = 1_000) String where,
    @NotNull @Size(max = 1_000) String avoid,
    @NotNull @Size(max = 1_000) String untick,
    @NotNull @Size(max = 1_000) String takes,
    @NotNull @Size(max = 1_000) String ends) {
  public static final SheetWords NONE = new SheetWords("", "", "", "", "", "");
}
