package org.zephyrmist.core.coverage;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * At which version sections are expected to hold a master. The narrowest coverage rule counts: one
 * for a section set before one for a course, before one for a program, before one for every
 * section. Of rules that are equally narrow the newest version wins over a pinned one, and a later
 * pinned one over an earlier.
 */
public final class Expectation {
  /** A section that is not expected to hold the master. */
  public static final int NONE = -1;

  /** The newest version, whatever its number. */
  public static final int NEWEST = 0;

  private Expectation() {}

  /** How far a rule reaches, the widest first. */
  public enum Scope {
    EVERY_SECTION,
    PROGRAM,
    COURSE,
    SET
  }

  /**
   * A coverage rule of one master.
   *
   * @param pinned number of the version, from 1, or {@link #NEWEST}
   * @param sections places of the sections that it is about
   */
  public record Rule(Scope scope, int pinned, int[] sections) {}

  /**
   * @param sections how many there are
   * @return for each of them a version's number, {@link #NEWEST} or {@link #NONE}
   */
  public static int[] of(int sections, List<Rule> rules) {
    int[] wanted = new int[sections];
    Arrays.fill(wanted, NONE);
    Scope[] by = new Scope[sections];
    rules.stream()
        .sorted(Comparator.comparing(Rule::scope))
        .forEach(
            r -> {
              for (int s : r.sections()) {
                wanted[s] = by[s] == r.scope() ? later(wanted[s], r.pinned()) : r.pinned();
                by[s] = r.scope();
              }
            });
    return wanted;
  }

  private static int later(int a, int b) {
    return a == NEWEST || b == NEWEST ? NEWEST : Math.max(a, b);
  }
}
