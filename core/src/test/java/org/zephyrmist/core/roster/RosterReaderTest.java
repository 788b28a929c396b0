package org.zephyrmist.core.roster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RosterReaderTest {
  @TempDir Path folder;
  private final Map<String, String> files = new LinkedHashMap<>();

  RosterReaderTest() {
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
        out.write(f.getValue().getBytes(StandardCharsets.UTF_8));
        out.closeEntry();
      }
    }
    return RosterReader.read(zip);
  }

  @Test
  void aBundleIsReadWithoutRemarks() throws Exception {
    Roster r = read();
    assertThat(r.sections())
        .singleElement()
        .satisfies(s -> assertThat(s.code()).isEqualTo("110-01"));
    assertThat(r.enrollments()).hasSize(1);
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
}
