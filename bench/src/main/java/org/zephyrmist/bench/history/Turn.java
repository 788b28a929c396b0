package org.zephyrmist.bench.history;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** What all who act in a history share: where it is played, and whose step it is. */
final class Turn {
  private final Scene stage;
  private final List<String> shells;
  private final List<String> sections;
  private final String master;
  private final Oracle oracle = new Oracle();
  private final List<String> log = new ArrayList<>();
  private Random random = new Random();
  private int step;

  /**
   * @param shells by their ids on the platform, in the order of their sections
   */
  Turn(Scene stage, List<String> shells, List<String> sections) {
    this.stage = stage;
    this.shells = shells;
    this.sections = sections;
    this.master = stage.master();
  }

  /** With a master of an edition, and no shells. */
  Turn(Scene stage, String edition) {
    this.stage = stage;
    this.shells = List.of();
    this.sections = List.of();
    this.master = stage.master(edition);
  }

  /** The next step, with a seed of its own: left out, it changes no other. */
  void next(long seed) {
    random = new Random(seed);
    step++;
  }

  Scene stage() {
    return stage;
  }

  List<String> shells() {
    return shells;
  }

  List<String> sections() {
    return sections;
  }

  String master() {
    return master;
  }

  Oracle oracle() {
    return oracle;
  }

  /** What was done, a line for each step. */
  List<String> log() {
    return log;
  }

  Random random() {
    return random;
  }

  int step() {
    return step;
  }

  <T> T any(List<T> all) {
    return all.get(random.nextInt(all.size()));
  }

  String note(String what, String how) {
    log.add(step + " " + what + ": " + how);
    return what;
  }
}
