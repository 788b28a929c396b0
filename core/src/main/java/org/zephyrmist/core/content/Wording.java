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
 * @param subject what of the shell a setup is about
 * @param entries of a setup, in their order
 * @param lasting how long an announcement is meant for, where that is not every term
 */
public record Wording(
    String title,
    String html,
    Optional<FileRef> file,
    int questions,
    List<Content.Criterion> criteria,
    List<String> groups,
    List<FileRef> attached,
    List<Standard> standards,
    Optional<SetupSubject> subject,
    List<Content.Entry> entries,
    Optional<Lasting> lasting) {

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
        i.standards(),
        c.subject(),
        c.entries(),
        c.lasting());
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
        title,
        html,
        Optional.empty(),
        0,
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        Optional.empty(),
        List.of(),
        Optional.empty());
  }

  /** How long an announcement is meant for. */
  public enum Lasting {
    /** Of one term; it is not carried into the next. */
    ONE_TERM
  }

  /** The same but for its title. */
  public Wording withTitle(String to) {
    return with(to, html, file, questions, attached);
  }

  /** The same but for the files that go with it. */
  public Wording withAttached(List<FileRef> to) {
    return with(title, html, file, questions, to);
  }

  /** The same but for its text. */
  public Wording withHtml(String to) {
    return with(title, to, file, questions, attached);
  }

  /** The same but for its questions: their file, how many, and their pictures. */
  public Wording withQuestions(FileRef of, int count, List<FileRef> pictures) {
    return with(title, html, Optional.of(of), count, pictures);
  }

  /** The same but for the file that it is made of. */
  public Wording withFile(Optional<FileRef> to) {
    return with(title, html, to, questions, attached);
  }

  /** The same but for the lines of a rubric. */
  public Wording withCriteria(List<Content.Criterion> to) {
    return new Wording(
        title, html, file, questions, to, groups, attached, standards, subject, entries, lasting);
  }

  /** The same but for the names of groups. */
  public Wording withGroups(List<String> to) {
    return new Wording(
        title, html, file, questions, criteria, to, attached, standards, subject, entries, lasting);
  }

  /** The same but for what of the shell it sets, and how. */
  public Wording withSetup(Optional<SetupSubject> about, List<Content.Entry> to) {
    return new Wording(
        title, html, file, questions, criteria, groups, attached, standards, about, to, lasting);
  }

  /** The same but for how long it is meant for. */
  public Wording withLasting(Optional<Lasting> to) {
    return new Wording(
        title, html, file, questions, criteria, groups, attached, standards, subject, entries, to);
  }

  private Wording with(
      String title, String html, Optional<FileRef> file, int questions, List<FileRef> attached) {
    return new Wording(
        title, html, file, questions, criteria, groups, attached, standards, subject, entries,
        lasting);
  }
}
