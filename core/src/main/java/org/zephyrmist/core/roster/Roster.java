package org.zephyrmist.core.roster;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The rows of a bundle that could be read, with the report of those that could not. Identifiers are
 * OneRoster sourcedIds. Of people only those who teach are kept; students are counted.
 *
 * @param programs departments
 * @param campuses schools
 * @param teaching who teaches what
 * @param students how many are enrolled, by section; only where enrollments came in full
 * @param parts in which part of its term a section is taught; of those that are taught in one
 */
public record Roster(
    List<Org> programs,
    List<Org> campuses,
    List<Term> terms,
    List<Course> courses,
    List<Section> sections,
    List<Person> people,
    List<Teaching> teaching,
    Map<String, Integer> students,
    Map<String, Part> parts,
    Gone gone,
    List<Remark> remarks) {

  /**
   * What is no longer to be there.
   *
   * @param otherSections classes are listed in full, so those of its terms that are not listed have
   *     vanished
   * @param otherTeaching enrollments are listed in full, so who is not listed no longer teaches
   * @param sections said to be deleted
   * @param teaching said to be deleted
   */
  public record Gone(
      boolean otherSections, boolean otherTeaching, Set<String> sections, Set<Teaching> teaching) {}

  public record Org(String id, String name) {}

  public record Term(String id, String title, LocalDate firstDay, LocalDate lastDay) {}

  /** A grading period. */
  public record Part(String term, String title, LocalDate firstDay, LocalDate lastDay) {}

  /**
   * @param program department; empty if the row names none
   */
  public record Course(String id, String code, String title, String program) {}

  public record Section(
      String id, String title, String code, String course, String campus, Optional<String> term) {}

  /**
   * @param email in small letters; may be empty
   * @param line of users.csv
   */
  public record Person(String id, String name, String email, long line) {}

  /**
   * @param primary the teacher of record
   */
  public record Teaching(String section, String person, boolean primary) {}

  /**
   * A row or file that was not taken, or not as it stands.
   *
   * @param line in the file, the header being line 1; 0 for the file itself
   * @param sourcedId of the row; may be empty
   */
  public record Remark(String file, long line, String sourcedId, String problem, String remedy) {}
}
