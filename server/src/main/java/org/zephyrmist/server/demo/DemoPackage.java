package org.zephyrmist.server.demo;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeWriter;
import org.zephyrmist.core.cartridge.PackageChoices;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.question.QuestionSet;

/** Builds the content of a demo course, and packs it as a Common Cartridge. */
final class DemoPackage {
  private final List<Item> items = new ArrayList<>();
  private final Map<String, byte[]> files = new HashMap<>();
  private final DemoCourse course;

  private final boolean second;

  private DemoPackage(DemoCourse course, boolean second) {
    this.course = course;
    this.second = second;
  }

  /** The course as a package of so many weeks. */
  static byte[] cartridge(DemoCourse course, int weeks) {
    return cartridge(course, weeks, false);
  }

  /** The next edition: weeks in another order, things renamed, new and gone, other identifiers. */
  static byte[] second(DemoCourse course) {
    return cartridge(course, course.weeks().size(), true);
  }

  private static byte[] cartridge(DemoCourse course, int weeks, boolean second) {
    DemoPackage p = new DemoPackage(course, second);
    p.start();
    for (int at = 0; at < weeks; at++) {
      int w = second && at == 1 ? 2 : second && at == 2 ? 1 : at;
      p.week(w, at);
    }
    CartridgeFacts facts =
        new CartridgeFacts(
            course.cartridge().isEmpty() ? course.title() : course.cartridge(),
            "Readings, exercises and quizzes for " + course.title() + ".",
            "en",
            course.publisher().isEmpty()
                ? "Larkmoor College of Stagecraft"
                : course.publisher() + ". May be adapted within the adopting college.",
            "Common Cartridge 1.3",
            false);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try {
      CartridgeWriter.write(
          out,
          facts,
          p.items,
          PackageChoices.all(PackageFormat.CC_1_3),
          sha -> new ByteArrayInputStream(p.files.get(sha)));
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  private void start() {
    String at = module("start", 0, "Start here");
    page(
        "syllabus",
        at,
        0,
        "Syllabus",
        "<p>What "
            + course.title()
            + " asks of you and what you may ask of it.</p><ul>"
            + rows(course.weeks().stream().map(DemoCourse.Week::title).toList())
            + "</ul><p>Your instructor adds office hours and the room.</p>");
    page("who", at, 1, "Who teaches you", "<p>Your instructor writes this page.</p>");
    page(
        "how",
        at,
        2,
        "How the weeks go",
        "<p>Each week has a reading, an exercise, a talk and a short quiz. Read before you come;"
            + " bring the exercise on paper.</p>");
  }

  private static String rows(List<String> titles) {
    StringBuilder s = new StringBuilder();
    titles.forEach(t -> s.append("<li>").append(t).append("</li>"));
    return s.toString();
  }

  private void week(int w, int place) {
    DemoCourse.Week week = course.weeks().get(w);
    String id = "w" + (w + 1);
    String at = module(id, place + 1, "Week " + (place + 1) + " · " + week.title());
    String sheet =
        file(
            week.title().toLowerCase(Locale.ROOT).replace(' ', '-') + "-sheet.pdf",
            "application/pdf",
            Pictures.pdf(course.code() + ", " + week.title(), week.facts()));
    String plan =
        file(id + "-figure.png", "image/png", Pictures.png(course.code().hashCode() * 31L + w));
    String revised = second && w % 4 == 1 ? ", with LED engines" : "";
    page(
        id + "-read",
        at,
        0,
        "Reading: " + lower(week.title()) + revised,
        reading(week, sheet, plan));
    item(
        id + "-sheet",
        at,
        1,
        week.title() + " sheet (PDF)",
        new Content.File(ref(sheet, "sheet.pdf", "application/pdf")),
        Visibility.SHOWN);
    item(
        id + "-talk",
        at,
        2,
        "Talk: " + lower(week.title()),
        new Content.Discussion("<p>" + week.talk() + "</p><p>Answer two others by Friday.</p>"),
        Visibility.SHOWN);
    item(
        id + "-do",
        at,
        3,
        "Exercise " + (w + 1) + ": " + lower(week.title()),
        new Content.Assignment(
            "<p>"
                + week.exercise()
                + "</p><p>Hand in one page. It counts 20 points: 10 for the"
                + " work, 5 for safety, 5 for how clearly a stranger could use it.</p>",
            Grading.points(new BigDecimal(20)),
            w % 3 == 2 ? List.of(ref(sheet, "sheet.pdf", "application/pdf")) : List.of()),
        Visibility.SHOWN);
    QuestionSet asked = DemoQuestions.of(id, week);
    String qti = file(id + "-quiz.xml", "text/xml", DemoQuestions.qti("questions", false, asked));
    item(
        id + "-quiz",
        at,
        4,
        "Quiz " + (w + 1) + ": " + lower(week.title()),
        new Content.Quiz(
            "",
            ref(qti, id + "-quiz.xml", "text/xml"),
            asked.asked(),
            Grading.points(asked.points())),
        Visibility.SHOWN);
    if (w % 2 == 0) {
      item(
          id + "-tool",
          at,
          5,
          Pictures.toolName(course.tool()) + ": " + lower(week.title()),
          new Content.ToolLink(
              "<p>Opens in a window of its own.</p>",
              "https://" + course.tool() + ".example/launch",
              new TreeMap<>(Map.of("unit", id, "course", course.code()))),
          Visibility.SHOWN);
    } else if (!second || w != 3) {
      item(
          id + "-link",
          at,
          5,
          "Further: " + lower(week.title()),
          new Content.WebLink(
              "https://library.larkmoor.example/"
                  + course.code().toLowerCase(java.util.Locale.ROOT).replace(" ", "")
                  + "/"
                  + id,
              true),
          Visibility.SHOWN);
    }
    item(
        id + "-notes",
        at,
        6,
        second && renewed(id) ? "Notes for instructors" : "For instructors: " + lower(week.title()),
        new Content.Page(
            "<p>Allow twenty minutes for the exercise. Common mistake: reading it instead of doing"
                + " it.</p>"),
        new Visibility(false, true));
    if (second && w % 5 == 2) {
      page(
          id + "-more",
          at,
          7,
          "Practice: " + lower(week.title()) + " with a partner",
          "<p>One reads the sheet aloud, the other does it without looking.</p>");
    }
  }

  /** Weeks whose items have other identifiers in the second edition. */
  private static boolean renewed(String name) {
    return name.matches("w[45]\\b.*");
  }

  private String reading(DemoCourse.Week week, String sheet, String figure) {
    StringBuilder s = new StringBuilder("<h2>" + week.title() + "</h2>");
    week.facts().forEach(f -> s.append("<p>").append(f).append("</p>"));
    s.append("<p><img alt=\"Figure: ").append(week.title()).append("\" src=\"");
    s.append(References.file(figure, "figure.png", "")).append("\"></p>");
    s.append("<p>Print the <a href=\"").append(References.file(sheet, "sheet.pdf", ""));
    s.append("\">sheet</a> and bring it. Then go to <a href=\"");
    s.append(References.item(key("how"), "")).append("\">how the weeks go</a>.</p>");
    return s.toString();
  }

  private static String lower(String s) {
    return s.substring(0, 1).toLowerCase(java.util.Locale.ROOT) + s.substring(1);
  }

  private ItemKey key(String name) {
    String edition = second && renewed(name) ? " second " : " ";
    return ItemKey.named(course.code() + edition + name);
  }

  private String module(String name, int n, String title) {
    put(name, Optional.empty(), n, title, new Content.Module(), Visibility.SHOWN);
    return key(name).value();
  }

  private void page(String name, String parent, int n, String title, String html) {
    item(name, parent, n, title, new Content.Page(html), Visibility.SHOWN);
  }

  private void item(
      String name, String parent, int n, String title, Content content, Visibility v) {
    put(name, Optional.of(parent), n, title, content, v);
  }

  private void put(
      String name, Optional<String> parent, int n, String title, Content c, Visibility v) {
    Place place = new Place(parent, Rank.nth(n));
    items.add(new Item(key(name), title, c, Timing.NONE, place, v, EditRule.ADAPTABLE));
  }

  private String file(String name, String type, byte[] bytes) {
    String sha = Fingerprint.of(Fingerprint.sha256().digest(bytes)).hex();
    files.put(sha, bytes);
    return sha;
  }

  private FileRef ref(String sha, String name, String type) {
    return new FileRef(sha, name, type, files.get(sha).length);
  }
}
