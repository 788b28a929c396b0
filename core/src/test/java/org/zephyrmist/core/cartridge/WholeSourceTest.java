package org.zephyrmist.core.cartridge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;

/** Our own archive: out and in again is equal, and nothing in it is believed. */
class WholeSourceTest {
  private static final byte[] PDF = "%PDF-1.4 loads".getBytes(StandardCharsets.UTF_8);
  private static final String SHA = Fingerprint.of(Fingerprint.sha256().digest(PDF)).hex();
  private static final OffsetDateTime AT = OffsetDateTime.parse("2026-09-01T08:00:00Z");
  @TempDir Path folder;
  private final Map<Fingerprint, String> forms = new HashMap<>();

  private static Item page(String html) {
    return new Item(
        new ItemKey("a"),
        "Loads",
        new Content.Page(html),
        Timing.NONE,
        new Place(Optional.of("m"), Rank.nth(0)),
        Visibility.SHOWN,
        EditRule.FIXED);
  }

  private WholeSource.Entry entry(Item i, AppliesTo to) {
    AspectForms.of(i).values().forEach(f -> forms.put(Fingerprint.of(f), f));
    return new WholeSource.Entry(
        i.key(), i.kind(), i.rule(), to, Optional.of("tie"), AspectForms.fingerprints(i));
  }

  private WholeSource source() {
    Item module =
        new Item(
            new ItemKey("m"),
            "Week 1",
            new Content.Module(),
            Timing.NONE,
            new Place(Optional.empty(), Rank.nth(0)),
            Visibility.SHOWN,
            EditRule.ADAPTABLE);
    WholeSource.Entry m = entry(module, AppliesTo.EVERY_SECTION);
    Item before = page("<p><a href=\"" + References.file(SHA, "loads.pdf", "") + "\">x</a></p>");
    AppliesTo quay = new AppliesTo(Set.of("quay"), Set.of(), Set.of());
    return new WholeSource(
        "identity",
        "LGT 110",
        "Light",
        Optional.empty(),
        List.of(
            new WholeSource.State(1, "First", "Teodor", AT, List.of(m, entry(before, quay))),
            new WholeSource.State(
                0, "", "Teodor", AT, List.of(m, entry(page("<p>New.</p>"), quay)))));
  }

  private byte[] written(WholeSource s) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    WholeWriter.write(
        out,
        s,
        wanted -> forms,
        named -> Map.of(SHA, new FileRef(SHA, "loads.pdf", "application/pdf", PDF.length)),
        sha -> new ByteArrayInputStream(PDF));
    return out.toByteArray();
  }

  private record Read(
      WholeSource source, List<WholeSource.State> states, List<List<Item>> items, int files) {}

  private Read read(byte[] archive) throws Exception {
    Path file = Files.write(folder.resolve("a.zip"), archive);
    List<WholeSource.State> states = new ArrayList<>();
    List<List<Item>> items = new ArrayList<>();
    int[] files = {0};
    WholeReader.Receiver receiver =
        new WholeReader.Receiver() {
          @Override
          public FileRef file(String mediaType, InputStream in) throws IOException {
            files[0]++;
            byte[] all = in.readAllBytes();
            String sha = Fingerprint.of(Fingerprint.sha256().digest(all)).hex();
            return new FileRef(sha, "x", mediaType, all.length);
          }

          @Override
          public void state(WholeSource.State state, List<Item> all) {
            states.add(state);
            items.add(all);
          }
        };
    WholeSource s;
    try (WholeReader whole = WholeReader.open(file, AT.plusDays(1))) {
      s = whole.receive(receiver);
    }
    return new Read(s, states, items, files[0]);
  }

  @Test
  void outAndInAgainIsEqualAndTwiceOutTheSameBytes() throws Exception {
    WholeSource s = source();
    byte[] archive = written(s);
    Read r = read(archive);
    assertThat(r.states()).isEqualTo(s.states());
    assertThat(r.source().code()).isEqualTo("LGT 110");
    assertThat(r.files()).isEqualTo(1);
    assertThat(r.items().get(1).get(1).content().html()).isEqualTo("<p>New.</p>");
    assertThat(written(s)).isEqualTo(archive);
  }

  /** The same archive with one file of it changed, or without it. */
  private static byte[] with(byte[] archive, String name, String content) throws IOException {
    Map<String, byte[]> all = new LinkedHashMap<>();
    try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(archive))) {
      for (ZipEntry e; (e = in.getNextEntry()) != null; ) {
        all.put(e.getName(), in.readAllBytes());
      }
    }
    String found = all.keySet().stream().filter(n -> n.startsWith(name)).findFirst().orElseThrow();
    if (content == null) {
      all.remove(found);
    } else {
      all.put(found, content.getBytes(StandardCharsets.UTF_8));
    }
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream((OutputStream) out)) {
      for (Map.Entry<String, byte[]> e : all.entrySet()) {
        zip.putNextEntry(new ZipEntry(e.getKey()));
        zip.write(e.getValue());
        zip.closeEntry();
      }
    }
    return out.toByteArray();
  }

  private static String text(byte[] archive, String name) throws IOException {
    try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(archive))) {
      for (ZipEntry e; (e = in.getNextEntry()) != null; ) {
        if (e.getName().equals(name)) {
          return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
      }
    }
    throw new IOException(name);
  }

  private void refused(byte[] archive, String place) {
    assertThatThrownBy(() -> read(archive))
        .isInstanceOfSatisfying(
            CartridgeException.class, e -> assertThat(e.place()).startsWith(place));
  }

  @Test
  void whatIsNotWhatItsNameSaysIsRefused() throws Exception {
    byte[] archive = written(source());
    refused(with(archive, "files/", "%PDF other"), "files/");
    refused(with(archive, "forms/", "{\"title\":\"Other\"}"), "forms/");
    refused(with(archive, "forms/", null), "forms/");
    refused(with(archive, "trees/1", "[{\"key\":\"a\"}]"), "trees/1");
    refused(with(archive, "trees/1", "no json"), "trees/1");
    refused(with(archive, "source.json", "{\"format\":9}"), "source.json");
    refused(with(archive, "source.json", null), "");
  }

  @Test
  void aTreeWhoseModuleIsMissingIsRefused() throws Exception {
    WholeSource s = source();
    WholeSource.State t = s.states().get(0);
    WholeSource torn =
        new WholeSource(
            "i",
            "c",
            "t",
            Optional.empty(),
            List.of(new WholeSource.State(1, t.note(), t.by(), t.at(), t.items().subList(1, 2))));
    refused(written(torn), "trees/1");
  }

  /** A master of one state with these items. */
  private byte[] of(Item... items) throws IOException {
    List<WholeSource.Entry> all =
        Arrays.stream(items).map(i -> entry(i, AppliesTo.EVERY_SECTION)).toList();
    WholeSource.State s = new WholeSource.State(0, "", "Teodor", AT, all);
    return written(new WholeSource("i", "c", "t", Optional.empty(), List.of(s)));
  }

  private static Item module(String key, String in, int nth) {
    return new Item(
        new ItemKey(key),
        "Week " + key,
        new Content.Module(),
        Timing.NONE,
        new Place(Optional.ofNullable(in), Rank.nth(nth)),
        Visibility.SHOWN,
        EditRule.ADAPTABLE);
  }

  @Test
  void aTreeThatCouldNotHaveBeenMadeHereIsRefused() throws Exception {
    refused(of(module("a", "b", 0), module("b", "a", 0)), "trees/0");
    refused(of(module("a", null, 3), module("b", null, 3)), "trees/0");
    for (String rank : List.of("", "a0", "A", "-", "z".repeat(1_001))) {
      Item odd = module("a", null, 0).withPlace(new Place(Optional.empty(), rank));
      refused(of(odd), "trees/0");
    }
    Item[] deep = new Item[300];
    for (int i = 0; i < deep.length; i++) {
      deep[i] = module("d" + i, i == 0 ? null : "d" + (i - 1), 0);
    }
    refused(of(deep), "trees/0");
    assertThat(read(of(Arrays.copyOf(deep, 200))).items().get(0)).hasSize(200);
    Item onPage = module("b", "a", 0);
    refused(of(module("m", null, 0), page("<p>x</p>"), onPage), "trees/0");
    FileRef nowhere = new FileRef("ef".repeat(32), "q.xml", "text/xml", 3);
    Item quiz =
        new Item(
            new ItemKey("q"),
            "Quiz",
            new Content.File(nowhere),
            Timing.NONE,
            new Place(Optional.empty(), Rank.nth(0)),
            Visibility.SHOWN,
            EditRule.ADAPTABLE);
    refused(of(quiz), "trees/0");
  }

  @Test
  void whatNoSourceHereCouldSayIsRefusedBeforeAnythingIsReceived() throws Exception {
    byte[] archive = written(source());
    String root = text(archive, "source.json");
    for (String odd :
        List.of(
            root.replace("\"number\":1", "\"number\":2147483647"),
            root.replace("\"number\":1", "\"number\":0"),
            root.replace("2026-09-01", "2031-09-01"),
            root.replace("\"First\"", "\"Fi\\u0000rst\""),
            root.replace("\"title\":\"Light\"", "\"title\":\"Li\\u0000ght\""),
            root.replace("\"states\":[", "\"states\":[" + "{},".repeat(20_000)))) {
      assertThat(odd).isNotEqualTo(root);
      refused(with(archive, "source.json", odd), "source.json");
    }
    refused(of(page("<p>x</p>")), "trees/0");
    String nul = "{\"title\":\"a\\u0000b\"}";
    byte[] form = with(archive, "forms/", nul);
    refused(form, "forms/");
  }

  @Test
  void manyStatesOfOneLargeTreeAreRefused() throws Exception {
    Item[] items = new Item[1_000];
    for (int i = 0; i < items.length; i++) {
      items[i] = module("k" + i, null, i);
    }
    byte[] archive = of(items);
    StringBuilder states = new StringBuilder();
    for (int n = 1; n < 900; n++) {
      states
          .append("{\"number\":%d,\"note\":\"\",\"by\":\"\",".formatted(n))
          .append("\"at\":\"2026-09-01T08:00Z\",\"tree\":\"trees/0.json\"},");
    }
    String root = text(archive, "source.json");
    refused(
        with(archive, "source.json", root.replace("\"states\":[", "\"states\":[" + states)),
        "source.json");
  }

  private WholeSource cartridge(String file) {
    WholeSource.State first = source().states().get(0);
    ReadingReport report =
        new ReadingReport(
            new CartridgeFacts("Light", "", "en", "", "Common Cartridge 1.3", false),
            new TreeMap<>(Map.of(Kind.PAGE, 1)),
            1,
            PDF.length,
            new TreeMap<>(),
            List.of(),
            List.of(new ReadingReport.Finding("a.xml", "not understood")),
            List.of(),
            0,
            List.of(),
            0,
            null,
            null,
            null,
            null,
            null,
            null);
    WholeSource.Package from =
        new WholeSource.Package(
            "light.imscc", "ab".repeat(32), 900, report, new TreeMap<>(Map.of("docs/a.pdf", file)));
    return new WholeSource(
        "identity",
        "",
        "Light",
        Optional.of(new WholeSource.Maker("press:light", "Larkmoor Press", false)),
        List.of(new WholeSource.State(1, "", "Teodor", AT, Optional.of(from), first.items())));
  }

  @Test
  void aCartridgeMovesWithItsEditionsAndWhatWasFoundInTheirPackages() throws Exception {
    WholeSource s = cartridge(SHA);
    Read r = read(written(s));
    assertThat(r.states()).isEqualTo(s.states());
    assertThat(r.source().maker()).isEqualTo(s.maker());
    assertThat(r.files()).isEqualTo(1);
  }

  @Test
  void aPackageOfWhichAFileIsMissingIsRefused() throws Exception {
    refused(written(cartridge("cd".repeat(32))), "packages/1");
    byte[] archive = written(cartridge(SHA));
    refused(with(archive, "packages/1", "{}"), "packages/1");
    refused(with(archive, "packages/1", "[]"), "packages/1");
    refused(with(archive, "packages/1", null), "packages/1");
    String root = text(archive, "source.json");
    refused(with(archive, "source.json", root.replace("\"number\":1", "\"number\":0")), "source");
    refused(
        with(archive, "source.json", root.replace("\"maker\":{", "\"maker\":5,\"x\":{")), "source");
  }
}
