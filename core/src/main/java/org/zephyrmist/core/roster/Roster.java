package org.zephyrmist.core.roster;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The rows of a bundle that could be read, with the report of those that could not. Identifiers are
 * OneRoster sourcedIds.
 */
public record Roster(
    List<Org> orgs,
    List<Term> terms,
    List<Course> courses,
    List<Section> sections,
    List<Person> people,
    List<Enrollment> enrollments,
    Gone gone,
    List<Remark> remarks) {

  /** Identifiers that earlier rosters brought; a bundle of changes may refer to them. */
  public record Known(
      Set<String> orgs, Set<String> terms, Set<String> courses, Set<String> sections) {
    public static final Known NOTHING = new Known(Set.of(), Set.of(), Set.of(), Set.of());
  }

  /**
   * What is no longer to be there.
   *
   * @param allElse classes are listed in full, so those not listed have vanished too
   * @param sections said to be deleted
   * @param enrollments said to be deleted
   */
  public record Gone(boolean allElse, Set<String> sections, List<Enrollment> enrollments) {}

  /**
   * @param type OneRoster OrgType, for instance school or department
   */
  public record Org(String id, String name, String type, String identifier) {}

  public record Term(String id, String title, LocalDate firstDay, LocalDate lastDay) {}

  public record Course(String id, String code, String title, String org) {}

  public record Section(
      String id, String title, String code, String course, String school, Optional<String> term) {
    Section in(Optional<String> other) {
      return new Section(id, title, code, course, school, other);
    }
  }

  public record Person(String id, String givenName, String familyName, String email, String role) {}

  public record Enrollment(String section, String person, String role) {
    public boolean teaches() {
      return role.equalsIgnoreCase("teacher");
    }
  }

  /**
   * A row or file that was not taken, or not as it stands.
   *
   * @param line in the file, the header being line 1; 0 for the file itself
   */
  public record Remark(String file, long line, String problem, String remedy) {}
}
