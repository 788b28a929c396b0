package org.zephyrmist.server.line;

import java.util.Optional;
import java.util.UUID;
import org.zephyrmist.core.delivery.Step;

/**
 * A step as it is kept.
 *
 * @param platformItem the platform's id of the item, also of one that the step added
 * @param done whether the platform said that it is written
 * @param sentKey under which it was sent
 * @param seenRevision of the item as it was planned on
 * @param leftRevision of the item after it was written
 */
record StoredStep(
    UUID line,
    Step step,
    Optional<String> platformItem,
    boolean done,
    Optional<String> sentKey,
    Optional<String> seenRevision,
    Optional<String> leftRevision) {

  /** The same after the platform said what became of it. */
  StoredStep written(String id, String revision) {
    return new StoredStep(
        line, step, Optional.of(id), true, sentKey, seenRevision, Optional.of(revision));
  }
}
