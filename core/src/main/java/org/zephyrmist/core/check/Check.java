package org.zephyrmist.core.check;

import static org.zephyrmist.core.check.CheckGroup.ALL_THERE;
import static org.zephyrmist.core.check.CheckGroup.AS_STUDENT;
import static org.zephyrmist.core.check.CheckGroup.DATES;
import static org.zephyrmist.core.check.CheckGroup.FRONT_PAGE;
import static org.zephyrmist.core.check.CheckGroup.GRADE_BOOK;
import static org.zephyrmist.core.check.CheckGroup.SHELL_OPEN;
import static org.zephyrmist.core.check.CheckGroup.TASKS;
import static org.zephyrmist.core.check.CheckGroup.TOOLS;
import static org.zephyrmist.core.check.Weight.CAN_WAIT;
import static org.zephyrmist.core.check.Weight.HARM;
import static org.zephyrmist.core.check.Weight.WRONG;

/** What is looked at in a section's shell. */
public enum Check {
  NOT_ARRIVED(
      ALL_THERE,
      HARM,
      Whose.COORDINATOR,
      Mend.DELIVER,
      "%s has not arrived",
      "A master that a coverage rule expects here has never been delivered."),
  UNREADABLE(
      ALL_THERE,
      WRONG,
      Whose.COORDINATOR,
      Mend.BY_HAND,
      "Something cannot be read",
      "The platform gives something that cannot be read; all else of the shell was."),
  MISSING(
      ALL_THERE,
      HARM,
      Whose.COORDINATOR,
      Mend.DELIVER,
      "“%s” is missing",
      "An item of the version that this section holds is not in its shell."),
  DIFFERENT(
      ALL_THERE,
      WRONG,
      Whose.COORDINATOR,
      Mend.PUT_BACK_SAID,
      "“%s” is not as its master has it",
      "A fixed item was changed in the shell."),
  DOUBLED(
      ALL_THERE,
      WRONG,
      Whose.COORDINATOR,
      Mend.REMOVE,
      "“%s” is there twice",
      "Beside an item of a master stands one of the same kind and title that nobody delivered."),
  SURPLUS(
      ALL_THERE,
      CAN_WAIT,
      Whose.COORDINATOR,
      Mend.REMOVE,
      "“%s” is left over",
      "The version that this section holds has the item no more."),
  EMPTY_MODULE(
      ALL_THERE,
      CAN_WAIT,
      Whose.COORDINATOR,
      Mend.REMOVE_EMPTY,
      "“%s” is empty",
      "A module without anything in it."),
  INDENTED(
      ALL_THERE,
      CAN_WAIT,
      Whose.INSTRUCTOR,
      Mend.UNINDENT,
      "“%s” is indented by hand",
      "Dashes or dots before a title make it stand further to the right, and are read aloud."),
  ORDER(
      ALL_THERE,
      CAN_WAIT,
      Whose.INSTRUCTOR,
      Mend.PUT_BACK_PLACE,
      "“%s” stands elsewhere than in its master",
      "An item was moved in the shell."),
  BEHIND(
      ALL_THERE,
      CAN_WAIT,
      Whose.COORDINATOR,
      Mend.DELIVER,
      "%s is not at the version that is expected",
      "The section holds an older version than its coverage rule expects."),

  TWO_FRONT_PAGES(
      FRONT_PAGE,
      WRONG,
      Whose.COORDINATOR,
      Mend.ONE_FRONT_PAGE,
      "Two front pages",
      "A shell opens with one page; here are several."),
  NO_FRONT_PAGE(
      FRONT_PAGE,
      WRONG,
      Whose.COORDINATOR,
      Mend.BY_HAND,
      "No front page",
      "Nothing says with which page this shell opens."),
  DEAD_ENTRY(
      FRONT_PAGE,
      HARM,
      Whose.COORDINATOR,
      Mend.DROP_ENTRIES,
      "An entry of “%s” leads nowhere",
      "The item that a menu or front page leads to is not here."),

  POINTS(
      TASKS,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.PUT_BACK_GRADING,
      "“%s” has other points than its master",
      "Points were changed in the shell."),
  NO_BANK(
      TASKS,
      HARM,
      Whose.COORDINATOR,
      Mend.DELIVER,
      "“%s” is without its questions",
      "A quiz asks nothing, or the bank that it draws from is not here."),
  NO_RUBRIC(
      TASKS,
      WRONG,
      Whose.COORDINATOR,
      Mend.PUT_BACK_GRADING,
      "“%s” is without its rubric",
      "A task is graded by a rubric in its master, and by none that is here."),
  GROUP_SET(
      TASKS,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.PUT_BACK_GRADING,
      "“%s” has another group set",
      "A task of groups is done by other groups than its master says, or by none that are here."),

  NO_CATEGORY(
      GRADE_BOOK,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.PUT_BACK_GRADING,
      "“%s” is in no grade category",
      "A task counts into a category in its master, and into none that is here."),
  WEIGHTS(
      GRADE_BOOK,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.BY_HAND,
      "Weights add up to %s %%",
      "Where categories have weights, all together make 100."),
  NO_POINTS(
      GRADE_BOOK,
      CAN_WAIT,
      Whose.INSTRUCTOR,
      Mend.BY_HAND,
      "“%s” counts with 0 points",
      "A task that students see is in the grade book and earns nothing."),

  NOT_CONNECTED(
      TOOLS,
      HARM,
      Whose.ADMINISTRATOR,
      Mend.TOOLS,
      "Not connected: %s",
      "Links lead to a tool that no connection serves here."),
  TIED_WRONGLY(
      TOOLS,
      HARM,
      Whose.COORDINATOR,
      Mend.TOOLS,
      "Tied to another course: %s",
      "The tool takes this section for another course."),
  TOOL_WAITS(
      TOOLS,
      WRONG,
      Whose.ADMINISTRATOR,
      Mend.TOOLS,
      "Somebody has to act: %s",
      "A stage of the tool's connection is not reached."),
  NOT_OPENED(
      TOOLS,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.TOOLS,
      "Not opened yet: %s",
      "The instructor has to open the tool once before students can."),

  ON_DAY_OFF(
      DATES,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.PUT_BACK_DATES,
      "“%s” is due on a day off",
      "Nobody is taught on the day on which it is due."),
  OUTSIDE_TERM(
      DATES,
      HARM,
      Whose.INSTRUCTOR,
      Mend.PUT_BACK_DATES,
      "“%s” is due or closes outside the term",
      "A date lies before the first day of the term or after the last of its finals."),
  DISORDER(
      DATES,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.PUT_BACK_DATES,
      "“%s” is due before it opens, or after it closes",
      "Something opens, then is due, then closes."),
  DATE_LOST(
      DATES,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.PUT_BACK_DATES,
      "“%s” has lost its due date",
      "The master gives it a due date, and the shell has none."),
  DUE_TOGETHER(
      DATES,
      CAN_WAIT,
      Whose.INSTRUCTOR,
      Mend.PUT_BACK_DATES,
      "“%s” is due on one day with another",
      "Two things are due on one day here that are due on two as they were delivered."),
  NO_DATE(
      DATES,
      WRONG,
      Whose.COORDINATOR,
      Mend.CALENDAR,
      "“%s” has a pattern and no date",
      "What its dates go by is not known in this section."),
  OTHER_DATE(
      DATES,
      CAN_WAIT,
      Whose.COORDINATOR,
      Mend.CALENDAR,
      "“%s” is not on the day of its pattern",
      "The section's calendar has no such day, so another was taken."),

  BUILDER_NOTE(
      AS_STUDENT,
      HARM,
      Whose.COORDINATOR,
      Mend.STRIP_NOTES,
      "A builder note is in view: “%s”",
      "A sentence from builder to builder that students can read."),
  PERHAPS_NOTE(
      AS_STUDENT,
      WRONG,
      Whose.COORDINATOR,
      Mend.REPLACE,
      "Perhaps a builder note is in view: “%s”",
      "A sentence that may be from builder to builder, or something that is still to be filled in."),
  BLANK(
      AS_STUDENT,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.BY_HAND,
      "A blank is not filled in: “%s”",
      "Something that the instructor is to fill in still stands in brackets."),
  OLD_WORDS(
      AS_STUDENT,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.REPLACE,
      "“%s” names another term or person",
      "A text names another term, or the address of somebody who does not teach here."),
  INSTRUCTORS_IN_VIEW(
      AS_STUDENT,
      HARM,
      Whose.COORDINATOR,
      Mend.HIDE,
      "“%s” can be opened by students",
      "Something that is only for instructors is shown."),
  DEAD_LINK(
      AS_STUDENT,
      HARM,
      Whose.COORDINATOR,
      Mend.UNLINK,
      "A link of “%s” leads nowhere",
      "A text leads to an item that is not here."),
  LOST_FRAME(
      AS_STUDENT,
      WRONG,
      Whose.COORDINATOR,
      Mend.PUT_BACK_TEXT,
      "“%s” has lost a frame",
      "A film, map or exercise that its master shows is not shown here."),
  BROKEN_CONDITION(
      AS_STUDENT,
      HARM,
      Whose.COORDINATOR,
      Mend.DROP_CONDITIONS,
      "“%s” can never open",
      "It waits for an item that is not here."),
  TOO_EARLY(
      AS_STUDENT,
      WRONG,
      Whose.INSTRUCTOR,
      Mend.PUT_BACK_OPENING,
      "“%s” is open too early",
      "It was meant to be hidden, or to open later."),
  HIDDEN_PAST(
      AS_STUDENT,
      HARM,
      Whose.INSTRUCTOR,
      Mend.SHOW,
      "“%s” is hidden past its day",
      "Its day has come, and students do not see it."),

  CLOSED(
      SHELL_OPEN,
      CAN_WAIT,
      Whose.COORDINATOR,
      Mend.OPEN_SHELL,
      "Still closed",
      "Students cannot enter the shell."),
  OPEN_NOT_READY(
      SHELL_OPEN,
      HARM,
      Whose.COORDINATOR,
      Mend.BY_HAND,
      "Open, though not ready",
      "Students can enter the shell, and would meet something that is wrong.");

  /** Whose it is to put it right. */
  public enum Whose {
    COORDINATOR,
    INSTRUCTOR,
    ADMINISTRATOR
  }

  private final CheckGroup group;
  private final Weight weight;
  private final Whose whose;
  private final Mend mend;
  private final String title;
  private final String sentence;

  Check(CheckGroup group, Weight weight, Whose whose, Mend mend, String title, String sentence) {
    this.group = group;
    this.weight = weight;
    this.whose = whose;
    this.mend = mend;
    this.title = title;
    this.sentence = sentence;
  }

  public CheckGroup group() {
    return group;
  }

  /** How bad it is, unless a college says otherwise. */
  public Weight weight() {
    return weight;
  }

  public Whose whose() {
    return whose;
  }

  public Mend mend() {
    return mend;
  }

  /**
   * What a finding is called.
   *
   * @param about title of the item, or what else it is about
   */
  public String title(String about) {
    return title.formatted(about);
  }

  /** The rule, as one sentence. */
  public String sentence() {
    return sentence;
  }
}
