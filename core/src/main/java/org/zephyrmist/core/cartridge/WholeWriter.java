package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Wording;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Writes our own archive: {@code source.json}, a tree for each state, of an edition what is known
 * of its package, each form once and each file once by its fingerprint. Equal sources give equal
 * archives.
 */
public final class WholeWriter {
  static final int FORMAT = 1;
  private static final int BATCH = 500;
  private static final JsonMapper JSON = new JsonMapper();
  private final ZipOutputStream zip;

  private WholeWriter(ZipOutputStream zip) {
    this.zip = zip;
  }

  /**
   * Writes a source; the stream is finished, not closed.
   *
   * @param forms the canonical forms that have these fingerprints
   * @param there media type and size of those of the files that are kept, by fingerprint
   * @param files their bytes
   */
  public static void write(
      OutputStream out,
      WholeSource source,
      Function<Collection<Fingerprint>, Map<Fingerprint, String>> forms,
      Function<Map<String, String>, Map<String, FileRef>> there,
      CartridgeWriter.FileSource files)
      throws IOException {
    ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8);
    WholeWriter w = new WholeWriter(zip);
    w.source(source);
    Map<String, String> named = w.forms(source, forms);
    for (WholeSource.State t : source.states()) {
      t.from().ifPresent(p -> p.files().forEach((path, sha256) -> named.putIfAbsent(sha256, path)));
    }
    w.files(there.apply(named), files);
    zip.finish();
  }

  private void source(WholeSource s) throws IOException {
    ObjectNode root = JSON.createObjectNode();
    root.put("format", FORMAT).put("identity", s.identity());
    root.put("code", s.code()).put("title", s.title());
    s.maker().ifPresent(m -> root.set("maker", JSON.valueToTree(m)));
    ArrayNode states = root.putArray("states");
    for (WholeSource.State t : s.states()) {
      ObjectNode n = states.addObject();
      n.put("number", t.number()).put("note", t.note()).put("by", t.by());
      n.put("at", t.at().toString()).put("tree", tree(t));
      t.from().ifPresent(p -> n.put("package", packed(t)));
    }
    json("source.json", root.toString());
    for (WholeSource.State t : s.states()) {
      ArrayNode items = JSON.createArrayNode();
      t.items().forEach(e -> entry(items.addObject(), e));
      json(tree(t), items.toString());
      if (t.from().isPresent()) {
        json(packed(t), JSON.writeValueAsString(t.from().get()));
      }
    }
  }

  private static String tree(WholeSource.State t) {
    return "trees/" + t.number() + ".json";
  }

  private static String packed(WholeSource.State t) {
    return "packages/" + t.number() + ".json";
  }

  private static void entry(ObjectNode n, WholeSource.Entry e) {
    n.put("key", e.key().value()).put("kind", e.kind().name()).put("rule", e.rule().name());
    n.set("appliesTo", JSON.valueToTree(e.appliesTo()));
    e.goesWith().ifPresent(g -> n.put("goesWith", g));
    ObjectNode aspects = n.putObject("aspects");
    e.aspects().asMap().forEach((a, f) -> aspects.put(a.name(), f.hex()));
  }

  /** Each form once; the files that they name, by fingerprint. */
  private Map<String, String> forms(
      WholeSource s, Function<Collection<Fingerprint>, Map<Fingerprint, String>> forms)
      throws IOException {
    Set<Fingerprint> all = new LinkedHashSet<>();
    Set<Fingerprint> wordings = new LinkedHashSet<>();
    for (WholeSource.State t : s.states()) {
      for (WholeSource.Entry e : t.items()) {
        all.addAll(e.aspects().asMap().values());
        wordings.add(e.aspects().get(Aspect.WORDING));
      }
    }
    Map<String, String> named = new LinkedHashMap<>();
    List<Fingerprint> order = new ArrayList<>(all);
    for (int i = 0; i < order.size(); i += BATCH) {
      List<Fingerprint> some = order.subList(i, Math.min(order.size(), i + BATCH));
      Map<Fingerprint, String> found = forms.apply(some);
      for (Fingerprint f : some) {
        String form = found.get(f);
        json("forms/" + f.hex() + ".json", form);
        if (wordings.contains(f)) {
          names(AspectForms.wording(form), named);
        }
      }
    }
    return named;
  }

  private static void names(Wording w, Map<String, String> named) {
    w.file().ifPresent(f -> named.putIfAbsent(f.sha256(), f.name()));
    w.attached().forEach(f -> named.putIfAbsent(f.sha256(), f.name()));
    References.files(w.html()).forEach(f -> named.putIfAbsent(f.sha256(), f.name()));
  }

  private void files(Map<String, FileRef> there, CartridgeWriter.FileSource files)
      throws IOException {
    List<FileRef> order =
        there.values().stream().sorted(java.util.Comparator.comparing(FileRef::sha256)).toList();
    ArrayNode list = JSON.createArrayNode();
    for (FileRef f : order) {
      list.addObject()
          .put("sha256", f.sha256())
          .put("mediaType", f.mediaType())
          .put("size", f.size());
    }
    json("files.json", list.toString());
    for (FileRef f : order) {
      entry("files/" + f.sha256());
      try (InputStream in = files.open(f.sha256())) {
        in.transferTo(zip);
      }
      zip.closeEntry();
    }
  }

  private void json(String path, String text) throws IOException {
    entry(path);
    zip.write(text.getBytes(StandardCharsets.UTF_8));
    zip.closeEntry();
  }

  /** Without a time of its own, so that equal sources give equal bytes. */
  private void entry(String path) throws IOException {
    ZipEntry e = new ZipEntry(path);
    e.setTime(0);
    zip.putNextEntry(e);
  }
}
