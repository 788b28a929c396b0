package org.zephyrmist.core.cartridge;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zephyrmist.core.cartridge.ReadingReport.Finding;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.HandIn;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;

/** What packages from elsewhere hold that no package of ours would: the good part is taken. */
class ElsewhereTest {
  private static final String ITEM =
      "<item identifier=\"i\" identifierref=\"r\"><title>Rigging</title></item>";
  @TempDir Path folder;
  private final Package.Memory memory = new Package.Memory();

  private ReadingReport read(Package p) throws CartridgeException, IOException {
    return CartridgeReader.read(p.write(folder), Limits.DEFAULT, memory);
  }

  private static String resource(String id, String type, String href) {
    return "<resource identifier=\"%s\" type=\"%s\" href=\"%s\"><file href=\"%s\"/></resource>"
        .formatted(id, type, href, href);
  }

  private static Package page(String path, String html) {
    return Package.cc12(ITEM, resource("r", "webcontent", path)).with(path, html);
  }

  private Content only() {
    return memory.titled("Rigging").content();
  }

  private static List<String> whats(List<Finding> findings) {
    return findings.stream().map(Finding::what).toList();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "<img src=\"$IMS-CC-FILEBASE$../img/Bühne%20%26%20Bar.png\">",
        "<img src=\"../img/B&uuml;hne &amp; Bar.png\">",
        "<img srcset=\"../img/B%C3%BChne%20&amp;%20Bar.png 2x\">",
        "<video poster='../img/B%C3%BChne%20&amp;%20Bar.png'></video>",
        "<object data='../img/Bühne & Bar.png'></object>",
        "<p style=\"background: url('../img/Bühne & Bar.png')\">x</p>",
      })
  void anAddressIsFoundHoweverAndWhereverItIsWritten(String html) throws Exception {
    ReadingReport report = read(page("pages/a.html", html).with("img/Bühne & Bar.png", "PNG"));
    assertThat(report.deadReferences()).isEmpty();
    assertThat(report.unused()).isZero();
    assertThat(only().html()).contains("zref:file/");
  }

  @Test
  void theBaseOfAPageCounts() throws Exception {
    read(
        page("pages/a.html", "<head><base href='../files/'></head><a href='t.pdf'>t</a>")
            .with("files/t.pdf", "%PDF"));
    assertThat(References.files(only().html())).singleElement();
    read(page("b.html", "<head><base href='https://o.example/x/'></head><a href='t.pdf'>t</a>"));
    assertThat(memory.items.get(1).content().html()).contains("https://o.example/x/t.pdf");
  }

  @Test
  void whatLeadsNowhereOrOutsideIsOneFindingWithAllItsPlaces() throws Exception {
    ReadingReport report =
        read(
            Package.cc12(
                    "<item identifier='i' identifierref='r'/><item identifier='j' identifierref='s'/>",
                    resource("r", "webcontent", "a.html") + resource("s", "webcontent", "b.html"))
                .with("a.html", "<a href='no.pdf'>x</a><a href='no.pdf'>y</a>")
                .with("b.html", "<a href='no.pdf'>x</a><a href='../up.pdf'>z</a>"));
    assertThat(report.deadReferences())
        .containsExactly(
            new Finding("a.html, b.html", "refers to no.pdf, which is not in the package"),
            new Finding("b.html", "refers to ../up.pdf, which is outside the package"));
  }

  @ParameterizedTest
  @ValueSource(strings = {"javascript:x()", "vbscript:x", "file:///etc/passwd", "data:text/html,x"})
  void anAddressThatIsNoneOfTheWebNeverBecomesALink(String address) throws Exception {
    ReadingReport report = read(page("a.html", "<a href=\"" + address + "\">go</a>"));
    assertThat(only().html()).isEqualTo("<a href=\"#\">go</a>");
    assertThat(whats(report.deadReferences()))
        .singleElement()
        .asString()
        .contains("none of the web");
  }

  @Test
  void aPictureInTheTextItselfBecomesAFile() throws Exception {
    read(page("a.html", "<img src='data:image/png;base64,iVBORw0KGgo='>"));
    assertThat(References.files(only().html()))
        .extracting(References.ToFile::name)
        .containsExactly("picture.png");
  }

  @Test
  void framesObjectsAndDrawingsAreFindingsAndNothingVanishes() throws Exception {
    ReadingReport report =
        read(
            page(
                    "a.html",
                    "<p>See</p><iframe src='https://film.example/7' title='The rig'></iframe>"
                        + "<svg></svg><object data='t.pdf'><p>else</p></object>")
                .with("t.pdf", "%PDF"));
    assertThat(whats(report.adjusted()))
        .anyMatch(w -> w.contains("https://film.example/7"))
        .anyMatch(w -> w.contains("<svg>"))
        .anyMatch(w -> w.contains("a file in a frame"));
    assertThat(report.frameHosts()).containsEntry("film.example", 1);
    assertThat(only().html()).contains("<iframe");
    assertThat(Html.safe(only().html()))
        .contains(">The rig</a>")
        .contains(">t.pdf</a>")
        .contains("<p>else</p>")
        .doesNotContain("iframe");
  }

  @Test
  void anApplicationIsNotAnEmptyPage() throws Exception {
    ReadingReport report =
        read(
            Package.cc12(
                    ITEM,
                    resource(
                        "r",
                        "associatedcontent/imscc_xmlv1p2/learning-application-resource",
                        "app/run.html"))
                .with("app/run.html", "<div id=app></div><script src=app.js></script>"));
    assertThat(only()).isInstanceOf(Content.File.class);
    assertThat(whats(report.notUnderstood())).singleElement().asString().contains("application");
  }

  @Test
  void anItemMarkedAsNotVisibleArrivesHidden() throws Exception {
    ReadingReport report =
        read(
            Package.cc12(
                    "<item identifier='i' identifierref='r' isvisible='false'><title>Rigging</title></item>",
                    resource("r", "webcontent", "a.html"))
                .with("a.html", "<p>x</p>"));
    assertThat(memory.titled("Rigging").visibility().shown()).isFalse();
    assertThat(whats(report.adjusted()))
        .containsExactly("is marked as not visible: it arrives hidden");
  }

  @ParameterizedTest
  @ValueSource(strings = {"abc", "10,5", "-4", "1e9", "99999999"})
  void pointsThatAreNoNumberAreAFinding(String points) throws Exception {
    ReadingReport report =
        read(
            Package.cc12(ITEM, resource("r", "assignment_xmlv1p0", "a.xml"))
                .with(
                    "a.xml",
                    "<assignment><gradable points_possible='"
                        + points
                        + "'>true</gradable></assignment>"));
    assertThat(only().grading().points()).isEmpty();
    assertThat(whats(report.adjusted())).singleElement().asString().contains("“" + points + "”");
  }

  @Test
  void oneTornFileDoesNotRefuseThePackage() throws Exception {
    ReadingReport report =
        read(
            Package.cc12(
                    ITEM + "<item identifier='j' identifierref='s'><title>Good</title></item>",
                    resource("r", "imsqti_xmlv1p2/imscc_xmlv1p2/assessment", "q.xml")
                        + resource("s", "webcontent", "b.html"))
                .with("q.xml", "<questestinterop><assess")
                .with("b.html", "<p>good</p>"));
    assertThat(memory.items).extracting(Item::title).containsExactly("Rigging", "Good");
    assertThat(only()).isInstanceOf(Content.File.class);
    assertThat(whats(report.notUnderstood())).singleElement().asString().contains("q.xml, line 1");
  }

  @Test
  void attachmentsArriveWithTheItemAndThoseOfInstructorsApart() throws Exception {
    ReadingReport report =
        read(
            Package.cc12(ITEM, resource("r", "assignment_xmlv1p0", "x/a.xml"))
                .with(
                    "x/a.xml",
                    "<assignment><title>t</title><text texttype='text/html'>Draw.</text>"
                        + "<instructor_text texttype='text/html'>Look for the dimmer.</instructor_text>"
                        + "<attachments><attachment href='../f/plan.pdf' role='All'/>"
                        + "<attachment href='../f/key.pdf' role='Instructor'/></attachments>"
                        + "<gradable points_possible='20'>true</gradable>"
                        + "<submission_formats><format type='file'/><format type='text'/>"
                        + "</submission_formats></assignment>")
                .with("f/plan.pdf", "plan")
                .with("f/key.pdf", "key"));
    Content.Assignment a = (Content.Assignment) only();
    assertThat(a.attached()).extracting(FileRef::name).containsExactly("plan.pdf");
    assertThat(a.grading().handIn())
        .contains(new HandIn(List.of("file", "text"), List.of(), false));
    Item apart = memory.titled("Rigging (for instructors)");
    assertThat(apart.visibility().instructorsOnly()).isTrue();
    assertThat(apart.content().html()).contains("Look for the dimmer.").contains("key.pdf");
    assertThat(report.instructorsOnly()).containsExactly("Rigging (for instructors)");
    assertThat(report.unused()).isZero();
  }

  @Test
  void picturesInsideQuestionsGoWithTheQuiz() throws Exception {
    read(
        Package.cc12(ITEM, resource("r", "imsqti_xmlv1p2/imscc_xmlv1p2/assessment", "x/q.xml"))
            .with(
                "x/q.xml",
                "<questestinterop><assessment ident='a' title='t'><section ident='s'><item ident='i'>"
                    + "<presentation><material><mattext texttype='text/html'>&lt;img"
                    + " src=\"$IMS-CC-FILEBASE$/img/p.png\"&gt;</mattext></material></presentation>"
                    + "</item></section></assessment></questestinterop>")
            .with("img/p.png", "PNG"));
    assertThat(only().attached()).extracting(FileRef::name).containsExactly("p.png");
    byte[] qti = memory.files.get(only().madeOf().orElseThrow().sha256());
    assertThat(StoredQuestions.read("q", qti).set().questions().get(0).html())
        .contains("zref:file/");
  }

  private static final String VARIANT =
      "<resource identifier='r' type='%s' href='m.bin'><file href='m.bin'/><variant"
          + " identifier='v' identifierref='v1'/></resource>";

  @ParameterizedTest
  @CsvSource({"webcontent,FILE,main one", "imsodd_xmlv9,PAGE,cannot be read here"})
  void aVariantStandsInOnlyWhereTheMainOneCannotBeRead(String type, Kind kind, String said)
      throws Exception {
    ReadingReport report =
        read(
            Package.cc12(ITEM, VARIANT.formatted(type) + resource("v1", "webcontent", "v.html"))
                .with("m.bin", "main")
                .with("v.html", "<p>variant</p>"));
    assertThat(memory.items).hasSize(1);
    assertThat(only().kind()).isEqualTo(kind);
    assertThat(whats(report.adjusted())).singleElement().asString().contains(said);
  }

  @Test
  void ofTitlesInSeveralLanguagesOneIsTaken() throws Exception {
    ReadingReport report =
        read(
            Package.of(
                "<manifest xmlns='http://www.imsglobal.org/xsd/imsccv1p2/imscp_v1p1'><metadata>"
                    + "<schema>IMS Common Cartridge</schema><schemaversion>1.9.0</schemaversion>"
                    + "<lom><general><identifier><entry>978-1</entry></identifier><title><string"
                    + " language='de'>Licht</string><string language='en-GB'>Light</string></title>"
                    + "<language>en</language></general></lom></metadata></manifest>"));
    assertThat(report.facts().title()).isEqualTo("Light");
    assertThat(report.facts().identifier()).isEqualTo("978-1");
    assertThat(whats(report.notUnderstood())).singleElement().asString().contains("1.9");
  }

  @Test
  void whatAsksForAuthorisationIsTakenInAndSaysSo() throws Exception {
    ReadingReport report =
        read(
            Package.of(
                    "<manifest xmlns='http://www.imsglobal.org/xsd/imsccv1p2/imscp_v1p1'>"
                        + "<organizations><organization><item>"
                        + ITEM
                        + "<item identifier='j' identifierref='s'><title>Open</title></item></item>"
                        + "</organization></organizations><resources><resource identifier='r'"
                        + " type='webcontent' href='a.html' protected='true'><file href='a.html'/></resource>"
                        + resource("s", "webcontent", "b.html")
                        + "</resources><authorizations access='resource' import='false'>"
                        + "<authorization><cartridgeId>c</cartridgeId><webservice>https://code.example"
                        + "</webservice></authorization></authorizations></manifest>")
                .with("a.html", "<p>a</p>")
                .with("b.html", "<p>b</p>"));
    assertThat(report.restricted())
        .singleElement()
        .satisfies(
            f -> {
              assertThat(f.where()).isEqualTo("Rigging");
              assertThat(f.what()).contains("https://code.example");
            });
    assertThat(memory.titled("Rigging").visibility().asks()).isNotEmpty();
    assertThat(memory.titled("Open").visibility().asks()).isEmpty();
  }

  @Test
  void missingNeedsAndCirclesAreNamed() throws Exception {
    String needs =
        "<resource identifier='%s' type='webcontent' href='a.html'><file href='a.html'/><dependency"
            + " identifierref='%s'/></resource>";
    ReadingReport report =
        read(
            Package.cc12(
                    ITEM,
                    needs.formatted("r", "s")
                        + needs.formatted("s", "r")
                        + needs.formatted("t", "gone"))
                .with("a.html", "<p>a</p>"));
    assertThat(whats(report.deadReferences())).contains("needs resource gone, which is missing");
    assertThat(whats(report.adjusted())).anyMatch(w -> w.contains("needs it in turn"));
  }

  @Test
  void aToolLinkKeepsBothAddressesItsIconAndVendor() throws Exception {
    ReadingReport report =
        read(
            Package.cc12(ITEM, resource("r", "imsbasiclti_xmlv1p0", "l.xml"))
                .with(
                    "l.xml",
                    "<c xmlns:b='http://b' xmlns:p='http://p'><b:title>t</b:title><b:launch_url>"
                        + "http://tool.example/l</b:launch_url><b:secure_launch_url>https://tool.example/l"
                        + "</b:secure_launch_url><b:icon>file:///x</b:icon><b:vendor><p:code>cuebench"
                        + "</p:code><p:name>CueBench</p:name></b:vendor></c>"));
    assertThat(only().launch().address()).isEqualTo("https://tool.example/l");
    assertThat(only().launch().tool().orElseThrow().plain()).isEqualTo("http://tool.example/l");
    assertThat(only().launch().tool().orElseThrow().vendorName()).isEqualTo("CueBench");
    assertThat(only().launch().tool().orElseThrow().icon()).isEmpty();
    assertThat(whats(report.deadReferences())).singleElement().asString().contains("icon");
  }

  @Test
  void aPlainArchiveOfPagesAndFilesIsTakenInByItsFolders() throws Exception {
    ReadingReport report =
        read(
            new Package()
                .with(
                    "Course/Week 1/Welcome.html", "<title>Welcome</title><img src='../img/a.png'>")
                .with("Course/Week 1/Load table.pdf", "%PDF")
                .with("Course/img/a.png", "PNG")
                .with(
                    "Course/quiz.xml",
                    "<questestinterop><assessment ident='a' title='Loads'/></questestinterop>")
                .with("Course/course.xml", "<course/>")
                .with("Course/old.imscc", "PK")
                .with("__MACOSX/._x", ""));
    assertThat(memory.items)
        .extracting(Item::title)
        .containsExactlyInAnyOrder("Loads", "Week 1", "Welcome", "Load table.pdf");
    assertThat(report.facts().profile()).isEqualTo(LooseFiles.PROFILE);
    assertThat(report.others().keySet())
        .anyMatch(o -> o.contains("only that platform reads"))
        .anyMatch(o -> o.contains("package of its own"));
  }

  @Test
  void whereNothingCanBeReadTheOtherWayIsNamed() throws Exception {
    Path file = new Package().with("course.xml", "<course/>").with("data/x.dat", "?").write(folder);
    assertThat(
            org.assertj.core.api.Assertions.catchThrowableOfType(
                    CartridgeException.class,
                    () -> CartridgeReader.read(file, Limits.DEFAULT, memory))
                .remedy())
        .contains("take that shell in");
  }

  @Test
  void aManifestInAFolderIsFound() throws Exception {
    Package inner = page("a.html", "<a href='$IMS-CC-FILEBASE$/b.pdf'>b</a>");
    read(
        new Package()
            .with("export/imsmanifest.xml", inner.bytes("imsmanifest.xml"))
            .with("export/a.html", inner.bytes("a.html"))
            .with("export/b.pdf", "%PDF"));
    assertThat(References.files(only().html())).hasSize(1);
  }
}
