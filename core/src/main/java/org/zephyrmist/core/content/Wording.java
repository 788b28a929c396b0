package org.zephyrmist.core.content;

import java.util.List;
import java.util.Optional;

/**
 * What an item says; what its kind does not have is empty.
 *
 * @param html in the canonical form of {@link Html#canonical}
 * @param file that it is made of: the file itself, or the questions as QTI
 * @param questions how many there are
 */
public record Wording(
    String title,
    String html,
    Optional<FileRef> file,
    int questions,
    List<Content.Criterion> criteria,
    List<String> groups) {

  public static Wording of(String title, Content c) {
    return new Wording(
        title, c.html(), c.madeOf(), c.questionCount().orElse(0), c.criteria(), c.groups());
  }

  /** A title and a text. */
  public static Wording of(String title, String html) {
    return new Wording(title, html, Optional.empty(), 0, List.of(), List.of());
  }

  /** The same but for its text. */
  public Wording withHtml(String to) {
    return new Wording(title, to, file, questions, criteria, groups);
  }
}
