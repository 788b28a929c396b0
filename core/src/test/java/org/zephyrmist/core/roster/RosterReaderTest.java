package org.zephyrmist.core.roster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RosterReaderTest {
  private static final Present PRESENT =
      new Present(
          Map.of("light", "Lighting"),
          Map.of("north", "North Campus"),
          Map.of(
              "au26",
              new Roster.Term(
                  "au26",
                  "Autumn 2026",
                  java.time.LocalDate.of(2026, 9, 7),
                  java.time.LocalDate.of(2026, 12, 18))),
          Map.of("lgt110", new Roster.Course("lgt110", "LGT 110", "Light", "light")),
          Map.of("c1", kept("c1"), "c7", kept("c7")),
          Map.of(),
          Map.of());

  private static Present.Kept kept(String id) {
    return new Present.Kept(
        new Roster.Section(id, "Light", id, "lgt110", "north", Optional.of("au26")),
        true,
        Set.of());
  }

  @TempDir Path folder;
  private final Map<String, String> files = new LinkedHashMap<>();
  private boolean latin;
  private Present known = Present.NOTHING;

  RosterReaderTest() {
    files.put("manifest.csv", "propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\n");
    files.put(
        "orgs.csv", "sourcedId,name,type\nnorth,North Campus,school\nlight,Lighting,department\n");
    files.put(
        "academicSessions.csv",
        "sourcedId,title,type,startDate,endDate\nau26,Autumn 2026,term,2026-09-07,2026-12-18\n");
    files.put(
        "courses.csv",
        "sourcedId,title,courseCode,orgSourcedId\nlgt110,Stage Lighting Fundamentals,LGT 110,light\n");
    files.put(
        "classes.csv",
        "sourcedId,title,classCode,courseSourcedId,schoolSourcedId,termSourcedIds\n"
            + "c1,Stage Lighting,110-01,lgt110,north,au26\n");
    files.put(
        "users.csv",
        "sourcedId,givenName,familyName,email,role\nu1,Agnes,Pell,a.pell@larkmoor.example,teacher\n");
    files.put("enrollments.csv", "sourcedId,classSourcedId,userSourcedId,role\ne1,c1,u1,teacher\n");
  }

  private Roster read() throws RosterException, IOException {
    Path zip = folder.resolve("roster.zip");
    try (ZipOutputStream out = new ZipOutputStream(Files.newOutputStream(zip))) {
      for (Map.Entry<String, String> f : files.entrySet()) {
        out.putNextEntry(new ZipEntry(f.getKey()));
        out.write(
            f.getValue().getBytes(latin ? StandardCharsets.ISO_8859_1 : StandardCharsets.UTF_8));
        out.closeEntry();
      }
    }
    return RosterReader.read(zip, known);
  }

  @Test
  void aBundleIsReadWithoutRemarks() throws Exception {
    Roster r = read();
    assertThat(r.sections())
        .singleElement()
        .satisfies(s -> assertThat(s.code()).isEqualTo("110-01"));
    assertThat(r.teaching()).hasSize(1);
    assertThat(r.remarks()).isEmpty();
  }

  @Test
  void byteOrderMarkCrlfQuotedCommasAndLineBreaksAreRead() throws Exception {
    files.put(
        "courses.csv",
        "\uFEFFsourcedId,title,courseCode,orgSourcedId,extra\r\n"
            + "lgt110,\"Light, \"\"live\"\"\r\nand still\",LGT 110,light,x\r\n");
    assertThat(read().courses().get(0).title()).isEqualTo("Light, \"live\"\r\nand still");
  }

  @Test
  void aBadDateIsRemarkedWithFileLineAndRemedyAndTheGoodRowsAreTaken() throws Exception {
    files.merge("academicSessions.csv", "sp27,Spring,term,soon,2027-05-01\n", String::concat);
    Roster r = read();
    assertThat(r.terms()).hasSize(1);
    assertThat(r.remarks())
        .singleElement()
        .satisfies(
            m -> {
              assertThat(m.file()).isEqualTo("academicSessions.csv");
              assertThat(m.line()).isEqualTo(3);
              assertThat(m.problem()).contains("startDate");
            });
  }

  @Test
  void aSectionOfAnUnknownCourseIsRemarkedNotDroppedSilently() throws Exception {
    files.merge("classes.csv", "c2,Ghost,110-02,nope,north,au26\n", String::concat);
    Roster r = read();
    assertThat(r.sections()).hasSize(1);
    assertThat(r.remarks())
        .singleElement()
        .satisfies(m -> assertThat(m.problem()).contains("nope"));
  }

  @Test
  void aDoubledIdentifierIsTakenOnceAndRemarked() throws Exception {
    files.merge("users.csv", "u1,Agnes,Pell,x@larkmoor.example,teacher\n", String::concat);
    Roster r = read();
    assertThat(r.people()).hasSize(1);
    assertThat(r.remarks()).hasSize(1);
  }

  @Test
  void optionalFilesMayBeMissingButClassesMayNot() throws Exception {
    files.remove("users.csv");
    files.remove("enrollments.csv");
    assertThat(read().people()).isEmpty();
    files.remove("classes.csv");
    assertThatThrownBy(this::read)
        .isInstanceOf(RosterException.class)
        .hasMessageContaining("classes.csv");
  }

  private static Set<String> problems(Roster r) {
    return r.remarks().stream()
        .map(m -> m.file() + " " + m.line() + ": " + m.problem())
        .collect(Collectors.toSet());
  }

  @Test
  void everyRowThatCannotBeTakenIsReportedWithItsLineAndTheGoodOnesAreTaken() throws Exception {
    files.merge(
        "classes.csv",
        "c2,\"Two\nlines\",110-02,lgt110,north,au26\n"
            + "c3,No term,110-03,lgt110,north,\n"
            + "c4,Odd term,110-04,lgt110,north,xx99\n"
            + "c5,Two terms,110-05,lgt110,north,\"au26,sp27\"\n"
            + "c6,No school,110-06,lgt110,nowhere,au26\n"
            + ",No id,110-07,lgt110,north,au26\n"
            + "c8,Short row\n",
        String::concat);
    Roster r = read();
    assertThat(r.sections())
        .extracting(Roster.Section::id)
        .containsExactly("c1", "c2", "c3", "c4", "c5");
    assertThat(problems(r))
        .containsExactlyInAnyOrder(
            "classes.csv 5: The class names no academic session.",
            "classes.csv 6: The class names academic session xx99, which nothing explains.",
            "classes.csv 8: The row names school nowhere, which the bundle does not hold.",
            "classes.csv 9: sourcedId is empty or missing.",
            "classes.csv 10: courseSourcedId is empty or missing.");
  }

  private void delta(String classes) {
    files.keySet().removeIf(f -> !f.equals("users.csv"));
    files.put(
        "manifest.csv",
        "propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\nfile.orgs,absent\nfile.academicSessions,absent\n"
            + "file.courses,absent\nfile.classes,delta\nfile.users,bulk\nfile.enrollments,delta\n");
    files.put(
        "classes.csv",
        "sourcedId,status,dateLastModified,title,classCode,courseSourcedId,schoolSourcedId,"
            + "termSourcedIds\n"
            + classes);
    files.put(
        "enrollments.csv",
        "sourcedId,status,classSourcedId,userSourcedId,role\n"
            + "e8,active,c7,u1,teacher\ne1,tobedeleted,c1,u1,teacher\n");
    known = PRESENT;
  }

  @Test
  void aBundleOfChangesRefersToWhatIsHereAndSaysWhatGoes() throws Exception {
    delta(
        "c9,active,2026-09-01,New,110-09,lgt110,north,au26\n"
            + "c1,tobedeleted,2026-09-01,Old,110-01,lgt110,north,au26\n");
    Roster r = read();
    assertThat(r.remarks()).isEmpty();
    assertThat(r.sections()).extracting(Roster.Section::id).containsExactly("c9");
    assertThat(r.gone().otherSections()).isFalse();
    assertThat(r.gone().sections()).containsExactly("c1");
    assertThat(r.gone().teaching()).containsExactly(new Roster.Teaching("c1", "u1", false));
    assertThat(r.teaching()).containsExactly(new Roster.Teaching("c7", "u1", false));
  }

  @Test
  void aBundleInFullMeansThatWhatItLacksIsGone() throws Exception {
    assertThat(read().gone().otherSections()).isTrue();
  }

  @Test
  void filesThatAreNotUtf8AreRefused() throws Exception {
    files.put("orgs.csv", "sourcedId,name,type\nnorth,Gr\u00f6\u00dfe,school\n");
    latin = true;
    assertThatThrownBy(this::read)
        .isInstanceOf(RosterException.class)
        .hasMessageContaining("orgs.csv is not in UTF-8");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {"c2,\"open,110-02,lgt110,north,au26\n", "c2,\"a\"b,1,lgt110,north,au26\n"})
  void quotationMarksThatDoNotMatchAreRefusedWithTheFile(String row) {
    files.merge("classes.csv", row, String::concat);
    assertThatThrownBy(this::read)
        .isInstanceOf(RosterException.class)
        .hasMessageContaining("classes.csv is not well-formed");
  }

  @Test
  void anEndlessRowIsRefusedAndManyBadRowsAreCounted() throws Exception {
    files.merge("classes.csv", "c,x\n".repeat(5_000), String::concat);
    assertThat(read().remarks()).hasSize(1_001);
    files.put("users.csv", "sourcedId,givenName,familyName\n" + "x".repeat(3 << 20));
    assertThatThrownBy(this::read)
        .isInstanceOf(RosterException.class)
        .hasMessageContaining("million characters");
  }

  private void refused(String words) {
    assertThatThrownBy(this::read).isInstanceOf(RosterException.class).hasMessageContaining(words);
  }

  @Test
  void whatIsWrongWithAFileIsOneFaultAndNotOneOfEachRow() throws Exception {
    files.put("classes.csv", "id,name\n" + "c,x\n".repeat(500));
    refused("classes.csv has no column classes".substring(0, 24));
    files.put("classes.csv", "sourcedId,title,course,school\nc1,Light,lgt110,north\n");
    refused("no column courseSourcedId, schoolSourcedId");
  }

  @Test
  void aManifestIsHeldToItsWord() throws Exception {
    files.put("manifest.csv", "propertyName,value\noneroster.version,2.0\n");
    refused("version 2.0");
    files.put("manifest.csv", "propertyName,value\nfile.users,bulk\nfile.demographics,bulk\n");
    refused("announces demographics.csv");
    files.put("manifest.csv", "propertyName,value\nfile.users,some\n");
    refused("bulk, delta or absent");
    files.remove("manifest.csv");
    assertThat(problems(read()))
        .containsExactly(
            "manifest.csv 0: The bundle has no manifest.csv, so it does not say which files are in"
                + " full.");
  }

  @Test
  void aStatusInAFullFileOddColumnsAndWhatIsNotUsedAreToldOnceEach() throws Exception {
    files.put(
        "classes.csv",
        "sourcedId,status,title,classCode,courseSourcedId,schoolSourcedId,termSourcedIds,mood\n"
            + "c1,active,Light,110-01,lgt110,north,au26,good\n"
            + "c2,tobedeleted,Light,110-02,lgt110,north,au26,bad\n");
    files.put("results.csv", "sourcedId\n1\n");
    files.put("lineItems.csv", "sourcedId\n1\n");
    Roster r = read();
    assertThat(problems(r))
        .containsExactlyInAnyOrder(
            "classes.csv 0: It has columns that are not those of the standard: mood.",
            "classes.csv 2: 2 rows have a status, though the file is in full.",
            "lineItems.csv, results.csv 0: Nothing of this is needed here.");
    assertThat(r.sections()).extracting(Roster.Section::id).containsExactly("c1");
    assertThat(r.gone().sections()).containsExactly("c2");
  }

  @Test
  void aDistrictIsNoCampusAndAGradingPeriodIsPartOfItsTerm() throws Exception {
    files.merge("orgs.csv", "d,District,district\ns,State,state\n", String::concat);
    files.put(
        "academicSessions.csv",
        "sourcedId,title,type,startDate,endDate,parentSourcedId\n"
            + "y,2026,schoolYear,2026-08-01,2027-07-31,\n"
            + "au26,Autumn 2026,term,2026-09-07,2026-12-18,y\n"
            + "g1,First half,gradingPeriod,2026-09-07,2026-10-30,au26\n");
    files.put(
        "classes.csv",
        "sourcedId,title,classCode,courseSourcedId,schoolSourcedId,termSourcedIds\n"
            + "c1,Light,110-01,lgt110,north,g1\n"
            + "c2,Light,110-02,lgt110,d,g1\n"
            + "c3,Light,110-03,lgt110,north,y\n");
    Roster r = read();
    assertThat(r.campuses()).extracting(Roster.Org::id).containsExactly("north");
    assertThat(r.terms()).extracting(Roster.Term::id).containsExactly("au26");
    assertThat(r.sections())
        .extracting(s -> s.id() + " " + s.term().orElse("none"))
        .containsExactly("c1 au26", "c3 none");
    assertThat(r.parts())
        .as("a class of a grading period goes by it; one of no term does not")
        .isEqualTo(
            Map.of(
                "c1",
                new Roster.Part(
                    "au26",
                    "First half",
                    LocalDate.parse("2026-09-07"),
                    LocalDate.parse("2026-10-30"))));
    assertThat(problems(r))
        .contains(
            "orgs.csv 0: 1 organisation is of kind district.",
            "classes.csv 4: The class names academic session y, which is no term.");
  }

  @Test
  void whoIsDisabledDoesNotTeachThePrimaryTeacherIsKeptAndStudentsAreCounted() throws Exception {
    files.put(
        "users.csv",
        "sourcedId,enabledUser,givenName,familyName,email,role\n"
            + "u1,true,Agnes,Pell,a@x.example,teacher\n"
            + "u2,false,Otto,Off,o@x.example,teacher\n"
            + "s1,true,Sam,Student,s@x.example,student\n");
    files.put(
        "enrollments.csv",
        "sourcedId,classSourcedId,userSourcedId,role,primary\n"
            + "e1,c1,u1,teacher,true\ne2,c1,u2,teacher,false\ne3,c1,s1,student,\ne4,c1,s2,student,\n");
    files.put("roles.csv", "sourcedId,userSourcedId,roleType,role\nr1,u1,primary,student\n");
    Roster r = read();
    assertThat(r.teaching()).containsExactly(new Roster.Teaching("c1", "u1", true));
    assertThat(r.people()).extracting(Roster.Person::id).doesNotContain("s1");
    assertThat(r.students()).containsExactly(Map.entry("c1", 2));
    assertThat(r.remarks())
        .extracting(m -> m.file() + " " + m.sourcedId() + ": " + m.problem())
        .containsExactlyInAnyOrder(
            "enrollments.csv e2: User u2 is disabled, so teaches nothing.",
            "roles.csv u1: The user teaches a class and is only a student in this file.");
  }

  @Test
  void aYearThatNoCalendarHasIsNoDate() throws Exception {
    files.merge(
        "academicSessions.csv", "x,X,term,+999999999-01-01,+999999999-02-01\n", String::concat);
    assertThat(read().remarks()).extracting(Roster.Remark::sourcedId).containsExactly("x");
  }
}
