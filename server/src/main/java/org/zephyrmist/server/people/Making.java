package org.zephyrmist.server.people;

import jakarta.validation.constraints.NotNull;
import java.util.Optional;

/** Data that a server is making while it can be used already. */
public interface Making {
  /**
   * @param done parts of {@code of}
   * @param failed whether the rest will not come
   */
  record Far(@NotNull int done, @NotNull int of, @NotNull boolean failed) {}

  /** None when all is made. */
  Optional<Far> far();
}
