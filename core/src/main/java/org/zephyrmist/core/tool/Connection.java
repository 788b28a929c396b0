package org.zephyrmist.core.tool;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/**
 * What a tool asks for before its links work, without its secrets.
 *
 * @param hosts in lower case; a host stands for itself alone
 * @param stages its own, in its own order
 * @param credentials whether they are entered, and where they count
 * @param pairing how a section comes to its course there; of no matter without that stage
 * @param approved whether an administrator approved it; of no matter without that stage
 * @param terms in which it holds; none: in every term
 */
public record Connection(
    String id,
    String name,
    Set<String> hosts,
    Way way,
    Scope scope,
    List<Stage> stages,
    Entered credentials,
    Pairing pairing,
    boolean approved,
    Set<String> terms) {
  /** Its credentials. */
  public enum Entered {
    NOT_YET,
    /** They are written into each shell. */
    FOR_SHELLS,
    /** They stand once, for all shells. */
    CENTRAL
  }

  public Connection {
    hosts = Set.copyOf(hosts);
    stages = List.copyOf(stages);
    terms = Set.copyOf(terms);
    if (Set.copyOf(stages).size() < stages.size()) {
      throw new IllegalArgumentException("A stage stands twice in the connection " + name);
    }
    if (way == Way.OPEN && stages.contains(Stage.CREDENTIALS)) {
      throw new IllegalArgumentException("An open tool asks for no credentials: " + name);
    }
  }

  /** Whether it serves links of a host in a section. */
  public boolean serves(String host, SectionPlace s) {
    return hosts.contains(host) && scope.covers(s) && (terms.isEmpty() || terms.contains(s.term()));
  }

  /** How far links can be that it serves; it is never stuck anywhere else. */
  public Set<LinkState.Standing> standings() {
    Set<LinkState.Standing> all = EnumSet.of(LinkState.Standing.WORKS);
    stages.forEach(s -> all.add(s.standing()));
    if (stages.contains(Stage.PAIRING)) {
      all.add(LinkState.Standing.TIED_WRONGLY);
    }
    return all;
  }

  /** Whether nobody has to approve it any more. */
  public boolean mayServe() {
    return approved || !stages.contains(Stage.APPROVAL);
  }
}
