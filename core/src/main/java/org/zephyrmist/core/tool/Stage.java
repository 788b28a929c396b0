package org.zephyrmist.core.tool;

/**
 * What has to happen before the links of a host work in a section. Each connection names those it
 * has, in its own order; one that it does not have never counts as missing.
 */
public enum Stage {
  /** The platform's tool support is switched on in the shell. */
  SUPPORT(Whose.ADMINISTRATOR),
  CREDENTIALS(Whose.ADMINISTRATOR),
  APPROVAL(Whose.ADMINISTRATOR),
  /** Accepted at the first opening. */
  AGREEMENT(Whose.INSTRUCTOR),
  /** Minutes that the tool takes for itself. */
  WAIT(Whose.NOBODY),
  /** The section is tied to its course on the tool's side. */
  PAIRING(Whose.INSTRUCTOR),
  /** An instructor opens one link before students can. */
  FIRST_OPENING(Whose.INSTRUCTOR);

  /** Whose the next step is. */
  public enum Whose {
    ADMINISTRATOR,
    COORDINATOR,
    INSTRUCTOR,
    /** It goes on by itself. */
    NOBODY
  }

  private final Whose whose;

  Stage(Whose whose) {
    this.whose = whose;
  }

  public Whose whose() {
    return whose;
  }
}
