package org.zephyrmist.core.delivery;

/**
 * How much of students' own a shell holds. A delivery touches none of it; it is counted before and
 * after to prove that.
 *
 * @param enrolments students in the shell
 * @param work what they have handed in
 * @param grades marks that they were given
 * @param posts in discussions
 */
public record StudentCounts(int enrolments, int work, int grades, int posts) {
  /** Whether nothing of it is gone; more may have come meanwhile. */
  public boolean keptIn(StudentCounts after) {
    return after.enrolments >= enrolments
        && after.work >= work
        && after.grades >= grades
        && after.posts >= posts;
  }
}
