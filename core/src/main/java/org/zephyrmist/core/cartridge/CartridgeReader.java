package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.cartridge.Manifest.Node;
import org.zephyrmist.core.cartridge.Manifest.Resource;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.KeySpace;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;

/**
 * Reads one package. Keys follow from the identity of the source and the identifiers in the
 * manifest, so every edition gives an item the same key, and no other source does. Files go to the
 * intake as streams, from a thread of their own; of pages and descriptions only one at a time is in
 * memory.
 */
public final class CartridgeReader {
  private static final String MANIFEST = "imsmanifest.xml";
  private static final String DOUBLED =
      "identifier of several items in the manifest; each was taken in";
  private final Archive archive;
  private final Manifest manifest;
  private final Intake intake;
  private final Findings findings;
  private final PackageFiles files;
  private final Targets targets;
  private final PackageAddresses addresses;
  private final ResourceReader resources;
  private final Steps steps;
  private final KeySpace keys;

  private CartridgeReader(
      Archive archive,
      Manifest manifest,
      PackageFiles files,
      Limits limits,
      Intake intake,
      Steps steps) {
    this.archive = archive;
    this.manifest = manifest;
    this.intake = intake;
    this.findings = new Findings(manifest.facts());
    this.files = files;
    this.steps = steps;
    this.keys = intake.keySpace(manifest.facts());
    Map<String, ItemKey> pageItems = new HashMap<>();
    this.targets = new Targets(manifest, keys, findings, pageItems);
    this.addresses =
        new PackageAddresses(
            archive, manifest.root(), files, pageItems, manifest.instructorsFiles(), findings);
    this.resources = new ResourceReader(archive, limits, files, addresses, findings);
  }

  /**
   * Reads the package into the intake.
   *
   * @throws CartridgeException if it is no readable package; what the intake took till then is to
   *     be thrown away
   */
  public static ReadingReport read(Path file, Limits limits, Intake intake)
      throws CartridgeException, IOException {
    try (Archive archive = Archive.open(file, limits)) {
      Optional<String> at = manifest(archive);
      Steps steps = new Steps(intake, archive.names().size());
      PackageFiles files = new PackageFiles(archive, intake);
      return files
          .keepBeside(
              steps::step,
              () -> {
                Manifest manifest =
                    at.isPresent()
                        ? ManifestReader.read(at.get(), archive, limits)
                        : LooseFiles.manifest(archive);
                steps.add(manifest.resources().size());
                return new CartridgeReader(archive, manifest, files, limits, intake, steps).read();
              })
          .report();
    } catch (Unfit e) {
      throw e.refusal();
    } catch (UncheckedIOException e) {
      if (e.getCause() instanceof Unfit u) {
        throw u.refusal();
      }
      throw e.getCause();
    }
  }

  /** At the top, or in the one folder that was packed instead of what is in it. */
  private static Optional<String> manifest(Archive archive) {
    return archive
        .find(MANIFEST)
        .or(
            () ->
                archive.names().stream()
                    .filter(n -> Paths.fileName(n).equalsIgnoreCase(MANIFEST))
                    .min(
                        Comparator.comparingLong(
                                (String n) -> n.chars().filter(c -> c == '/').count())
                            .thenComparing(Comparator.naturalOrder())));
  }

  private CartridgeReader read() throws CartridgeException, IOException {
    targets.find(manifest.outline());
    List<Resource> unplaced = targets.unplaced();
    Places top = new Places(Optional.empty());
    outline(manifest.outline(), top);
    unplaced(unplaced, top);
    return this;
  }

  private ReadingReport report() {
    manifest.doubled().forEach(id -> findings.notUnderstood(id, DOUBLED));
    if (!manifest.facts().known()) {
      findings.notUnderstood(
          MANIFEST,
          "says " + manifest.facts().profile() + ", a version that is not known; read as 1.3");
    }
    Dependencies.tell(manifest.resources().values(), findings);
    manifest.missing().stream()
        .distinct()
        .sorted()
        .forEach(p -> findings.dead(MANIFEST, "names " + p + ", which is not in the package"));
    findings.unused(
        archive.names().stream()
            .filter(
                n -> !Paths.fileName(n).equalsIgnoreCase(MANIFEST) && !addresses.used().contains(n))
            .toList());
    LooseFiles.others(manifest, archive).forEach(findings::other);
    return findings.report(files.total());
  }

  private void outline(List<Node> nodes, Places places) throws CartridgeException, IOException {
    for (Node n : nodes) {
      Optional<Resource> r = targets.resource(n);
      if (n.resource().isPresent() && r.isEmpty()) {
        findings.dead(n.title(), "points at resource " + n.resource().get() + ", which is missing");
      }
      if (r.isEmpty() || !n.children().isEmpty()) {
        module(n, places, r);
      } else {
        emit(targets.key(n), n, r.get(), places);
      }
    }
  }

  /** An item with items below it; content of its own becomes its first item. */
  private void module(Node n, Places places, Optional<Resource> own)
      throws CartridgeException, IOException {
    boolean ownContent = own.isPresent();
    ItemKey key = ownContent ? keys.key("module " + n.id()) : targets.key(n);
    boolean lost = n.resource().isPresent() && !ownContent && n.children().isEmpty();
    if (lost) {
      return;
    }
    String title = Titles.firstOf(n.title(), "Untitled module");
    take(
        key,
        title,
        new Content.Module(),
        places.next(),
        new Visibility(n.visible(), false),
        List.of());
    hidden(n, title);
    Places within = new Places(Optional.of(key.value()));
    if (ownContent) {
      emit(targets.key(n), n, own.get(), within);
    }
    outline(n.children(), within);
  }

  private void hidden(Node n, String title) {
    if (!n.visible()) {
      findings.adjusted(title, "is marked as not visible: it arrives hidden");
    }
  }

  private void unplaced(List<Resource> all, Places places) throws CartridgeException, IOException {
    for (Resource r : all) {
      findings.unplaced();
      Node nowhere = new Node(r.id(), "", Optional.of(r.id()), List.of(), true);
      emit(keys.key("resource " + r.id()), nowhere, r, places);
    }
  }

  private void emit(ItemKey key, Node n, Resource r, Places places)
      throws CartridgeException, IOException {
    Optional<ResourceReader.Read> read = resources.read(r, n.title());
    steps.step(n.title());
    files.check();
    if (read.isEmpty()) {
      return;
    }
    String file = r.path().map(Paths::fileName).orElse("").replaceFirst("\\.xml$", "");
    String name = Titles.firstOf(n.title(), read.get().title(), file);
    boolean shown = n.visible() && !r.instructorsOnly();
    if (r.instructorsOnly()) {
      findings.instructorsOnly(name);
    } else {
      hidden(n, name);
    }
    String asks = asks(r);
    if (!asks.isEmpty()) {
      findings.restricted(name, asks);
    }
    Visibility visibility = new Visibility(shown, r.instructorsOnly(), asks);
    take(key, name, read.get().content(), places.next(), visibility, r.standards());
    instructors(key, name, read.get().instructors(), places, asks);
  }

  /** What comes with an item for instructors only stands after it as a page of its own. */
  private void instructors(ItemKey key, String name, String html, Places places, String asks) {
    if (!html.isBlank()) {
      String title = name + " (for instructors)";
      findings.instructorsOnly(title);
      take(
          keys.key("instructors " + key),
          title,
          new Content.Page(html),
          places.next(),
          new Visibility(false, true, asks),
          List.of());
    }
  }

  /** What a resource asks for before it may be used; empty if nothing. */
  private String asks(Resource r) {
    CartridgeFacts facts = manifest.facts();
    boolean whole = facts.restricted() && !facts.asks().endsWith("protected parts");
    if (!r.restricted() && !whole) {
      return "";
    }
    return facts.asks().isEmpty() ? "its maker's permission" : facts.asks();
  }

  private void take(
      ItemKey key,
      String title,
      Content content,
      Place place,
      Visibility visibility,
      List<Wording.Standard> standards) {
    Item item =
        new Item(
            key, title, content, Timing.NONE, place, visibility, EditRule.ADAPTABLE, standards);
    findings.count(item);
    intake.item(item);
  }
}
