package org.zephyrmist.standins.tool;

import java.util.Arrays;
import java.util.Optional;

/** The tools there are, each with its way of working. All are made up. */
enum Tool {
  /** Key and secret; each section has a course of its own, asked for at the first opening. */
  CUEBENCH("cuebench.example", "CueBench", true, true, false, false, false),
  /** A key for each course; nobody gets in by themselves. */
  EARSHOT("earshot.example", "Earshot", true, false, true, false, false),
  /** No key; an agreement at the first opening, and a wait after it. */
  TAGOUT("tagout.example", "TagOut", false, false, false, true, false),
  /** Key and secret, and nothing else. */
  ROPEWALK("ropewalk.example", "Ropewalk Loads", true, false, false, false, false),
  /** The same for another room. */
  PATTERNROOM("patternroom.example", "PatternRoom", true, false, false, false, false),
  /** Open to all. */
  PROMPTDESK("promptdesk.example", "PromptDesk", false, false, false, false, false),
  /** A registration; resources can be picked, scores come back. */
  FLYFLOOR("flyfloor.example", "FlyFloor", false, false, false, false, true);

  final String host;
  final String title;
  final boolean signed;
  final boolean asksForCourse;
  final boolean courseInKey;
  final boolean asksForAgreement;
  final boolean registered;

  Tool(
      String host,
      String title,
      boolean signed,
      boolean asksForCourse,
      boolean courseInKey,
      boolean asksForAgreement,
      boolean registered) {
    this.host = host;
    this.title = title;
    this.signed = signed;
    this.asksForCourse = asksForCourse;
    this.courseInKey = courseInKey;
    this.asksForAgreement = asksForAgreement;
    this.registered = registered;
  }

  static Optional<Tool> at(String host) {
    return Arrays.stream(values()).filter(t -> t.host.equals(host)).findFirst();
  }
}
