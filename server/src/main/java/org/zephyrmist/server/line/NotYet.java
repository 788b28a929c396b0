package org.zephyrmist.server.line;

import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.Emptiness;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.WaitsFor;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.shell.Reading;

/** Lines that cannot begin yet, and what they wait for. */
@Component
class NotYet {
  private final Lines lines;
  private final PlannedSteps stored;
  private final Settings settings;

  NotYet(Lines lines, PlannedSteps stored, Settings settings) {
    this.lines = lines;
    this.stored = stored;
    this.settings = settings;
  }

  /** How many items keep a line from beginning that goes only into an empty shell. */
  int holds(Line line, Reading reading) {
    boolean empty = line.choices().onto() == Choices.Onto.IF_EMPTY;
    return empty && !stored.begun(line.id()) ? Emptiness.holds(reading.items()) : 0;
  }

  /**
   * @param tag the platform's name for the state in which the shell was read
   */
  void empty(Line line, int holds, String tag) {
    lines.readAs(line.id(), tag);
    lines.notYet(
        line.id(),
        WaitsFor.EMPTY,
        holds == 1 ? "The shell holds an item." : "The shell holds " + holds + " items.",
        "Clear this shell, or have it cleared; the delivery then goes on by itself.",
        settings.looksIfEmpty());
  }

  /** The shell is as it was when it was read last. */
  void stillNot(Line line) {
    lines.lookAgain(line.id(), settings.looksIfEmpty());
  }

  /** Something comes before it in the same order. */
  void before(Line line) {
    lines.notYet(
        line.id(),
        WaitsFor.BEFORE,
        "What comes before it in this order is not done here.",
        "It goes on by itself when that is done.",
        settings.looksIfEmpty());
  }

  /** Somebody has to bring its package in; a plan that nobody confirmed needs a person now. */
  void packaged(Line line, PlatformException e) {
    if (line.state() == LineState.TO_PLAN) {
      lines.needsPerson(
          line.id(),
          "A package of an earlier delivery waits to be brought in here.",
          "Say that it was brought in, or put it away; then go on.");
    } else {
      lines.notYet(
          line.id(), WaitsFor.PACKAGE, e.getMessage(), e.remedy(), settings.looksIfEmpty());
    }
  }

  void shell(Line line) {
    lines.notYet(
        line.id(),
        WaitsFor.SHELL,
        "This section has no shell yet.",
        "It is filled by itself when its platform has one.",
        settings.looksIfEmpty());
  }
}
