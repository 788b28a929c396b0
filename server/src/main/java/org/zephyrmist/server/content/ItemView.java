package org.zephyrmist.server.content;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.HandIn;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Launch;
import org.zephyrmist.core.content.Live;
import org.zephyrmist.core.content.ModuleDates;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.When;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.tree.Tree;

/**
 * One item as the interface needs it; what its kind does not have is absent.
 *
 * @param fields what can be written of it
 * @param asks what it asks for before it may be used, in words; may be empty
 * @param framed whether its text shows something in a frame
 * @param attached files that go with it
 * @param opens local date and time, ISO 8601, or a pattern, as {@code due} and {@code closes}
 * @param within of a module, when what stands in it is open
 * @param category key of the grade category it counts into
 * @param rubric key of the rubric it is graded by
 * @param weight of a grade category, in percent
 * @param lasting how long an announcement is meant for; absent: every term
 * @param live whether it follows its origin by itself
 * @param own what a master knows of it besides; absent elsewhere
 * @param aspects what each aspect is, in short: sent back with a change, they tell whether somebody
 *     else has changed the same meanwhile
 * @param state the same of the whole item
 */
public record ItemView(
    @NotNull String key,
    @NotNull Kind kind,
    @NotNull Set<Kind.Field> fields,
    @NotNull String title,
    @NotNull String html,
    FileRef file,
    Integer questions,
    String points,
    String address,
    String opens,
    String due,
    String closes,
    Within within,
    boolean shown,
    boolean instructorsOnly,
    @NotNull String asks,
    boolean framed,
    @NotNull List<FileRef> attached,
    Integer attempts,
    Integer minutes,
    HandIn handIn,
    @NotNull SortedMap<String, String> parameters,
    Launch.Tool tool,
    @NotNull List<Wording.Standard> standards,
    @NotNull EditRule rule,
    String category,
    String rubric,
    String groupSet,
    String weight,
    boolean newWindow,
    Wording.Lasting lasting,
    SetupSubject subject,
    @NotNull List<Content.Entry> entries,
    @NotNull List<RubricLine> criteria,
    @NotNull List<String> groups,
    @NotNull List<Waits> conditions,
    @NotNull Live live,
    Own own,
    @NotNull Map<Aspect, String> aspects,
    @NotNull String state) {

  /**
   * A line of a rubric.
   *
   * @param outcome key of the outcome that it shows; absent or empty: none
   */
  public record RubricLine(@NotNull String text, @NotNull String points, String outcome) {}

  /**
   * When what stands in a module opens and closes, unless an item says it of itself.
   *
   * @param start when the first opens, by a pattern; empty: nothing is said of it
   * @param everyWeeks by how many weeks each opens after the one before; 0: all together
   * @param oneAfterOther whether each closes when the next opens; else all stay open until the end
   */
  public record Within(
      @NotNull @Size(max = 140) String start,
      @Min(0) @Max(52) int everyWeeks,
      boolean oneAfterOther) {
    static Within of(ModuleDates m) {
      return new Within(m.start().text(), m.everyWeeks(), m.oneAfterOther());
    }
  }

  /**
   * What must be done before it opens.
   *
   * @param item key of the item it is about; absent for a day
   * @param percent of a score
   * @param from of a day, local, ISO 8601
   */
  public record Waits(@NotNull Condition.What what, String item, String percent, String from) {}

  /**
   * What a master knows of one of its items besides what it says.
   *
   * @param goesWith keys of the items it is tied to
   * @param origin the edition it came from, in words; empty if it was written here
   */
  public record Own(
      @NotNull AppliesTo appliesTo, @NotNull List<String> goesWith, @NotNull String origin) {}

  /** What an aspect is, in short; another text for another aspect. */
  public static String print(Fingerprints of, Aspect aspect) {
    return of.get(aspect).hex().substring(0, 16);
  }

  /**
   * A line of an outline.
   *
   * @param goesWith the same for items that go with each other; absent for others
   * @param nobody whether it stays in the master
   */
  public record Node(
      @NotNull String key,
      @NotNull Kind kind,
      @NotNull String title,
      String parent,
      boolean shown,
      boolean instructorsOnly,
      @NotNull EditRule rule,
      String goesWith,
      boolean nobody) {}

  public static List<Node> outline(Tree tree) {
    return outline(tree, Map.of());
  }

  /**
   * @param ties by what name items are tied to others
   */
  public static List<Node> outline(Tree tree, Map<ItemKey, String> ties) {
    return tree.nodes().stream()
        .map(
            n ->
                new Node(
                    n.key().value(),
                    n.kind(),
                    n.title(),
                    n.parent().map(ItemKey::value).orElse(null),
                    n.visibility().shown(),
                    n.visibility().instructorsOnly(),
                    n.rule(),
                    ties.get(n.key()),
                    n.appliesTo().nobody()))
        .toList();
  }

  public static ItemView of(Item i) {
    return of(i, Optional.empty());
  }

  /** An item of a master. */
  public static ItemView of(Item i, Optional<Own> own) {
    Content c = i.content();
    String address = c.launch().address();
    Fingerprints prints = AspectForms.fingerprints(i);
    Map<Aspect, String> aspects = new EnumMap<>(Aspect.class);
    prints.asMap().forEach((a, f) -> aspects.put(a, print(prints, a)));
    return new ItemView(
        i.key().value(),
        i.kind(),
        i.kind().fields(),
        i.title(),
        c.html(),
        c.madeOf().orElse(null),
        c.questionCount().orElse(null),
        c.grading().points().map(BigDecimal::toPlainString).orElse(null),
        address.isEmpty() ? null : address,
        time(i, Point.OPENS),
        time(i, Point.DUE),
        time(i, Point.CLOSES),
        i.timing().patterns().within().map(Within::of).orElse(null),
        i.visibility().shown(),
        i.visibility().instructorsOnly(),
        i.visibility().asks(),
        c.html().contains("<iframe"),
        c.attached(),
        c.grading().attempts().orElse(null),
        c.grading().minutes().orElse(null),
        c.grading().handIn().orElse(null),
        c.launch().parameters(),
        c.launch().tool().orElse(null),
        i.standards(),
        i.rule(),
        c.grading().category().orElse(null),
        c.grading().rubric().orElse(null),
        c.grading().groupSet().orElse(null),
        c.grading().weight().map(BigDecimal::toPlainString).orElse(null),
        c.launch().newWindow(),
        c.lasting().orElse(null),
        c.subject().orElse(null),
        c.entries(),
        c.criteria().stream()
            .map(
                x -> new RubricLine(x.text(), x.points().toPlainString(), x.outcome().orElse(null)))
            .toList(),
        c.groups(),
        i.visibility().conditions().stream().map(ItemView::waits).toList(),
        Live.of(i),
        own.orElse(null),
        aspects,
        Fingerprint.of(aspects.toString() + i.rule()).hex().substring(0, 16));
  }

  private static String time(Item i, Point p) {
    return i.timing()
        .patterns()
        .at(p)
        .map(When::text)
        .or(() -> i.timing().at(p).map(LocalDateTime::toString))
        .orElse(null);
  }

  private static Waits waits(Condition c) {
    return new Waits(
        c.what(),
        c.item().orElse(null),
        c.percent().map(BigDecimal::toPlainString).orElse(null),
        c.from().map(LocalDateTime::toString).orElse(null));
  }
}
