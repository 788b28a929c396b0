package org.zephyrmist.core.tool;

import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.tool.Connection.Entered;
import org.zephyrmist.core.tool.LinkState.Reason;
import org.zephyrmist.core.tool.LinkState.Standing;
import org.zephyrmist.core.tool.Stage.Whose;

/**
 * What state a host's links are in, in a section: the connection of the narrowest scope that may
 * serve, then its stages in its own order, of which the first that is not reached counts.
 *
 * @param now for waits that end
 */
public record Resolution(Collection<Connection> connections, Instant now) {
  /**
   * @param host in lower case; empty if the link leads to none
   */
  public LinkState of(String host, SectionPlace section, Seen seen) {
    if (host.isEmpty()) {
      return unserved(Reason.NO_HOST);
    }
    List<Connection> serving = serving(host, section);
    if (serving.isEmpty()) {
      return unserved(
          seen.data() == Seen.Data.PLACEHOLDER ? Reason.PLACEHOLDER : Reason.NO_CONNECTION);
    }
    if (serving.size() > 1) {
      return unserved(Reason.TWO_CONNECTIONS);
    }
    Connection c = serving.get(0);
    return c.stages().stream()
        .flatMap(s -> missing(s, c, seen).map(why -> stuck(s, why, c)).stream())
        .findFirst()
        .orElseGet(() -> through(c, seen));
  }

  /** Those that serve the host there; more than one if neither is the narrower. */
  private List<Connection> serving(String host, SectionPlace section) {
    List<Connection> all = connections.stream().filter(c -> c.serves(host, section)).toList();
    List<Connection> may = all.stream().filter(Connection::mayServe).toList();
    List<Connection> of = may.isEmpty() ? all : may;
    Optional<Scope.Level> narrowest =
        of.stream().map(c -> c.scope().level()).max(Comparator.naturalOrder());
    return of.stream().filter(c -> narrowest.equals(Optional.of(c.scope().level()))).toList();
  }

  private Optional<Reason> missing(Stage s, Connection c, Seen seen) {
    boolean reached = seen.reached().contains(s);
    return switch (s) {
      case SUPPORT -> when(!reached, Reason.SUPPORT_OFF);
      case CREDENTIALS -> credentials(c, seen);
      case APPROVAL -> when(!c.approved(), Reason.NOT_APPROVED);
      case AGREEMENT -> when(!reached, Reason.NOT_AGREED);
      case WAIT -> when(!waited(reached, seen), Reason.TOOL_TAKES_TIME);
      case PAIRING -> pairing(seen.tie());
      case FIRST_OPENING -> when(!reached, Reason.NEVER_OPENED);
    };
  }

  private static Optional<Reason> when(boolean missing, Reason why) {
    return missing ? Optional.of(why) : Optional.empty();
  }

  /** Where a central connection stands, what came with a package is left out. */
  private static Optional<Reason> credentials(Connection c, Seen seen) {
    if (seen.data() == Seen.Data.REFUSED) {
      return Optional.of(Reason.REFUSED);
    }
    if (c.credentials() == Entered.CENTRAL || seen.data() == Seen.Data.THERE) {
      return Optional.empty();
    }
    return Optional.of(
        c.credentials() == Entered.FOR_SHELLS
            ? Reason.NOT_IN_SHELL
            : seen.data() == Seen.Data.PLACEHOLDER ? Reason.PLACEHOLDER : Reason.NO_CREDENTIALS);
  }

  private boolean waited(boolean reached, Seen seen) {
    return reached || seen.until().filter(u -> !now.isBefore(u)).isPresent();
  }

  private static Optional<Reason> pairing(Seen.Tie tie) {
    return switch (tie) {
      case OWN -> Optional.empty();
      case NONE -> Optional.of(Reason.NOT_PAIRED);
      case OTHER_TERM -> Optional.of(Reason.OTHER_TERM);
      case MASTERS -> Optional.of(Reason.MASTERS_COURSE);
      case SHARED -> Optional.of(Reason.SHARED_COURSE);
    };
  }

  private static LinkState unserved(Reason why) {
    Whose whose = why == Reason.NO_HOST ? Whose.COORDINATOR : Whose.ADMINISTRATOR;
    return new LinkState(Standing.NOT_CONNECTED, why, Optional.empty(), whose, Optional.empty());
  }

  private static LinkState stuck(Stage s, Reason why, Connection c) {
    boolean wrong =
        why == Reason.OTHER_TERM || why == Reason.MASTERS_COURSE || why == Reason.SHARED_COURSE;
    Standing standing = wrong ? Standing.TIED_WRONGLY : s.standing();
    Whose whose = wrong || why == Reason.NOT_IN_SHELL ? Whose.COORDINATOR : s.whose();
    return new LinkState(standing, why, Optional.of(s), whose, Optional.of(c));
  }

  private static LinkState through(Connection c, Seen seen) {
    return switch (seen.tested()) {
      case NOTHING_WRONG -> after(Standing.WORKS, Reason.WORKS, Whose.NOBODY, c);
      case STUDENTS_SHUT_OUT ->
          after(Standing.NOT_OPENED, Reason.STUDENTS_SHUT_OUT, Whose.INSTRUCTOR, c);
      case NO_ANSWER -> after(Standing.WAITS, Reason.NO_ANSWER, Whose.NOBODY, c);
    };
  }

  private static LinkState after(Standing standing, Reason why, Whose whose, Connection c) {
    return new LinkState(standing, why, Optional.empty(), whose, Optional.of(c));
  }
}
