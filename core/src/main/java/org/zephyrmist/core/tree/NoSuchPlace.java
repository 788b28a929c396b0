package org.zephyrmist.core.tree;

/** An item cannot go where it is wanted. */
public final class NoSuchPlace extends RuntimeException {
  /** Why not. */
  public enum Why {
    INTO_ITSELF,
    NOT_A_MODULE,
    NO_SUCH_MODULE,
    NO_SUCH_NEIGHBOUR
  }

  private final Why why;

  NoSuchPlace(Why why) {
    super("No such place: " + why);
    this.why = why;
  }

  public Why why() {
    return why;
  }
}
