package org.zephyrmist.core.cartridge;

import static java.util.stream.Collectors.joining;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.io.OutputStream;
import java.lang.management.ManagementFactory;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.zip.Deflater;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zephyrmist.core.archive.ZipDirectory;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.References;

/** Packages that are damaged or made to do harm: refused with place and remedy, in bounded time. */
class HostilePackagesTest {
  private static final String ITEM =
      "<item identifier=\"i\" identifierref=\"r\"><title>Talk</title></item>";
  private static final String TALK =
      "<resource identifier=\"r\" type=\"imsdt_xmlv1p2\"><file href=\"talk.xml\"/></resource>";
  @TempDir Path folder;
  private final Package.Memory memory = new Package.Memory();

  /** Nanoseconds that this thread has worked: what else the machine does is not ours. */
  private static long worked() {
    return ManagementFactory.getThreadMXBean().getCurrentThreadCpuTime();
  }

  private CartridgeException refused(Path file) {
    long start = worked();
    CartridgeException e =
        catchThrowableOfType(
            CartridgeException.class, () -> CartridgeReader.read(file, Limits.DEFAULT, memory));
    assertThat(e).isNotNull();
    assertThat(e.getMessage()).isNotBlank();
    assertThat(e.remedy()).isNotBlank();
    assertThat(memory.items).isEmpty();
    assertThat(worked() - start).isLessThan(20_000_000_000L);
    return e;
  }

  private CartridgeException refused(Package p) throws IOException {
    return refused(p.write(folder));
  }

  private static Package talk(String xml) {
    return Package.cc12(ITEM, TALK).with("talk.xml", xml);
  }

  private static String flood() {
    StringBuilder dtd = new StringBuilder("<!DOCTYPE t [<!ENTITY a0 \"ha\">");
    for (int i = 1; i < 30; i++) {
      dtd.append("<!ENTITY a").append(i).append(" \"");
      dtd.append(("&a" + (i - 1) + ";").repeat(10)).append("\">");
    }
    return dtd + "]><topic><title>&a29;</title><text>x</text></topic>";
  }

  @Test
  void entityFloodsInTheManifestAndInAnyOtherXmlAreRefusedUnread() throws Exception {
    assertThat(refused(Package.of(flood())).place()).startsWith("imsmanifest.xml, line 1");
    assertThat(refused(talk(flood())).place()).startsWith("talk.xml, line 1");
  }

  @Test
  void anEntityThatReadsAFileIsRefusedUnreadInAnyXml() throws Exception {
    String xml = "<!DOCTYPE t [<!ENTITY f SYSTEM \"file:///etc/hostname\">]><topic>&f;</topic>";
    assertThat(refused(talk(xml))).hasMessageContaining("document type");
  }

  @Test
  void anArchiveCutOffAnywhereIsRefused() throws Exception {
    byte[] all = Files.readAllBytes(talk("<topic><title>t</title></topic>").write(folder));
    for (int keep = 0; keep < all.length; keep += 37) {
      refused(Files.write(folder.resolve("cut.zip"), Arrays.copyOf(all, keep)));
    }
  }

  @Test
  void aDamagedEntryIsRefusedByItsName() throws Exception {
    Path file = folder.resolve("stored.zip");
    String plain = "the patch sheet of hall three";
    try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(file)) {
      zip.setMethod(ZipArchiveOutputStream.DEFLATED);
      zip.setLevel(Deflater.NO_COMPRESSION);
      put(zip, "imsmanifest.xml", Package.cc12("", "").bytes("imsmanifest.xml"));
      put(zip, "sheet.txt", plain.getBytes(StandardCharsets.UTF_8));
    }
    byte[] all = Files.readAllBytes(file);
    int at = new String(all, StandardCharsets.ISO_8859_1).indexOf(plain);
    all[at] ^= 1;
    CartridgeException e = refused(Files.write(file, all));
    assertThat(e.place()).isEqualTo("sheet.txt");
    assertThat(e).hasMessageContaining("damaged");
  }

  private static void put(ZipArchiveOutputStream zip, String name, byte[] bytes)
      throws IOException {
    zip.putArchiveEntry(new ZipArchiveEntry(name));
    zip.write(bytes);
    zip.closeArchiveEntry();
  }

  @Test
  void randomDamageNeverGivesAnythingButARefusalOrAReading() throws Exception {
    byte[] all = Files.readAllBytes(talk("<topic><title>t</title></topic>").write(folder));
    Random random = new Random(7);
    for (int i = 0; i < 400; i++) {
      byte[] damaged = all.clone();
      for (int n = 0; n < 3; n++) {
        damaged[random.nextInt(damaged.length)] = (byte) random.nextInt(256);
      }
      Path file = Files.write(folder.resolve("damaged.zip"), damaged);
      try {
        CartridgeReader.read(file, Limits.DEFAULT, new Package.Memory());
      } catch (CartridgeException e) {
        assertThat(e.remedy()).isNotBlank();
      }
    }
  }

  @Test
  void linksAreRefused() throws Exception {
    Path file = folder.resolve("link.zip");
    try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(file)) {
      ZipArchiveEntry link = new ZipArchiveEntry("passwords.txt");
      link.setUnixMode(0120777);
      zip.putArchiveEntry(link);
      zip.write("/etc/passwd".getBytes(StandardCharsets.UTF_8));
      zip.closeArchiveEntry();
    }
    assertThat(refused(file)).hasMessageContaining("link");
  }

  @Test
  void aNameThatStandsTwiceIsRefused() throws Exception {
    Path file = folder.resolve("twice.zip");
    try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(file)) {
      for (String name : new String[] {"a/x.txt", "a\\x.txt"}) {
        zip.putArchiveEntry(new ZipArchiveEntry(name));
        zip.closeArchiveEntry();
      }
    }
    assertThat(refused(file)).hasMessageContaining("twice");
  }

  @Test
  void encryptedEntriesAreRefused() throws Exception {
    byte[] all = Files.readAllBytes(Package.cc12("", "").write(folder));
    for (int i = 0; i + 4 < all.length; i++) {
      boolean local = all[i] == 'P' && all[i + 1] == 'K' && all[i + 2] == 3 && all[i + 3] == 4;
      boolean central = all[i] == 'P' && all[i + 1] == 'K' && all[i + 2] == 1 && all[i + 3] == 2;
      if (local || central) {
        all[i + (local ? 6 : 8)] |= 1;
      }
    }
    assertThat(refused(Files.write(folder.resolve("e.zip"), all)))
        .hasMessageContaining("encrypted");
  }

  @Test
  void manySmallFilesThatExpandTooFarTogetherAreRefused() throws Exception {
    Path file = folder.resolve("bomb.zip");
    byte[] zeros = new byte[1 << 20];
    try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(file)) {
      for (int i = 0; i < 200; i++) {
        put(zip, i + ".txt", zeros);
      }
      put(zip, "imsmanifest.xml", Package.cc12("", "").bytes("imsmanifest.xml"));
    }
    assertThat(refused(file)).hasMessageContaining("times its packed size");
  }

  @Test
  void aManifestBeyondTheLimitIsRefusedWithoutBeingHeldInMemory() throws Exception {
    Path file = folder.resolve("large.zip");
    byte[] noise = new byte[1 << 16];
    Random random = new Random(3);
    try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(file)) {
      zip.setLevel(Deflater.NO_COMPRESSION);
      zip.putArchiveEntry(new ZipArchiveEntry("imsmanifest.xml"));
      zip.write("<manifest><!--".getBytes(StandardCharsets.UTF_8));
      for (int n = 0; n < noise.length; n++) {
        noise[n] = (byte) ('a' + random.nextInt(26));
      }
      for (int i = 0; i < 60 * 16; i++) {
        zip.write(noise);
      }
      zip.write("--></manifest>".getBytes(StandardCharsets.UTF_8));
      zip.closeArchiveEntry();
    }
    assertThat(refused(file)).hasMessageContaining("larger than 50 MB");
  }

  @ParameterizedTest
  @ValueSource(ints = {201, 20_000})
  void outlinesDeeperThanTheLimitAreRefused(int levels) throws Exception {
    String deep = "<item identifier=\"x\">".repeat(levels) + "</item>".repeat(levels);
    assertThat(refused(Package.cc12(deep, ""))).hasMessageContaining("200 levels");
  }

  @Test
  void otherXmlOfTwentyThousandLevelsIsRefused() throws Exception {
    String deep =
        "<topic><title>" + "<b>".repeat(20_000) + "</b>".repeat(20_000) + "</title></topic>";
    CartridgeException e = refused(talk(deep));
    assertThat(e).hasMessageContaining("200 levels");
    assertThat(e.place()).startsWith("talk.xml");
  }

  @Test
  void aNameOfThreeHundredCharactersIsRefusedAndTheLimitTold() throws Exception {
    assertThat(refused(Package.cc12("", "").with("a".repeat(300), "x")))
        .hasMessageContaining("255 characters");
  }

  @Test
  void aFileWhoseBytesAreNotInItsEncodingIsNamedAndKept() throws Exception {
    byte[] latin =
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?><topic><title>Größe</title></topic>"
            .getBytes(StandardCharsets.ISO_8859_1);
    for (Package p :
        List.of(
            Package.cc12(ITEM, TALK).with("talk.xml", latin),
            talk("<?xml version=\"1.0\" encoding=\"x-none\"?><topic/>"))) {
      ReadingReport report = CartridgeReader.read(p.write(folder), Limits.DEFAULT, memory);
      assertThat(report.notUnderstood())
          .singleElement()
          .satisfies(f -> assertThat(f.what()).startsWith("talk.xml").contains("encoding"));
    }
  }

  @Test
  void anotherKindOfArchiveIsRefused() throws Exception {
    Path file = folder.resolve("x.gz");
    try (OutputStream out = new java.util.zip.GZIPOutputStream(Files.newOutputStream(file))) {
      out.write(1);
    }
    assertThat(refused(file)).hasMessageContaining("not a ZIP");
  }

  /** Central directory entries without files, and an end that says there is one. */
  private Path entries(int n) throws IOException {
    ByteBuffer b = ByteBuffer.allocate(n * 54 + 22).order(ByteOrder.LITTLE_ENDIAN);
    putEntries(b, n);
    putEnd(b, b.position(), 0);
    return Files.write(folder.resolve("entries.zip"), b.array());
  }

  /** A directory of one entry that the old end names, and one of many that the 64-bit end names. */
  private Path twoDirectories(int n) throws IOException {
    ByteBuffer b = ByteBuffer.allocate((n + 1) * 54 + 98).order(ByteOrder.LITTLE_ENDIAN);
    putEntries(b, n);
    int second = b.position();
    putEntries(b, 1);
    int end64 = b.position();
    b.putInt(0x06064b50).putLong(44).position(end64 + 24);
    b.putLong(n).putLong(n).putLong(second).putLong(0);
    b.putInt(0x07064b50).putInt(0).putLong(end64).putInt(1);
    putEnd(b, end64 - second, second);
    return Files.write(folder.resolve("two.zip"), b.array());
  }

  private static void putEntries(ByteBuffer b, int n) {
    for (int i = 0; i < n; i++) {
      b.putInt(0x02014b50).position(b.position() + 24);
      b.putShort((short) 8).position(b.position() + 16);
      b.put("%08d".formatted(i).getBytes(StandardCharsets.US_ASCII));
    }
  }

  private static void putEnd(ByteBuffer b, int size, int start) {
    b.putInt(0x06054b50).putInt(0).putShort((short) 1).putShort((short) 1);
    b.putInt(size).putInt(start);
  }

  @Test
  void aMillionEntriesAreRefusedWhileTheyAreCounted() throws Exception {
    Path file = entries(1_000_000);
    long start = worked();
    assertThat(refused(file).getMessage()).contains("more than 250000 files");
    assertThat(worked() - start).isLessThan(5_000_000_000L);
    assertThat(ZipDirectory.holdsAtMost(entries(1_000), 1_000)).isTrue();
    assertThat(ZipDirectory.holdsAtMost(entries(1_001), 1_000)).isFalse();
    assertThat(ZipDirectory.holdsAtMost(talk("<topic/>").write(folder), 2)).isTrue();
    assertThat(ZipDirectory.holdsAtMost(talk("<topic/>").write(folder), 1)).isFalse();
  }

  @Test
  void entriesAreCountedInEveryDirectoryThatAReaderMayTake() throws Exception {
    assertThat(ZipDirectory.holdsAtMost(twoDirectories(1_001), 1_000)).isFalse();
    assertThat(ZipDirectory.holdsAtMost(twoDirectories(999), 1_000)).isTrue();
    assertThat(refused(twoDirectories(1_000_000)).getMessage()).contains("more than 250000 files");
  }

  @Test
  void whatIsToldOfANameWithControlCharactersHasNone() throws Exception {
    CartridgeException e = refused(talk("<topic/>").with("a\0b\n.html", "x"));
    assertThat(e.place()).isEqualTo("a·b·.html");
  }

  @Test
  void deeplyNestedPagesAreReadInLinearTimeAndFlattened() throws Exception {
    String deep =
        "<b>".repeat(40_000)
            + IntStream.range(0, 15_000)
                .mapToObj(i -> "<table id=" + i * 7_919 + ">")
                .collect(joining())
            + "words\0";
    long start = worked();
    CartridgeReader.read(
        Package.cc12(
                "<item identifier=\"i\" identifierref=\"r\"><title>Deep</title></item>",
                "<resource identifier=\"r\" type=\"webcontent\" href=\"a.html\"/>")
            .with("a.html", deep)
            .write(folder),
        Limits.DEFAULT,
        memory);
    String html = memory.items.get(0).content().html();
    assertThat(Html.text(html)).isEqualTo("words");
    assertThat(Html.safe(html)).isEqualTo(Html.safe(Html.safe(html)));
    assertThat(worked() - start).isLessThan(10_000_000_000L);
  }

  @Test
  void addressesThatOnlyWeWriteOrNobodyCanReadAreLeftOutAndReported() throws Exception {
    String secret = "zref:file/" + "ab".repeat(32) + "/" + "x".repeat(4_000);
    ReadingReport report =
        CartridgeReader.read(
            Package.cc12(
                    "<item identifier=\"i\" identifierref=\"r\"><title>Page</title></item>",
                    "<resource identifier=\"r\" type=\"webcontent\" href=\"a.html\"/>")
                .with(
                    "a.html",
                    "<img src='"
                        + secret
                        + "'><a href='ZREF:item/other'>o</a><a href='https://e.example/"
                        + "y".repeat(4_000)
                        + "'>l</a>")
                .write(folder),
            Limits.DEFAULT,
            memory);
    assertThat(Html.addresses(memory.items.get(0).content().html())).containsExactly("#", "#", "#");
    assertThat(report.deadReferences()).hasSize(2);
  }

  @ParameterizedTest
  @ValueSource(strings = {"javascript:alert(1)", "data:text/html,x", "file:///etc/passwd", "x y"})
  void aLinkThatIsNoAddressOfTheWebIsLeftOut(String address) throws Exception {
    CartridgeReader.read(
        Package.cc12(
                "<item identifier=\"i\" identifierref=\"r\"><title>Link</title></item>",
                "<resource identifier=\"r\" type=\"imswl_xmlv1p2\"><file href=\"l.xml\"/></resource>")
            .with("l.xml", "<webLink><title>L</title><url href=\"" + address + "\"/></webLink>")
            .write(folder),
        Limits.DEFAULT,
        memory);
    assertThat(memory.items.get(0).content().launch().address()).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({
    "10.50,10.5",
    "0,0",
    "100000,100000",
    "1e-200000000,",
    "1e9,",
    "-1,",
    "NaN,",
    "1e5,100000"
  })
  void pointsHaveARange(String written, String read) {
    assertThat(Grading.number(written).map(n -> Grading.points(n).points().get().toPlainString()))
        .isEqualTo(Optional.ofNullable(read));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "zref:item/",
        "zref:item/a b",
        "zref:file/xyz/a",
        "zref:file/",
        "zref:",
        "zref:item/%00"
      })
  void whatIsWrittenLikeAReferenceAndIsNoneLeadsNowhere(String address) {
    assertThat(References.asItem(address)).isEmpty();
    assertThat(References.asFile(address)).isEmpty();
    String html = "<a href=\"" + address + "\">x</a>";
    assertThat(References.resolve(html, f -> "file", i -> "item")).isEqualTo("<a href=\"#\">x</a>");
  }
}
