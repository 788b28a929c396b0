package org.zephyrmist.core.cartridge;

import static org.zephyrmist.core.cartridge.WholeChecks.broken;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads our own archive. Whatever it says is checked: each form and each file has the fingerprint
 * that it is named by, each form is canonical, each tree is whole.
 */
public final class WholeReader implements Closeable {
  /** A NUL within a text of a form; a backslash before it stands for itself. */
  private static final Pattern NUL = Pattern.compile("(?<!\\\\)(?:\\\\\\\\)*\\\\u0000");

  private static final Pattern SHA256 = Pattern.compile("[0-9a-f]{64}");
  private static final JsonMapper JSON = new JsonMapper();
  private final Archive archive;
  private final OffsetDateTime now;
  private final Set<String> files = new HashSet<>();
  private final Map<String, Integer> looked = new HashMap<>();

  private WholeReader(Archive archive, OffsetDateTime now) {
    this.now = now;
    this.archive = archive;
  }

  /** Where to keep what is read. */
  public interface Receiver {
    /** Keeps a file and gives it as it was kept. */
    FileRef file(String mediaType, InputStream in) throws IOException;

    /** A state with its items, in outline order. */
    void state(WholeSource.State state, List<Item> items);
  }

  /**
   * Opens an archive and looks at all that it says.
   *
   * @throws CartridgeException if it is no archive of ours, not whole, or holds what could not have
   *     been made here, see {@link WholeChecks}
   */
  public static WholeReader open(Path file, OffsetDateTime now)
      throws CartridgeException, IOException {
    try {
      WholeReader reader = new WholeReader(Archive.open(file, Limits.DEFAULT), now);
      try {
        reader.read(Optional.empty());
        return reader;
      } catch (CartridgeException | IOException | RuntimeException e) {
        reader.close();
        throw e;
      }
    } catch (Unfit e) {
      throw e.refusal();
    }
  }

  @Override
  public void close() throws IOException {
    archive.close();
  }

  /**
   * Gives on all that it holds.
   *
   * @return what the source is, its states without items
   * @throws CartridgeException if a file is not what its name says
   */
  public WholeSource receive(Receiver receiver) throws CartridgeException, IOException {
    try {
      return read(Optional.of(receiver));
    } catch (Unfit e) {
      throw e.refusal();
    }
  }

  private WholeSource read(Optional<Receiver> receiver) throws CartridgeException, IOException {
    JsonNode root = json("source.json");
    if (root.path("format").asInt() != WholeWriter.FORMAT) {
      throw new CartridgeException(
          "source.json",
          "This archive has a form that is not known here.",
          "Bring this server up to date first.");
    }
    WholeChecks checks = new WholeChecks(now);
    JsonNode named = root.path("states");
    checks.states(named.size());
    files(receiver);
    List<WholeSource.State> states = new ArrayList<>();
    for (JsonNode n : named) {
      WholeSource.State s = state(n);
      states.add(s);
      String tree = n.path("tree").asString("");
      if (receiver.isPresent()) {
        List<WholeSource.Entry> entries = entries(tree);
        receiver.get().state(s.with(entries), items(entries, tree));
      } else {
        checks.state(s, looked(tree));
      }
    }
    Optional<WholeSource.Maker> maker =
        root.has("maker")
            ? Optional.of(read(root.path("maker"), WholeSource.Maker.class, "source.json"))
            : Optional.empty();
    for (WholeSource.State s : states) {
      if (maker.isPresent() != s.from().isPresent() || maker.isPresent() && s.number() == 0) {
        throw broken("source.json", "It is neither a master nor a cartridge.");
      }
    }
    return new WholeSource(
        line(root, "identity"), line(root, "code"), line(root, "title"), maker, states);
  }

  private void files(Optional<Receiver> receiver) throws CartridgeException, IOException {
    for (JsonNode n : json("files.json")) {
      String sha = n.path("sha256").asString("");
      String path = archive.find("files/" + sha).orElseThrow(() -> missing("files/" + sha));
      if (receiver.isPresent()) {
        try (InputStream in = archive.open(path)) {
          FileRef kept = receiver.get().file(text(n, "mediaType"), in);
          if (!kept.sha256().equals(sha)) {
            throw broken(path, "This file is not what its name says.");
          }
        }
      }
      files.add(sha);
    }
  }

  private WholeSource.State state(JsonNode n) throws CartridgeException, IOException {
    try {
      return new WholeSource.State(
          n.path("number").asInt(-1),
          text(n, "note"),
          text(n, "by"),
          OffsetDateTime.parse(text(n, "at")),
          from(text(n, "package")),
          List.of());
    } catch (java.time.DateTimeException e) {
      throw broken("source.json", "“" + text(n, "at") + "” is no time.");
    }
  }

  /** How many items a tree has; it is looked at once, whatever names it. */
  private int looked(String tree) throws CartridgeException, IOException {
    Integer known = looked.get(tree);
    if (known != null) {
      return known;
    }
    List<WholeSource.Entry> entries = entries(tree);
    WholeChecks.tree(items(entries, tree), files, tree);
    looked.put(tree, entries.size());
    return entries.size();
  }

  private List<WholeSource.Entry> entries(String tree) throws CartridgeException, IOException {
    List<WholeSource.Entry> entries = new ArrayList<>();
    for (JsonNode e : json(tree)) {
      entries.add(entry(e, tree));
    }
    return entries;
  }

  /** The package of an edition: every path of it is one, and every file is in the archive. */
  private Optional<WholeSource.Package> from(String path) throws CartridgeException, IOException {
    if (path.isEmpty()) {
      return Optional.empty();
    }
    WholeSource.Package p = read(json(path), WholeSource.Package.class, path);
    boolean whole =
        p.fileName() != null
            && p.report() != null
            && p.files() != null
            && p.size() >= 0
            && SHA256.matcher(p.sha256()).matches();
    if (!whole) {
      throw broken(path, "What is said of this package is not complete.");
    }
    for (Map.Entry<String, String> f : p.files().entrySet()) {
      if (!files.contains(f.getValue()) || f.getKey().length() > Limits.DEFAULT.name()) {
        throw broken(path, "“" + f.getKey() + "” is no file of this archive.");
      }
    }
    return Optional.of(p);
  }

  private static <T> T read(JsonNode n, Class<T> type, String at) throws CartridgeException {
    try {
      return JSON.treeToValue(n, type);
    } catch (tools.jackson.core.JacksonException | NullPointerException e) {
      throw broken(at, "What is said here is not complete.");
    }
  }

  private static WholeSource.Entry entry(JsonNode n, String at) throws CartridgeException {
    try {
      EnumMap<Aspect, Fingerprint> aspects = new EnumMap<>(Aspect.class);
      for (Aspect a : Aspect.values()) {
        aspects.put(a, Fingerprint.parse(n.path("aspects").path(a.name()).asString("")));
      }
      return new WholeSource.Entry(
          new ItemKey(text(n, "key")),
          named(Kind.class, n, "kind", at),
          named(EditRule.class, n, "rule", at),
          JSON.treeToValue(n.path("appliesTo"), AppliesTo.class),
          Optional.ofNullable(n.path("goesWith").asString(null)).filter(g -> !g.isBlank()),
          Fingerprints.of(aspects));
    } catch (IllegalArgumentException | tools.jackson.core.JacksonException e) {
      throw broken(at, "An item of this tree is not complete.");
    }
  }

  /** The items of a state, each form looked at once. */
  private List<Item> items(List<WholeSource.Entry> entries, String tree)
      throws CartridgeException, IOException {
    Map<Fingerprint, String> forms = new HashMap<>();
    List<Item> items = new ArrayList<>();
    for (WholeSource.Entry e : entries) {
      for (Fingerprint f : e.aspects().asMap().values()) {
        if (!forms.containsKey(f)) {
          forms.put(f, form(f));
        }
      }
      items.add(item(e, forms, tree));
    }
    return items;
  }

  private static Item item(WholeSource.Entry e, Map<Fingerprint, String> forms, String tree)
      throws CartridgeException {
    try {
      Item i = AspectForms.item(e.key(), e.kind(), e.rule(), e.aspects().forms(forms));
      if (AspectForms.fingerprints(i).equals(e.aspects())) {
        return i;
      }
    } catch (RuntimeException odd) {
      // said below: whatever a form holds that no item can have
    }
    throw broken(tree, "The item " + e.key() + " says what no item can say.");
  }

  private String form(Fingerprint f) throws CartridgeException, IOException {
    String path = "forms/" + f.hex() + ".json";
    String form = new String(bytes(path), StandardCharsets.UTF_8);
    if (!Fingerprint.of(form).equals(f)) {
      throw broken(path, "This text is not what its name says.");
    }
    if (NUL.matcher(form).find()) {
      throw broken(path, "This text holds NUL, which no text does.");
    }
    return form;
  }

  private JsonNode json(String path) throws CartridgeException, IOException {
    try {
      return JSON.readTree(bytes(path));
    } catch (tools.jackson.core.JacksonException e) {
      throw broken(path, "This is no JSON.");
    }
  }

  private byte[] bytes(String path) throws CartridgeException, IOException {
    String found = archive.find(path).orElseThrow(() -> missing(path));
    return archive.bytes(found, Limits.DEFAULT.xml());
  }

  private static CartridgeException missing(String path) {
    return path.equals("source.json")
        ? new CartridgeException(
            "",
            "This is no archive of a source.",
            "Choose a file that was kept with “Keep an archive”; packages are taken in on their own.")
        : broken(path, "It is missing from the archive.");
  }

  private static String line(JsonNode n, String name) throws CartridgeException {
    return WholeChecks.text(text(n, name), "source.json");
  }

  private static String text(JsonNode n, String name) {
    return n.path(name).asString("");
  }

  private static <T extends Enum<T>> T named(Class<T> type, JsonNode n, String name, String at)
      throws CartridgeException {
    try {
      return Enum.valueOf(type, text(n, name));
    } catch (IllegalArgumentException e) {
      throw broken(at, "“" + text(n, name) + "” is not known here.");
    }
  }
}
