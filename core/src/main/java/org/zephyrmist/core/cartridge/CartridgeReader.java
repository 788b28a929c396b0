package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
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
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.content.Visibility;

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
  private final Map<String, ItemKey> firstItemOf = new HashMap<>();
  private final Map<String, ItemKey> pageItems = new HashMap<>();
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
    this.resources =
        new ResourceReader(
            archive, limits, files, pageItems, manifest.instructorsFiles(), findings);
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
      String at =
          archive
              .find(MANIFEST)
              .orElseThrow(
                  () ->
                      new CartridgeException(
                          "",
                          "The archive has no imsmanifest.xml at its top, so it is not a Common"
                              + " Cartridge.",
                          "Export the course as a Common Cartridge; if the package lies in a"
                              + " folder inside the ZIP, choose the package itself."));
      Steps steps = new Steps(intake, archive.names().size());
      PackageFiles files = new PackageFiles(archive, intake);
      return files
          .keepBeside(
              steps::step,
              () -> {
                Manifest manifest = ManifestReader.read(at, archive, limits);
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

  private CartridgeReader read() throws CartridgeException, IOException {
    findTargets(manifest.outline());
    List<Resource> unplaced = unplaced();
    outline(manifest.outline(), Optional.empty());
    unplaced(unplaced);
    return this;
  }

  private ReadingReport report() {
    manifest.doubled().forEach(id -> findings.notUnderstood(id, DOUBLED));
    manifest.missing().stream()
        .distinct()
        .sorted()
        .forEach(p -> findings.dead(MANIFEST, "names " + p + ", which is not in the package"));
    findings.unused(
        archive.names().stream()
            .filter(n -> !n.equalsIgnoreCase(MANIFEST) && !resources.used().contains(n))
            .toList());
    return findings.report(files.total());
  }

  /** Which page or resource is which item, before any text is read that refers to it. */
  private void findTargets(List<Node> nodes) {
    for (Node n : nodes) {
      resource(n).ifPresent(r -> target(r, key(n)));
      findTargets(n.children());
    }
  }

  /** The resource of an item, or its variant where that is a type we read. */
  private Optional<Resource> resource(Node n) {
    Optional<Resource> own = n.resource().map(manifest.resources()::get);
    own.ifPresent(r -> firstItemOf.putIfAbsent(r.id(), key(n)));
    Optional<Resource> variant = own.flatMap(Resource::variant).map(manifest.resources()::get);
    return variant
        .filter(CartridgeReader::isItem)
        .map(v -> own.get().instructorsOnly() ? v.forInstructorsOnly() : v)
        .or(() -> own);
  }

  private void target(Resource r, ItemKey key) {
    firstItemOf.putIfAbsent(r.id(), key);
    r.path()
        .filter(h -> !Paths.isPage(h) || isItem(r))
        .ifPresent(h -> pageItems.putIfAbsent(h, key));
  }

  private static boolean isItem(Resource r) {
    return ResourceType.of(r.type()).isPresent();
  }

  private ItemKey key(Node n) {
    return keys.key("item " + n.id());
  }

  /** Resources in no item of the outline that are content of their own, not files of a page. */
  private List<Resource> unplaced() {
    List<Resource> all = new ArrayList<>();
    for (Resource r : manifest.resources().values()) {
      if (!firstItemOf.containsKey(r.id())) {
        Optional<ResourceType> type = ResourceType.of(r.type());
        boolean page =
            type.equals(Optional.of(ResourceType.WEB_CONTENT))
                && r.path().filter(Paths::isPage).isPresent();
        boolean content =
            type.isPresent()
                && type.get() != ResourceType.WEB_CONTENT
                && type.get() != ResourceType.ASSOCIATED_CONTENT;
        if (page || content) {
          all.add(r);
          target(r, keys.key("resource " + r.id()));
        } else if (type.isEmpty()) {
          findings.notUnderstood(r.id(), "resource of type " + r.type() + "; its files are kept");
        }
      }
    }
    return all;
  }

  private void outline(List<Node> nodes, Optional<String> parent)
      throws CartridgeException, IOException {
    int rank = 0;
    for (Node n : nodes) {
      Place place = new Place(parent, Rank.nth(rank++));
      Optional<Resource> r = resource(n);
      if (n.resource().isPresent() && r.isEmpty()) {
        findings.dead(n.title(), "points at resource " + n.resource().get() + ", which is missing");
      }
      if (r.isEmpty() || !n.children().isEmpty()) {
        module(n, place, r);
      } else {
        emit(key(n), n.title(), r.get(), place);
      }
    }
  }

  /** An item with items below it; content of its own becomes its first item. */
  private void module(Node n, Place place, Optional<Resource> own)
      throws CartridgeException, IOException {
    boolean ownContent = own.isPresent();
    ItemKey key = ownContent ? keys.key("module " + n.id()) : key(n);
    boolean lost = n.resource().isPresent() && !ownContent && n.children().isEmpty();
    if (lost) {
      return;
    }
    take(
        key,
        Titles.firstOf(n.title(), "Untitled module"),
        new Content.Module(),
        place,
        Visibility.SHOWN);
    if (ownContent) {
      emit(key(n), n.title(), own.get(), new Place(Optional.of(key.value()), "01"));
    }
    outline(n.children(), Optional.of(key.value()));
  }

  private void unplaced(List<Resource> all) throws CartridgeException, IOException {
    int rank = manifest.outline().size();
    for (Resource r : all) {
      findings.unplaced();
      emit(keys.key("resource " + r.id()), "", r, new Place(Optional.empty(), Rank.nth(rank++)));
    }
  }

  private void emit(ItemKey key, String title, Resource r, Place place)
      throws CartridgeException, IOException {
    Optional<ResourceReader.Read> read = resources.read(r, title);
    steps.step(title);
    files.check();
    if (read.isEmpty()) {
      return;
    }
    Visibility visibility = new Visibility(!r.instructorsOnly(), r.instructorsOnly());
    String name = Titles.firstOf(title, read.get().title());
    if (r.instructorsOnly()) {
      findings.instructorsOnly(name);
    }
    take(key, name, read.get().content(), place, visibility);
  }

  private void take(
      ItemKey key, String title, Content content, Place place, Visibility visibility) {
    findings.count(content);
    intake.item(new Item(key, title, content, Timing.NONE, place, visibility, EditRule.ADAPTABLE));
  }

  /** How far a reading is, told from both its threads. */
  private static final class Steps {
    private final Intake intake;
    private int done;
    private int total;

    Steps(Intake intake, int total) {
      this.intake = intake;
      this.total = total;
    }

    synchronized void add(int more) {
      total += more;
    }

    synchronized void step(String what) {
      intake.progress(++done, total, what);
    }
  }
}
