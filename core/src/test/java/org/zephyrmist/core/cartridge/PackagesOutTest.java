package org.zephyrmist.core.cartridge;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.HandIn;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Launch;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.question.Assessment;
import org.zephyrmist.core.question.QtiWriter;
import org.zephyrmist.core.question.QuestionSamples;
import org.zephyrmist.core.question.QuestionSet;

/** What is written as a package is valid, and read again equal. */
class PackagesOutTest {
  private static final CartridgeFacts FACTS =
      new CartridgeFacts(
          "Stage Light",
          "About light.",
          "en",
          "CC BY",
          "Common Cartridge 1.3",
          false,
          "zephyrmist:1",
          "Larkmoor Press",
          "",
          List.of("light", "power"),
          "",
          "");
  @TempDir Path folder;
  private final Map<String, byte[]> files = new HashMap<>();

  private FileRef file(String name, String type, byte[] bytes) {
    String sha = Fingerprint.of(Fingerprint.sha256().digest(bytes)).hex();
    files.put(sha, bytes);
    return new FileRef(sha, name, type, bytes.length);
  }

  private FileRef picture(Random r) {
    return file(
        "Bühne & Bar " + r.nextInt(3) + ".png",
        "image/png",
        ("PNG" + r.nextInt(5)).getBytes(StandardCharsets.UTF_8));
  }

  private String html(Random r) {
    FileRef p = picture(r);
    return Html.canonical(
        Laws.text(
            r,
            3,
            "<p>A 20-amp circuit</p>",
            "<b>1,920 watts &amp; no more</b>",
            "<img src=\"" + References.file(p.sha256(), p.name(), "") + "\">",
            "<a href=\"" + References.file(p.sha256(), p.name(), "#page=2") + "\">see</a>",
            "<a href=\"https://o.example/?a=1&amp;b=2\">web</a>"));
  }

  private List<FileRef> attached(Random r) {
    return r.nextInt(3) == 0 ? List.of(picture(r)) : List.of();
  }

  private Content content(Random r, Kind kind) {
    Optional<BigDecimal> points =
        r.nextBoolean() ? Optional.of(new BigDecimal(r.nextInt(100))) : Optional.empty();
    return switch (kind) {
      case MODULE -> new Content.Module();
      case PAGE -> new Content.Page(html(r) + "<p>end</p>");
      case FILE ->
          new Content.File(
              file(
                  "plan " + r.nextInt(9) + ".pdf",
                  "application/pdf",
                  ("%PDF" + r.nextInt()).getBytes(StandardCharsets.UTF_8)));
      case WEB_LINK ->
          new Content.WebLink("https://o.example/" + r.nextInt(9) + "?a=1&b=2", r.nextBoolean());
      case TOOL_LINK -> new Content.ToolLink(html(r), launch(r));
      case ASSIGNMENT ->
          new Content.Assignment(
              html(r),
              Grading.NONE
                  .withPoints(points)
                  .withHandIn(
                      r.nextBoolean()
                          ? Optional.of(new HandIn(List.of("file", "text"), List.of(), false))
                          : Optional.empty()),
              attached(r));
      case DISCUSSION -> new Content.Discussion(html(r), attached(r));
      case QUIZ, QUESTION_BANK -> questions(r, kind);
      case RUBRIC -> new Content.Rubric(List.of(new Content.Criterion("Safe", BigDecimal.TEN)));
      case OUTCOME -> new Content.Outcome("<p>Works.</p>");
      case GRADE_CATEGORY -> new Content.GradeCategory(Grading.NONE);
      case ANNOUNCEMENT -> new Content.Announcement("<p>Welcome.</p>");
      case GROUP_SET -> new Content.GroupSet(List.of("North"));
      case SETUP ->
          new Content.Setup(
              Optional.of(SetupSubject.MENU),
              "",
              List.of(new Content.Entry("Home", "https://o.example/")),
              Optional.empty());
    };
  }

  private Launch launch(Random r) {
    TreeMap<String, String> parameters = new TreeMap<>();
    for (int i = 0; i < r.nextInt(3); i++) {
      parameters.put("unit" + i, "$Context.id & " + i);
    }
    Optional<Launch.Tool> tool =
        r.nextBoolean()
            ? Optional.of(
                new Launch.Tool(
                    r.nextBoolean() ? "http://tool.example/l" : "",
                    "https://tool.example/i.png",
                    "cb",
                    "CueBench"))
            : Optional.empty();
    return new Launch("https://tool.example/l?x=1&y=2", false, parameters, tool);
  }

  private Content questions(Random r, Kind kind) {
    boolean bank = kind == Kind.QUESTION_BANK;
    FileRef p = picture(r);
    String image = "<img src=\"" + References.file(p.sha256(), p.name(), "") + "\">";
    boolean pictures = r.nextBoolean();
    QuestionSet set = QuestionSamples.set(r, false);
    if (pictures) {
      set = set.map(t -> t.isEmpty() ? t : Html.canonical(t + image));
    }
    String ident = bank ? "bank-" + r.nextInt() : "questions";
    Assessment a =
        new Assessment(ident, "", "", Optional.empty(), Optional.empty(), bank, set, List.of());
    FileRef qti = file("q.xml", "text/xml", QtiWriter.withDraws(a));
    List<FileRef> attached = pictures ? List.of(p) : List.of();
    return bank
        ? new Content.QuestionBank(qti, set.questions().size(), attached)
        : new Content.Quiz(
            html(r),
            qti,
            set.asked(),
            Grading.points(set.points()).withLimits(Optional.of(1 + r.nextInt(4)), Optional.of(45)),
            attached);
  }

  /** A master of every kind, two levels deep. */
  private List<Item> master(Random r) {
    List<Item> all = new ArrayList<>();
    for (int m = 0; m < 2; m++) {
      String module = m + "-" + new java.util.UUID(r.nextLong(), r.nextLong());
      all.add(item(module, "Week " + m, new Content.Module(), Optional.empty(), m, r));
      int rank = 0;
      for (Kind kind : Kind.values()) {
        if (kind != Kind.MODULE && r.nextInt(4) != 0) {
          String key = new java.util.UUID(r.nextLong(), r.nextLong()).toString();
          String title = kind.words() + " " + m + rank + " <&> é";
          all.add(item(key, title, content(r, kind), Optional.of(module), rank++, r));
        }
      }
    }
    return all;
  }

  private static Item item(
      String key, String title, Content c, Optional<String> parent, int rank, Random r) {
    boolean instructors = c.kind() != Kind.MODULE && r.nextInt(5) == 0;
    List<Wording.Standard> standards =
        c.kind() != Kind.MODULE && r.nextInt(4) == 0
            ? List.of(new Wording.Standard("L.1", "guid-1"))
            : List.of();
    return new Item(
        new ItemKey(key),
        title,
        c,
        Timing.NONE,
        new Place(parent, Rank.nth(rank)),
        new Visibility(!instructors, instructors),
        EditRule.ADAPTABLE,
        standards);
  }

  private static Item plain(String key, String title, Content c) {
    return new Item(
        new ItemKey(key),
        title,
        c,
        Timing.NONE,
        new Place(Optional.empty(), key),
        Visibility.SHOWN,
        EditRule.ADAPTABLE);
  }

  private Path write(List<Item> items, PackageChoices choices) throws IOException {
    Path out = Files.createTempFile(folder, "out", ".imscc");
    try (OutputStream stream = Files.newOutputStream(out)) {
      CartridgeWriter.write(
          stream, FACTS, items, choices, sha -> new ByteArrayInputStream(files.get(sha)));
    }
    return out;
  }

  private QuestionSet questions(FileRef f) {
    try {
      return StoredQuestions.read(f.name(), files.get(f.sha256())).set();
    } catch (CartridgeException e) {
      throw new IllegalStateException(e);
    }
  }

  /** A bank has no title of its own in a package: its file has. */
  private static Item bank(List<Item> items, Item of) {
    String name = PackagePaths.name(of.title());
    return items.stream().filter(i -> i.title().equals(name)).findFirst().orElseThrow();
  }

  /** All that the format can hold of an item, comparable. */
  private static Map<Aspect, String> held(Item i) {
    Map<Aspect, String> forms = new EnumMap<>(AspectForms.of(i));
    forms.remove(Aspect.PLACE);
    return forms;
  }

  @ParameterizedTest
  @EnumSource(PackageFormat.class)
  void everyPackageIsValidAndReadWithoutAnyFinding(PackageFormat format) throws Exception {
    for (int seed = 0; seed < Laws.of(40); seed++) {
      List<Item> master = master(new Random(seed));
      Path out = write(master, PackageChoices.all(format));
      assertThat(Schemas.violations(out, format)).as("seed " + seed).isEmpty();
      Package.Memory again = new Package.Memory();
      ReadingReport report = CartridgeReader.read(out, Limits.DEFAULT, again);
      assertThat(report.deadReferences()).as("seed " + seed).isEmpty();
      assertThat(report.notUnderstood()).isEmpty();
      assertThat(report.adjusted()).allMatch(f -> f.what().contains("no answer of it"));
      assertThat(report.unused()).isZero();
      assertThat(report.facts().profile()).isEqualTo(format.words());
      assertThat(report.facts().identifier()).isEqualTo("zephyrmist:1");
      assertThat(report.facts().publisher()).isEqualTo("Larkmoor Press");
    }
  }

  @Test
  void whatIsWrittenIsReadAgainWithEqualFingerprints() throws Exception {
    for (int seed = 100; seed < 100 + Laws.of(60); seed++) {
      List<Item> master = master(new Random(seed));
      PackageChoices choices = PackageChoices.all(PackageFormat.CC_1_3);
      Package.Memory again = new Package.Memory();
      CartridgeReader.read(write(master, choices), Limits.DEFAULT, again);
      files.putAll(again.files);
      Map<String, Item> read = new LinkedHashMap<>();
      again.items.forEach(i -> read.put(i.title(), i));
      for (Item i : master) {
        if (!CartridgeWriter.holds(i, choices)) {
          continue;
        }
        Item now = i.kind() == Kind.QUESTION_BANK ? bank(again.items, i) : read.get(i.title());
        assertThat(now).as("seed " + seed + " " + i.title()).isNotNull();
        if (i.kind() == Kind.QUIZ || i.kind() == Kind.QUESTION_BANK) {
          assertThat(questions(now.content().madeOf().orElseThrow()))
              .isEqualTo(questions(i.content().madeOf().orElseThrow()));
          assertThat(now.content().madeOf().orElseThrow().sha256())
              .isEqualTo(i.content().madeOf().orElseThrow().sha256());
          assertThat(now.content().grading()).isEqualTo(i.content().grading());
          assertThat(now.content().html()).isEqualTo(i.content().html());
        } else {
          assertThat(held(now)).as("seed " + seed + " " + i.title()).isEqualTo(held(i));
        }
      }
    }
  }

  @Test
  void whatAFormatCannotHoldIsToldByItemNeverLeftOutSilently() {
    Laws.hold(
        r -> {
          List<Item> master = master(r);
          PackageFormat format = PackageFormat.values()[r.nextInt(4)];
          PackageChoices choices =
              new PackageChoices(
                  format, true, true, r.nextBoolean(), org.zephyrmist.core.content.Frames.NONE);
          List<String> told =
              PackageLoss.of(master, choices, this::questions).stream()
                  .flatMap(l -> l.titles().stream())
                  .toList();
          for (Item i : master) {
            if (!CartridgeWriter.holds(i, choices)) {
              assertThat(told).contains(i.title());
            }
          }
        });
  }

  @Test
  void choicesLeaveOutWhatTheySay() throws Exception {
    Item tool =
        plain(
            "t",
            "Tool",
            new Content.ToolLink("", "https://tool.example/l", new TreeMap<>(Map.of("unit", "3"))));
    Item plot = plain("p", "Plot", new Content.Assignment("", Grading.points(BigDecimal.TEN)));
    PackageChoices none =
        new PackageChoices(
            PackageFormat.CC_1_3, false, false, false, org.zephyrmist.core.content.Frames.NONE);
    Package.Memory again = new Package.Memory();
    CartridgeReader.read(write(List.of(tool, plot), none), Limits.DEFAULT, again);
    assertThat(again.titled("Tool").content().launch().parameters()).isEmpty();
    assertThat(again.titled("Plot").content().grading()).isEqualTo(Grading.NONE);
    assertThat(PackageLoss.of(List.of(tool, plot), none, f -> null))
        .extracting(PackageLoss::handwork)
        .contains("Enter them in the shell, link by link.");
  }

  @Test
  void hostileContentIsCleanedOnTheWayOut() throws Exception {
    Item page =
        plain(
            "p",
            "Page",
            new Content.Page(
                "<p onclick='x()'>Hi</p><script>x()</script><a href='javascript:x()'>go</a>"));
    Package.Memory again = new Package.Memory();
    CartridgeReader.read(
        write(List.of(page), PackageChoices.all(PackageFormat.CC_1_2)), Limits.DEFAULT, again);
    assertThat(again.titled("Page").content().html()).isEqualTo("<p>Hi</p><a>go</a>");
  }

  @Test
  void aFileNamedAsNoFileShouldBeStaysWithinThePackage() throws Exception {
    Item f =
        plain("f", "F", new Content.File(file("../../etc/pass:wd", "text/plain", new byte[] {1})));
    Package.Memory again = new Package.Memory();
    CartridgeReader.read(
        write(List.of(f), PackageChoices.all(PackageFormat.CC_1_1)), Limits.DEFAULT, again);
    assertThat(again.titled("F").content().madeOf().orElseThrow().name())
        .isEqualTo("_.._etc_pass_wd");
  }
}
