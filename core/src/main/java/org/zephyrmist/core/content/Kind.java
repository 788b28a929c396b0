package org.zephyrmist.core.content;

/** The kinds of item. Each is one {@link Content} type. */
public enum Kind {
  MODULE,
  PAGE,
  FILE,
  WEB_LINK,
  TOOL_LINK,
  ASSIGNMENT,
  DISCUSSION,
  QUIZ,
  QUESTION_BANK,
  RUBRIC,
  OUTCOME,
  GRADE_CATEGORY,
  ANNOUNCEMENT,
  GROUP_SET
}
