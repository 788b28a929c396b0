package org.zephyrmist.core.roster;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.roster.Roster.Remark;
import org.zephyrmist.core.roster.Roster.Teaching;

/** Which people of a roster are taken in. */
final class PeoplePlanner {
  private final Roster roster;
  private final Present present;
  private final List<Remark> remarks;

  /**
   * @param remarks to which is added what could not be taken in
   */
  PeoplePlanner(Roster roster, Present present, List<Remark> remarks) {
    this.roster = roster;
    this.present = present;
    this.remarks = remarks;
  }

  /**
   * Those who begin to teach and are not known, and those who have another name.
   *
   * @param all whether whoever brings the roster reaches every program
   */
  List<Roster.Person> people(Set<Teaching> teach, boolean all) {
    Set<String> needed = new HashSet<>();
    teach.forEach(t -> needed.add(t.person()));
    List<Roster.Person> people = new ArrayList<>();
    Map<String, Optional<String>> owners = new HashMap<>(present.addresses());
    for (Roster.Person p : roster.people()) {
      Present.Teacher known = present.people().get(p.id());
      boolean renamed =
          known != null && known.instructor() && all && !known.name().equals(p.name());
      if (known == null && needed.contains(p.id()) || renamed) {
        people.add(withOwnAddress(p, owners));
      }
    }
    return people;
  }

  /**
   * Who was admitted by hand under the same address is the same person; an address that two persons
   * of rosters share belongs to the first.
   */
  private Roster.Person withOwnAddress(Roster.Person p, Map<String, Optional<String>> owners) {
    String owner = owners.getOrDefault(p.email(), Optional.of(p.id())).orElse(p.id());
    if (p.email().isEmpty() || owner.equals(p.id())) {
      owners.put(p.email(), Optional.of(p.id()));
      return p;
    }
    remarks.add(
        new Remark(
            "users.csv",
            p.line(),
            p.id(),
            "Users " + owner + " and " + p.id() + " have one address, " + p.email() + ".",
            "The second is taken in without it and cannot sign in; give each their own."));
    return new Roster.Person(p.id(), p.name(), "", p.line());
  }
}
