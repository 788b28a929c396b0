package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Rosters as registrars send them. */
class RosterIT extends ServerIT {
  private JsonNode take(Map<String, String> files) throws Exception {
    Caller.Answer a = administrator.upload("/api/roster", Samples.zip(files));
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    return a.json();
  }

  private boolean inRoster(String section) {
    return db.select(SECTION.IN_ROSTER)
        .from(SECTION)
        .where(SECTION.SOURCED_ID.eq(section))
        .fetchSingle()
        .value1();
  }

  private static Map<String, String> changes(String classes, String enrollments) {
    Map<String, String> files = new HashMap<>();
    files.put(
        "manifest.csv",
        "propertyName,value\nfile.orgs,absent\nfile.academicSessions,absent\nfile.courses,absent\n"
            + "file.classes,delta\nfile.users,absent\nfile.enrollments,delta\n");
    files.put(
        "classes.csv",
        "sourcedId,status,title,classCode,courseSourcedId,schoolSourcedId,termSourcedIds\n"
            + classes);
    files.put(
        "enrollments.csv", "sourcedId,status,classSourcedId,userSourcedId,role\n" + enrollments);
    return files;
  }

  @Test
  void aBundleOfChangesAddsAndEndsSectionsAndLeavesTheRest() throws Exception {
    sections("lgt-d1", "lgt-d2");
    JsonNode report =
        take(
            changes(
                "lgt-d2,tobedeleted,Section,lgt-d2,lgt110,north,t1\n"
                    + "lgt-d3,active,Section,lgt-d3,lgt110,north,t1\n",
                "x,tobedeleted,lgt-d1,u1,teacher\ny,active,lgt-d3,u1,teacher\n"));
    assertThat(report.path("remarks")).isEmpty();
    assertThat(report.path("vanished").asInt()).isEqualTo(1);
    assertThat(List.of(inRoster("lgt-d1"), inRoster("lgt-d2"), inRoster("lgt-d3")))
        .containsExactly(true, false, true);
    assertThat(
            db.select(SECTION.SOURCED_ID)
                .from(SECTION_INSTRUCTOR)
                .join(SECTION)
                .on(SECTION.ID.eq(SECTION_INSTRUCTOR.SECTION_ID))
                .where(SECTION.SOURCED_ID.in("lgt-d1", "lgt-d2", "lgt-d3"))
                .fetch(SECTION.SOURCED_ID))
        .containsExactly("lgt-d3");
  }

  @Test
  void aSectionWithoutShellIsNamedUntilItsShellIsFound() throws Exception {
    sections("lgt-t1");
    take(changes("lgt-t2,active,Late section,lgt-t2,lgt110,north,t1\n", ""));
    JsonNode before = coordinator.get("/api/platforms").json();
    assertThat(before.path("unheld"))
        .anyMatch(u -> u.path("sourcedId").asString().equals("lgt-t2"));
    String ties =
        "/api/platforms/" + before.path("platforms").get(0).path("id").asString() + "/ties";
    int without = before.path("withoutShell").asInt();
    assertThat(coordinator.post(ties, "").json().path("withoutShell").asInt()).isEqualTo(without);
    Practice.makeShell("lgt-t2");
    assertThat(coordinator.post(ties, "").json().path("withoutShell").asInt())
        .isEqualTo(without - 1);
    assertThat(coordinator.get("/api/platforms").json().path("unheld"))
        .noneMatch(u -> u.path("sourcedId").asString().equals("lgt-t2"));
  }

  @Test
  void aTeacherWhoWasAdmittedByHandIsTheSamePersonAndSharedAddressesAreTold() throws Exception {
    sections("lgt-e1");
    another("both@x.example", Role.COORDINATOR);
    Map<String, String> files = new HashMap<>(changes("", ""));
    files.put(
        "manifest.csv", files.get("manifest.csv").replace("file.users,absent", "file.users,bulk"));
    files.put(
        "users.csv",
        "sourcedId,givenName,familyName,email,role\nu7,Bo,Th,BOTH@x.example,teacher\n"
            + "u8,Al,One,shared@x.example,teacher\nu9,Be,Two,shared@x.example,teacher\n");
    files.merge(
        "enrollments.csv",
        "a,active,lgt-e1,u7,teacher\nb,active,lgt-e1,u8,teacher\nc,active,lgt-e1,u9,teacher\n",
        String::concat);
    JsonNode report = take(files);
    assertThat(report.path("remarks")).hasSize(1);
    assertThat(report.path("remarks").get(0).path("problem").asString()).contains("shared@x");
    assertThat(
            db.select(PERSON.ROLE)
                .from(PERSON)
                .where(PERSON.SOURCED_ID.eq("u7"))
                .fetchSingle(PERSON.ROLE))
        .isEqualTo("COORDINATOR");
    take(files);
    assertThat(db.fetchCount(PERSON, PERSON.SOURCED_ID.in("u7", "u8", "u9"))).isEqualTo(3);
  }

  @Test
  void aRosterThatCannotBeReadChangesNothing() throws Exception {
    sections("lgt-f1");
    int before = db.fetchCount(SECTION);
    Map<String, String> files =
        new HashMap<>(changes("lgt-f2,active,\"open,lgt-f2,lgt110,north,t1\n", ""));
    Caller.Answer a = administrator.upload("/api/roster", Samples.zip(files));
    assertThat(a.status()).isEqualTo(422);
    assertThat(a.json().path("detail").asString()).contains("classes.csv");
    assertThat(db.fetchCount(SECTION)).isEqualTo(before);
  }
}
