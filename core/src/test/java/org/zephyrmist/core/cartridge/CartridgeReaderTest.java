package org.zephyrmist.core.cartridge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;

class CartridgeReaderTest {
  @TempDir Path folder;
  private final Package.Memory memory = new Package.Memory();

  private ReadingReport read(Package p) throws CartridgeException, IOException {
    return CartridgeReader.read(p.write(folder), Limits.DEFAULT, memory);
  }

  private CartridgeException refused(Package p) throws IOException {
    Path file = p.write(folder);
    return catchThrowableOfType(
        CartridgeException.class, () -> CartridgeReader.read(file, Limits.DEFAULT, memory));
  }

  private static Package everything() {
    return Package.cc12(
            """
            <item identifier="w3"><title>Week 3 · Load and power</title>
              <item identifier="i1" identifierref="r1"><title>What a circuit can carry</title></item>
              <item identifier="i2" identifierref="r2"><title>Load table</title></item>
              <item identifier="i3" identifierref="r3"><title>Maker's manual</title></item>
              <item identifier="i4" identifierref="r4"><title>Talk: power</title></item>
              <item identifier="i5" identifierref="r5"><title>Patch practice</title></item>
              <item identifier="i6" identifierref="r6"><title>Paper plot 1</title></item>
              <item identifier="i7" identifierref="r7"><title>Quiz 3: loads</title></item>
              <item identifier="i8" identifierref="r9"><title>Answers</title></item>
            </item>""",
            """
            <resource identifier="r1" type="webcontent" href="pages/carry.html">
              <file href="pages/carry.html"/></resource>
            <resource identifier="r2" type="webcontent" href="files/load%20table.pdf">
              <file href="files/load%20table.pdf"/></resource>
            <resource identifier="r3" type="imswl_xmlv1p2" href="link.xml"><file href="link.xml"/></resource>
            <resource identifier="r4" type="imsdt_xmlv1p2"><file href="talk.xml"/></resource>
            <resource identifier="r5" type="imsbasiclti_xmlv1p0"><file href="lti.xml"/></resource>
            <resource identifier="r6" type="assignment_xmlv1p0"><file href="as.xml"/></resource>
            <resource identifier="r7" type="imsqti_xmlv1p2/imscc_xmlv1p2/assessment"><file href="q.xml"/></resource>
            <resource identifier="r8" type="imsqti_xmlv1p2/imscc_xmlv1p2/question-bank"><file href="q.xml"/></resource>
            <resource identifier="r9" type="webcontent" href="pages/answers.html">
              <metadata><lom:lom xmlns:lom="http://ltsc.ieee.org/xsd/imsccv1p2/LOM/resource"><lom:educational>
                <lom:intendedEndUserRole><lom:value>Instructor</lom:value></lom:intendedEndUserRole>
              </lom:educational></lom:lom></metadata><file href="pages/answers.html"/></resource>
            <resource identifier="r10" type="imsxyz_v9" href="odd.bin"><file href="odd.bin"/></resource>
            """)
        .with(
            "pages/carry.html",
            "<html><head><title>x</title></head><body><p>See <a href='../files/load%20table.pdf'>the"
                + " table</a>, <img src=\"$IMS-CC-FILEBASE$/img/bar.png\"> and <a"
                + " href='answers.html#q2'>answers</a>. <a href='gone.html'>lost</a></p></body>")
        .with("pages/answers.html", "<p>42</p>")
        .with("files/load table.pdf", "%PDF")
        .with("img/bar.png", "PNG")
        .with("odd.bin", "?")
        .with(
            "link.xml",
            "<webLink xmlns=\"http://www.imsglobal.org/xsd/imsccv1p2/imswl_v1p2\"><title>m</title><url"
                + " href=\"https://maker.example/manual\" target=\"_blank\"/></webLink>")
        .with(
            "talk.xml",
            "<topic xmlns=\"http://www.imsglobal.org/xsd/imsccv1p2/imsdt_v1p2\"><title>t</title><text"
                + " texttype=\"text/html\">&lt;p&gt;Power?&lt;/p&gt;</text></topic>")
        .with(
            "lti.xml",
            "<c xmlns:blti=\"http://b\" xmlns:lticm=\"http://l\"><blti:title>t</blti:title><blti:custom>"
                + "<lticm:property name=\"unit\">3</lticm:property></blti:custom><blti:launch_url>"
                + "https://cuebench.example/launch</blti:launch_url></c>")
        .with(
            "as.xml",
            "<assignment><title>a</title><text texttype=\"text/html\">&lt;p&gt;Plot.&lt;/p&gt;</text>"
                + "<gradable points_possible=\"20\">true</gradable></assignment>")
        .with(
            "q.xml",
            "<questestinterop><assessment ident=\"a\" title=\"Loads\"><section><item ident=\"1\"/><item"
                + " ident=\"2\"><itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_weighting"
                + "</fieldlabel><fieldentry>2.5</fieldentry></qtimetadatafield></qtimetadata>"
                + "</itemmetadata></item></section></assessment></questestinterop>");
  }

  @Test
  void everyTypeOfResourceBecomesAnItem() throws Exception {
    ReadingReport report = read(everything());
    assertThat(report.facts().profile()).isEqualTo("Common Cartridge 1.2");
    assertThat(report.facts().title()).isEqualTo("Stage Light");
    assertThat(report.counts())
        .containsExactlyInAnyOrderEntriesOf(
            new TreeMap<>(
                Map.of(
                    Kind.MODULE,
                    1,
                    Kind.PAGE,
                    2,
                    Kind.FILE,
                    1,
                    Kind.WEB_LINK,
                    1,
                    Kind.DISCUSSION,
                    1,
                    Kind.TOOL_LINK,
                    1,
                    Kind.ASSIGNMENT,
                    1,
                    Kind.QUIZ,
                    1,
                    Kind.QUESTION_BANK,
                    1)));
    assertThat(report.toolHosts()).containsOnly(Map.entry("cuebench.example", 1));
    assertThat(report.instructorsOnly()).containsExactly("Answers");
    assertThat(report.unplaced()).isEqualTo(1);
    assertThat(report.notUnderstood())
        .singleElement()
        .satisfies(f -> assertThat(f.where()).isEqualTo("r10"));
    assertThat(report.deadReferences())
        .singleElement()
        .satisfies(f -> assertThat(f.what()).contains("pages/gone.html"));
  }

  @Test
  void factsOfLinksQuizzesAndAssignmentsAreRead() throws Exception {
    read(everything());
    Content.ToolLink tool = (Content.ToolLink) memory.titled("Patch practice").content();
    assertThat(tool.launch().parameters()).containsEntry("unit", "3");
    Content.Quiz quiz = (Content.Quiz) memory.titled("Quiz 3: loads").content();
    assertThat(quiz.count()).isEqualTo(2);
    assertThat(quiz.grading().points()).contains(new BigDecimal("3.5"));
    Content.Assignment plot = (Content.Assignment) memory.titled("Paper plot 1").content();
    assertThat(plot.grading().points()).contains(new BigDecimal("20"));
    assertThat(((Content.WebLink) memory.titled("Maker's manual").content()).newWindow()).isTrue();
  }

  @Test
  void addressesOnAPageBecomeReferencesToItemsAndFiles() throws Exception {
    read(everything());
    String html = memory.titled("What a circuit can carry").content().html();
    assertThat(References.files(html))
        .extracting(References.ToFile::name)
        .containsExactly("bar.png");
    assertThat(References.items(html))
        .extracting(
            r ->
                memory.items.stream()
                    .filter(i -> i.key().equals(r.key()))
                    .findFirst()
                    .orElseThrow()
                    .title())
        .containsExactlyInAnyOrder("Load table", "Answers");
    assertThat(References.items(html)).extracting(References.ToItem::fragment).contains("#q2");
  }

  @Test
  void readingIsDeterministic() throws Exception {
    Path file = everything().write(folder);
    Package.Memory second = new Package.Memory();
    ReadingReport a = CartridgeReader.read(file, Limits.DEFAULT, memory);
    ReadingReport b = CartridgeReader.read(file, Limits.DEFAULT, second);
    assertThat(second.items).isEqualTo(memory.items);
    assertThat(b).isEqualTo(a);
  }

  @ParameterizedTest
  @CsvSource({
    "http://www.imsglobal.org/xsd/imscc/imscp_v1p1,IMS Common Cartridge,1.0.0,Common Cartridge 1.0",
    "http://www.imsglobal.org/xsd/imsccv1p1/imscp_v1p1,IMS Common Cartridge,1.1.0,Common Cartridge 1.1",
    "http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1,IMS Common Cartridge,1.3.0,Common Cartridge 1.3",
    "http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1,IMS Thin Common Cartridge,1.3.0,Thin Common Cartridge 1.3",
    "http://www.imsglobal.org/xsd/imsccv1p2/imscp_v1p1,,,Common Cartridge 1.2",
  })
  void theProfileIsReadFromTheContents(String ns, String schema, String version, String profile)
      throws Exception {
    String s = schema == null ? "" : "<schema>" + schema + "</schema>";
    String v = version == null ? "" : "<schemaversion>" + version + "</schemaversion>";
    ReadingReport report =
        read(
            Package.of(
                "<manifest xmlns=\"" + ns + "\"><metadata>" + s + v + "</metadata></manifest>"));
    assertThat(report.facts().profile()).isEqualTo(profile);
  }

  @Test
  void aThinCartridgeMayHoldItsLinksInTheManifest() throws Exception {
    read(
        Package.cc12(
            "<item identifier=\"i\" identifierref=\"r\"><title>Manual</title></item>",
            "<resource identifier=\"r\" type=\"imswl_xmlv1p3\"><webLink><title>m</title><url"
                + " href=\"https://maker.example/\"/></webLink></resource>"));
    assertThat(memory.titled("Manual").content())
        .isEqualTo(new Content.WebLink("https://maker.example/", false));
  }

  @Test
  void anItemWithAPageOfItsOwnAndOthersBelowItIsAModuleInWhichEachHasItsPlace() throws Exception {
    read(
        Package.cc12(
                "<item identifier=\"a\" identifierref=\"r\"><title>Week</title>"
                    + "<item identifier=\"b\" identifierref=\"s\"><title>Below</title></item></item>",
                "<resource identifier=\"r\" type=\"webcontent\" href=\"week.html\"><file"
                    + " href=\"week.html\"/></resource>"
                    + "<resource identifier=\"s\" type=\"webcontent\" href=\"below.html\"><file"
                    + " href=\"below.html\"/></resource>"
                    + "<resource identifier=\"t\" type=\"webcontent\" href=\"loose.html\"><file"
                    + " href=\"loose.html\"/></resource>")
            .with("week.html", "<p>week</p>")
            .with("below.html", "<p>below</p>")
            .with("loose.html", "<p>loose</p>"));
    assertThat(memory.items).hasSize(4);
    assertThat(memory.items).extracting(Item::place).doesNotHaveDuplicates();
  }

  @Test
  void aMissingFileIsReportedAndTheRestIsTaken() throws Exception {
    ReadingReport report =
        read(
            Package.cc12(
                    "<item identifier=\"a\" identifierref=\"r\"><title>Lost</title></item>"
                        + "<item identifier=\"b\" identifierref=\"s\"><title>There</title></item>",
                    "<resource identifier=\"r\" type=\"webcontent\" href=\"no.html\"/>"
                        + "<resource identifier=\"s\" type=\"webcontent\" href=\"yes.html\"/>")
                .with("yes.html", "<p>yes</p>"));
    assertThat(memory.items).extracting(Item::title).containsExactly("There");
    assertThat(report.deadReferences()).anySatisfy(f -> assertThat(f.what()).contains("no.html"));
  }

  @Test
  void whatIsNoArchiveIsRefusedWithARemedy() throws Exception {
    Path file = Files.writeString(folder.resolve("x.imscc"), "not a zip");
    CartridgeException e =
        catchThrowableOfType(
            CartridgeException.class, () -> CartridgeReader.read(file, Limits.DEFAULT, memory));
    assertThat(e).hasMessageContaining("not a ZIP");
    assertThat(e.remedy()).isNotBlank();
  }

  @Test
  void malformedXmlIsRefusedWithLineAndColumn() throws Exception {
    CartridgeException e = refused(Package.of("<manifest>\n<oops></manifest>"));
    assertThat(e.place()).startsWith("imsmanifest.xml, line 2");
  }

  @Test
  void externalEntitiesAreRefusedUnread() throws Exception {
    CartridgeException e =
        refused(
            Package.of(
                "<!DOCTYPE m [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><manifest>&x;</manifest>"));
    assertThat(e).hasMessageContaining("document type");
    assertThat(memory.items).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({"../evil.txt", "/etc/evil", "C:/evil", "a/../../evil", "'..\\evil'"})
  void pathsThatLeaveTheArchiveAreRefused(String name) throws Exception {
    CartridgeException e = refused(Package.cc12("", "").with(name, "x"));
    assertThat(e).hasMessageContaining("leads out of the archive");
    assertThat(memory.files).isEmpty();
  }

  @Test
  void expansionBeyondTheRatioIsRefused() throws Exception {
    CartridgeException e = refused(Package.cc12("", "").with("bomb.txt", "0".repeat(40 << 20)));
    assertThat(e.place()).isEqualTo("bomb.txt");
  }

  @Test
  void aWrapperDeeperThanTheLimitIsRefused() throws Exception {
    String deep = "<item>".repeat(300) + "</item>".repeat(300);
    assertThat(refused(Package.cc12(deep, ""))).hasMessageContaining("deeper than");
  }

  private static String resource(String id, String roles, String files) {
    String metadata =
        roles.isEmpty()
            ? ""
            : "<metadata><lom:lom xmlns:lom=\"http://ltsc.ieee.org/xsd/imsccv1p2/LOM/resource\">"
                + "<lom:educational>"
                + roles
                    .lines()
                    .map(
                        r ->
                            "<lom:intendedEndUserRole><lom:value>"
                                + r
                                + "</lom:value></lom:intendedEndUserRole>")
                    .collect(Collectors.joining())
                + "</lom:educational></lom:lom></metadata>";
    String listed =
        files.lines().map(f -> "<file href=\"" + f + "\"/>").collect(Collectors.joining());
    return "<resource identifier=\"%s\" type=\"webcontent\" href=\"%s\">%s%s</resource>"
        .formatted(id, files.lines().findFirst().orElseThrow(), metadata, listed);
  }

  @ParameterizedTest
  @CsvSource({
    "Instructor,true",
    "'Instructor\nMentor',true",
    "Mentor,true",
    "Author,true",
    "'Instructor\nLearner',false",
    "learner,false",
    "'',false"
  })
  void onlyWhatNamesLearnersOrNobodyIsForStudents(String roles, boolean hidden) throws Exception {
    read(
        Package.cc12(
                "<item identifier=\"i\" identifierref=\"r\"><title>Key</title></item>",
                resource("r", roles, "key.html"))
            .with("key.html", "<p>42</p>"));
    Item key = memory.items.get(0);
    assertThat(key.visibility().instructorsOnly()).isEqualTo(hidden);
    assertThat(key.visibility().shown()).isEqualTo(!hidden);
  }

  @Test
  void aVariantOfWhatIsForInstructorsIsForInstructorsToo() throws Exception {
    read(
        Package.cc12(
                "<item identifier=\"i\" identifierref=\"a\"><title>Key</title></item>",
                resource("a", "Instructor", "a.html")
                        .replace("</resource>", "<variant identifierref=\"b\"/></resource>")
                    + resource("b", "", "b.html"))
            .with("a.html", "a")
            .with("b.html", "b"));
    assertThat(memory.items)
        .filteredOn(i -> i.title().equals("Key"))
        .allMatch(i -> i.visibility().instructorsOnly());
  }

  @Test
  void aPageForStudentsDoesNotCarryFilesOfInstructorsAlong() throws Exception {
    String page = "<p><a href='key.pdf'>1</a> <a href='more.pdf'>2</a> <img src='plot.png'></p>";
    ReadingReport report =
        read(
            Package.cc12(
                    "<item identifier=\"i\" identifierref=\"r\"><title>Read</title></item>"
                        + "<item identifier=\"j\" identifierref=\"t\"><title>Teach</title></item>"
                        + "<item identifier=\"p\" identifierref=\"q\"><title>Plot</title></item>",
                    resource("r", "", "read.html\nshared.pdf")
                        + resource("t", "Instructor", "teach.html\nkey.pdf\nmore.pdf\nshared.pdf")
                        + resource("q", "Mentor", "plot.png"))
                .with("read.html", page + "<a href='shared.pdf'>3</a>")
                .with("teach.html", page)
                .with("key.pdf", "k")
                .with("more.pdf", "m")
                .with("shared.pdf", "s")
                .with("plot.png", "p"));
    String read = memory.items.get(0).content().html();
    assertThat(References.files(read)).extracting(f -> f.name()).containsExactly("shared.pdf");
    assertThat(References.items(read)).hasSize(1); // the plot, which only instructors are given
    assertThat(report.deadReferences())
        .extracting(f -> f.what())
        .containsExactly(
            "refers to key.pdf, which is only for instructors",
            "refers to more.pdf, which is only for instructors");
    String teach = memory.items.get(1).content().html();
    assertThat(References.files(teach)).extracting(f -> f.name()).contains("key.pdf", "more.pdf");
  }

  @Test
  void anItemHasAnotherKeyInAnotherSourceAndTheSameInEveryEdition() throws Exception {
    String item = "<item identifier=\"item_1\" identifierref=\"r\"><title>T</title></item>";
    Package one = Package.cc12(item, resource("r", "", "a.html")).with("a.html", "a");
    Package next = Package.cc12(item, resource("r", "", "a.html")).with("a.html", "b");
    Package other =
        Package.of(
                new String(one.bytes("imsmanifest.xml"), StandardCharsets.UTF_8)
                    .replace("Stage Light", "Stage Sound"))
            .with("a.html", "a");
    read(one);
    read(next);
    read(other);
    assertThat(memory.items.get(1).key()).isEqualTo(memory.items.get(0).key());
    assertThat(memory.items.get(2).key()).isNotEqualTo(memory.items.get(0).key());
  }
}
