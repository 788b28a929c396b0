package org.zephyrmist.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.edit.Edit.What;

/** One change in many shells. */
class EditsTest {
  private static final LocalDateTime MONDAY = LocalDateTime.parse("2027-01-25T08:00");

  private static ClassShell week() {
    return new ClassShell()
        .ours("w1", Kind.MODULE, "Week 1", null, "")
        .ours("p1", Kind.PAGE, "Cue sheets", "w1", "<p>Read this.</p>")
        .ours("q1", Kind.QUIZ, "Quiz 1", "w1", "")
        .own("x1", Kind.PAGE, "Cue sheets", "w1", "<p>Old.</p>")
        .own("empty", Kind.MODULE, "Week 16", null, "");
  }

  private static Subject ours(String key) {
    return Subject.of(new Given(ClassShell.MASTER, new ItemKey(key)));
  }

  private static ClassShell done(ClassShell shell, Edit edit) {
    Edits.Edited e = shell.plan(edit);
    return shell.run(e.steps(), e.forms());
  }

  @Test
  void anItemOfAMasterIsNamedByItsKeyAndAnotherByKindAndTitle() {
    ClassShell shell = week();
    Edits.Edited e =
        shell.plan(Edit.of(What.REMOVE, List.of(Subject.own(Kind.PAGE, "CUE  sheets!"))));
    assertThat(e.steps()).extracting(s -> s.id().orElse("")).containsExactly("x1");
    assertThat(Subject.parse(ours("q1").text())).contains(ours("q1"));
    assertThat(Subject.parse(Subject.own(Kind.PAGE, "Cue sheets").text()))
        .contains(Subject.own(Kind.PAGE, "cue sheets"));
    assertThat(Subject.parse("ours ")).isEmpty();
    assertThat(Subject.parse("own SPACESHIP x")).isEmpty();
  }

  @Test
  void whatTwoMastersBroughtEachForItselfIsChangedTwice() {
    ClassShell shell = week().anothers("p2", "p1", "Cue sheets", "<p>Read this too.</p>");
    Edits.Edited e = shell.plan(Edit.replace(List.of(), "Read", "Learn"));
    assertThat(e.steps()).extracting(s -> s.id().orElse("")).containsExactly("p1", "p2");
    assertThat(e.steps()).extracting(Step::key).doesNotHaveDuplicates();
    assertThat(shell.run(e.steps(), e.forms()).get("p2").aspects().wording().html())
        .isEqualTo("<p>Learn this too.</p>");
  }

  @Test
  void whatIsHiddenIsShownFromADayOn() {
    ClassShell shell = week().with("q1", a -> a.with(new Visibility(false, false)));
    done(shell, Edit.openFrom(List.of(ours("q1")), MONDAY));
    assertThat(shell.get("q1").aspects().visibility().shown()).isTrue();
    assertThat(shell.get("q1").aspects().timing().opens()).contains(MONDAY);
    assertThat(shell.get("p1").aspects().timing()).isEqualTo(Timing.NONE);
  }

  @Test
  void whatIsForInstructorsIsNeverShown() {
    ClassShell shell = week().with("q1", a -> a.with(new Visibility(false, true)));
    assertThat(shell.plan(Edit.of(What.SHOW, List.of(ours("q1")))).steps()).isEmpty();
  }

  @Test
  void anItemOpensAfterAnotherWhereThatIsHere() {
    Edit edit = Edit.openAfter(List.of(ours("q1")), ours("p1"));
    ClassShell shell = done(week(), edit);
    assertThat(shell.get("q1").aspects().visibility().conditions())
        .containsExactly(Condition.read(new ItemKey("p1")));
    assertThat(week().without("p1").plan(edit).steps()).isEmpty();
  }

  @Test
  void whatStudentsHaveHandedInOnIsNotRemoved() {
    ClassShell shell = week().work("x1");
    List<Step> steps =
        shell.plan(Edit.of(What.REMOVE, List.of(Subject.own(Kind.PAGE, "Cue sheets")))).steps();
    assertThat(steps).extracting(Step::kind).containsExactly(StepKind.BLOCKED);
  }

  @Test
  void aModuleWithSomethingInItIsNotRemoved() {
    assertThat(week().plan(Edit.of(What.REMOVE, List.of(ours("w1")))).steps())
        .extracting(Step::reason)
        .containsExactly(Step.Reason.GONE_BUT_HOLDS_OTHERS);
    List<Subject> all =
        List.of(ours("w1"), ours("p1"), ours("q1"), Subject.own(Kind.PAGE, "Cue sheets"));
    List<Step> steps = week().plan(Edit.of(What.REMOVE, all)).steps();
    assertThat(steps).extracting(s -> s.id().orElse("")).containsExactly("x1", "q1", "p1", "w1");
    assertThat(steps).allMatch(s -> s.kind() == StepKind.RETIRE);
  }

  @Test
  void aWrapperGoesAndItsItemsTakeItsPlaceInTheirOrder() {
    ClassShell shell =
        new ClassShell()
            .ours("a", Kind.PAGE, "First", null, "")
            .own("wrap", Kind.MODULE, "Imported content", null, "")
            .own("one", Kind.PAGE, "One", "wrap", "")
            .own("two", Kind.PAGE, "Two", "wrap", "")
            .ours("z", Kind.PAGE, "Last", null, "");
    done(shell, Edit.of(What.UNWRAP, List.of(Subject.own(Kind.MODULE, "Imported content"))));
    assertThat(shell.titles()).containsExactly("First", "One", "Two", "Last");
    assertThat(shell.get("one").held().parent()).isEmpty();
  }

  @Test
  void aWrapperInAWrapperGoesTooAndNothingIsLost() {
    ClassShell shell =
        new ClassShell()
            .own("out", Kind.MODULE, "Imported", null, "")
            .own("in", Kind.MODULE, "Imported", "out", "")
            .own("one", Kind.PAGE, "One", "in", "")
            .own("two", Kind.PAGE, "Two", "out", "")
            .ours("z", Kind.PAGE, "Last", null, "");
    done(shell, Edit.of(What.UNWRAP, List.of(Subject.own(Kind.MODULE, "Imported"))));
    assertThat(shell.titles()).containsExactly("One", "Two", "Last");
    assertThat(shell.held()).allMatch(h -> h.parent().isEmpty());
  }

  @Test
  void emptyModulesGoWithWhatWouldBeEmptyThen() {
    ClassShell shell = week().own("inner", Kind.MODULE, "Part", "empty", "");
    done(shell, Edit.of(What.REMOVE_EMPTY, List.of()));
    assertThat(shell.has("empty")).isFalse();
    assertThat(shell.has("inner")).isFalse();
    assertThat(shell.has("w1")).isTrue();
  }

  @Test
  void notesToBuildersGoAndTheRestOfTheTextStays() {
    ClassShell shell =
        week()
            .with(
                "p1",
                a ->
                    a.with(
                        a.wording()
                            .withHtml(
                                "<p>Welcome.</p><p>For the builder: put a picture here.</p>"
                                    + "<ul><li>TODO: ask IT</li></ul><aside class=\"z-builder\">x"
                                    + "</aside><p>Bring a torch.</p><p>I am [your name].</p>"
                                    + "<p>To do: read chapter 3. Check with your group.</p>")));
    done(shell, Edit.of(What.STRIP_NOTES, List.of()));
    assertThat(shell.get("p1").aspects().wording().html())
        .contains("Welcome.", "Bring a torch.", "I am [your name].", "To do: read chapter 3.")
        .doesNotContain("builder", "TODO", "<ul");
  }

  @Test
  void whatIsSaidToThoseWhomACourseTeachesIsNoNote() {
    String html =
        "<p>Designer's notes are due on Monday.</p><p>TODO list of week 3</p>"
            + "<p>For the designer: bring swatches.</p><p>Builders note the cut list.</p>";
    ClassShell shell = week().with("p1", a -> a.with(a.wording().withHtml(html)));
    done(shell, Edit.of(What.STRIP_NOTES, List.of()));
    assertThat(shell.get("p1").aspects().wording().html()).isEqualTo(html);
  }

  @Test
  void indentsGoFromTitlesAndTheTextStays() {
    ClassShell shell =
        week()
            .with("p1", a -> a.with(a.wording().withTitle("-- Gloves").withHtml("<p>-- On.</p>")));
    done(shell, Edit.of(What.UNINDENT, List.of()));
    assertThat(shell.get("p1").aspects().wording().title()).isEqualTo("Gloves");
    assertThat(shell.get("p1").aspects().wording().html()).isEqualTo("<p>-- On.</p>");
  }

  @Test
  void entriesThatLeadNowhereGoFromTheMenu() {
    ClassShell shell =
        week()
            .ours("menu", Kind.SETUP, "Menu", null, "")
            .with(
                "menu",
                a ->
                    a.with(
                        a.wording()
                            .withSetup(
                                Optional.of(SetupSubject.MENU),
                                List.of(
                                    new Content.Entry(
                                        "Quiz", References.item(new ItemKey("q1"), "")),
                                    new Content.Entry(
                                        "Gone", References.item(new ItemKey("q9"), "")),
                                    new Content.Entry("Help", "https://help.example/")))));
    done(shell, Edit.of(What.DROP_ENTRIES, List.of()));
    assertThat(shell.get("menu").aspects().wording().entries())
        .extracting(Content.Entry::label)
        .containsExactly("Quiz", "Help");
  }

  @Test
  void deadLinksBecomeWordsAndConditionsNobodyCanMeetGo() {
    ClassShell shell =
        week()
            .with(
                "p1",
                a ->
                    a.with(
                            a.wording()
                                .withHtml(
                                    "<p>See <a href=\"zref:item/q9\">quiz nine</a> and <a"
                                        + " href=\"zref:item/q1\">quiz one</a></p>"))
                        .with(
                            Visibility.SHOWN.withConditions(
                                List.of(Condition.read(new ItemKey("q9"))))));
    done(shell, Edit.of(What.UNLINK, List.of()));
    done(shell, Edit.of(What.DROP_CONDITIONS, List.of()));
    assertThat(shell.get("p1").aspects().wording().html())
        .isEqualTo("<p>See quiz nine and <a href=\"zref:item/q1\">quiz one</a></p>");
    assertThat(shell.get("p1").aspects().visibility().conditions()).isEmpty();
  }

  @Test
  void aLinkThatLedToAnItemBeforeItCameAgainLeadsToItAgain() {
    String link = "<p>See <a href=\"%s\">the quiz</a></p>";
    ClassShell shell =
        new ClassShell()
            .ours("q1", Kind.QUIZ, "Quiz 1", null, "")
            .ours("p1", Kind.PAGE, "Cue sheets", null, link.formatted("zref:item/q1"))
            .with("p1", a -> a.with(a.wording().withHtml(link.formatted("#"))));
    done(shell, Edit.of(What.UNLINK, List.of()));
    assertThat(shell.get("p1").aspects().wording().html()).contains("zref:item/q1");
  }

  @Test
  void whatTheSectionBeforeHadMadeOfATextComesAndNothingElseOfTheItem() {
    ClassShell shell = week();
    InShell p1 = shell.get("p1");
    InShell carried =
        new InShell(
            p1.held(),
            p1.aspects(),
            p1.given(),
            p1.base(),
            Optional.of(Wording.of("Cue sheets", "<p>As I teach it.</p>")));
    Edits.Edited e =
        Edits.plan(
            List.of(shell.get("w1"), carried, shell.get("q1")),
            Edit.of(What.CARRY, List.of(ours("p1"), ours("q1"))),
            a -> Optional.empty());
    assertThat(e.steps()).extracting(Step::writes).containsExactly(Set.of(Aspect.WORDING));
  }

  @Test
  void wordsAreReplacedInTitlesAndTextsAndNoPartOfALongerWordIs() {
    ClassShell shell =
        week()
            .with(
                "p1",
                a ->
                    a.with(
                        Wording.of(
                            "Fall 2026 plan",
                            "<p>Fall 2026 &amp; Fallout: Fall 2026x, (Fall 2026)</p>")));
    done(shell, Edit.replace(List.of(), "Fall 2026", "Spring 2027"));
    assertThat(shell.get("p1").aspects().wording().title()).isEqualTo("Spring 2027 plan");
    assertThat(shell.get("p1").aspects().wording().html())
        .isEqualTo("<p>Spring 2027 &amp; Fallout: Fall 2026x, (Spring 2027)</p>");
  }

  @Test
  void ofTwoFrontPagesTheMastersStaysWithWhatTheOtherSays() {
    ClassShell shell =
        new ClassShell()
            .own("old", Kind.SETUP, "Home", null, "<p>Hello.</p><p>Office: 12</p>")
            .ours("new", Kind.SETUP, "Front page", null, "<p>Hello.</p>");
    for (String id : List.of("old", "new")) {
      shell.with(
          id, a -> a.with(a.wording().withSetup(Optional.of(SetupSubject.FRONT_PAGE), List.of())));
    }
    done(shell, Edit.of(What.ONE_FRONT_PAGE, List.of()));
    assertThat(shell.has("old")).isFalse();
    assertThat(shell.get("new").aspects().wording().html())
        .isEqualTo("<p>Hello.</p><p>Office: 12</p>");
  }

  @Test
  void anEditSaysWhatItLacks() {
    assertThatThrownBy(() -> Edit.of(What.HIDE, List.of())).hasMessage("No item is named.");
    assertThatThrownBy(() -> Edit.replace(List.of(), " ", "x")).hasMessageContaining("No words");
    assertThatThrownBy(() -> Edit.of(What.OPEN_FROM, List.of(Subject.SHELL)))
        .hasMessageContaining("A time is named");
  }

  private static ClassShell drawn(Random random) {
    ClassShell shell = new ClassShell();
    List<String> modules = new ArrayList<>();
    for (int n = random.nextInt(9); n > 0; n--) {
      String parent = modules.isEmpty() || random.nextBoolean() ? null : modules.get(0);
      Kind kind = random.nextInt(3) == 0 ? Kind.MODULE : Kind.PAGE;
      String title = "T" + random.nextInt(3);
      String html =
          Laws.text(
              random,
              4,
              "<p>Words.</p>",
              "<p>TODO: more</p>",
              "<a href=\"zref:item/i2\">two</a>",
              "<a href=\"#\">nowhere</a>");
      String id = "i" + n;
      if (random.nextBoolean()) {
        shell.own(id, kind, title, parent, kind == Kind.MODULE ? "" : html);
      } else {
        shell.ours(id, kind, title, parent, kind == Kind.MODULE ? "" : html);
      }
      if (kind == Kind.MODULE) {
        modules.add(id);
      }
      if (random.nextInt(6) == 0) {
        shell.work(id);
      }
    }
    return shell;
  }

  private static Edit drawnEdit(Random random) {
    List<Subject> about =
        List.of(
            ours("i" + (1 + random.nextInt(5))),
            Subject.own(random.nextBoolean() ? Kind.PAGE : Kind.MODULE, "T" + random.nextInt(3)));
    What what = What.values()[random.nextInt(What.values().length)];
    return switch (what) {
      case REPLACE -> Edit.replace(List.of(), "Words", "Sentences");
      case OPEN_FROM -> Edit.openFrom(about, MONDAY);
      case OPEN_AFTER -> Edit.openAfter(about, ours("i3"));
      case PUT_BACK -> Edit.putBack(about, Set.of(Aspect.values()));
      default -> Edit.of(what, about);
    };
  }

  @Test
  void anEditMadeTwiceDoesNothingTheSecondTime() {
    Laws.hold(
        random -> {
          ClassShell shell = drawn(random);
          Edit edit = drawnEdit(random);
          done(shell, edit);
          assertThat(shell.plan(edit).steps()).noneMatch(Step::moves);
        });
  }

  @Test
  void takenBackTheShellIsAsItWas() {
    Laws.hold(
        random -> {
          ClassShell shell = drawn(random);
          List<String> before = told(shell);
          Edits.Edited e = shell.plan(drawnEdit(random));
          shell.run(e.steps(), e.forms());
          List<Step> moved = e.steps().stream().filter(Step::moves).toList();
          List<Step> back = EditBack.plan(shell.held(), moved, false);
          shell.run(back, List.of());
          assertThat(told(shell)).isEqualTo(before);
        });
  }

  private static List<String> told(ClassShell shell) {
    return shell.held().stream()
        .map(h -> h.kind() + " " + h.title() + " " + h.aspects())
        .sorted()
        .toList();
  }

  @Test
  void onlyTheAspectThatIsNamedIsPutBackAndGradesOfHandedInWorkAreNot() {
    ClassShell shell =
        week()
            .with("p1", a -> a.with(Wording.of("Mine", "")).with(new Visibility(false, false)))
            .work("q1")
            .with("q1", a -> a.with(Grading.points(BigDecimal.ONE)));
    Edit edit =
        Edit.putBack(List.of(ours("p1"), ours("q1")), Set.of(Aspect.VISIBILITY, Aspect.GRADING));
    List<Step> steps = shell.plan(edit).steps();
    assertThat(steps).extracting(Step::kind).containsExactly(StepKind.UPDATE, StepKind.BLOCKED);
    shell.run(steps, List.of());
    assertThat(shell.get("p1").aspects().visibility()).isEqualTo(Visibility.SHOWN);
    assertThat(shell.get("p1").aspects().wording().title()).isEqualTo("Mine");
  }

  @Test
  void theSameItemHasTheSameKeyInAllShells() {
    Edit edit = Edit.of(What.REMOVE_EMPTY, List.of());
    ClassShell other =
        new ClassShell()
            .own("x", Kind.PAGE, "P", null, "")
            .own("other", Kind.MODULE, "week 16", null, "");
    assertThat(week().plan(edit).steps().get(0).key())
        .isEqualTo(other.plan(edit).steps().get(0).key());
    ClassShell two = other.own("again", Kind.MODULE, "Week 16", null, "");
    assertThat(two.plan(edit).steps()).extracting(Step::key).doesNotHaveDuplicates();
  }

  @Test
  void whatWasChangedSinceIsKeptUnlessItIsPutBack() {
    ClassShell shell = week();
    Edits.Edited e = shell.plan(Edit.replace(List.of(), "Read", "Study"));
    shell.run(e.steps(), e.forms());
    shell.with("p1", a -> a.with(a.wording().withHtml("<p>Mine now.</p>")));
    assertThat(EditBack.plan(shell.held(), e.steps(), false))
        .extracting(Step::kind, Step::reason)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple(StepKind.KEEP, Step.Reason.CHANGED_HERE));
    List<Step> put = EditBack.plan(shell.held(), e.steps(), true);
    assertThat(put).extracting(Step::writes).containsExactly(Set.of(Aspect.WORDING));
  }
}
