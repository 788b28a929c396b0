package org.zephyrmist.bench.history;

import java.util.List;

/**
 * A master of its own and two shells, the second in the term after: instructors, students, two
 * designers and a coordinator do what chance says.
 */
final class Play implements History {
  private final Turn of;
  private final InShells shells;
  private final Designers designers;
  private final Coordinator coordinator;
  private final NextTerm nextTerm;

  Play(Scene stage, List<String> shells, List<String> sections) {
    of = new Turn(stage, shells, sections);
    this.shells = new InShells(of);
    designers = new Designers(of);
    coordinator = new Coordinator(of, designers);
    nextTerm = new NextTerm(of, coordinator);
    designers.items();
    designers.freeze();
  }

  @Override
  public Turn turn() {
    return of;
  }

  @Override
  public void ended() {
    designers.draftEnds();
  }

  @Override
  public String step() throws Exception {
    int n = of.random().nextInt(100);
    if (n < 33) {
      return shells.instructor(of.random().nextInt(of.shells().size()));
    } else if (n < 40) {
      return shells.student(of.random().nextInt(of.shells().size()));
    } else if (n < 58) {
      return designers.designer();
    } else if (n < 82) {
      return coordinator.deliver();
    } else if (n < 93) {
      return coordinator.takeBack();
    } else if (n < 97) {
      return nextTerm.bringForward();
    }
    return coordinator.editAll();
  }
}
