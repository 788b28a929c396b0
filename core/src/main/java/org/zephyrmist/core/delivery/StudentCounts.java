package org.zephyrmist.core.delivery;

/**
 * How much of students' own a shell holds. It is counted before and after a delivery, and what is
 * said of it follows from the counts alone.
 *
 * @param enrolments students in the shell
 * @param work what they have handed in
 * @param grades marks that they were given
 * @param posts in discussions
 */
public record StudentCounts(int enrolments, int work, int grades, int posts) {
  /** As they are kept: enrolments, work, grades, posts. */
  public static StudentCounts of(Integer[] kept) {
    return new StudentCounts(kept[0], kept[1], kept[2], kept[3]);
  }

  /** What both counts say, in one sentence. */
  public String compared(StudentCounts after) {
    String before =
        "%d handed in, %d graded, %d posts before; %d, %d, %d after"
            .formatted(work, grades, posts, after.work, after.grades, after.posts);
    return (keptIn(after)
            ? "Nothing that students left is missing: "
            : "SOMETHING IS MISSING of what students left: ")
        + before
        + ".";
  }

  /** Whether nothing of it is gone; more may have come meanwhile. */
  public boolean keptIn(StudentCounts after) {
    return after.enrolments >= enrolments
        && after.work >= work
        && after.grades >= grades
        && after.posts >= posts;
  }
}
