package org.zephyrmist.core.content;

import java.util.Optional;

/** When an item opens, is due and closes: local times as ISO 8601, or none. */
public record Timing(Optional<String> opens, Optional<String> due, Optional<String> closes) {
  public static final Timing NONE =
      new Timing(Optional.empty(), Optional.empty(), Optional.empty());
}
