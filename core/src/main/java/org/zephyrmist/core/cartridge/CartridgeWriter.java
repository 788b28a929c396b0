package org.zephyrmist.core.cartridge;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.xml.stream.XMLStreamException;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.KeySpace;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.question.Assessment;
import org.zephyrmist.core.question.QtiWriter;

/**
 * Writes items as a Common Cartridge of any version. Texts are cleaned on the way. Reading it again
 * gives equal items, but for what {@link PackageLoss} tells.
 */
public final class CartridgeWriter {
  /** Opens the bytes of a file by its fingerprint. */
  public interface FileSource {
    InputStream open(String sha256) throws IOException;
  }

  private final ZipOutputStream zip;
  private final PackageChoices choices;
  private final FileSource source;
  private final PackagePaths paths = new PackagePaths();
  private final Map<String, Set<String>> needs = new LinkedHashMap<>();
  private final Map<String, Assessment> assessments = new LinkedHashMap<>();

  private CartridgeWriter(OutputStream out, PackageChoices choices, FileSource source) {
    this.zip = new ZipOutputStream(out, StandardCharsets.UTF_8);
    this.choices = choices;
    this.source = source;
  }

  /**
   * Writes a package; the stream is finished, not closed.
   *
   * @param items each after the module that holds it, in outline order
   * @throws IOException if the stream ends, or the questions of an item cannot be read
   */
  public static void write(
      OutputStream out,
      CartridgeFacts facts,
      List<Item> items,
      PackageChoices choices,
      FileSource source)
      throws IOException {
    CartridgeWriter w = new CartridgeWriter(out, choices, source);
    try {
      List<Item> held = items.stream().filter(i -> holds(i, choices)).toList();
      w.assign(held);
      w.manifest(facts, held);
      w.contents(held);
      w.zip.finish();
    } catch (XMLStreamException e) {
      throw new IOException(e);
    } catch (CartridgeException e) {
      throw new IOException(e.place() + ": " + e.getMessage(), e);
    }
  }

  /** The key that an item has when its package is read again, of whatever source. */
  public static ItemKey readAgain(ItemKey key) {
    return KeySpace.WITHOUT_SOURCE.key("item " + PackagePaths.identifier("i_", key.value()));
  }

  /** Whether a package made by these choices holds an item. */
  static boolean holds(Item i, PackageChoices choices) {
    if (i.visibility().instructorsOnly() && !choices.instructorsOnly()) {
      return false;
    }
    boolean leads = !i.kind().leads() || !i.content().launch().address().isEmpty();
    return i.kind() == Kind.MODULE || leads && choices.format().type(i.kind()).isPresent();
  }

  /** Paths first, so that texts can refer to what stands further down. */
  private void assign(List<Item> items) throws IOException, CartridgeException {
    for (Item i : items) {
      if (i.kind() != Kind.MODULE) {
        paths.item(i, choices.format());
      }
    }
    for (Item i : items) {
      Set<String> files = new LinkedHashSet<>();
      if (!choices.format().thin()) {
        References.files(i.content().html())
            .forEach(f -> files.add(paths.file(f.sha256(), f.name())));
        i.content().attached().forEach(f -> files.add(paths.file(f.sha256(), f.name())));
      }
      Optional<FileRef> questions = questions(i);
      if (questions.isPresent()) {
        assessments.put(i.key().value(), read(questions.get()));
      }
      needs.put(i.key().value(), files);
    }
  }

  private static Optional<FileRef> questions(Item i) {
    return i.kind() == Kind.QUIZ || i.kind() == Kind.QUESTION_BANK
        ? i.content().madeOf()
        : Optional.empty();
  }

  private Assessment read(FileRef questions) throws IOException, CartridgeException {
    try (InputStream in = source.open(questions.sha256())) {
      return StoredQuestions.read(questions.name(), in.readAllBytes());
    }
  }

  private void manifest(CartridgeFacts facts, List<Item> items)
      throws IOException, XMLStreamException {
    zip.putNextEntry(new ZipEntry("imsmanifest.xml"));
    new ManifestWriter(zip, choices.format()).write(facts, items, paths, needs);
    zip.closeEntry();
  }

  private void contents(List<Item> items) throws IOException, XMLStreamException {
    ResourceWriter writer = new ResourceWriter(choices, this::refer, paths);
    for (Item i : items) {
      Optional<String> path = paths.of(i.key());
      if (path.isPresent() && i.kind() != Kind.FILE) {
        zip.putNextEntry(new ZipEntry(path.get()));
        Assessment a = assessments.get(i.key().value());
        zip.write(a == null ? bytes(writer, i) : questions(i, a));
        zip.closeEntry();
      }
    }
    for (Map.Entry<String, String> f : paths.files().entrySet()) {
      zip.putNextEntry(new ZipEntry(f.getKey()));
      try (InputStream in = source.open(f.getValue())) {
        in.transferTo(zip);
      }
      zip.closeEntry();
    }
  }

  private static byte[] bytes(ResourceWriter writer, Item i)
      throws IOException, XMLStreamException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    writer.write(i, out);
    return out.toByteArray();
  }

  private byte[] questions(Item i, Assessment a) {
    boolean quiz = i.kind() == Kind.QUIZ;
    return QtiWriter.inProfile(
        new Assessment(
            quiz || a.ident().isEmpty()
                ? PackagePaths.identifier("q_", i.key().value())
                : a.ident(),
            quiz ? i.title() : "",
            quiz ? refer(i.content().html()) : "",
            choices.grading() ? i.content().grading().attempts() : Optional.empty(),
            choices.grading() ? i.content().grading().minutes() : Optional.empty(),
            !quiz,
            a.set().map(this::refer),
            List.of()));
  }

  private String refer(String html) {
    return References.resolve(
        Html.safe(html, choices.frames()),
        f -> paths.address(f.sha256(), f.name(), f.fragment()),
        i ->
            paths
                .of(i.key())
                .map(p -> PackagePaths.address(p) + i.fragment())
                .orElse(References.NOWHERE));
  }
}
