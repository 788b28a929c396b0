package org.zephyrmist.core.tool;

import java.util.Optional;

/**
 * Credentials that somebody wrote into a shell, or said to have entered there.
 *
 * @param of the connection that they are of; none: it has been ended since
 * @param state of that connection's key and secret then, which counts their changes
 */
public record Written(Optional<String> of, int state) {
  /**
   * Whether they are those of a connection.
   *
   * @param now its state
   * @param both whether its tool takes the secret before too
   */
  public boolean isOf(Connection c, int now, boolean both) {
    return of.filter(c.id()::equals).isPresent() && (state == now || both && state == now - 1);
  }
}
