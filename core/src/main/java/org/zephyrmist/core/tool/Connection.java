package org.zephyrmist.core.tool;

import java.util.List;
import java.util.Set;

/**
 * What a tool asks for before its links work, without its secrets.
 *
 * @param hosts in lower case; a host stands for itself alone
 * @param stages its own, in its own order
 * @param credentials whether those for all its sections are entered
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
    boolean credentials,
    boolean approved,
    Set<String> terms) {
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

  /** Whether nobody has to approve it any more. */
  public boolean mayServe() {
    return approved || !stages.contains(Stage.APPROVAL);
  }
}
