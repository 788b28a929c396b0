package org.zephyrmist.core.cartridge;

import java.net.URI;
import java.util.Base64;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zephyrmist.core.content.Addresses;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.References;

/** Turns addresses within a package into references by key, and tells what leads nowhere. */
final class PackageAddresses {
  private static final Pattern SCHEME =
      Pattern.compile("^([A-Za-z][A-Za-z0-9+.-]*):.*", Pattern.DOTALL);
  private static final Pattern PICTURE =
      Pattern.compile("data:image/(png|jpeg|gif|webp);base64,([A-Za-z0-9+/=\\s]+)");
  private static final Set<String> LEAVES = Set.of("http", "https", "mailto", "tel");

  private final Archive archive;
  private final String root;
  private final PackageFiles files;
  private final Map<String, ItemKey> pageItems;
  private final Set<String> instructorsFiles;
  private final Findings findings;
  private final Set<String> used = new HashSet<>();
  private Map<String, FileRef> named = new LinkedHashMap<>();
  private boolean forStudents;

  /**
   * @param root folder of the manifest
   * @param pageItems which file is which item
   * @param instructorsFiles paths of what is only for instructors
   */
  PackageAddresses(
      Archive archive,
      String root,
      PackageFiles files,
      Map<String, ItemKey> pageItems,
      Set<String> instructorsFiles,
      Findings findings) {
    this.archive = archive;
    this.root = root;
    this.files = files;
    this.pageItems = pageItems;
    this.instructorsFiles = instructorsFiles;
    this.findings = findings;
  }

  /** Begins an item. */
  void begin(boolean students) {
    forStudents = students;
    named = new LinkedHashMap<>();
  }

  /** Files that the texts of the item since its beginning name, in their order. */
  List<FileRef> named() {
    return List.copyOf(named.values());
  }

  /** Paths of files that an item is made of or refers to. */
  Set<String> used() {
    return used;
  }

  /** A text with its addresses turned into references. */
  String refer(String html, String path) {
    return Html.mapAddresses(html, a -> reference(a, path));
  }

  /** For a page that may set an address which others are relative to (HTML Standard, 4.2.3). */
  UnaryOperator<String> references(String path, String base) {
    if (base.isBlank()) {
      return a -> reference(a, path);
    }
    Optional<String> within = Paths.resolve(base, path);
    boolean folder = base.strip().endsWith("/");
    if (within.isPresent()) {
      return a -> reference(a, folder ? within.get() + "/" : within.get());
    }
    return a ->
        Paths.resolve(a, path).isPresent() ? reference(outside(base, a), path) : reference(a, path);
  }

  private static String outside(String base, String address) {
    try {
      return URI.create(base.strip()).resolve(address.strip()).toString();
    } catch (IllegalArgumentException e) {
      return address;
    }
  }

  /**
   * The path of a file that an address names.
   *
   * @param path of what names it
   */
  Optional<String> path(String address, String path) {
    return Paths.resolve(address, path).flatMap(this::found);
  }

  private Optional<String> found(String target) {
    return archive
        .findAddress(target)
        .or(() -> archive.findAddress("web_resources/" + target))
        .or(() -> root.isEmpty() ? Optional.empty() : archive.findAddress(root + target));
  }

  /** A file of the package that goes with an item; told if it is not there. */
  Optional<FileRef> file(String address, String path) {
    Optional<String> found = path(address, path);
    if (found.isEmpty()) {
      findings.dead(path, "refers to " + shortened(address) + ", which is not in the package");
    }
    found.ifPresent(used::add);
    return found.map(files::ref);
  }

  private String reference(String address, String path) {
    if (References.isOurs(address)) {
      findings.dead(path, "has an address that only Zephyrmist writes; it was left out");
      return References.NOWHERE;
    }
    Matcher scheme = SCHEME.matcher(address.strip());
    if (scheme.matches() && !LEAVES.contains(scheme.group(1).toLowerCase(Locale.ROOT))) {
      return odd(address, scheme.group(1), path);
    }
    if (address.length() > Addresses.MOST) {
      findings.dead(path, "has an address of more than 2,000 characters; it was left out");
      return References.NOWHERE;
    }
    if (Paths.leavesThePackage(address, path)) {
      findings.dead(path, "refers to " + shortened(address) + ", which is outside the package");
      return address;
    }
    Optional<String> target = Paths.resolve(address, path);
    return target.isEmpty() ? address : within(address, target.get(), path);
  }

  private String within(String address, String target, String path) {
    Optional<String> found = found(target);
    if (found.isEmpty()) {
      findings.dead(path, "refers to " + target + ", which is not in the package");
      return address;
    }
    used.add(found.get());
    String fragment = References.fragment(address);
    ItemKey item = pageItems.get(found.get());
    boolean withheld = forStudents && instructorsFiles.contains(found.get());
    if (item != null && (withheld || !MediaTypes.of(found.get()).startsWith("image/"))) {
      return References.item(item, fragment);
    }
    if (withheld) {
      findings.dead(path, "refers to " + found.get() + ", which is only for instructors");
      return address;
    }
    FileRef file = files.ref(found.get());
    named.putIfAbsent(file.sha256(), file);
    return References.file(file.sha256(), file.name(), fragment);
  }

  /** A picture that stands in the text itself becomes a file; anything else leads nowhere. */
  private String odd(String address, String scheme, String path) {
    Matcher picture = PICTURE.matcher(address.strip());
    if (picture.matches()) {
      try {
        byte[] bytes = Base64.getMimeDecoder().decode(picture.group(2));
        String type = "image/" + picture.group(1);
        FileRef file = files.made("picture." + picture.group(1), type, bytes);
        named.putIfAbsent(file.sha256(), file);
        return References.file(file.sha256(), file.name(), "");
      } catch (IllegalArgumentException e) {
        // told below
      }
    }
    findings.dead(
        path,
        "has an address that is none of the web (" + shortened(scheme) + ":…); it was left out");
    return References.NOWHERE;
  }

  static String shortened(String text) {
    String t = text.strip();
    return t.length() > 100 ? t.substring(0, 100) + "…" : t;
  }
}
