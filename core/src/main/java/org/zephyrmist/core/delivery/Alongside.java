package org.zephyrmist.core.delivery;

/**
 * What a plan looks at beside version, shell, receipts and choices.
 *
 * @param twins what of the shell says what items of the version say
 * @param supplied what other masters bring there
 * @param merges what texts become that were changed on both sides
 */
public record Alongside(Twins twins, Supplied supplied, Merges merges) {
  public static final Alongside NOTHING = new Alongside(Twins.NONE, Supplied.NOTHING, Merges.NONE);

  /** Merges alone. */
  static Alongside of(Merges merges) {
    return new Alongside(Twins.NONE, Supplied.NOTHING, merges);
  }
}
