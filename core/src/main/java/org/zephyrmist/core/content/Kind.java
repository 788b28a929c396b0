package org.zephyrmist.core.content;

import java.util.Collections;
import java.util.EnumSet;
import java.util.Set;
import java.util.function.Function;

/** The kinds of item, and what is known of each. */
public enum Kind {
  MODULE(From.PEOPLE, a -> new Content.Module(), Field.WITHIN),
  PAGE(From.PEOPLE, a -> new Content.Page(a.wording().html()), Field.TEXT, Field.OPEN),
  FILE(From.FILES, a -> new Content.File(a.wording().file().orElseThrow()), Field.FILE, Field.OPEN),
  WEB_LINK(
      From.PEOPLE,
      a -> new Content.WebLink(a.launch().address(), a.launch().newWindow()),
      Field.ADDRESS,
      Field.NEW_WINDOW,
      Field.OPEN),
  TOOL_LINK(
      From.PEOPLE,
      a -> new Content.ToolLink(a.wording().html(), a.launch()),
      Field.TEXT,
      Field.LAUNCH_ADDRESS,
      Field.NEW_WINDOW,
      Field.PARAMETERS,
      Field.OPEN),
  ASSIGNMENT(
      From.PEOPLE,
      a ->
          new Content.Assignment(
              a.wording().html(), a.grading(), a.wording().attached(), a.launch()),
      Field.TEXT,
      Field.TOOL,
      Field.PARAMETERS,
      Field.ATTACHED,
      Field.POINTS,
      Field.CATEGORY,
      Field.RUBRIC,
      Field.GROUP_SET,
      Field.ATTEMPTS,
      Field.HAND_IN,
      Field.DUE,
      Field.OPEN),
  DISCUSSION(
      From.PEOPLE,
      a -> new Content.Discussion(a.wording().html(), a.wording().attached()),
      Field.TEXT,
      Field.ATTACHED,
      Field.DUE,
      Field.OPEN),
  QUIZ(
      From.PEOPLE,
      a ->
          new Content.Quiz(
              a.wording().html(),
              a.wording().file(),
              a.wording().questions(),
              a.grading(),
              a.wording().attached()),
      Field.TEXT,
      Field.QUESTIONS,
      Field.POINTS,
      Field.CATEGORY,
      Field.ATTEMPTS,
      Field.MINUTES,
      Field.DUE,
      Field.OPEN),
  QUESTION_BANK(
      From.PEOPLE,
      a ->
          new Content.QuestionBank(
              a.wording().file().orElseThrow(), a.wording().questions(), a.wording().attached()),
      Field.QUESTIONS),
  RUBRIC(From.PEOPLE, a -> new Content.Rubric(a.wording().criteria()), Field.CRITERIA),
  OUTCOME(From.PEOPLE, a -> new Content.Outcome(a.wording().html()), Field.TEXT),
  GRADE_CATEGORY(From.PEOPLE, a -> new Content.GradeCategory(a.grading()), Field.WEIGHT),
  ANNOUNCEMENT(
      From.PEOPLE,
      a -> new Content.Announcement(a.wording().html(), a.wording().lasting()),
      Field.TEXT,
      Field.LASTING),
  GROUP_SET(From.PEOPLE, a -> new Content.GroupSet(a.wording().groups()), Field.GROUPS),
  SETUP(
      From.PEOPLE,
      a ->
          new Content.Setup(
              a.wording().subject(), a.wording().html(), a.wording().entries(), a.wording().file()),
      Field.TEXT,
      Field.SETUP);

  /** What people write of an item, apart from its title, place, visibility and edit rule. */
  public enum Field {
    TEXT("text"),
    POINTS("points"),
    CATEGORY("grade category"),
    RUBRIC("rubric"),
    GROUP_SET("group set"),
    ATTEMPTS("attempts"),
    MINUTES("time limit"),
    /** How work is handed in. */
    HAND_IN("way of handing in"),
    WEIGHT("weight"),
    QUESTIONS("questions"),
    CRITERIA("criteria"),
    GROUPS("groups"),
    /** The file that it is. */
    FILE("file"),
    /** Files that go with it. */
    ATTACHED("attachments"),
    /** The tool in which it is done, if it is done in one. */
    TOOL("tool"),
    PARAMETERS("parameters"),
    NEW_WINDOW("window"),
    LASTING("time it is meant for"),
    SETUP("setup"),
    DUE("due time"),
    /** When it opens and closes. */
    OPEN("time in which it is open"),
    /** When what stands in it opens and closes. */
    WITHIN("time in which what stands in it is open"),
    /** Of a page of the web, or of mail. */
    ADDRESS("address"),
    /** Of a tool. */
    LAUNCH_ADDRESS("address of a tool");

    private final String words;

    Field(String words) {
      this.words = words;
    }

    /** What people call it. */
    public String words() {
      return words;
    }
  }

  private enum From {
    PEOPLE,
    FILES
  }

  private final From from;
  private final Function<Aspects, Content> content;
  private final Set<Field> fields;

  Kind(From from, Function<Aspects, Content> content, Field... fields) {
    this.from = from;
    this.content = content;
    Set<Field> all = EnumSet.noneOf(Field.class);
    all.addAll(Set.of(fields));
    this.fields = Collections.unmodifiableSet(all);
  }

  /** The content of this kind that has these aspects; what the kind does not have is left out. */
  public Content content(Aspects aspects) {
    return content.apply(aspects);
  }

  /** What can be written of an item of this kind. */
  public Set<Field> fields() {
    return fields;
  }

  /** Whether items of this kind lead somewhere. */
  public boolean leads() {
    return fields.contains(Field.ADDRESS) || fields.contains(Field.LAUNCH_ADDRESS);
  }

  /** What people call items of this kind. */
  public String words() {
    return switch (this) {
      case MODULE -> "modules";
      case PAGE -> "pages";
      case FILE -> "files";
      case WEB_LINK -> "web links";
      case TOOL_LINK -> "tool links";
      case ASSIGNMENT -> "assignments";
      case DISCUSSION -> "discussions";
      case QUIZ -> "quizzes";
      case QUESTION_BANK -> "question banks";
      case RUBRIC -> "rubrics";
      case OUTCOME -> "outcomes";
      case GRADE_CATEGORY -> "grade categories";
      case ANNOUNCEMENT -> "announcements";
      case GROUP_SET -> "group sets";
      case SETUP -> "setup";
    };
  }

  /** Whether people can make one here from a title alone; a file needs its bytes. */
  public boolean fromNothing() {
    return from == From.PEOPLE;
  }
}
