package org.zephyrmist.core.delivery;

/** What a person chose for a whole delivery. */
public record Choices(Clash clash, Twin twin) {
  /** Nothing of the section's is overwritten. */
  public static final Choices SAFE = new Choices(Clash.KEEP_SECTION, Twin.ADOPT);

  /** Both the section and the master changed an aspect of an adaptable item. */
  public enum Clash {
    KEEP_SECTION,
    TAKE_VERSION
  }

  /** The shell holds something alike that never came from us. */
  public enum Twin {
    /** Take it as ours without writing; what differs counts as changed in the section. */
    ADOPT,
    /** Add ours beside it. */
    ADD,
    /** Leave it and do not deliver the item. */
    LEAVE
  }
}
