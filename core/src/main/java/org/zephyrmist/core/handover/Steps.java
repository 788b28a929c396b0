package org.zephyrmist.core.handover;

import java.util.Collection;
import java.util.Comparator;
import java.util.Optional;

/**
 * How a kind of hand-over is done at this college.
 *
 * @param platform for which it holds; empty: for each
 * @param host of the tool for which it holds; empty: for each
 * @param text what to do, step by step
 * @param contact whom to ask
 */
public record Steps(HandOverKind kind, String platform, String host, String text, String contact) {

  /** Those of the narrowest that fit: a tool's go before a platform's. */
  public static Optional<Steps> of(
      Collection<Steps> all, HandOverKind kind, String platform, String host) {
    return all.stream()
        .filter(s -> s.kind == kind)
        .filter(s -> s.platform.isEmpty() || s.platform.equals(platform))
        .filter(s -> s.host.isEmpty() || s.host.equals(host))
        .max(
            Comparator.comparing((Steps s) -> !s.host.isEmpty())
                .thenComparing(s -> !s.platform.isEmpty()));
  }
}
