package org.zephyrmist.core.content;

import java.util.List;
import java.util.Optional;

/**
 * What an item says; what its kind does not have is empty.
 *
 * @param html in the canonical form of {@link Html#canonical}
 * @param file that it is made of: the file itself, or the questions as QTI
 * @param questions how many there are
 * @param attached files that go with it: attachments, or the pictures of its questions
 * @param standards statements of a curriculum that it serves
 */
public record Wording(
    String title,
    String html,
    Optional<FileRef> file,
    int questions,
    List<Content.Criterion> criteria,
    List<String> groups,
    List<FileRef> attached,
    List<Standard> standards) {

  public static Wording of(Item i) {
    Content c = i.content();
    return new Wording(
        i.title(),
        c.html(),
        c.madeOf(),
        c.questionCount().orElse(0),
        c.criteria(),
        c.groups(),
        c.attached(),
        i.standards());
  }

  /**
   * A statement of a curriculum (Common Cartridge, curriculum standards metadata).
   *
   * @param label as people know it; may be empty
   * @param id its global identifier
   */
  public record Standard(String label, String id) {}

  /** A title and a text. */
  public static Wording of(String title, String html) {
    return new Wording(
        title, html, Optional.empty(), 0, List.of(), List.of(), List.of(), List.of());
  }

  /** The same but for its title. */
  public Wording withTitle(String to) {
    return new Wording(to, html, file, questions, criteria, groups, attached, standards);
  }

  /** The same but for the files that go with it. */
  public Wording withAttached(List<FileRef> to) {
    return new Wording(title, html, file, questions, criteria, groups, to, standards);
  }

  /** The same but for its text. */
  public Wording withHtml(String to) {
    return new Wording(title, to, file, questions, criteria, groups, attached, standards);
  }
}
