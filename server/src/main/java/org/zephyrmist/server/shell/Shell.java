package org.zephyrmist.server.shell;

import java.util.Optional;
import java.util.UUID;
import org.zephyrmist.core.delivery.SectionFacts;

/**
 * A section with its course space on a platform.
 *
 * @param id the platform's own; none while the section has no shell
 */
public record Shell(
    UUID section, Optional<UUID> platform, Optional<String> id, SectionFacts facts) {
  /** The platform's own id of it, which it is known to have. */
  public String there() {
    return id.orElseThrow();
  }
}
