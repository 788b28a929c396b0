package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.TOOL_WRITE;
import static org.zephyrmist.server.db.Tables.VERSION_LINK;
import static org.zephyrmist.server.db.Tables.VERSION_LOOKED;

import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Qualifier;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.queue.Job;
import tools.jackson.databind.JsonNode;

/** Connections of tools, applied to shells, and what state their links are in. */
class ToolsIT extends ToolsStage {
  @Autowired
  @Qualifier("findLinks")
  private Job find;

  private static final String CUEBENCH = "cuebench.example";
  private static final String ROPEWALK = "ropewalk.example";
  private static final String TAGOUT = "tagout.example";
  private static final String PROMPTDESK = "promptdesk.example";

  @BeforeAll
  static void tools() throws Exception {
    PracticeTools.start(POSTGRES, DATABASE);
    PracticeTools.key(CUEBENCH, "larkmoor", "practice");
    PracticeTools.key(ROPEWALK, "larkmoor", "practice");
    PracticeTools.knobs(TAGOUT, false, 0, 0, "");
    PracticeTools.knobs(ROPEWALK, false, 0, 0, "");
  }

  @Test
  void fromDeadToWorkingInOneMoveForAllSections() throws Exception {
    String[] codes = IntStream.range(0, 12).mapToObj(i -> "lgt-tl" + i).toArray(String[]::new);
    List<UUID> to = delivered("TL1", new String[] {ROPEWALK}, codes);
    comes(to.get(0), ROPEWALK, "NOT_CONNECTED NO_CONNECTION");
    UUID c =
        add(
            connection(
                "Ropewalk Loads",
                ROPEWALK,
                "KEY_AND_SECRET",
                "\"CREDENTIALS\"",
                ",\"key\":\"larkmoor\",\"secret\":\"practice\""));
    assertThat(state(to.get(3), ROPEWALK)).isEqualTo("NOT_CONNECTED NOT_IN_SHELL");
    JsonNode shown = apply(c, to, false);
    assertThat(shown.path("sections").asInt()).isEqualTo(12);
    assertThat(shown.path("links").asInt()).as("one link and one address in a page").isEqualTo(24);
    assertThat(state(to.get(3), ROPEWALK)).isEqualTo("NOT_CONNECTED NOT_IN_SHELL");
    apply(c, to, true);
    for (UUID s : to) {
      comes(s, ROPEWALK, "WORKS WORKS");
    }
    assertThat(PracticeTools.open("lgt-tl7", "Open " + ROPEWALK)).contains("You are in");
  }

  @Test
  void secretsNeverComeBackAndKeysAreForAdministrators() {
    add(
        connection(
            "Secretive",
            "secretive.example",
            "KEY_AND_SECRET",
            "\"CREDENTIALS\"",
            ",\"key\":\"the-key\",\"secret\":\"never-to-be-seen\""));
    String admins = administrator.get("/api/tools?term=" + term()).text();
    String coordinators = coordinator.get("/api/tools?term=" + term()).text();
    assertThat(admins).contains("the-key").doesNotContain("never-to-be-seen");
    assertThat(coordinators).contains("Secretive").doesNotContain("the-key");
    assertThat(
            db.fetch("select * from tool_connection").formatJSON()
                + db.fetch("select * from event").formatJSON())
        .doesNotContain("never-to-be-seen");
    assertThat(
            coordinator
                .post("/api/tools/connections", connection("Mine", "mine.example", "OPEN", "", ""))
                .status())
        .isEqualTo(403);
  }

  @Test
  void anInstructorOpensOnceAndSaysWhichCourse() throws Exception {
    List<UUID> to = delivered("TL2", new String[] {CUEBENCH}, "lgt-tq1", "lgt-tq2");
    UUID c =
        add(
            connection(
                "CueBench",
                CUEBENCH,
                "KEY_AND_SECRET",
                "\"CREDENTIALS\",\"PAIRING\",\"FIRST_OPENING\"",
                ",\"words\":\"Tied to course {course}\",\"key\":\"larkmoor\",\"secret\":\"practice\""));
    comes(to.get(1), CUEBENCH, "NOT_CONNECTED NOT_IN_SHELL");
    apply(c, to, true);
    comes(to.get(0), CUEBENCH, "NOT_OPENED NOT_PAIRED");
    String asked = PracticeTools.open("lgt-tq1", "Open " + CUEBENCH);
    assertThat(asked).contains("Which course does");
    assertThat(PracticeTools.answer(asked, "/answer/course")).contains("Tied to course cu-");
    look(to.get(0));
    comes(to.get(0), CUEBENCH, "WORKS WORKS");
    apply(c, to.subList(0, 1), true);
    await(() -> db.fetchCount(TOOL_WRITE), n -> n == 0);
    assertThat(state(to.get(0), CUEBENCH)).as("written once more").isEqualTo("WORKS WORKS");
    // the second section's instructor answers with the first one's course
    String course =
        db.fetchSingle("select course from section_tool where section_id = ?", to.get(0))
            .get(0, String.class);
    db.execute(
        "insert into section_tool (section_id, host, support, data, course, looked_at)"
            + " values (?, ?, true, 'THERE', ?, now()) on conflict (section_id, host)"
            + " do update set course = excluded.course",
        to.get(1),
        CUEBENCH,
        course);
    assertThat(state(to.get(1), CUEBENCH)).isEqualTo("TIED_WRONGLY SHARED_COURSE");
    assertThat(state(to.get(0), CUEBENCH)).isEqualTo("TIED_WRONGLY SHARED_COURSE");
  }

  @Test
  void anAgreementIsSeenAndItsWaitEndsByItself() throws Exception {
    List<UUID> to = delivered("TL3", new String[] {TAGOUT, PROMPTDESK}, "lgt-tg1");
    add(
        connection(
            "TagOut",
            TAGOUT,
            "OPEN",
            "\"AGREEMENT\",\"WAIT\"",
            ",\"words\":\"Agreement accepted\""));
    add(connection("PromptDesk", PROMPTDESK, "OPEN", "", ""));
    comes(to.get(0), TAGOUT, "NOT_OPENED NOT_AGREED");
    assertThat(state(to.get(0), PROMPTDESK)).isEqualTo("WORKS WORKS");
    PracticeTools.answer(PracticeTools.open("lgt-tg1", "Open " + TAGOUT), "/answer/agreement");
    look(to.get(0));
    comes(to.get(0), TAGOUT, "WORKS WORKS");
    db.execute("update tool_connection set wait_minutes = 30 where name = 'TagOut'");
    assertThat(state(to.get(0), TAGOUT)).isEqualTo("WAITS TOOL_TAKES_TIME");
    db.execute("update section_tool set agreed_at = null where section_id = ?", to.get(0));
    assertThat(state(to.get(0), TAGOUT)).isEqualTo("NOT_OPENED NOT_AGREED");
    coordinator.post(
        "/api/tools/done",
        "{\"sections\":[\"%s\"],\"host\":\"%s\",\"stage\":\"AGREEMENT\"}"
            .formatted(to.get(0), TAGOUT));
    assertThat(state(to.get(0), TAGOUT)).isEqualTo("WAITS TOOL_TAKES_TIME");
    db.execute("update tool_connection set wait_minutes = 0 where name = 'TagOut'");
    assertThat(state(to.get(0), TAGOUT)).as("said by hand, it ends too").isEqualTo("WORKS WORKS");
  }

  private JsonNode tried(String host, String key, String secret) {
    return administrator
        .post(
            "/api/tools/connections/try",
            "{\"host\":\"%s\",\"way\":\"KEY_AND_SECRET\",\"key\":\"%s\",\"secret\":\"%s\"}"
                .formatted(host, key, secret))
        .json();
  }

  @Test
  void oneRealLaunchIsTriedBeforeAnythingIsSaved() throws Exception {
    assertThat(tried(ROPEWALK, "larkmoor", "practice").path("opened").asBoolean()).isTrue();
    assertThat(tried(ROPEWALK, "larkmoor", "another").path("said").asString())
        .isEqualTo("The signature is wrong: the secret of larkmoor is another one.");
    assertThat(tried(ROPEWALK, "nobody", "practice").path("said").asString())
        .isEqualTo("The key nobody is not known at ropewalk.example.");
    assertThat(tried(ROPEWALK, " larkmoor", "practice").path("detail").asString())
        .isEqualTo("The key has a blank before or after it.");
    assertThat(tried("https://x", "k", "s").path("detail").asString())
        .isEqualTo("“https://x” is not the name of a host.");
    assertThat(tried("nowhere.invalid", "k", "s").path("said").asString())
        .isEqualTo("It cannot be reached.");
    PracticeTools.knobs(ROPEWALK, true, 0, 0, "");
    assertThat(tried(ROPEWALK, "larkmoor", "practice").path("said").asString())
        .isEqualTo("HTTP status 503");
    PracticeTools.knobs(ROPEWALK, false, 5, 0, "");
    assertThat(tried(ROPEWALK, "larkmoor", "practice").path("said").asString())
        .isEqualTo("It did not answer within 3 s.");
    PracticeTools.knobs(ROPEWALK, false, 0, 0, "");
  }

  @Test
  void aNewSecretIsWrittenWhereTheOldOneStands() throws Exception {
    List<UUID> to = delivered("TL4", new String[] {"rotated.example"}, "lgt-tr1", "lgt-tr2");
    String entry =
        connection(
            "Rotated",
            "rotated.example",
            "KEY_AND_SECRET",
            "\"CREDENTIALS\"",
            ",\"key\":\"k-{section}\",\"secret\":\"one\"");
    UUID c = add(entry);
    comes(to.get(0), "rotated.example", "NOT_CONNECTED NOT_IN_SHELL");
    apply(c, to.subList(0, 1), true);
    comes(to.get(0), "rotated.example", "WORKS WORKS");
    assertThat(secretIn("lgt-tr1")).isEqualTo("k-lgt-tr1 one");
    Caller.Answer a =
        administrator.put("/api/tools/connections/" + c, entry.replace("\"one\"", "\"two\""));
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    await(() -> secretIn("lgt-tr1"), "k-lgt-tr1 two"::equals);
    assertThat(secretIn("lgt-tr2")).as("was not applied there").isEmpty();
  }

  private String secretIn(String shell) {
    return db
        .fetch(
            "select key || ' ' || secret from practice.tool_data where shell_id = ? and host ="
                + " 'rotated.example'",
            shell)
        .map(r -> r.get(0, String.class))
        .stream()
        .findFirst()
        .orElse("");
  }

  @Test
  void whoseCredentialsStandInAShellIsKnownWhateverComesAfter() throws Exception {
    String host = "whose.example";
    List<UUID> to = delivered("TLW", new String[] {host}, "lgt-tw1", "lgt-tw2");
    String key = ",\"key\":\"larkmoor\",\"secret\":\"practice\"";
    String entry = connection("For all", host, "KEY_AND_SECRET", "\"CREDENTIALS\"", key);
    UUID all = add(entry);
    comes(to.get(0), host, "NOT_CONNECTED NOT_IN_SHELL");
    apply(all, to, true);
    comes(to.get(0), host, "WORKS WORKS");

    UUID one =
        add(
            connection("For one", host, "KEY_AND_SECRET", "\"CREDENTIALS\"", key)
                .replace(
                    "\"level\":\"COLLEGE\",\"scopeOf\":\"\"",
                    "\"level\":\"SECTION\",\"scopeOf\":\"lgt-tw1\""));
    assertThat(state(to.get(0), host))
        .as("those of the wider one stand there")
        .isEqualTo("NOT_CONNECTED NOT_IN_SHELL");
    assertThat(state(to.get(1), host)).isEqualTo("WORKS WORKS");
    apply(one, to.subList(0, 1), true);
    comes(to.get(0), host, "WORKS WORKS");
    assertThat(administrator.delete("/api/tools/connections/" + one).status()).isLessThan(300);
    assertThat(state(to.get(0), host))
        .as("those of one that was ended")
        .isEqualTo("NOT_CONNECTED NOT_IN_SHELL");

    db.execute("update section_tool set generation = 0 where host = ?", host);
    Caller.Answer done =
        coordinator.post(
            "/api/tools/done",
            "{\"sections\":[\"%s\"],\"host\":\"%s\",\"stage\":\"CREDENTIALS\"}"
                .formatted(to.get(0), host));
    assertThat(done.status()).as(done.text()).isLessThan(300);
    assertThat(state(to.get(0), host)).as("entered by hand").isEqualTo("WORKS WORKS");
    db.execute("update tool_connection set generation = generation + 1 where id = ?", all);
    assertThat(state(to.get(0), host))
        .as("another secret since")
        .isEqualTo("NOT_CONNECTED NOT_IN_SHELL");
    db.execute("update tool_connection set both_until = current_date + 1 where id = ?", all);
    assertThat(state(to.get(0), host)).as("the tool takes both").isEqualTo("WORKS WORKS");
  }

  @Test
  void aPlatformThatIsDownHoldsNothingForGood() throws Exception {
    List<UUID> to = delivered("TL5", new String[] {"later.example"}, "lgt-tf1", "lgt-tf2");
    UUID c =
        add(
            connection(
                "Later",
                "later.example",
                "KEY_AND_SECRET",
                "\"CREDENTIALS\"",
                ",\"key\":\"k\",\"secret\":\"s\""));
    comes(to.get(1), "later.example", "NOT_CONNECTED NOT_IN_SHELL");
    Practice.fault(null, "ERROR", 3);
    apply(c, to, true);
    comes(to.get(0), "later.example", "WORKS WORKS");
    comes(to.get(1), "later.example", "WORKS WORKS");
    Practice.noFaults();
  }

  @Test
  void whatIsOutOfReachIsNotFound() throws Exception {
    List<UUID> light = sections("lgt-to1");
    Caller sound = another("tools-sound@x.example", Role.COORDINATOR, "sound");
    assertThat(sound.post("/api/tools/look", "{\"sections\":[\"" + light.get(0) + "\"]}").status())
        .isEqualTo(404);
    assertThat(sound.get("/api/tools?term=" + term()).text()).doesNotContain("lgt-to1");
  }

  @Test
  void aShellWithoutAnInterfaceIsToldToBeDoneByHand() throws Exception {
    List<UUID> to = sections("lgt-pkt1");
    UUID c =
        add(
            connection(
                "By hand",
                "byhand.example",
                "KEY_AND_SECRET",
                "\"CREDENTIALS\"",
                ",\"key\":\"k\",\"secret\":\"s\""));
    db.execute(
        "insert into section_tool (section_id, host, support, links, data, looked_at)"
            + " values (?, 'byhand.example', true, 1, 'NONE', now())",
        to.get(0));
    db.execute(
        "insert into tool_look (section_id, wanted, looked_at) values (?, false, now())"
            + " on conflict (section_id) do update set looked_at = now()",
        to.get(0));
    assertThat(apply(c, to, true).path("byHand").get(0).asString()).isEqualTo("" + to.get(0));
    assertThat(
            coordinator
                .post(
                    "/api/tools/done",
                    "{\"sections\":[\"%s\"],\"host\":\"byhand.example\",\"stage\":\"CREDENTIALS\"}"
                        .formatted(to.get(0)))
                .status())
        .isEqualTo(200);
    assertThat(state(to.get(0), "byhand.example")).isEqualTo("WORKS WORKS");
  }

  @Test
  void whatIsWrongWithAConnectionIsToldBeforeItIsKept() {
    List<String> told = new ArrayList<>();
    for (String entry :
        List.of(
            connection("X1", "https://a.example", "OPEN", "", ""),
            connection("X2", "a.example", "OPEN", "\"CREDENTIALS\"", ""),
            connection("X3", "a.example", "KEY_AND_SECRET", "", ""),
            connection(
                "X4", "a.example", "KEY_AND_SECRET", "\"CREDENTIALS\"", ",\"key\":\"k {who}\""),
            connection("X5", "a.example", "OPEN", "\"WAIT\",\"WAIT\"", ""),
            connection("X6", "a.example", "OPEN", "", ",\"words\":\"{unit}\""))) {
      Caller.Answer a = administrator.post("/api/tools/connections", entry);
      assertThat(a.status()).isEqualTo(422);
      told.add(a.json().path("detail").asString());
    }
    assertThat(told)
        .containsExactly(
            "“https://a.example” is not the name of a host.",
            "A tool that is open asks for no credentials.",
            "This way needs credentials, and no stage says so.",
            "{who} is no value of a section.",
            "A stage stands in it twice.",
            "Only {course} can stand in it.");
    assertThat(
            db.fetchCount(
                org.zephyrmist.server.db.Tables.TOOL_CONNECTION,
                org.zephyrmist.server.db.Tables.TOOL_CONNECTION.NAME.like("X_")))
        .isZero();
  }

  @Test
  void whatWaitsForApprovalWorksAfterItWithoutAnythingEnteredAgain() throws Exception {
    List<UUID> to = delivered("TL6", new String[] {"approved.example"}, "lgt-ta1");
    UUID c =
        add(
            connection(
                "Approved",
                "approved.example",
                "KEY_AND_SECRET",
                "\"CREDENTIALS\",\"APPROVAL\"",
                ",\"key\":\"k\",\"secret\":\"s\""));
    comes(to.get(0), "approved.example", "NOT_CONNECTED NOT_IN_SHELL");
    apply(c, to, true);
    comes(to.get(0), "approved.example", "WAITS NOT_APPROVED");
    String ask = "{\"host\":\"approved.example\",\"reason\":\"Week 1 needs it\"}";
    Caller.Answer asked = coordinator.post("/api/tools/requests", ask);
    assertThat(asked.status()).as(asked.text()).isEqualTo(201);
    assertThat(coordinator.post("/api/tools/requests", ask).status()).as("twice").isEqualTo(409);
    String at = "/api/tools/requests/" + asked.json().path("id").asString();
    String yes = "{\"approved\":true,\"conditions\":\"For this year\"}";
    assertThat(coordinator.put(at, yes).status()).isEqualTo(403);
    assertThat(administrator.put(at, yes).status()).isEqualTo(200);
    assertThat(administrator.put(at, yes).status()).as("decided").isEqualTo(409);
    assertThat(state(to.get(0), "approved.example")).isEqualTo("WORKS WORKS");
    // a connection is approved with its hosts, and only with all of them
    add(connection("Approved again", "approved.example", "OPEN", "\"APPROVAL\"", ""));
    add(
        connection("Approved in part", "approved.example", "OPEN", "\"APPROVAL\"", "")
            .replace("[\"approved.example\"]", "[\"approved.example\",\"unasked.example\"]"));
    assertThat(
            db.fetch("select name from tool_connection where approved_at is not null")
                .map(r -> r.get(0, String.class)))
        .contains("Approved", "Approved again")
        .doesNotContain("Approved in part");
    db.execute("delete from tool_connection where name like 'Approved %'");
    assertThat(db.fetch("select subject from mail where about like 'tool %'").map(r -> r.get(0)))
        .contains("May approved.example be used?", "approved.example is approved");
  }

  private JsonNode test(String host, List<UUID> of) {
    String ids = of.stream().map(s -> "\"" + s + "\"").collect(Collectors.joining(","));
    Caller.Answer a =
        coordinator.post(
            "/api/tools/tests", "{\"host\":\"" + host + "\",\"sections\":[" + ids + "]}");
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    await(() -> db.fetchCount(org.zephyrmist.server.db.Tables.TEST_WANTED), n -> n == 0);
    return a.json();
  }

  @Test
  void testsTellWhoIsLetInAndAToolThatStoppedIsOneEvent() throws Exception {
    String host = "earshot.example";
    PracticeTools.start(POSTGRES, DATABASE);
    List<UUID> to = delivered("TL7", new String[] {host}, "lgt-th1", "lgt-th2", "lgt-th3");
    for (String shell : List.of("lgt-th1", "lgt-th2")) {
      PracticeTools.courseKey(host, "k-" + shell, "s", "ea-" + shell);
    }
    UUID c =
        add(
            connection(
                    "Earshot",
                    host,
                    "KEY_AND_SECRET",
                    "\"CREDENTIALS\",\"PAIRING\"",
                    ",\"key\":\"k-{section}\",\"secret\":\"s\"")
                .replace("BY_ANSWER", "BY_CREDENTIALS"));
    comes(to.get(0), host, "NOT_CONNECTED NOT_IN_SHELL");
    assertThat(test(host, to).path("notYet").asInt()).as("nothing is there yet").isEqualTo(3);
    apply(c, to, true);
    comes(to.get(2), host, "WORKS WORKS");
    assertThat(test(host, to).path("testing").asInt()).isEqualTo(3);
    assertThat(state(to.get(0), host)).isEqualTo("WORKS WORKS");
    assertThat(state(to.get(2), host))
        .as("the tool knows no key")
        .isEqualTo("NOT_CONNECTED REFUSED");
    PracticeTools.knobs(host, true, 0, 0, "");
    test(host, to.subList(0, 2));
    assertThat(state(to.get(1), host)).isEqualTo("WAITS NO_ANSWER");
    await(
        () ->
            db.fetch("select detail from event where what = 'stopped opening'")
                .map(r -> r.get(0, String.class)),
        told -> told.equals(List.of("2 sections: HTTP status 503")));
    PracticeTools.knobs(host, false, 0, 0, "");
    test(host, to.subList(0, 2));
    assertThat(state(to.get(1), host)).isEqualTo("WORKS WORKS");
    aTestThatIsAskedForWhileOneIsUnderWayComesAfterIt(host, to.get(0));
    oneLinkIsTestedAlone(host, to);
    aTestMeetsWhatStandsInTheShellWhileTheToolTakesTwoSecrets(host, c, to);
  }

  private void aTestMeetsWhatStandsInTheShellWhileTheToolTakesTwoSecrets(
      String host, UUID connection, List<UUID> to) throws Exception {
    String exchanged =
        connection(
                "Earshot",
                host,
                "KEY_AND_SECRET",
                "\"CREDENTIALS\",\"PAIRING\"",
                ",\"key\":\"n-{section}\",\"secret\":\"another\",\"bothUntil\":\"2099-01-01\"")
            .replace("BY_ANSWER", "BY_CREDENTIALS");
    String path = "/api/tools/connections/" + connection;
    assertThat(administrator.put(path, exchanged).status()).isLessThan(300);
    await(() -> db.fetchCount(org.zephyrmist.server.db.Tables.TOOL_WRITE), n -> n == 0);
    await(() -> db.fetch("select 1 from tool_look where wanted").size(), n -> n == 0);
    db.execute(
        "update section_tool set generation = generation - 1 where section_id = ?", to.get(1));
    test(host, to.subList(0, 2));
    assertThat(state(to.get(0), host)).as("the new key").isEqualTo("NOT_CONNECTED REFUSED");
    assertThat(state(to.get(1), host)).as("the key before").isEqualTo("WORKS WORKS");
    assertThat(administrator.get("/api/tools/connections").text()).doesNotContain("k-{section}");
    assertThat(administrator.put(path, exchanged.replace("\"2099-01-01\"", "null")).status())
        .isLessThan(300);
    assertThat(db.fetch("select 1 from tool_connection where secret_before is not null"))
        .as("is kept no longer than the tool takes it")
        .isEmpty();
    await(() -> db.fetchCount(org.zephyrmist.server.db.Tables.TOOL_WRITE), n -> n == 0);
    db.execute("update tool_connection set both_until = current_date + 1 where id = ?", connection);
    db.execute(
        "update section_tool set generation = generation - 1 where section_id = ?", to.get(1));
    assertThat(test(host, to.subList(1, 2)).path("testing").asInt())
        .as("with a secret that nobody keeps nothing is tested")
        .isZero();
    assertThat(state(to.get(1), host)).isEqualTo("WORKS WORKS");
  }

  private void oneLinkIsTestedAlone(String host, List<UUID> to) {
    String path = "/api/tools/sections/" + to.get(0) + "/links";
    JsonNode link = coordinator.get(path + "?host=" + host).json().get(0);
    assertThat(link.path("title").asString()).isEqualTo("Open " + host);
    assertThat(link.path("leads").asString()).isEqualTo("https://" + host + "/launch?unit=0");
    assertThat(link.path("at").asString()).contains("/shells/lgt-th1/items/");
    String asked = "{\"host\":\"" + host + "\",\"item\":\"" + link.path("item").asString() + "\"}";
    JsonNode tested = coordinator.post(path + "/test", asked).json();
    assertThat(tested.valueStream().map(t -> t.path("role") + " " + t.path("outcome")).toList())
        .containsExactly("\"INSTRUCTOR\" \"OPENED\"", "\"LEARNER\" \"OPENED\"");
    assertThat(state(to.get(0), host)).as("what it showed counts").isEqualTo("WORKS WORKS");
    String other = path.replace("" + to.get(0), "" + to.get(1));
    assertThat(coordinator.post(other + "/test", asked).status()).as("not its link").isEqualTo(422);
  }

  private void aTestThatIsAskedForWhileOneIsUnderWayComesAfterIt(String host, UUID section)
      throws Exception {
    String asked = "{\"sections\":[\"" + section + "\"],\"host\":\"" + host + "\"}";
    PracticeTools.knobs(host, false, 2, 0, "");
    coordinator.post("/api/tools/tests", asked);
    Thread.sleep(500); // its launch is under way, and will open
    PracticeTools.knobs(host, true, 0, 0, "");
    coordinator.post("/api/tools/tests", asked);
    comes(section, host, "WAITS NO_ANSWER");
    PracticeTools.knobs(host, false, 0, 0, "");
  }

  private static String rule(String from, String to, String master) {
    return """
        {"from":"%s","to":"%s","parameters":{"unit":"","section":"{section-code}"},
         "masters":[%s],"terms":[],"campuses":[]}"""
        .formatted(from, to, master.isEmpty() ? "" : "\"" + master + "\"");
  }

  private String forecast(String master, List<UUID> to) {
    String order =
        "{\"version\":\"%s\",\"sections\":[\"%s\",\"%s\"],\"choices\":{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\"}}"
            .formatted(version(master, 1), to.get(0), to.get(1));
    Caller.Answer a = coordinator.post("/api/deliveries/forecast", order);
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    return a.json().path("totals").toString();
  }

  private String launch(String shell, String title) throws Exception {
    return Practice.item(shell, title).path("launch").path("address").asString();
  }

  @Test
  void aToolThatMovedIsRelinkedByARuleAPlanAndADelivery() throws Exception {
    String host = "loads.ropewalk.example";
    List<UUID> to = delivered("TL8", new String[] {host}, "lgt-tm1", "lgt-tm2");
    String master =
        db.fetchSingle("select id::text from master where code = 'TL8'").get(0, String.class);
    comes(to.get(0), host, "NOT_CONNECTED NO_CONNECTION");
    String moved = rule("//" + host + "{*rest}", "https://" + ROPEWALK + "/l{*rest}", master);
    JsonNode tried = coordinator.post("/api/tools/rules/try?term=" + term(), moved).json();
    assertThat(tried.path("changed").asInt()).as("a link and an address in each").isEqualTo(4);
    assertThat(tried.path("sections").asInt()).isEqualTo(2);
    assertThat(tried.path("some").toString())
        .contains("https://ropewalk.example/l/launch?unit=0  section=");
    assertThat(launch("lgt-tm1", "Open " + host)).as("only tried").contains(host);
    Caller.Answer kept = coordinator.post("/api/tools/rules", moved);
    assertThat(kept.status()).as(kept.text()).isEqualTo(201);
    assertThat(forecast(master, to)).as("a link and a text in each").isEqualTo("{\"UPDATE\":4}");
    JsonNode again = deliver(master, 1, to);
    assertThat(forecast(master, to)).isEqualTo("{\"SAME\":4}");
    assertThat(again.path("delivery").path("state").asString()).isEqualTo("DONE");
    assertThat(launch("lgt-tm2", "Open " + host))
        .isEqualTo("https://ropewalk.example/l/launch?unit=0");
    assertThat(
            Practice.item("lgt-tm2", "Open " + host)
                .path("launch")
                .path("parameters")
                .path("section")
                .asString())
        .isEqualTo("lgt-tm2");
    assertThat(Practice.html("lgt-tm1", "Before you begin")).contains("ropewalk.example/l/help");
    await(() -> state(to.get(0), host), ""::equals);
    assertThat(state(to.get(0), ROPEWALK)).as("its links are there now").isNotEmpty();
    String taken =
        coordinator
            .post(
                "/api/deliveries/" + again.path("delivery").path("id").asString() + "/take-back",
                "{}")
            .json()
            .path("id")
            .asString();
    rest(taken, "PLANNING");
    confirm(taken);
    assertThat(launch("lgt-tm2", "Open " + host)).as("taken back").contains(host);
    String id = kept.json().path("id").asString();
    assertThat(coordinator.call("DELETE", "/api/tools/rules/" + id, null).status()).isEqualTo(204);
  }

  @Test
  void theFirstRuleCountsAndAnotherCanBePutBeforeIt() throws Exception {
    List<UUID> to = delivered("TLO1", new String[] {"ordered.example"}, "lgt-or1");
    String master =
        db.fetchSingle("select id::text from master where code = 'TLO1'").get(0, String.class);
    String one = kept(rule("//ordered.example{*rest}", "https://one.example{*rest}", master));
    String two =
        kept(
            rule("//ordered.example/launch{*rest}", "https://two.example{*rest}", master)
                .replace("\"unit\":\"\",\"section\":\"{section-code}\"", ""));
    deliver(master, 1, to);
    assertThat(launch("lgt-or1", "Open ordered.example")).startsWith("https://one.example/");
    assertThat(coordinator.post("/api/tools/rules/" + two + "/sooner", "{}").status())
        .isEqualTo(204);
    deliver(master, 1, to);
    assertThat(launch("lgt-or1", "Open ordered.example")).startsWith("https://two.example?");
    String draft = "/api/tools/rules/" + two + "/draft";
    JsonNode written = coordinator.post(draft, "{\"master\":\"" + master + "\"}").json();
    assertThat(written.path("items").asInt()).as("the link, not the page").isEqualTo(1);
    String open = key(master, "Open ordered.example");
    String item = "/api/masters/" + master + "/versions/0/items/" + open;
    assertThat(coordinator.get(item).text()).contains("https://two.example?unit=0");
    written = coordinator.post(draft.replace(two, one), "{\"master\":\"" + master + "\"}").json();
    assertThat(written.path("items").asInt()).as("values are of sections").isZero();
    coordinator.post("/api/masters/" + master + "/draft/undo", "{}");
    assertThat(coordinator.get(item).text()).contains("https://ordered.example/launch");
    String path = "/api/tools/rules/" + one + "/sooner";
    assertThat(another("or-s@x.example", Role.COORDINATOR).post(path, "{}").status())
        .as("out of reach")
        .isEqualTo(404);
    for (String id : List.of(one, two)) {
      coordinator.call("DELETE", "/api/tools/rules/" + id, null);
    }
  }

  private String kept(String rule) {
    Caller.Answer a = coordinator.post("/api/tools/rules", rule);
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    return a.json().path("id").asString();
  }

  @Test
  void whatAPlatformCallsFailedIsFoldedIntoTheHostThatIsNotConnected() throws Exception {
    List<UUID> to = sections("lgt-fd1");
    JsonNode intake =
        read(
            takeIn(
                Samples.toolCartridge("Tools TLO2", new String[] {"folded.example", "b.example"}),
                "t.imscc"));
    String master = master("TLO2", intake.path("edition").asString());
    Practice.fault("lgt-fd1", "UNCONNECTED", 100);
    JsonNode line = deliver(master, 1, to).path("lines").get(0);
    Practice.noFaults();
    assertThat(line.path("activity").asString())
        .contains("read back, all as meant")
        .contains("1 link waits for folded.example to be connected, see Tools")
        .doesNotContain("failed");
  }

  @Test
  void rulesThatWouldGoInCirclesAreTold() {
    assertThat(
            administrator
                .post(
                    "/api/tools/rules",
                    rule("//a.example{*rest}", "https://a.example/x{*rest}", ""))
                .json()
                .path("detail")
                .asString())
        .startsWith("The rule is about its own results");
    assertThat(
            administrator
                .post("/api/tools/rules", rule("//a.example/{u}", "https://b.example/{who}", ""))
                .json()
                .path("detail")
                .asString())
        .isEqualTo("{who} is neither a part of the address nor a value.");
    assertThat(
            administrator
                .post("/api/tools/rules", rule("a.example", "https://b.example", ""))
                .status())
        .isEqualTo(422);
    assertThat(
            coordinator
                .post(
                    "/api/tools/rules", rule("//a.example{*rest}", "https://b.example{*rest}", ""))
                .status())
        .as("for the whole college")
        .isEqualTo(403);
  }

  @Test
  void anEditionWhoseAddressesMovedProposesItsRuleUntilItIsKept() throws Exception {
    read(
        takeIn(
            Samples.toolCartridge("Editions move", new String[] {"a-moves.example"}), "1.imscc"));
    read(
        takeIn(
            Samples.toolCartridge("Editions move", new String[] {"b-moves.example"}), "2.imscc"));
    JsonNode p = proposed();
    assertThat(p.path("from").asString()).isEqualTo("https://a-moves.example{*rest}");
    assertThat(p.path("to").asString()).isEqualTo("https://b-moves.example{*rest}");
    assertThat(p.path("links").asInt()).isPositive();
    Caller.Answer kept =
        administrator.post(
            "/api/tools/rules",
            """
            {"from":"%s","to":"%s","parameters":{},"masters":[],"terms":[],"campuses":[]}"""
                .formatted(p.path("from").asString(), p.path("to").asString()));
    assertThat(kept.status()).as(kept.text()).isEqualTo(201);
    assertThat(proposed().isMissingNode()).isTrue();
    administrator.delete("/api/tools/rules/" + kept.json().path("id").asString());
  }

  private JsonNode proposed() {
    return coordinator
        .get("/api/tools/rules/proposed")
        .json()
        .valueStream()
        .filter(p -> p.path("cartridge").asString().equals("Editions move"))
        .findFirst()
        .orElse(tools.jackson.databind.node.MissingNode.getInstance());
  }

  @Test
  void planAndSectionTellWhatWorksAndWhatWaitsForWhom() throws Exception {
    String host = "arrives.example";
    List<UUID> to = delivered("TLC", new String[] {host}, "lgt-tc1", "lgt-tc2");
    add(connection("Arrives", host, "OPEN", "\"FIRST_OPENING\"", ""));
    comes(to.get(0), host, "NOT_OPENED NEVER_OPENED");
    coordinator.post(
        "/api/tools/done",
        "{\"sections\":[\"%s\"],\"host\":\"%s\",\"stage\":\"FIRST_OPENING\"}"
            .formatted(to.get(0), host));
    String delivery =
        db.fetchSingle(
                "select delivery_id::text from delivery_line where section_id = ?", to.get(0))
            .get(0, String.class);
    JsonNode arrival = coordinator.get("/api/tools/arrival/" + delivery).json();
    assertThat(arrival.path("looked").asBoolean()).isTrue();
    assertThat(arrival.path("tools").get(0).path("name").asString()).isEqualTo("Arrives");
    assertThat(arrival.path("tools").get(0).path("states").toString())
        .contains("\"NEVER_OPENED\",\"whose\":\"INSTRUCTOR\",\"sections\":1")
        .contains("\"WORKS\",\"whose\":\"NOBODY\",\"sections\":1");
    JsonNode one = coordinator.get("/api/tools/sections/" + to.get(1)).json().path("tools").get(0);
    assertThat(one.path("reason").asString()).isEqualTo("NEVER_OPENED");
    assertThat(
            another("tc-x@x.example", Role.INSTRUCTOR)
                .get("/api/tools/sections/" + to.get(1))
                .status())
        .isEqualTo(404);
  }

  @Test
  void administratorsAreToldBeforeCredentialsEnd() throws Exception {
    String soon = java.time.LocalDate.now().plusDays(6).toString();
    UUID c =
        add(connection("Ends soon", "ends.example", "OPEN", "", ",\"expires\":\"" + soon + "\""));
    await(
        () ->
            db.fetch("select subject from mail where about like ?", "expiry " + c + "%")
                .map(r -> r.get(0, String.class)),
        all -> !all.isEmpty() && all.get(0).equals("The credentials of Ends soon end on " + soon));
    assertThat(
            db.fetchSingle("select told_days from tool_connection where id = ?", c)
                .get(0, Integer.class))
        .isEqualTo(7);
  }

  @Test
  void aVersionIsLookedThroughOnceHoweverManyComeAtOnce() throws Exception {
    JsonNode intake =
        read(takeIn(Samples.toolCartridge("Tools TL9", ROPEWALK, CUEBENCH), "t.imscc"));
    sections("lgt-tz1");
    String master = master("TL9", intake.path("edition").asString());
    UUID version = UUID.fromString(version(master, 1));
    await(() -> db.fetchCount(VERSION_LOOKED, VERSION_LOOKED.VERSION_ID.eq(version)), n -> n == 1);
    for (int round = 0; round < 5; round++) {
      db.deleteFrom(VERSION_LINK).where(VERSION_LINK.VERSION_ID.eq(version)).execute();
      db.deleteFrom(VERSION_LOOKED).where(VERSION_LOOKED.VERSION_ID.eq(version)).execute();
      IntStream.range(0, 8).parallel().forEach(i -> find.run(version));
      assertThat(db.fetchCount(VERSION_LINK, VERSION_LINK.VERSION_ID.eq(version))).isEqualTo(3);
    }
  }

  @Test
  void instructorsAreToldWhatIsTheirsToOpenAndWrittenToOnceADay() throws Exception {
    List<UUID> to = delivered("TLA", new String[] {"open-once.example"}, "lgt-ti1", "lgt-ti2");
    Caller instructor = another("tools-instructor@x.example", Role.INSTRUCTOR);
    db.execute(
        "insert into section_instructor select ?, id from person where email ="
            + " 'tools-instructor@x.example'",
        to.get(0));
    add(
        connection(
            "Opened once",
            "open-once.example",
            "OPEN",
            "\"PAIRING\",\"FIRST_OPENING\"",
            ",\"words\":\"Tied to {course}\""));
    comes(to.get(0), "open-once.example", "NOT_OPENED NOT_PAIRED");
    JsonNode mine = instructor.get("/api/tools/openings/mine").json();
    JsonNode one =
        mine.valueStream()
            .filter(o -> o.path("section").asString().equals("" + to.get(0)))
            .findFirst()
            .orElseThrow();
    assertThat(one.path("tool").asString()).isEqualTo("Opened once");
    assertThat(one.path("answers").asBoolean()).isTrue();
    assertThat(one.path("link").asString())
        .isEqualTo(
            Practice.address()
                + "/shells/lgt-ti1/items/"
                + Practice.item("lgt-ti1", "Open open-once.example").path("id").asString());
    assertThat(mine.toString()).as("another's").doesNotContain("lgt-ti2");
    String both =
        "{\"kind\":\"OPEN_ONCE\",\"host\":\"open-once.example\",\"sections\":[\"%s\",\"%s\"]}"
            .formatted(to.get(0), to.get(1));
    assertThat(coordinator.post("/api/hand-overs/remind", both).json().path("people").asInt())
        .as("who has a mail address")
        .isPositive();
    assertThat(coordinator.post("/api/hand-overs/remind", both).json().path("people").asInt())
        .as("once a day")
        .isZero();
    assertThat(
            db.fetch(
                    "select body from mail where about like 'hand-over OPEN_ONCE open-once.example%'")
                .map(r -> r.get(0, String.class)))
        .anySatisfy(
            body ->
                assertThat(body)
                    .contains("lgt-ti1, Opened once", "a new copy, for this section alone"));
  }
}
