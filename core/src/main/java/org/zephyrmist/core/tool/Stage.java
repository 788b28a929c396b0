package org.zephyrmist.core.tool;

import org.zephyrmist.core.tool.LinkState.Standing;

/**
 * What has to happen before the links of a host work in a section. Each connection names those it
 * has, in its own order; one that it does not have never counts as missing.
 */
public enum Stage {
  /** The platform's tool support is switched on in the shell. */
  SUPPORT(Whose.ADMINISTRATOR, Standing.NOT_CONNECTED),
  CREDENTIALS(Whose.ADMINISTRATOR, Standing.NOT_CONNECTED),
  APPROVAL(Whose.ADMINISTRATOR, Standing.WAITS),
  /** Accepted at the first opening. */
  AGREEMENT(Whose.INSTRUCTOR, Standing.NOT_OPENED),
  /** Minutes that the tool takes for itself. */
  WAIT(Whose.NOBODY, Standing.WAITS),
  /** The section is tied to its course on the tool's side. */
  PAIRING(Whose.INSTRUCTOR, Standing.NOT_OPENED),
  /** An instructor opens one link before students can. */
  FIRST_OPENING(Whose.INSTRUCTOR, Standing.NOT_OPENED);

  /** Whose the next step is. */
  public enum Whose {
    ADMINISTRATOR,
    COORDINATOR,
    INSTRUCTOR,
    /** It goes on by itself. */
    NOBODY
  }

  private final Whose whose;
  private final Standing standing;

  Stage(Whose whose, Standing standing) {
    this.whose = whose;
    this.standing = standing;
  }

  /** How far links are that are stuck here. */
  public Standing standing() {
    return standing;
  }

  public Whose whose() {
    return whose;
  }
}
