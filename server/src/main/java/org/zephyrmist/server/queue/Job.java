package org.zephyrmist.server.queue;

import java.util.Collection;
import java.util.List;
import java.util.UUID;

/** One sort of work on the queue. */
public interface Job {
  /** By which it is kept in the database; never changed. */
  String name();

  /**
   * Does the work of one thing, on one server at a time. A server that dies in the middle is
   * noticed, and another does it again from the beginning; so it is for any exception.
   */
  Outcome run(UUID id);

  /** Things that ought to be on the queue and are not, because a server died at a bad moment. */
  default Collection<UUID> strays() {
    return List.of();
  }

  /** Puts right what a server left that died at a bad moment. */
  default void sweep() {}
}
