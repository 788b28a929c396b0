package org.zephyrmist.standins.platform;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeReader;
import org.zephyrmist.core.cartridge.CartridgeWriter;
import org.zephyrmist.core.cartridge.Intake;
import org.zephyrmist.core.cartridge.Limits;
import org.zephyrmist.core.cartridge.PackageChoices;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.KeySpace;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Common Cartridges into shells and out of them, as an instructor does it on a page. */
@Component
class Packages {
  private static final Pattern FILE = Pattern.compile("/files/([0-9a-f]{64})/([^?#]*)(#.*)?");
  private final Shells shells;
  private final Steps steps;
  private final Files files;
  private final JsonMapper json;

  Packages(Shells shells, Steps steps, Files files, JsonMapper json) {
    this.shells = shells;
    this.steps = steps;
    this.files = files;
    this.json = json;
  }

  /** Items as they come; files are kept at once. */
  private final class Taken implements Intake {
    private final List<Item> items = new ArrayList<>();

    @Override
    public FileRef file(String path, String name, String mediaType, InputStream in)
        throws IOException {
      return made(name, mediaType, in.readAllBytes());
    }

    @Override
    public FileRef made(String name, String mediaType, byte[] content) {
      String sha = Fingerprint.of(Fingerprint.sha256().digest(content)).hex();
      try {
        files.store(sha, mediaType, new ByteArrayInputStream(content));
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
      return new FileRef(sha, name, mediaType, content.length);
    }

    @Override
    public KeySpace keySpace(CartridgeFacts facts) {
      return KeySpace.of(facts.title());
    }

    @Override
    public void item(Item item) {
      items.add(item);
    }

    @Override
    public void progress(int done, int total, String what) {
      // nobody waits for it
    }
  }

  /** Adds what a package holds; what is there already stays, also where it is the same. */
  void bringIn(String shell, Path file) throws IOException, CartridgeException {
    Taken taken = new Taken();
    CartridgeReader.read(file, Limits.DEFAULT, taken);
    Map<String, String> ids = new HashMap<>();
    for (Item i : taken.items) {
      String parent = i.place().parent().map(ids::get).orElse(null);
      String rank = (parent == null ? "y" : "") + i.place().rank();
      Wire.Step add = step(i, Wire.Op.ADD, null, new Wire.Place(parent, rank), i.content().html());
      ids.put(i.key().value(), apply(shell, add));
    }
    for (Item i : taken.items) {
      String html = there(shell, i.content().html(), ids);
      if (!html.equals(i.content().html())) {
        apply(shell, step(i, Wire.Op.UPDATE, ids.get(i.key().value()), null, html));
      }
    }
  }

  private String apply(String shell, Wire.Step s) {
    return steps.apply(shell, List.of(s), "the instructor").get(0).id();
  }

  private static String there(String shell, String html, Map<String, String> ids) {
    return References.resolve(
        html,
        f -> "/files/" + f.sha256() + "/" + f.name().replace(" ", "%20") + f.fragment(),
        i ->
            ids.containsKey(i.key().value())
                ? "/shells/" + shell + "/items/" + ids.get(i.key().value()) + i.fragment()
                : References.NOWHERE);
  }

  private Wire.Step step(Item i, Wire.Op op, String id, Wire.Place place, String html) {
    Map<Aspect, String> forms = AspectForms.of(i);
    Map<String, Object> more = map(forms.get(Aspect.WORDING));
    more.remove("title");
    more.remove("html");
    return new Wire.Step(
        UUID.randomUUID().toString(),
        op,
        id,
        null,
        i.kind().name(),
        new Wire.Wording(i.title(), html, more),
        map(forms.get(Aspect.GRADING)),
        map(forms.get(Aspect.TIMING)),
        place,
        new Wire.Visibility(
            i.visibility().shown(), i.visibility().instructorsOnly(), i.visibility().asks(), null),
        map(forms.get(Aspect.LAUNCH)));
  }

  private Map<String, Object> map(String form) {
    return json.readValue(form, new TypeReference<HashMap<String, Object>>() {});
  }

  /** What the shell holds, as far as a package can say it. */
  void giveOut(String shell, OutputStream out) throws IOException {
    List<Item> items = new ArrayList<>();
    outline(shell, shells.items(shell), null, items);
    CartridgeFacts facts =
        new CartridgeFacts(shells.get(shell).title() + " (" + shell + ")", "", "", "", "", false);
    CartridgeWriter.write(out, facts, items, PackageChoices.all(PackageFormat.CC_1_3), this::open);
  }

  private InputStream open(String sha256) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    files.copy(sha256, bytes);
    return new ByteArrayInputStream(bytes.toByteArray());
  }

  private void outline(String shell, List<Wire.Item> all, String parent, List<Item> items) {
    for (Wire.Item w : all) {
      if (Objects.equals(w.parent(), parent)) {
        items.add(item(shell, w));
        outline(shell, all, w.id(), items);
      }
    }
  }

  private Item item(String shell, Wire.Item w) {
    Map<Aspect, String> forms = new EnumMap<>(Aspect.class);
    Map<String, Object> wording = new HashMap<>(w.wording().more());
    wording.put("title", w.wording().title());
    wording.put("html", Html.mapAddresses(w.wording().html(), a -> ours(shell, a)));
    forms.put(Aspect.WORDING, json.writeValueAsString(wording));
    forms.put(Aspect.GRADING, json.writeValueAsString(w.grading()));
    forms.put(Aspect.TIMING, json.writeValueAsString(w.timing()));
    forms.put(Aspect.LAUNCH, json.writeValueAsString(w.launch()));
    Map<String, Object> place = new HashMap<>(Map.of("rank", w.rank()));
    Optional.ofNullable(w.parent()).ifPresent(p -> place.put("parent", p));
    forms.put(Aspect.PLACE, json.writeValueAsString(place));
    forms.put(Aspect.VISIBILITY, json.writeValueAsString(w.visibility()));
    return AspectForms.item(new ItemKey(w.id()), Kind.valueOf(w.kind()), EditRule.ADAPTABLE, forms);
  }

  private static String ours(String shell, String address) {
    Matcher m = FILE.matcher(address);
    if (m.matches()) {
      String fragment = m.group(3) == null ? "" : m.group(3);
      return References.file(m.group(1), m.group(2).replace("%20", " "), fragment);
    }
    String items = "/shells/" + shell + "/items/";
    return address.startsWith(items)
        ? References.item(
            new ItemKey(References.withoutFragment(address.substring(items.length()))),
            References.fragment(address))
        : address;
  }
}
