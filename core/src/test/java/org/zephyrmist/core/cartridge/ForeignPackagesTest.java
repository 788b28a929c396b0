package org.zephyrmist.core.cartridge;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.zip.CRC32;
import org.apache.commons.compress.archivers.zip.Zip64Mode;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;

/** Packages as other programs write them. */
class ForeignPackagesTest {
  private static final String ITEM =
      "<item identifier=\"i\" identifierref=\"r\"><title>Rigging</title></item>";
  private static final String RESOURCE =
      "<resource identifier=\"r\" type=\"webcontent\" href=\"a.html\"><file href=\"a.html\"/></resource>";
  @TempDir Path folder;
  private final Package.Memory memory = new Package.Memory();

  private ReadingReport read(Package p) throws CartridgeException, IOException {
    return CartridgeReader.read(p.write(folder), Limits.DEFAULT, memory);
  }

  private static Package page(String html) {
    return Package.cc12(ITEM, RESOURCE).with("a.html", html);
  }

  @ParameterizedTest
  @ValueSource(strings = {"UTF-16LE", "UTF-16BE", "UTF-8", "ISO-8859-1"})
  void manifestsInAnyDeclaredEncodingWithByteOrderMarkAreRead(String charset) throws Exception {
    String name = charset.startsWith("UTF-16") ? "UTF-16" : charset;
    String mark = charset.startsWith("UTF") ? "\uFEFF" : "";
    String xml =
        "<?xml version=\"1.0\" encoding=\"%s\"?>".formatted(name)
            + "<manifest xmlns=\"http://www.imsglobal.org/xsd/imsccv1p1/imscp_v1p1\"><organizations>"
            + "<organization><item><item identifier=\"i\" identifierref=\"r\"><title>Échelle</title>"
            + "</item></item></organization></organizations><resources>"
            + RESOURCE
            + "</resources></manifest>";
    Package p = new Package().with("a.html", "<p>a</p>");
    p.with("imsmanifest.xml", (mark + xml).getBytes(Charset.forName(charset)));
    read(p);
    assertThat(memory.items).extracting(Item::title).containsExactly("Échelle");
  }

  @ParameterizedTest
  @CsvSource({
    "UTF-16LE,'\uFEFF<p>Größe</p>'",
    "UTF-8,'\uFEFF<p>Größe</p>'",
    "ISO-8859-1,'<html><head><meta charset=\"iso-8859-1\"></head><body><p>Größe</p></body></html>'",
    "UTF-8,'<p>Größe</p>'",
    "UTF-8,'<html><head><meta charset=\"no-such\"></head><body><p>Größe</p></body></html>'"
  })
  void pagesAreReadInTheirOwnEncoding(String charset, String html) throws Exception {
    read(Package.cc12(ITEM, RESOURCE).with("a.html", html.getBytes(Charset.forName(charset))));
    assertThat(memory.titled("Rigging").content().html()).isEqualTo("<p>Größe</p>");
  }

  @Test
  void anyNamespacePrefixWillDo() throws Exception {
    read(
        Package.of(
                "<cp:manifest xmlns:cp=\"http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1\">"
                    + "<cp:organizations><cp:organization><cp:item><cp:item identifier=\"i\""
                    + " identifierref=\"r\"><cp:title>Rigging</cp:title></cp:item></cp:item>"
                    + "</cp:organization></cp:organizations><cp:resources><cp:resource"
                    + " identifier=\"r\" type=\"webcontent\" href=\"a.html\"/></cp:resources>"
                    + "</cp:manifest>")
            .with("a.html", "<p>a</p>"));
    assertThat(memory.items).extracting(Item::kind).containsExactly(Kind.PAGE);
  }

  @ParameterizedTest
  @CsvSource({
    "files/load table.pdf,files/load%20table.pdf",
    "files/load%20table.pdf,files/load%20table.pdf",
    "files/100% load.pdf,files/100% load.pdf",
    "files\\load.pdf,files/load.pdf",
    "files/load.pdf,files\\load.pdf",
    "./files/load.pdf,files/load.pdf",
    "files/Load.PDF,files/load.pdf",
    "files/plan-é.pdf,files/plan-e\u0301.pdf",
    "файлы/план.pdf,%D1%84%D0%B0%D0%B9%D0%BB%D1%8B/%D0%BF%D0%BB%D0%B0%D0%BD.pdf",
    "files/a+b.pdf,files/a+b.pdf"
  })
  void namesAreFoundHoweverTheyAreWritten(String inArchive, String inManifest) throws Exception {
    ReadingReport report =
        read(
            Package.cc12(
                    ITEM,
                    "<resource identifier=\"r\" type=\"webcontent\" href=\"%s\"/>"
                        .formatted(inManifest))
                .with(inArchive, "%PDF"));
    assertThat(report.deadReferences()).isEmpty();
    assertThat(memory.items).extracting(Item::kind).containsExactly(Kind.FILE);
  }

  @Test
  void namesWithoutUtf8FlagAreReadAsCodePage437() throws Exception {
    Path file = folder.resolve("old.zip");
    try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(file)) {
      zip.setEncoding("IBM437");
      zip.setUseLanguageEncodingFlag(false);
      entry(zip, "imsmanifest.xml", Package.cc12(ITEM, RESOURCE.replace("a.html", "naïve.html")));
      entry(zip, "naïve.html", "<p>a</p>");
    }
    assertThat(CartridgeReader.read(file, Limits.DEFAULT, memory).deadReferences()).isEmpty();
  }

  @Test
  void storedEntriesFoldersAndZip64AreRead() throws Exception {
    Path file = folder.resolve("odd.zip");
    try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(file)) {
      zip.setUseZip64(Zip64Mode.Always);
      ZipArchiveEntry dir = new ZipArchiveEntry("pages/");
      zip.putArchiveEntry(dir);
      zip.closeArchiveEntry();
      entry(zip, "imsmanifest.xml", Package.cc12(ITEM, RESOURCE.replace("a.html", "pages/a.html")));
      byte[] page = "<p>stored</p>".getBytes(StandardCharsets.UTF_8);
      ZipArchiveEntry stored = new ZipArchiveEntry("pages/a.html");
      stored.setMethod(ZipArchiveEntry.STORED);
      stored.setSize(page.length);
      CRC32 crc = new CRC32();
      crc.update(page);
      stored.setCrc(crc.getValue());
      zip.putArchiveEntry(stored);
      zip.write(page);
      zip.closeArchiveEntry();
    }
    CartridgeReader.read(file, Limits.DEFAULT, memory);
    assertThat(memory.titled("Rigging").content().html()).isEqualTo("<p>stored</p>");
  }

  @Test
  void sizesThatFollowTheDataAreRead() throws Exception {
    Path file = folder.resolve("stream.zip");
    try (OutputStream out = Files.newOutputStream(file);
        ZipArchiveOutputStream zip = new ZipArchiveOutputStream(out)) { // not seekable
      entry(zip, "imsmanifest.xml", Package.cc12(ITEM, RESOURCE));
      entry(zip, "a.html", "<p>a</p>");
    }
    CartridgeReader.read(file, Limits.DEFAULT, memory);
    assertThat(memory.items).hasSize(1);
  }

  private static void entry(ZipArchiveOutputStream zip, String name, Object content)
      throws IOException {
    zip.putArchiveEntry(new ZipArchiveEntry(name));
    zip.write(
        content instanceof Package p
            ? p.bytes("imsmanifest.xml")
            : content.toString().getBytes(StandardCharsets.UTF_8));
    zip.closeArchiveEntry();
  }

  @Test
  void aResourceInTwoPlacesBecomesTwoItems() throws Exception {
    read(
        Package.cc12(ITEM + ITEM.replace("\"i\"", "\"j\"").replace("Rigging", "Again"), RESOURCE)
            .with("a.html", "<p>a</p>"));
    assertThat(memory.items).extracting(Item::title).containsExactly("Rigging", "Again");
    assertThat(memory.items).extracting(Item::key).doesNotHaveDuplicates();
  }

  @Test
  void itemsWithoutIdentifierOrWithTheSameOneAreAllTakenAndTheSameIsTold() throws Exception {
    String bare = ITEM.replace(" identifier=\"i\"", "");
    ReadingReport report =
        read(Package.cc12(bare + bare + ITEM + ITEM, RESOURCE).with("a.html", "<p>a</p>"));
    assertThat(memory.items).hasSize(4).extracting(Item::key).doesNotHaveDuplicates();
    assertThat(report.notUnderstood())
        .singleElement()
        .satisfies(f -> assertThat(f.where()).isEqualTo("i"));
  }

  @Test
  void anItemWithoutTitleTakesThatOfItsPageOrFile() throws Exception {
    String bare = ITEM.replace("<title>Rigging</title>", "");
    read(
        Package.cc12(bare, RESOURCE)
            .with("a.html", "<html><head><title>Knots</title></head><body>a</body></html>"));
    assertThat(memory.items).extracting(Item::title).containsExactly("Knots");
  }

  @Test
  void anEmptyHeadingIsAModuleAndDependenciesMayGoInCircles() throws Exception {
    read(
        Package.cc12(
                "<item identifier=\"h\"><title>Week 9</title></item>" + ITEM,
                "<resource identifier=\"r\" type=\"webcontent\" href=\"a.html\"><dependency"
                    + " identifierref=\"s\"/></resource><resource identifier=\"s\""
                    + " type=\"associatedcontent/imscc_xmlv1p2/learning-application-resource\""
                    + " href=\"b.css\"><dependency identifierref=\"r\"/></resource>")
            .with("a.html", "<p>a</p>")
            .with("b.css", "p{}"));
    assertThat(memory.items).extracting(Item::kind).containsExactly(Kind.MODULE, Kind.PAGE);
  }

  @Test
  void whatNothingUsesIsKeptAndNamed() throws Exception {
    ReadingReport report =
        read(
            page("<p><img src=\"used.png\"></p>")
                .with("used.png", "PNG")
                .with("spare/plan.pdf", "%PDF"));
    assertThat(report.unused()).isEqualTo(1);
    assertThat(report.unusedFiles()).containsExactly("spare/plan.pdf");
    assertThat(memory.paths).contains("spare/plan.pdf", "used.png", "imsmanifest.xml");
  }

  @Test
  void anUnknownTypeIsKeptAsAFileAndNamed() throws Exception {
    ReadingReport report =
        read(
            Package.cc12(
                    ITEM, "<resource identifier=\"r\" type=\"imsapip_zipv1p0\" href=\"t.zip\"/>")
                .with("t.zip", "PK"));
    assertThat(memory.items).extracting(Item::kind).containsExactly(Kind.FILE);
    assertThat(report.notUnderstood())
        .singleElement()
        .satisfies(f -> assertThat(f.what()).contains("imsapip_zipv1p0"));
  }

  @ParameterizedTest
  @CsvSource({
    "imsdt_xmlv1p0,DISCUSSION",
    "imsdt_xmlv1p3,DISCUSSION",
    "imswl_xmlv1p0,WEB_LINK",
    "imswl_xmlv1p1,WEB_LINK",
    "imsbasiclti_xmlv1p0,TOOL_LINK",
    "imsbasiclti_xmlv1p3,TOOL_LINK",
    "imsqti_xmlv1p2/imscc_xmlv1p0/assessment,QUIZ",
    "imsqti_xmlv1p2/imscc_xmlv1p3/assessment,QUIZ",
    "imsqti_xmlv1p2/imscc_xmlv1p1/question-bank,QUESTION_BANK",
    "assignment_xmlv1p0,ASSIGNMENT",
    "associatedcontent/imscc_xmlv1p1/learning-application-resource,FILE"
  })
  void typesOfEveryVersionAreKnown(String type, Kind kind) throws Exception {
    read(
        Package.cc12(
                ITEM, "<resource identifier=\"r\" type=\"%s\" href=\"x.xml\"/>".formatted(type))
            .with("x.xml", "<x><title>t</title></x>"));
    assertThat(memory.items).extracting(Item::kind).containsExactly(kind);
  }

  @Test
  void aPageOfTwentyThousandLevelsIsReadAndCompared() throws Exception {
    read(page("<div>".repeat(20_000) + "deep" + "</div>".repeat(20_000)));
    assertThat(AspectForms.fingerprints(memory.titled("Rigging"))).isNotNull();
    assertThat(((Content.Page) memory.titled("Rigging").content()).html()).contains("deep");
  }

  @Test
  void titlesLoseWhatIsUnseenAndKeepTheRest() throws Exception {
    read(
        Package.cc12(
                "<item identifier=\"a\" identifierref=\"r\"><title>Cue\u202Etxt.exe\u200B &lt;b&gt;x&lt;/b&gt;</title></item>"
                    + "<item identifier=\"b\" identifierref=\"r\"><title>\u202E\u200B</title></item>"
                    + "<item identifier=\"c\" identifierref=\"r\"><title>"
                    + "long ".repeat(4000)
                    + "</title></item>",
                RESOURCE)
            .with("a.html", "<p>a</p>"));
    List<String> titles = memory.items.stream().map(Item::title).toList();
    assertThat(titles.get(0)).isEqualTo("Cuetxt.exe <b>x</b>");
    assertThat(titles.get(1)).isEqualTo("a.html");
    assertThat(titles.get(2)).hasSizeLessThanOrEqualTo(500).endsWith("…");
  }

  @Test
  void aPageWithHostileContentIsShownWithoutIt() throws Exception {
    read(page("<p>\u0000ok <a href=\"javascript:x()\">l</a><img src=\"gone.png\"></p>"));
    Content.Page p = (Content.Page) memory.titled("Rigging").content();
    assertThat(p.html()).doesNotContain("\u0000");
    assertThat(References.files(p.html())).isEmpty();
  }
}
