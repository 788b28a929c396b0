package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.INTAKE;
import static org.zephyrmist.server.db.Tables.INTAKE_PART;
import static org.zephyrmist.server.db.Tables.PERSON;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.UUID;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.server.cartridge.IntakeState;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Packages that come at the same time, and what is kept of them. */
class IntakeIT extends ServerIT {
  private static byte[] packageOf(String title, List<String> names) throws Exception {
    Map<String, String> files = new LinkedHashMap<>();
    files.put(
        "imsmanifest.xml",
        "<manifest xmlns=\"http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1\"><metadata><lom>"
            + "<general><title><string>%s</string></title></general></lom></metadata></manifest>"
                .formatted(title));
    for (String n : names) {
      files.put(n, "same everywhere " + n);
    }
    return Samples.zip(files);
  }

  @Test
  void twoPeopleTakingInTheSameFileAtOnceGetOneSourceAndAreTold() throws Exception {
    Caller other = another("designer2@x.example", Role.DESIGNER);
    byte[] file = packageOf("At once", List.of("a.txt", "b.txt"));
    String mine = takeIn(file, "mine.imscc");
    String theirs =
        other
            .upload("/api/cartridges/intakes?fileName=theirs.imscc", file)
            .json()
            .path("id")
            .asString();
    JsonNode a = read(mine);
    JsonNode b =
        await(
            () -> other.get("/api/cartridges/intakes/" + theirs).json(),
            i -> !i.path("state").asString().equals("READING"));
    assertThat(a.path("edition").asString()).isEqualTo(b.path("edition").asString()).isNotEmpty();
    assertThat(List.of(a.path("knownAlready").asBoolean(), b.path("knownAlready").asBoolean()))
        .containsExactlyInAnyOrder(true, false);
    assertThat(db.fetchCount(EDITION, EDITION.FILE_NAME.in("mine.imscc", "theirs.imscc")))
        .isEqualTo(1);
  }

  @Test
  void packagesThatShareFilesInAnyOrderAreAllTakenIn() throws Exception {
    List<String> names = new ArrayList<>();
    for (int i = 0; i < 2_500; i++) {
      names.add("shared" + i + ".txt");
    }
    List<String> backwards = new ArrayList<>(names);
    Collections.reverse(backwards);
    List<String> begun = new ArrayList<>();
    for (int i = 0; i < 3; i++) {
      begun.add(takeIn(packageOf("Forth " + i, names), "f" + i + ".imscc"));
      begun.add(takeIn(packageOf("Back " + i, backwards), "b" + i + ".imscc"));
    }
    for (String b : begun) {
      assertThat(read(b).path("state").asString()).isEqualTo("DONE");
    }
  }

  @Test
  void everyFileOfAPackageIsKeptUnderItsPath() throws Exception {
    byte[] noise = new byte[2 << 20];
    new Random(5).nextBytes(noise);
    String large = HexFormat.of().formatHex(noise);
    byte[] file =
        Samples.zip(
            Map.of(
                "imsmanifest.xml",
                "<manifest xmlns=\"http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1\"/>",
                "spare/Größe.bin",
                large));
    JsonNode intake = read(takeIn(file, "kept.imscc"));
    JsonNode files =
        coordinator
            .get("/api/cartridges/editions/" + intake.path("edition").asString() + "/files")
            .json();
    assertThat(files).hasSize(2);
    JsonNode spare = files.get(1);
    assertThat(spare.path("path").asString()).isEqualTo("spare/Größe.bin");
    assertThat(coordinator.get(spare.path("address").asString()).bytes())
        .isEqualTo(large.getBytes(StandardCharsets.UTF_8));
  }

  /** An intake as a server leaves it that died before its reading was on the queue again. */
  private String left(byte[] file, boolean withPackage) {
    UUID id = UUID.randomUUID();
    db.insertInto(INTAKE)
        .set(INTAKE.ID, id)
        .set(INTAKE.FILE_NAME, "left.imscc")
        .set(INTAKE.SIZE, (long) file.length)
        .set(INTAKE.SHA256, Fingerprint.sha256().digest(file))
        .set(
            INTAKE.PERSON_ID,
            db.select(PERSON.ID).from(PERSON).where(PERSON.EMAIL.eq("coordinator@x.example")))
        .set(INTAKE.STATE, IntakeState.READING)
        .set(INTAKE.STARTED_AT, OffsetDateTime.now().minusMinutes(5))
        .execute();
    if (withPackage) {
      int half = file.length / 2;
      part(id, 0, Arrays.copyOfRange(file, 0, half));
      part(id, 1, Arrays.copyOfRange(file, half, file.length));
    }
    return id.toString();
  }

  private void part(UUID intake, int n, byte[] data) {
    db.insertInto(INTAKE_PART).values(intake, n, data).execute();
  }

  @Test
  void anIntakeWhoseServerDiedGoesOnOnAnother() throws Exception {
    JsonNode intake = read(left(packageOf("Left behind", List.of("a.txt")), true));
    assertThat(intake.path("state").asString()).isEqualTo("DONE");
    assertThat(db.fetchCount(INTAKE_PART)).isZero();
  }

  @Test
  void anIntakeWhosePackageIsGoneIsTold() throws Exception {
    JsonNode intake = read(left(packageOf("Lost", List.of("a.txt")), false));
    assertThat(intake.path("state").asString()).isEqualTo("REFUSED");
    assertThat(intake.path("remedy").asString()).isEqualTo("Take the file in again.");
  }

  @Test
  void aPackageThatEndsItsServerEachTimeIsNotReadForEver() throws Exception {
    String id = left(packageOf("Poison", List.of("a.txt")), true);
    db.update(INTAKE).set(INTAKE.TRIES, 3).where(INTAKE.ID.eq(UUID.fromString(id))).execute();
    assertThat(read(id).path("problem").asString()).contains("3 times");
  }

  @Test
  void anUploadThatIsCutOffLeavesNoFile() throws Exception {
    long before = temporary();
    try (java.net.Socket s = new java.net.Socket("127.0.0.1", port)) {
      s.getOutputStream()
          .write(
              ("POST /api/cartridges/intakes?fileName=a HTTP/1.1\r\nHost: x\r\n"
                      + coordinator.headers()
                      + "Content-Type: application/octet-stream\r\nContent-Length: 100000\r\n\r\nPK")
                  .getBytes(StandardCharsets.US_ASCII));
      s.getOutputStream().flush();
      await(IntakeIT::temporary, n -> n > before);
    }
    await(IntakeIT::temporary, n -> n <= before);
  }

  /** Uploads that lie in the folders of servers. */
  private static long temporary() {
    try (Stream<Path> all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
      return all.filter(p -> p.getFileName().toString().startsWith("zephyrmist-work-"))
          .map(p -> p.toFile().list((d, n) -> n.startsWith("package-")))
          .filter(Objects::nonNull)
          .mapToLong(names -> names.length)
          .sum();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
