package org.zephyrmist.core.content;

/** Whether an item follows its origin by itself, or stays as it was delivered. */
public enum Live {
  /** All of it was brought over; a change needs a delivery. */
  COPIED,
  /** Its content stays where it comes from. */
  LIVE,
  /** Brought over, but it shows something in a frame that stays where it comes from. */
  PARTLY;

  public static Live of(Item i) {
    if (i.kind().leads()) {
      return LIVE;
    }
    return Html.embedded(i.content().html()).stream().anyMatch(Embedded::frame) ? PARTLY : COPIED;
  }
}
