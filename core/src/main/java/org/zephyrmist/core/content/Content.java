package org.zephyrmist.core.content;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;

/** What an item is, by kind. Text is HTML in the canonical form of {@link Html#canonical}. */
public sealed interface Content {
  Kind kind();

  /** The text; empty for kinds without text. */
  default String html() {
    return "";
  }

  /** The file it is made of: the file itself, or the questions as QTI. */
  default Optional<FileRef> madeOf() {
    return Optional.empty();
  }

  /** How many questions it has, if it is made of questions. */
  default Optional<Integer> questionCount() {
    return Optional.empty();
  }

  default List<Criterion> criteria() {
    return List.of();
  }

  /** What of the shell a setup is about. */
  default Optional<SetupSubject> subject() {
    return Optional.empty();
  }

  /** Entries of a setup, in their order. */
  default List<Entry> entries() {
    return List.of();
  }

  /** How long an announcement is meant for, where that is not every term. */
  default Optional<Wording.Lasting> lasting() {
    return Optional.empty();
  }

  default List<String> groups() {
    return List.of();
  }

  /** Files that go with it: attachments, or the pictures of its questions. */
  default List<FileRef> attached() {
    return List.of();
  }

  /** How it counts; {@link Grading#NONE} for kinds that do not. */
  default Grading grading() {
    return Grading.NONE;
  }

  /** Where it leads, if it is a link. */
  default Launch launch() {
    return Launch.NOWHERE;
  }

  /** A part of the outline that holds other items. */
  record Module() implements Content {
    @Override
    public Kind kind() {
      return Kind.MODULE;
    }
  }

  record Page(String html) implements Content {
    public Page {
      html = Html.canonical(html);
    }

    @Override
    public Kind kind() {
      return Kind.PAGE;
    }
  }

  record File(FileRef file) implements Content {
    @Override
    public Optional<FileRef> madeOf() {
      return Optional.of(file);
    }

    @Override
    public Kind kind() {
      return Kind.FILE;
    }
  }

  record WebLink(String address, boolean newWindow) implements Content {
    @Override
    public Launch launch() {
      return new Launch(address, newWindow, new TreeMap<>());
    }

    @Override
    public Kind kind() {
      return Kind.WEB_LINK;
    }
  }

  /** A launch of an external tool (LTI). */
  record ToolLink(String html, Launch launch) implements Content {
    public ToolLink {
      html = Html.canonical(html);
    }

    public ToolLink(String html, String address, SortedMap<String, String> parameters) {
      this(html, new Launch(address, false, new TreeMap<>(parameters)));
    }

    @Override
    public Kind kind() {
      return Kind.TOOL_LINK;
    }
  }

  /**
   * A task.
   *
   * @param launch tool in which it is done; {@link Launch#NOWHERE} if in none
   */
  record Assignment(String html, Grading grading, List<FileRef> attached, Launch launch)
      implements Content {
    public Assignment {
      html = Html.canonical(html);
      attached = List.copyOf(attached);
    }

    public Assignment(String html, Grading grading, List<FileRef> attached) {
      this(html, grading, attached, Launch.NOWHERE);
    }

    public Assignment(String html, Grading grading) {
      this(html, grading, List.of());
    }

    @Override
    public Kind kind() {
      return Kind.ASSIGNMENT;
    }
  }

  record Discussion(String html, List<FileRef> attached) implements Content {
    public Discussion {
      html = Html.canonical(html);
      attached = List.copyOf(attached);
    }

    public Discussion(String html) {
      this(html, List.of());
    }

    @Override
    public Kind kind() {
      return Kind.DISCUSSION;
    }
  }

  /**
   * A quiz; its questions are kept as a QTI file, their pictures beside it.
   *
   * @param questions none of a quiz that has none yet
   */
  record Quiz(
      String html, Optional<FileRef> questions, int count, Grading grading, List<FileRef> attached)
      implements Content {
    public Quiz {
      html = Html.canonical(html);
      attached = List.copyOf(attached);
    }

    public Quiz(
        String html, FileRef questions, int count, Grading grading, List<FileRef> attached) {
      this(html, Optional.of(questions), count, grading, attached);
    }

    public Quiz(String html, FileRef questions, int count, Grading grading) {
      this(html, questions, count, grading, List.of());
    }

    @Override
    public Optional<FileRef> madeOf() {
      return questions;
    }

    @Override
    public Optional<Integer> questionCount() {
      return Optional.of(count);
    }

    @Override
    public Kind kind() {
      return Kind.QUIZ;
    }
  }

  record QuestionBank(FileRef questions, int count, List<FileRef> attached) implements Content {
    public QuestionBank {
      attached = List.copyOf(attached);
    }

    public QuestionBank(FileRef questions, int count) {
      this(questions, count, List.of());
    }

    @Override
    public Optional<FileRef> madeOf() {
      return Optional.of(questions);
    }

    @Override
    public Optional<Integer> questionCount() {
      return Optional.of(count);
    }

    @Override
    public Kind kind() {
      return Kind.QUESTION_BANK;
    }
  }

  record Rubric(List<Criterion> criteria) implements Content {
    public Rubric {
      criteria = List.copyOf(criteria);
    }

    @Override
    public Kind kind() {
      return Kind.RUBRIC;
    }
  }

  /**
   * One line of a rubric.
   *
   * @param outcome key of the outcome that it shows, if it shows one
   */
  record Criterion(String text, BigDecimal points, Optional<String> outcome) {
    public Criterion {
      points = Grading.plain(points);
    }

    /** That shows no outcome. */
    public Criterion(String text, BigDecimal points) {
      this(text, points, Optional.empty());
    }

    Criterion showing(Optional<String> to) {
      return new Criterion(text, points, to);
    }
  }

  record Outcome(String html) implements Content {
    public Outcome {
      html = Html.canonical(html);
    }

    @Override
    public Kind kind() {
      return Kind.OUTCOME;
    }
  }

  record GradeCategory(Grading grading) implements Content {
    @Override
    public Kind kind() {
      return Kind.GRADE_CATEGORY;
    }
  }

  record Announcement(String html, Optional<Wording.Lasting> lasting) implements Content {
    public Announcement {
      html = Html.canonical(html);
    }

    /** One for every term. */
    public Announcement(String html) {
      this(html, Optional.empty());
    }

    @Override
    public Kind kind() {
      return Kind.ANNOUNCEMENT;
    }
  }

  /** What makes a shell a place: its front page, its menu and so on, one item for each. */
  record Setup(
      Optional<SetupSubject> subject, String html, List<Entry> entries, Optional<FileRef> madeOf)
      implements Content {
    public Setup {
      html = Html.canonical(html);
      entries = List.copyOf(entries);
    }

    @Override
    public Kind kind() {
      return Kind.SETUP;
    }
  }

  /**
   * A line of a setup.
   *
   * @param label what people read
   * @param value what it leads to or is worth; may be empty, see {@link SetupSubject}
   */
  record Entry(String label, String value) {}

  record GroupSet(List<String> groups) implements Content {
    public GroupSet {
      groups = List.copyOf(groups);
    }

    @Override
    public Kind kind() {
      return Kind.GROUP_SET;
    }
  }
}
