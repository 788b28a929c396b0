package org.zephyrmist.core.cartridge;

/** How far a reading is, told from both its threads. */
final class Steps {
  private final Intake intake;
  private int done;
  private int total;

  Steps(Intake intake, int total) {
    this.intake = intake;
    this.total = total;
  }

  synchronized void add(int more) {
    total += more;
  }

  synchronized void step(String what) {
    intake.progress(++done, total, what);
  }
}
