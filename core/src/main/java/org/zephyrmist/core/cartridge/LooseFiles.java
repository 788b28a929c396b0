package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.zephyrmist.core.cartridge.Manifest.Node;
import org.zephyrmist.core.cartridge.Manifest.Resource;

/**
 * Archives without a manifest: plain pages and files, or some platform's own export. Pages,
 * documents and questions in QTI become items, folders their modules; the rest is counted by what
 * it is.
 */
final class LooseFiles {
  static final String PROFILE = "Pages and files without a manifest";
  private static final int LOOKED_AT = 4_096;
  private static final Pattern UNSEEN =
      Pattern.compile("(^|.*/)(__MACOSX/.*|\\.[^/]*|Thumbs\\.db|desktop\\.ini)$");
  private static final Set<String> DOCUMENTS =
      Set.of(
          ("pdf doc docx odt rtf txt md ppt pptx odp key xls xlsx ods csv mp3 m4a wav ogg mp4 m4v webm"
                  + " mov epub vtt srt")
              .split(" "));

  /** What pages are made of; such a file is used by a page or by nothing. */
  private static final Set<String> PARTS =
      Set.of("css js map png jpg jpeg gif svg webp ico bmp woff woff2 ttf otf eot".split(" "));

  private LooseFiles() {}

  /** A folder with what is in it, in the order of names. */
  private static final class Folder {
    final Map<String, Folder> folders = new TreeMap<>();
    final Map<String, String> files = new TreeMap<>();
  }

  static Manifest manifest(Archive archive) throws CartridgeException, IOException {
    Folder top = new Folder();
    Map<String, Resource> resources = new LinkedHashMap<>();
    for (String name : new TreeSet<>(archive.names())) {
      Optional<String> type = type(archive, name);
      if (type.isPresent()) {
        resources.put(name, resource(name, type.get()));
        place(top, name);
      }
    }
    if (resources.isEmpty()) {
      throw new CartridgeException(
          "",
          "The archive has no imsmanifest.xml, and no page, document or question in it that an open"
              + " standard describes"
              + nested(archive)
              + ".",
          "Export the course as a Common Cartridge; or, if it is a platform's own export, load it"
              + " into a shell there, and take that shell in.");
    }
    while (top.files.isEmpty() && top.folders.size() == 1) {
      top = top.folders.values().iterator().next();
    }
    CartridgeFacts facts = new CartridgeFacts("", "", "", "", PROFILE, false);
    return new Manifest(facts, nodes(top, ""), resources, List.of(), List.of(), "");
  }

  private static String nested(Archive archive) {
    return archive.names().stream()
        .filter(LooseFiles::isPackage)
        .findFirst()
        .map(n -> "; it holds a package of its own, " + n + ", which can be taken in by itself")
        .orElse("");
  }

  private static void place(Folder top, String name) {
    Folder here = top;
    String[] parts = name.split("/");
    for (int i = 0; i < parts.length - 1; i++) {
      here = here.folders.computeIfAbsent(parts[i], p -> new Folder());
    }
    here.files.put(parts[parts.length - 1], name);
  }

  private static List<Node> nodes(Folder folder, String path) {
    List<Node> all = new ArrayList<>();
    folder.files.forEach(
        (name, whole) -> all.add(new Node(whole, "", Optional.of(whole), List.of(), true)));
    folder.folders.forEach(
        (name, below) -> {
          String id = path + name + "/";
          all.add(new Node(id, name, Optional.empty(), nodes(below, id), true));
        });
    return all;
  }

  private static Resource resource(String name, String type) {
    return new Resource(
        name,
        type,
        Optional.of(name),
        List.of(),
        name,
        Optional.empty(),
        Optional.empty(),
        List.of(),
        false,
        false,
        List.of());
  }

  private static Optional<String> type(Archive archive, String name) throws IOException {
    if (UNSEEN.matcher(name).matches()) {
      return Optional.empty();
    }
    if (Paths.isPage(name) || DOCUMENTS.contains(ending(name))) {
      return Optional.of("webcontent");
    }
    if (!ending(name).equals("xml")) {
      return Optional.empty();
    }
    String begin = beginning(archive, name);
    if (!begin.contains("<questestinterop")) {
      return Optional.empty();
    }
    String what = begin.contains("<objectbank") ? "question-bank" : "assessment";
    return Optional.of("imsqti_xmlv1p2/imscc_xmlv1p3/" + what);
  }

  private static String beginning(Archive archive, String name) throws IOException {
    try (InputStream in = archive.again(name)) {
      return new String(in.readNBytes(LOOKED_AT), StandardCharsets.UTF_8);
    }
  }

  /** What else such an archive holds, one entry a file. */
  static List<String> others(Manifest manifest, Archive archive) {
    if (!manifest.facts().profile().equals(PROFILE)) {
      return manifest.resources().values().stream()
          .filter(r -> ResourceType.of(r.type()).isEmpty())
          .map(r -> "resource of type " + r.type())
          .toList();
    }
    return archive.names().stream()
        .filter(n -> !manifest.resources().containsKey(n) && !UNSEEN.matcher(n).matches())
        .filter(n -> !PARTS.contains(ending(n)))
        .map(LooseFiles::what)
        .toList();
  }

  private static String what(String name) {
    String ending = ending(name);
    if (isPackage(name)) {
      return "package of its own (." + ending + "): take it in by itself";
    }
    return switch (ending) {
      case "xml", "json", "yaml", "yml", "sql", "dat", "db" ->
          "data of a platform (." + ending + "), which only that platform reads";
      case "" -> "file without an ending";
      default -> "file (." + ending + ")";
    };
  }

  private static boolean isPackage(String name) {
    return Set.of("imscc", "zip", "tar", "gz", "tgz").contains(ending(name));
  }

  private static String ending(String name) {
    String file = Paths.fileName(name);
    int dot = file.lastIndexOf('.');
    return dot < 0 ? "" : file.substring(dot + 1).toLowerCase(Locale.ROOT);
  }
}
