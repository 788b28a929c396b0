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
    Caller.Answer a = administrator.roster(Samples.zip(files));
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
        "propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\nfile.orgs,absent\nfile.academicSessions,absent\nfile.courses,absent\n"
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
    assertThat(report.path("ended").asInt()).isEqualTo(1);
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
    assertThat(report.path("remarks").get(0).path("line").asLong()).isEqualTo(4);
    assertThat(
            db.select(PERSON.ROLE)
                .from(PERSON)
                .where(PERSON.SOURCED_ID.eq("u7"))
                .fetchSingle(PERSON.ROLE))
        .isEqualTo(Role.COORDINATOR);
    take(files);
    assertThat(db.fetchCount(PERSON, PERSON.SOURCED_ID.in("u7", "u8", "u9"))).isEqualTo(3);
  }

  @Test
  void aRosterThatCannotBeReadChangesNothing() throws Exception {
    sections("lgt-f1");
    int before = db.fetchCount(SECTION);
    Map<String, String> files =
        new HashMap<>(changes("lgt-f2,active,\"open,lgt-f2,lgt110,north,t1\n", ""));
    Caller.Answer a = administrator.roster(Samples.zip(files));
    assertThat(a.status()).isEqualTo(422);
    assertThat(a.json().path("detail").asString()).contains("classes.csv");
    assertThat(db.fetchCount(SECTION)).isEqualTo(before);
  }

  private static Map<String, String> full(
      String courses, String classes, String users, String enrollments) {
    Map<String, String> files = new HashMap<>();
    files.put("manifest.csv", "propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\n");
    files.put(
        "orgs.csv",
        "sourcedId,name,type\nnorth,North,school\nlight,Lighting,department\nsound,Sound,department\n");
    files.put(
        "academicSessions.csv",
        "sourcedId,title,type,startDate,endDate\nro,Roster term,term,2027-01-07,2027-05-18\n");
    files.put("courses.csv", "sourcedId,title,courseCode,orgSourcedId\n" + courses);
    files.put(
        "classes.csv",
        "sourcedId,title,classCode,courseSourcedId,schoolSourcedId,termSourcedIds\n" + classes);
    files.put("users.csv", "sourcedId,givenName,familyName,email,role\n" + users);
    files.put(
        "enrollments.csv", "sourcedId,classSourcedId,userSourcedId,role,primary\n" + enrollments);
    return files;
  }

  private static String classes(int from, int to) {
    StringBuilder s = new StringBuilder();
    for (int i = from; i < to; i++) {
      s.append("ro").append(i).append(",Section,ro").append(i).append(",lgt110,north,ro\n");
    }
    return s.toString();
  }

  private static final String LIGHT = "lgt110,Light,LGT 110,light\n";

  @Test
  void aRosterIsSeenBeforeItIsTakenAndAsksBeforeItEndsMuch() throws Exception {
    sections("lgt-ra1");
    db.update(SECTION)
        .set(SECTION.IN_ROSTER, false)
        .where(SECTION.SOURCED_ID.startsWith("ro"))
        .execute();
    db.update(SECTION)
        .set(SECTION.IN_ROSTER, false)
        .where(SECTION.SOURCED_ID.eq("snd-new"))
        .execute();
    String teachers = "t1,Tilda,Stage,tilda@x.example,teacher\nt2,Tom,Fly,tom@x.example,teacher\n";
    String enrolled =
        "e1,ro0,t2,teacher,false\ne2,ro0,t1,teacher,true\ne3,ro0,s1,student,\ne4,ro0,s2,student,\n";
    Map<String, String> files = full(LIGHT, classes(0, 10), teachers, enrolled);
    JsonNode seen = coordinator.upload("/api/roster", Samples.zip(files)).json();
    assertThat(seen.path("added").asInt()).isEqualTo(10);
    assertThat(seen.path("asks")).isEmpty();
    assertThat(db.fetchCount(SECTION, SECTION.SOURCED_ID.eq("ro5"))).isZero();
    String take = "/api/roster/" + seen.path("id").asString() + "/take";
    assertThat(administrator.post(take, "{}").status()).isEqualTo(404); // another's
    assertThat(coordinator.post(take, "{}").status()).isEqualTo(200);
    assertThat(coordinator.post(take, "{}").status()).isEqualTo(404); // taken already
    JsonNode section =
        coordinator
            .get(
                "/api/sections/"
                    + db.select(SECTION.ID)
                        .from(SECTION)
                        .where(SECTION.SOURCED_ID.eq("ro0"))
                        .fetchSingle()
                        .value1())
            .json();
    assertThat(section.path("instructors").asString()).isEqualTo("Tilda Stage, Tom Fly");
    assertThat(section.path("students").asInt()).isEqualTo(2);

    byte[] less = Samples.zip(full(LIGHT, classes(0, 5), teachers, ""));
    JsonNode much = coordinator.upload("/api/roster", less).json();
    assertThat(much.path("asks"))
        .extracting(JsonNode::asString)
        .containsExactly("It ends 5 of 10 sections.");
    assertThat(much.path("strippedOnes").get(0).asString()).isEqualTo("ro0");
    take = "/api/roster/" + much.path("id").asString() + "/take";
    Caller.Answer refused = coordinator.post(take, "{}");
    assertThat(refused.status()).isEqualTo(409);
    assertThat(refused.json().path("detail").asString()).contains("It ends 5 of 10 sections.");
    assertThat(inRoster("ro7")).isTrue();
    assertThat(coordinator.post(take, "{\"despite\":true}").status()).isEqualTo(200);
    assertThat(inRoster("ro7")).isFalse();
  }

  @Test
  void whatChangedBetweenLookingAndTakingIsSeenAgain() throws Exception {
    sections("lgt-rb1");
    JsonNode seen =
        coordinator.upload("/api/roster", Samples.zip(full(LIGHT, classes(20, 22), "", ""))).json();
    administrator.roster(Samples.zip(full(LIGHT, classes(20, 21), "", "")));
    Caller.Answer a =
        coordinator.post(
            "/api/roster/" + seen.path("id").asString() + "/take", "{\"despite\":true}");
    assertThat(a.status()).isEqualTo(409);
    assertThat(a.json().path("detail").asString()).contains("has changed since");
  }

  @Test
  void aRosterActsWithinTheReachOfWhoBringsIt() throws Exception {
    sections("lgt-rc1", "snd-rc2");
    another("boss@x.example", Role.ADMINISTRATOR);
    Caller signe = another("signe-r@x.example", Role.COORDINATOR, "sound");
    Map<String, String> files =
        full(
            "lgt110,Mine now,LGT 110,sound\nsnd120,Sound,SND 120,sound\n",
            "lgt-rc1,Taken,lgt-rc1,lgt110,north,t1\nsnd-new,Sound,snd-new,snd120,north,ro\n",
            "b1,Not,Boss,boss@x.example,teacher\n",
            "e1,lgt-rc1,b1,teacher,true\ne2,snd-new,b1,teacher,true\n");
    files.put(
        "academicSessions.csv",
        "sourcedId,title,type,startDate,endDate\nt1,Mine,term,2026-09-07,2026-12-18\n"
            + "ro,Roster term,term,2027-01-07,2027-05-18\n");
    Caller.Answer a = signe.roster(Samples.zip(files));
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    assertThat(a.json().path("remarks"))
        .extracting(r -> r.path("problem").asString())
        .contains("1 course is not in your programs.", "1 section is not in your programs.");
    assertThat(
            db.fetchSingle(
                    "select p.sourced_id from course c join program p on p.id = c.program_id where c.sourced_id = 'lgt110'")
                .get(0))
        .isEqualTo("light");
    assertThat(inRoster("lgt-rc1")).isTrue();
    assertThat(db.fetchSingle("select title from term where sourced_id = 't1'").get(0))
        .isEqualTo("Autumn");
    assertThat(
            db.select(PERSON.NAME)
                .from(PERSON)
                .where(PERSON.EMAIL.eq("boss@x.example"))
                .fetchSingle()
                .value1())
        .isEqualTo("boss@x.example");
    assertThat(signe.get("/api/courses").json())
        .extracting(c -> c.path("code").asString())
        .containsExactly("SND 120");
  }

  @Test
  void aSectionOfAGradingPeriodGoesByTheCalendarOfThatPartAndStaysWherePeoplePutIt()
      throws Exception {
    sections("lgt-rp0");
    Map<String, String> files =
        full(
            "lgt110,Stage Lighting,LGT 110,light\n",
            "lgt-rp1,Whole,lgt-rp1,lgt110,north,rp\nlgt-rp2,Half,lgt-rp2,lgt110,north,rp2\n"
                + "lgt-rp3,Both,lgt-rp3,lgt110,north,\"rp1,rp2\"\n",
            "",
            "");
    files.put(
        "academicSessions.csv",
        "sourcedId,title,type,startDate,endDate,parentSourcedId\n"
            + "rp,Winter,term,2029-01-08,2029-04-27,\n"
            + "rp1,First half,gradingPeriod,2029-01-08,2029-03-02,rp\n"
            + "rp2,Second half,gradingPeriod,2029-03-05,2029-04-27,rp\n");
    Caller.Answer a = administrator.roster(Samples.zip(files));
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    assertThat(a.json().path("inParts").asInt()).isEqualTo(1);
    String goes =
        "select s.code || ' ' || coalesce(c.name || ' ' || c.first_day, 'whole') from section s left"
            + " join section_calendar x on x.section_id = s.id left join calendar c on c.id ="
            + " x.calendar_id where s.code like 'lgt-rp_' and s.code <> 'lgt-rp0' order by s.code";
    assertThat(db.fetch(goes).getValues(0, String.class))
        .containsExactly("lgt-rp1 whole", "lgt-rp2 Second half 2029-03-05", "lgt-rp3 whole");

    db.execute("update calendar set first_day = '2029-03-06' where name = 'Second half'");
    administrator.roster(Samples.zip(files));
    assertThat(db.fetch(goes).getValues(0, String.class))
        .contains("lgt-rp2 Second half 2029-03-06");

    db.execute(
        "insert into section_meeting select id, 7, '10:00', '11:00' from section where code ="
            + " 'lgt-rp1'");
    files.computeIfPresent("classes.csv", (f, text) -> text.replace("north,rp\n", "north,rp2\n"));
    administrator.roster(Samples.zip(files));
    assertThat(db.fetch(goes).getValues(0, String.class))
        .as("it might never meet in the part")
        .contains("lgt-rp1 whole");
  }
}
