package org.zephyrmist.core.handover;

/** What somebody else has to do; each ends by itself when it is seen to be done. */
public enum HandOverKind {
  /** The section has no shell on its platform yet. */
  CREATE_SHELL(Who.ADMINISTRATORS),
  /** The shell is to be empty before it is filled. */
  CLEAR_SHELL(Who.INSTRUCTORS),
  /** External tools are switched off in the shell. */
  SWITCH_SUPPORT_ON(Who.ADMINISTRATORS),
  /** The platform has no interface: somebody enters a tool's credentials there. */
  ENTER_CREDENTIALS(Who.ADMINISTRATORS),
  /** A tool's host is to be approved. */
  APPROVE(Who.ADMINISTRATORS),
  /** An instructor opens a tool once before students can. */
  OPEN_ONCE(Who.INSTRUCTORS),
  /** Something that checks found in the shell is to be put right. */
  PUT_RIGHT(Who.INSTRUCTORS),
  /** The platform has no interface: somebody opens the shell to students there. */
  OPEN_SHELL(Who.ADMINISTRATORS);

  /** Whose it is, unless somebody is named. */
  public enum Who {
    ADMINISTRATORS,
    /** Of the section. */
    INSTRUCTORS
  }

  private final Who who;

  HandOverKind(Who who) {
    this.who = who;
  }

  public Who who() {
    return who;
  }
}
