package org.zephyrmist.core.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.calendar.CountedDays;
import org.zephyrmist.core.calendar.Days;
import org.zephyrmist.core.calendar.DaysOff;
import org.zephyrmist.core.calendar.Remark;
import org.zephyrmist.core.calendar.TermCalendar;
import org.zephyrmist.core.check.CheckedShell.Arrival;
import org.zephyrmist.core.check.CheckedShell.Item;
import org.zephyrmist.core.check.CheckedShell.Meant;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.edit.ClassShell;
import org.zephyrmist.core.edit.Given;
import org.zephyrmist.core.edit.InShell;
import org.zephyrmist.core.shell.OpenDays;
import org.zephyrmist.core.tool.LinkState;

/** What is found in a shell, and what is not. */
class ShellChecksTest {
  private static final LocalDateTime FIRST_MONDAY = LocalDateTime.parse("2027-01-18T09:00");
  private static final CountedDays SPRING =
      new CountedDays(
          TermCalendar.plain(
                  LocalDate.parse("2027-01-18"),
                  LocalDate.parse("2027-05-07"),
                  java.time.ZoneId.of("America/Chicago"))
              .with(
                  new DaysOff(
                      "Presidents Day",
                      new Days(LocalDate.parse("2027-02-15"), LocalDate.parse("2027-02-15")))));

  private final ClassShell shell =
      new ClassShell()
          .ours("front", Kind.SETUP, "Front page", null, "<p>Welcome.</p>")
          .with(
              "front",
              a -> a.with(a.wording().withSetup(Optional.of(SetupSubject.FRONT_PAGE), List.of())))
          .ours("w1", Kind.MODULE, "Week 1", null, "")
          .ours("page", Kind.PAGE, "Cue sheets", "w1", "<p>Read this.</p>")
          .ours("task", Kind.ASSIGNMENT, "Plot", "w1", "<p>Draw.</p>");

  private final Map<String, Meant> meant = new HashMap<>();
  private final List<String> unread = new ArrayList<>();
  private final List<CheckedShell.Lack> lacks = new ArrayList<>();
  private final List<Arrival> masters = new ArrayList<>();
  private final List<CheckedShell.ToolTrouble> tools = new ArrayList<>();
  private Optional<OpenDays> window = Optional.empty();
  private CheckedShell.Strangers strangers = CheckedShell.Strangers.NONE;
  private LocalDateTime now = FIRST_MONDAY;

  /** The shell has it otherwise than it was delivered. */
  private void changed(String id, java.util.function.UnaryOperator<Aspects> to, Aspect... in) {
    Meant was = meant(shell.get(id));
    shell.with(id, to);
    meant.put(id, own(was, Set.of(in)));
  }

  private static Meant own(Meant m, Set<Aspect> own) {
    return but(m, m.rule(), m.inVersion(), own, m.blanks(), m.banks(), m.remarks());
  }

  /** The same, but for how the section and its version stand to it. */
  private static Meant but(
      Meant m,
      EditRule rule,
      boolean inVersion,
      Set<Aspect> own,
      List<String> blanks,
      Set<ItemKey> banks,
      List<Remark> remarks) {
    return new Meant(
        rule,
        inVersion,
        m.grading(),
        m.timing(),
        m.visibility(),
        m.text(),
        own,
        blanks,
        banks,
        remarks);
  }

  private static Meant meant(InShell i) {
    Aspects a = i.aspects();
    return new Meant(
        EditRule.ADAPTABLE,
        true,
        a.grading(),
        a.timing(),
        a.visibility(),
        TextFacts.of(a.wording()),
        Set.of(),
        List.of(),
        Set.of(),
        List.of());
  }

  private List<ShellFinding> found() {
    List<Item> items =
        shell.items().stream()
            .map(
                i ->
                    new Item(
                        i.held(),
                        i.aspects().wording(),
                        TextFacts.of(i.aspects().wording()),
                        i.aspects().grading(),
                        i.aspects().timing(),
                        i.aspects().visibility(),
                        i.given(),
                        i.given().isEmpty()
                            ? Optional.empty()
                            : Optional.of(meant.getOrDefault(i.held().id(), meant(i)))))
            .toList();
    return ShellChecks.of(
        new CheckedShell(
            items,
            unread,
            lacks,
            masters,
            a -> a.startsWith("/item/") ? Optional.of(a.substring(6)) : Optional.empty(),
            Optional.of(SPRING),
            tools,
            window,
            strangers,
            now),
        c -> true);
  }

  private void finds(Check... checks) {
    assertThat(found()).extracting(ShellFinding::check).containsExactly(checks);
  }

  @Test
  void aShellThatIsAsItWasDeliveredHasNoFinding() {
    finds();
  }

  @Test
  void whatIsExpectedAndNeverCameOrIsOlderOrMissingIsFound() {
    masters.add(new Arrival("m2", "FRAME", Optional.empty(), Optional.of(3)));
    masters.add(new Arrival("m3", "LD110", Optional.of(2), Optional.of(3)));
    masters.add(new Arrival("m4", "HELP", Optional.of(2), Optional.empty()));
    lacks.add(new CheckedShell.Lack(new Given("m3", new ItemKey("q6")), "Quiz 6", true));
    assertThat(found())
        .extracting(ShellFinding::words)
        .containsExactly(
            "FRAME has not arrived",
            "“Quiz 6” is missing",
            "LD110 is not at the version that is expected");
  }

  @Test
  void aFixedItemThatWasChangedDiffersAndAnAdaptableOneDoesNot() {
    changed("page", a -> a.with(a.wording().withHtml("<p>Mine.</p>")), Aspect.WORDING);
    finds();
    Meant m = meant.get("page");
    meant.put("page", but(m, EditRule.FIXED, true, m.own(), List.of(), Set.of(), List.of()));
    finds(Check.DIFFERENT);
  }

  @Test
  void aTitleThatIsIndentedByHandIsFound() {
    shell.own("mine", Kind.PAGE, "— — Gloves", "w1", "<p>Old.</p>");
    finds(Check.INDENTED);
    assertThat(found().get(0).evidence()).isEqualTo("“Gloves” says the same.");
  }

  @Test
  void aCopyBesideADeliveredItemIsDoubledAndOneOfTheSameTitleElsewhereIsNot() {
    shell.own("copy", Kind.PAGE, "Cue sheets", "w1", "<p>Old.</p>");
    finds(Check.DOUBLED);
    shell.without("copy").own("w2", Kind.MODULE, "Mine", null, "");
    shell.own("copy", Kind.PAGE, "Cue sheets", "w2", "<p>Another one.</p>");
    finds();
  }

  @Test
  void anEmptyModuleAndWhatTheVersionHasNoMoreAreFound() {
    shell.own("w16", Kind.MODULE, "Week 16", null, "");
    Meant m = meant(shell.get("page"));
    meant.put("page", but(m, m.rule(), false, Set.of(), List.of(), Set.of(), List.of()));
    finds(Check.SURPLUS, Check.EMPTY_MODULE);
  }

  @Test
  void twoFrontPagesOrNoneAreFound() {
    shell
        .own("home", Kind.SETUP, "Home", null, "<p>Hello.</p>")
        .with(
            "home",
            a -> a.with(a.wording().withSetup(Optional.of(SetupSubject.FRONT_PAGE), List.of())));
    finds(Check.TWO_FRONT_PAGES);
    shell.without("home").without("front");
    finds(Check.NO_FRONT_PAGE);
  }

  @Test
  void anEntryOfTheMenuThatLeadsNowhereIsNamed() {
    shell
        .ours("menu", Kind.SETUP, "Menu", null, "")
        .with(
            "menu",
            a ->
                a.with(
                    a.wording()
                        .withSetup(
                            Optional.of(SetupSubject.MENU),
                            List.of(
                                new Content.Entry("Plot", "/item/task"),
                                new Content.Entry("Old plot", "/item/gone"),
                                new Content.Entry("Library", "https://library.example/")))));
    assertThat(found()).extracting(ShellFinding::evidence).containsExactly("Old plot");
  }

  @Test
  void otherPointsALostRubricAndALostCategoryAreFound() {
    shell.with(
        "task",
        a ->
            a.with(
                Grading.points(BigDecimal.TEN)
                    .withRubric(Optional.of("r"))
                    .withCategory(Optional.of("c"))
                    .withGroupSet(Optional.of("g"))));
    changed("task", a -> a.with(Grading.points(BigDecimal.ONE)), Aspect.GRADING);
    finds(Check.POINTS, Check.NO_RUBRIC, Check.GROUP_SET, Check.NO_CATEGORY);
    assertThat(found().get(0).evidence()).isEqualTo("1 here, 10 delivered.");
  }

  @Test
  void whatATaskNamesAndIsNotHereIsFoundThoughNobodyChangedTheTask() {
    shell.with("task", a -> a.with(Grading.NONE.withRubric(Optional.of("here:gone"))));
    finds(Check.NO_RUBRIC);
  }

  @Test
  void aQuizWithoutItsBankIsFound() {
    Meant m = meant(shell.get("task"));
    meant.put(
        "task",
        but(m, m.rule(), true, Set.of(), List.of(), Set.of(new ItemKey("bank")), List.of()));
    finds(Check.NO_BANK);
  }

  @Test
  void weightsThatDoNotMakeAHundredAreAddedUp() {
    for (String id : List.of("c1", "c2")) {
      shell
          .ours(id, Kind.GRADE_CATEGORY, id, null, "")
          .with(id, a -> a.with(Grading.NONE.withWeight(Optional.of(new BigDecimal("45")))));
    }
    assertThat(found()).extracting(ShellFinding::words).containsExactly("Weights add up to 90 %");
  }

  @Test
  void datesOutsideTheTermOnDaysOffAndInTheWrongOrderAreFound() {
    shell.with("task", a -> a.with(due("2027-02-15T23:59")));
    finds(Check.ON_DAY_OFF);
    shell.with("task", a -> a.with(due("2026-10-16T23:59")));
    finds(Check.OUTSIDE_TERM);
    shell.with(
        "task", a -> a.with(due("2027-05-07T23:59").with(Point.CLOSES, at("2027-05-14T23:59"))));
    finds(Check.OUTSIDE_TERM);
    shell.with(
        "task", a -> a.with(due("2027-02-12T23:59").with(Point.OPENS, at("2027-02-13T08:00"))));
    finds(Check.DISORDER);
    shell.with(
        "task", a -> a.with(due("2027-02-12T23:59").with(Point.OPENS, at("2027-01-10T08:00"))));
    finds();
  }

  @Test
  void aDateThatWasDeliveredAndIsGoneIsLost() {
    shell.with("task", a -> a.with(due("2027-02-12T23:59")));
    changed("task", a -> a.with(Timing.NONE), Aspect.TIMING);
    finds(Check.DATE_LOST);
  }

  @Test
  void twoTasksOnOneDayAreToldIfTheyWereDeliveredForTwo() {
    shell.ours("other", Kind.ASSIGNMENT, "Rig", "w1", "");
    for (String id : List.of("task", "other")) {
      shell.with(id, a -> a.with(Grading.points(BigDecimal.TEN)).with(due("2027-02-12T23:59")));
    }
    finds();
    changed("other", a -> a.with(due("2027-02-19T23:59")), Aspect.TIMING);
    changed("other", a -> a.with(due("2027-02-12T23:59")), Aspect.TIMING);
    finds(Check.DUE_TOGETHER);
  }

  @Test
  void aPatternThatTheCalendarCannotKeepIsToldUnlessTheSectionHasADateOfItsOwn() {
    shell.with("task", a -> a.with(due("2027-02-12T23:59")));
    remarked(Remark.Kind.MOVED_OFF_DAY);
    finds();
    remarked(Remark.Kind.MOVED_OFF_DAY, Remark.Kind.TOO_FEW_MEETINGS);
    finds(Check.OTHER_DATE);
    remarked(Remark.Kind.NO_MEETINGS);
    finds(Check.NO_DATE);
    changed("task", a -> a.with(due("2027-02-19T23:59")), Aspect.TIMING);
    finds();
  }

  private void remarked(Remark.Kind... kinds) {
    Meant m = meant.getOrDefault("task", meant(shell.get("task")));
    List<Remark> all =
        Stream.of(kinds)
            .map(k -> new Remark(k, Point.DUE, LocalDate.parse("2027-02-12"), ""))
            .toList();
    meant.put("task", but(m, m.rule(), true, m.own(), m.blanks(), m.banks(), all));
  }

  private static Timing due(String at) {
    return Timing.NONE.with(Point.DUE, at(at));
  }

  private static Optional<LocalDateTime> at(String at) {
    return Optional.of(LocalDateTime.parse(at));
  }

  @Test
  void whatStudentsShouldNotReadIsFoundWhereTheySeeIt() {
    strangers =
        new CheckedShell.Strangers(List.of("Autumn 2026"), Map.of("lena.pell", "larkmoor.example"));
    shell
        .own("a", Kind.PAGE, "Hello", "w1", "<p>For the builder: put your studio here.</p>")
        .own("b", Kind.PAGE, "Plan of Autumn 2026", "w1", "<p>x</p>")
        .own("c", Kind.PAGE, "Contact", "w1", "<p>Write to Lena.Pell@larkmoor.example.</p>")
        .own("d", Kind.FILE, "Test bank for week 1", "w1", "")
        .own("e", Kind.PAGE, "More", "w1", "<p><a href=\"/item/gone\">there</a></p>");
    finds(
        Check.BUILDER_NOTE,
        Check.OLD_WORDS,
        Check.OLD_WORDS,
        Check.INSTRUCTORS_IN_VIEW,
        Check.DEAD_LINK);
    for (String id : List.of("a", "b", "c", "d", "e")) {
      shell.with(id, a -> a.with(new Visibility(false, false)));
    }
    finds();
  }

  @Test
  void allThatCannotBeReadOfAShellIsFoundWithItsReasons() {
    unread.add("“Quiz 4” cannot be read.");
    unread.add("“Plot” cannot be read.");
    assertThat(found()).extracting(ShellFinding::check).containsExactly(Check.UNREADABLE);
    assertThat(found().get(0).evidence()).contains("Quiz 4", "Plot");
  }

  @Test
  void whatIsOnlyPerhapsANoteIsAskedAboutSentenceBySentence() {
    shell.own(
        "a", Kind.PAGE, "Hello", "w1", "<p>My name is [name]. Do not publish this. Welcome.</p>");
    assertThat(found()).extracting(ShellFinding::check).containsExactly(Check.PERHAPS_NOTE);
    assertThat(found()).extracting(ShellFinding::evidence).containsExactly("My name is [name].");
    shell.with("a", a -> a.with(a.wording().withHtml("<p>Do not publish this. Welcome.</p>")));
    assertThat(found()).extracting(ShellFinding::evidence).containsExactly("Do not publish this.");
  }

  @Test
  void anOpenBlankIsNoNote() {
    shell.with("page", a -> a.with(a.wording().withHtml("<p>I am [your name], hello.</p>")));
    Meant m = meant(shell.get("page"));
    meant.put(
        "page", but(m, m.rule(), true, Set.of(), List.of("[your name]"), Set.of(), List.of()));
    assertThat(found()).extracting(ShellFinding::check).containsExactly(Check.BLANK);
  }

  @Test
  void aBlankThatNobodyFilledInIsFoundByWhatItAsksFor() {
    shell.with("page", a -> a.with(a.wording().withHtml("<p>Hours: [office hours]</p>")));
    Meant m = meant(shell.get("page"));
    meant.put(
        "page", but(m, m.rule(), true, Set.of(), List.of("[office hours]"), Set.of(), List.of()));
    assertThat(found()).extracting(ShellFinding::evidence).containsExactly("[office hours]");
  }

  @Test
  void aConditionAboutWhatIsNotHereIsFound() {
    shell.with(
        "task",
        a -> a.with(Visibility.SHOWN.withConditions(List.of(Condition.read(new ItemKey("gone"))))));
    finds(Check.BROKEN_CONDITION);
  }

  @Test
  void whatIsOpenTooEarlyOrHiddenPastItsDayIsFound() {
    shell.with("task", a -> a.with(Timing.NONE.with(Point.OPENS, at("2027-02-01T08:00"))));
    changed("task", a -> a.with(Timing.NONE), Aspect.TIMING);
    finds(Check.TOO_EARLY);
    now = LocalDateTime.parse("2027-02-02T09:00");
    finds();
    shell.with(
        "task",
        a ->
            a.with(new Visibility(false, false))
                .with(Timing.NONE.with(Point.OPENS, at("2027-02-01T08:00"))));
    finds(Check.HIDDEN_PAST);
  }

  @Test
  void eachStandingOfAToolIsAFindingButWorking() {
    for (LinkState.Standing s : LinkState.Standing.values()) {
      tools.add(new CheckedShell.ToolTrouble(s.name(), "CueBench", s));
    }
    finds(Check.NOT_CONNECTED, Check.TIED_WRONGLY, Check.TOOL_WAITS, Check.NOT_OPENED);
  }

  @Test
  void aClosedShellCanWaitAndAnOpenOneThatIsNotReadyCannot() {
    window =
        Optional.of(new OpenDays(Optional.of(LocalDate.parse("2027-01-20")), Optional.empty()));
    finds(Check.CLOSED);
    now = LocalDateTime.parse("2027-01-20T09:00");
    finds();
    lacks.add(new CheckedShell.Lack(new Given("m3", new ItemKey("q6")), "Quiz 6", false));
    finds(Check.MISSING, Check.OPEN_NOT_READY);
  }

  @Test
  void aCheckThatTheCollegeTurnedOffFindsNothing() {
    shell.own("w16", Kind.MODULE, "Week 16", null, "");
    assertThat(found()).hasSize(1);
    assertThat(
            ShellChecks.of(
                new CheckedShell(
                    List.of(),
                    unread,
                    lacks,
                    masters,
                    a -> Optional.empty(),
                    Optional.empty(),
                    tools,
                    window,
                    strangers,
                    now),
                c -> false))
        .isEmpty();
  }
}
