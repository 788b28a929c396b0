package org.zephyrmist.core.check;

import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.edit.Edit.What;

/** What puts a finding right. */
public enum Mend {
  /** A delivery of the item, or of its master. */
  DELIVER,
  PUT_BACK_SAID(Aspect.WORDING, Aspect.VISIBILITY, Aspect.LAUNCH),
  PUT_BACK_GRADING(Aspect.GRADING),
  PUT_BACK_PLACE(Aspect.PLACE),
  PUT_BACK_DATES(Aspect.TIMING),
  PUT_BACK_TEXT(Aspect.WORDING),
  PUT_BACK_OPENING(Aspect.VISIBILITY, Aspect.TIMING),
  REMOVE(What.REMOVE),
  REMOVE_EMPTY(What.REMOVE_EMPTY),
  ONE_FRONT_PAGE(What.ONE_FRONT_PAGE),
  DROP_ENTRIES(What.DROP_ENTRIES),
  STRIP_NOTES(What.STRIP_NOTES),
  UNINDENT(What.UNINDENT),
  HIDE(What.HIDE),
  SHOW(What.SHOW),
  UNLINK(What.UNLINK),
  DROP_CONDITIONS(What.DROP_CONDITIONS),
  /** Other words, which somebody has to name. */
  REPLACE(What.REPLACE),
  /** Where tools are connected. */
  TOOLS,
  /** Where calendars, meetings and patterns are changed. */
  CALENDAR,
  OPEN_SHELL,
  /** Nothing but a person. */
  BY_HAND;

  private final Optional<What> edit;
  private final Set<Aspect> aspects;

  Mend() {
    this.edit = Optional.empty();
    this.aspects = Set.of();
  }

  Mend(What edit) {
    this.edit = Optional.of(edit);
    this.aspects = Set.of();
  }

  Mend(Aspect... aspects) {
    this.edit = Optional.of(What.PUT_BACK);
    this.aspects = Set.of(aspects);
  }

  /** What is put back, if that is what mends it. */
  public Set<Aspect> aspects() {
    return aspects;
  }

  /** The edit that it is; none if it is none. */
  public Optional<What> edit() {
    return edit;
  }
}
