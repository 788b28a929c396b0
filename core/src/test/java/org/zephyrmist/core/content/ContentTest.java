package org.zephyrmist.core.content;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zephyrmist.core.Laws;

class ContentTest {
  private static final FileRef FILE =
      new FileRef(Fingerprint.of("x").hex(), "loads.pdf", "application/pdf", 12);

  static Stream<Content> everyKind() {
    Grading ten = Grading.points(new BigDecimal("10.0"));
    Grading all =
        new Grading(
            Optional.of(BigDecimal.TEN),
            Optional.of("labs"),
            Optional.of("plot"),
            Optional.of(3),
            Optional.empty(),
            Optional.of(45),
            Optional.of(new HandIn(List.of("file", "text"), List.of("pdf"), true)),
            Optional.of("crews"));
    return Stream.of(
        new Content.Module(),
        new Content.Page("<p>Count every lantern.</p>"),
        new Content.File(FILE),
        new Content.WebLink("https://example.org/gel", true),
        new Content.ToolLink("", "https://tool.example/l", new TreeMap<>(Map.of("unit", "3"))),
        new Content.ToolLink(
            "",
            new Launch(
                "https://tool.example/l",
                false,
                new TreeMap<>(),
                Optional.of(
                    new Launch.Tool("", "https://tool.example/icon.png", "cb", "CueBench")))),
        new Content.Assignment("<p>Plot.</p>", all, List.of(FILE)),
        new Content.Assignment("<p>Plot.</p>", ten),
        new Content.Discussion("<p>Talk.</p>"),
        new Content.Quiz("", FILE, 12, all),
        new Content.QuestionBank(FILE, 40),
        new Content.Rubric(
            List.of(
                new Content.Criterion("Safe", BigDecimal.TEN),
                new Content.Criterion("Team", BigDecimal.ONE, Optional.of("team")))),
        new Content.Outcome("<p>Works in a team.</p>"),
        new Content.GradeCategory(Grading.NONE),
        new Content.Announcement("<p>Welcome.</p>"),
        new Content.Announcement(
            "<p>Open house on Friday.</p>", Optional.of(Wording.Lasting.ONE_TERM)),
        new Content.Setup(
            Optional.of(SetupSubject.MENU),
            "",
            List.of(new Content.Entry("Help", "https://help.example/")),
            Optional.of(FILE)),
        new Content.GroupSet(List.of("North crew", "Quay crew")));
  }

  @Test
  void everyKindIsTriedHere() {
    assertThat(everyKind().map(Content::kind)).contains(Kind.values());
  }

  @ParameterizedTest
  @MethodSource("everyKind")
  void whateverIsWrittenOfAKindIsKeptAndNothingElseIsLost(Content c) {
    Aspects a = Aspects.of(item(c));
    Aspects to = a;
    for (Kind.Field f : c.kind().fields()) {
      to =
          switch (f) {
            case TEXT -> to.with(to.wording().withHtml("<p>Other.</p>"));
            case POINTS -> to.with(to.grading().withPoints(Optional.of(new BigDecimal(7))));
            case DUE -> to.with(to.timing().withDue(Timing.at("2026-10-01T08:00")));
            case OPEN -> to.with(to.timing().with(TimingPattern.NONE.with(Point.OPENS, week5())));
            case WITHIN ->
                to.with(
                    to.timing()
                        .with(
                            TimingPattern.NONE.within(
                                week5().map(w -> new ModuleDates(w, 2, true)))));
            case ADDRESS, LAUNCH_ADDRESS, TOOL ->
                to.with(to.launch().withAddress("https://other.example/"));
            case NEW_WINDOW -> to.with(to.launch().withNewWindow(!to.launch().newWindow()));
            case PARAMETERS ->
                to.with(to.launch().withParameters(new TreeMap<>(Map.of("unit", "9"))));
            case CATEGORY -> to.with(to.grading().withCategory(Optional.of("tests")));
            case RUBRIC -> to.with(to.grading().withRubric(Optional.of("other")));
            case GROUP_SET -> to.with(to.grading().withGroupSet(Optional.of("pairs")));
            case ATTEMPTS, MINUTES ->
                to.with(to.grading().withLimits(Optional.of(2), to.grading().minutes()));
            case HAND_IN ->
                to.with(
                    to.grading()
                        .withHandIn(Optional.of(new HandIn(List.of("url"), List.of(), false))));
            case WEIGHT -> to.with(to.grading().withWeight(Optional.of(new BigDecimal(25))));
            case QUESTIONS -> to.with(to.wording().withQuestions(FILE, 3, List.of()));
            case CRITERIA ->
                to.with(
                    to.wording()
                        .withCriteria(List.of(new Content.Criterion("Neat", BigDecimal.ONE))));
            case GROUPS -> to.with(to.wording().withGroups(List.of("South crew")));
            case FILE -> to.with(to.wording().withFile(Optional.of(FILE)));
            case ATTACHED -> to.with(to.wording().withAttached(List.of(FILE)));
            case LASTING ->
                to.with(to.wording().withLasting(Optional.of(Wording.Lasting.ONE_TERM)));
            case SETUP ->
                to.with(
                    to.wording()
                        .withSetup(
                            Optional.of(SetupSubject.WEEK_PLACES),
                            List.of(new Content.Entry("Week 1", ""))));
          };
    }
    assertThat(Aspects.of(to.item(new ItemKey("k"), c.kind(), EditRule.ADAPTABLE))).isEqualTo(to);
  }

  private static Optional<When> week5() {
    return When.of("week 5 Mon 8:00", Point.OPENS);
  }

  private static Item item(Content c) {
    return new Item(
        new ItemKey("k"),
        "Reading: loads",
        c,
        new Timing(Optional.empty(), Timing.at("2026-09-14T23:59"), Optional.empty()),
        new Place(Optional.of("week-3"), "08"),
        Visibility.SHOWN,
        EditRule.ADAPTABLE);
  }

  @ParameterizedTest
  @MethodSource("everyKind")
  void anItemOfEveryKindComesBackFromItsAspects(Content c) {
    Item before = item(c);
    Item after = AspectForms.item(before.key(), c.kind(), before.rule(), AspectForms.of(before));
    assertThat(after).isEqualTo(before);
  }

  @Test
  void conditionsComeBackAndThoseWithoutLeaveTheFormAsItWas() {
    Visibility waits =
        Visibility.SHOWN.withConditions(
            List.of(
                Condition.read(new ItemKey("a")),
                Condition.score(new ItemKey("b"), new BigDecimal("80.0"))));
    Item before =
        Aspects.of(item(new Content.Page("")))
            .with(waits)
            .item(new ItemKey("k"), Kind.PAGE, EditRule.ADAPTABLE);
    Item after = AspectForms.item(before.key(), Kind.PAGE, before.rule(), AspectForms.of(before));
    assertThat(after.visibility()).isEqualTo(waits);
    assertThat(AspectForms.of(item(new Content.Page(""))).get(Aspect.VISIBILITY))
        .isEqualTo("{\"shown\":true,\"instructorsOnly\":false}");
  }

  @Test
  void aConditionHasWhatItAsksForAndNoMore() {
    assertThatThrownBy(
            () ->
                new Condition(
                    Condition.What.DAY, Optional.of("a"), Optional.empty(), Optional.empty()))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> Condition.score(new ItemKey("a"), new BigDecimal(101)))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void aChangedTitleIsAChangedWordingAndNothingElse() {
    Item i = item(new Content.Page("<p>a</p>"));
    assertThat(
            AspectForms.fingerprints(i)
                .differing(AspectForms.fingerprints(i.withTitle("Reading: circuits"))))
        .containsExactly(Aspect.WORDING);
  }

  @Test
  void pointsOfTenAndOfTenPointZeroAreOneGrading() {
    assertThat(Grading.points(new BigDecimal("10.00"))).isEqualTo(Grading.points(BigDecimal.TEN));
  }

  @Test
  void attributeOrderWhiteSpaceAndCommentsDoNotChangeAPage() {
    String a = "<P  class='x' id=\"y\">Count   every\n lantern</p>\n\n<ul> <li>one</li> </ul>";
    String b = "<p id=y class=x>Count every lantern<!-- note --></p><ul><li>one</li></ul>";
    assertThat(Html.canonical(a)).isEqualTo(Html.canonical(b));
  }

  @Test
  void aSpaceBetweenWordsInDifferentTagsIsKept() {
    assertThat(Html.canonical("<p><b>two</b> <i>words</i></p>"))
        .isEqualTo("<p><b>two</b> <i>words</i></p>");
  }

  @Test
  void whiteSpaceInPreformattedTextCounts() {
    assertThat(Html.canonical("<pre>a  b</pre>")).isNotEqualTo(Html.canonical("<pre>a b</pre>"));
  }

  @Test
  void canonicalFormIsIdempotent() {
    Laws.hold(
        random -> {
          String html = html(random);
          String once = Html.canonical(html);
          assertThat(Html.canonical(once)).isEqualTo(once);
        });
  }

  @Test
  void whatIsSafeStaysAsItIs() {
    Laws.hold(
        random -> {
          String html = html(random);
          String once = Html.safe(html);
          assertThat(Html.safe(once)).isEqualTo(once);
        });
  }

  private static String html(Random random) {
    return Laws.text(
        random,
        12,
        "<p>",
        "</p>",
        "<b>",
        "</b>",
        " ",
        "\n",
        "words",
        "&amp;",
        "<ul><li>",
        "</li></ul>",
        "<!-- c -->",
        "<pre>",
        "</pre>",
        "<a href='zref:item/k' id=q>",
        "</a>",
        "<br>",
        "<script>x</script>",
        "<table><tr><td>",
        "</table>",
        "<img src=x onerror=y>");
  }

  @Test
  void scriptsHandlersAndOddAddressesAreNotSafe() {
    String safe =
        Html.safe(
            "<p onclick=\"x()\" style=\"position:fixed\">Hi<script>x()</script>"
                + "<a href=\"javascript:x()\">go</a><iframe src=\"https://e.example\"></iframe>"
                + "<svg onload=x()></svg><a href=\"zref:item/k#part\">on</a></p>");
    assertThat(safe)
        .isEqualTo(
            "<p>Hi<a>go</a><a href=\"https://e.example\" target=\"_blank\">e.example</a><a href=\"zref:item/k#part\">on</a></p>");
  }

  @Test
  void referencesLeadToFilesAndItemsWithTheirFragment() {
    String sha = Fingerprint.of("pdf").hex();
    String html =
        "<a href=\""
            + References.file(sha, "load table.pdf", "#page=2")
            + "\">t</a>"
            + "<a href=\""
            + References.item(new ItemKey("k1"), "#top")
            + "\">i</a>";
    assertThat(References.files(html))
        .containsExactly(new References.ToFile(sha, "load table.pdf", "#page=2"));
    assertThat(References.resolve(html, f -> "/f/" + f.name(), i -> "/i/" + i.key() + i.fragment()))
        .contains("href=\"/f/load table.pdf\"")
        .contains("href=\"/i/k1#top\"");
  }

  @Test
  void packedFingerprintsComeBack() {
    Laws.hold(
        random -> {
          Fingerprints f =
              AspectForms.fingerprints(item(new Content.Page("<p>a</p>")))
                  .with(Aspect.WORDING, Fingerprint.of(html(random)))
                  .with(Aspect.LAUNCH, Fingerprint.of(html(random)));
          assertThat(Fingerprints.unpack(f.pack())).isEqualTo(f);
        });
  }

  @Test
  void ARankIsFoundBetweenAnyTwo() {
    Laws.hold(
        random -> {
          String a = rank(random);
          String b = rank(random);
          if (a.equals(b)) {
            return;
          }
          String low = a.compareTo(b) < 0 ? a : b;
          String high = a.compareTo(b) < 0 ? b : a;
          assertThat(Rank.between(low, high))
              .isGreaterThan(low)
              .isLessThan(high)
              .doesNotEndWith("0");
          assertThat(Rank.between(high, "")).isGreaterThan(high);
          assertThat(Rank.between("", low)).isLessThan(low);
        });
  }

  /** One to six digits of base 36, the last of them not 0. */
  private static String rank(Random random) {
    String digits = "0123456789abcdefghijklmnopqrstuvwxyz";
    return Laws.text(random, 5, digits.split("")) + digits.charAt(1 + random.nextInt(35));
  }

  @Test
  void ranksOfAListAreInItsOrder() {
    Laws.hold(
        random -> {
          int n = random.nextInt(50_000);
          assertThat(Rank.nth(n)).isLessThan(Rank.nth(n + 1));
        });
  }

  @Test
  void anItemKeyOfStrangeCharactersIsRefused() {
    assertThatThrownBy(() -> new ItemKey("../x")).isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void aLocalTimeIsOneTextHoweverItIsWritten() {
    Item i = item(new Content.Page("x"));
    String due = AspectForms.of(i).get(Aspect.TIMING);
    assertThat(due).isEqualTo("{\"due\":\"2026-09-14T23:59\"}");
    String seconds = due.replace("23:59", "23:59:00");
    Map<Aspect, String> forms = new TreeMap<>(AspectForms.of(i));
    forms.put(Aspect.TIMING, seconds);
    assertThat(AspectForms.item(i.key(), i.kind(), i.rule(), forms)).isEqualTo(i);
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "tomorrow", "2026-02-30T10:00", "2026-09-14", "1266-09-14T10:00"})
  void whatIsNoLocalTimeIsNone(String text) {
    assertThat(Timing.at(text)).isEmpty();
  }
}
