package org.zephyrmist.core.cartridge;

import java.math.BigDecimal;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.w3c.dom.Element;
import org.zephyrmist.core.cartridge.Manifest.Resource;
import org.zephyrmist.core.cartridge.ResourceReader.Read;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.HandIn;
import org.zephyrmist.core.question.Assessment;
import org.zephyrmist.core.question.QtiReader;
import org.zephyrmist.core.question.QtiWriter;
import org.zephyrmist.core.xml.Elements;

/** Reads what students do and are graded for: assignments, quizzes, banks. */
final class TaskReader {
  private static final Set<String> WAYS = Set.of("text", "html", "url", "file");
  private final PackageFiles files;
  private final PackageAddresses addresses;
  private final Findings findings;

  TaskReader(PackageFiles files, PackageAddresses addresses, Findings findings) {
    this.files = files;
    this.addresses = addresses;
    this.findings = findings;
  }

  /** Points and ways to hand in (assignment extension of Common Cartridge). */
  Grading grading(Element assignment, String title) {
    Optional<Element> gradable =
        Elements.child(assignment, "gradable")
            .filter(g -> !g.getTextContent().strip().equalsIgnoreCase("false"));
    String said = gradable.map(g -> g.getAttribute("points_possible").strip()).orElse("");
    Optional<BigDecimal> points = Grading.number(said);
    if (!said.isEmpty() && points.isEmpty()) {
      noNumber(title, "points", said);
    }
    return Grading.NONE.withPoints(points).withHandIn(handIn(assignment));
  }

  private Optional<HandIn> handIn(Element assignment) {
    List<String> ways =
        Elements.child(assignment, "submission_formats").stream()
            .flatMap(s -> Elements.children(s, "format").stream())
            .map(f -> f.getAttribute("type").strip().toLowerCase(Locale.ROOT))
            .filter(WAYS::contains)
            .toList();
    return ways.isEmpty() ? Optional.empty() : Optional.of(new HandIn(ways, List.of(), false));
  }

  private void noNumber(String title, String what, String said) {
    findings.adjusted(
        title,
        "its "
            + what
            + " are “"
            + PackageAddresses.shortened(said)
            + "”, which is no number that can be used; it has none until somebody writes them");
  }

  /** A quiz or a bank; its questions become a file of our own writing, with references by key. */
  Read questions(ResourceType type, Element xml, String path, Resource r, String title) {
    Assessment read = QtiReader.read(xml, html -> addresses.refer(html, path));
    boolean quiz = type == ResourceType.ASSESSMENT && !read.bank();
    read.remarks().forEach(remark -> findings.adjusted(title, remark));
    findings.questions(read.set());
    if (read.set().questions().isEmpty() && read.set().asked() == 0) {
      findings.adjusted(title, "holds no question");
    }
    List<FileRef> pictures = addresses.named().stream().filter(f -> !presented(read, f)).toList();
    String ident = quiz ? "questions" : read.ident().isEmpty() ? r.id() : read.ident();
    Assessment alone =
        new Assessment(
            ident, "", "", Optional.empty(), Optional.empty(), !quiz, read.set(), List.of());
    String name = r.path().map(Paths::fileName).orElse("questions.xml");
    FileRef qti = files.made(name, "text/xml", QtiWriter.withDraws(alone));
    if (!quiz) {
      return new Read(
          read.title(), new Content.QuestionBank(qti, read.set().questions().size(), pictures));
    }
    Optional<BigDecimal> points = Grading.number(read.set().points().toPlainString());
    if (points.isEmpty()) {
      noNumber(title, "points", read.set().points().toPlainString());
    }
    Grading grading =
        Grading.NONE
            .withPoints(points.filter(p -> read.set().asked() > 0))
            .withLimits(read.attempts(), read.minutes());
    return new Read(
        read.title(),
        new Content.Quiz(read.presentation(), qti, read.set().asked(), grading, pictures));
  }

  /** Whether only the text before the questions names it, which carries its own references. */
  private static boolean presented(Assessment read, FileRef f) {
    return read.set().texts().stream().noneMatch(t -> t.contains(f.sha256()));
  }
}
