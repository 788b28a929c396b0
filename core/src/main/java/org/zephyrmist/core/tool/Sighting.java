package org.zephyrmist.core.tool;

import java.time.Duration;
import java.time.Instant;
import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;

/**
 * What was learnt of a host in a section: from its platform, from openings, from tests, and from
 * people.
 *
 * @param support whether the shell may use external tools at all
 * @param data credentials in the shell
 * @param opened when an instructor opened a link since these credentials stand there
 * @param agreed when the tool said that its agreement was accepted
 * @param done stages that people said are done
 * @param refused whether the tool refused an instructor in the last test
 * @param tested what else the last test found
 */
public record Sighting(
    boolean support,
    Seen.Data data,
    Optional<Instant> opened,
    Optional<Instant> agreed,
    Set<Stage> done,
    boolean refused,
    Seen.Tested tested) {
  /** The same with other credentials. */
  public Sighting with(Seen.Data other) {
    return new Sighting(support, other, opened, agreed, done, refused, tested);
  }

  /**
   * What follows for a connection.
   *
   * @param tie to a course on the tool's side
   * @param wait that the tool takes after its agreement
   */
  public Seen seen(Connection c, Seen.Tie tie, Duration wait) {
    Set<Stage> reached = EnumSet.noneOf(Stage.class);
    reached.addAll(done);
    if (support) {
      reached.add(Stage.SUPPORT);
    }
    if (agreed.isPresent()) {
      reached.add(Stage.AGREEMENT);
    }
    if (opened.isPresent()) {
      reached.add(Stage.FIRST_OPENING);
    }
    Seen.Data now = refused && data == Seen.Data.THERE ? Seen.Data.REFUSED : data;
    return new Seen(reached, now, tied(c, tie, now), agreed.map(a -> a.plus(wait)), tested);
  }

  /** Where nobody has to answer, a course comes with what the connection needs anyway. */
  private static Seen.Tie tied(Connection c, Seen.Tie tie, Seen.Data data) {
    boolean comes =
        c.pairing() != Pairing.BY_ANSWER
            && (data == Seen.Data.THERE || c.credentials() == Connection.Entered.CENTRAL);
    return tie == Seen.Tie.NONE && comes ? Seen.Tie.OWN : tie;
  }
}
