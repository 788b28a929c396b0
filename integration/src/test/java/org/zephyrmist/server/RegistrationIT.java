package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A tool that is registered: tried, applied, launched from shells, picked in, and scored. */
class RegistrationIT extends ToolsStage {
  private static final String FLYFLOOR = "flyfloor.example";
  private static final String HERE = "http://127.0.0.1:8080";

  @BeforeEach
  void tools() throws Exception {
    PracticeTools.start(POSTGRES, DATABASE);
    PracticeTools.knobs(FLYFLOOR, false, 0, 0, "");
    String own = "http://127.0.0.1:" + port;
    PracticeTools.platform(
        FLYFLOOR, HERE, "larkmoor", own + "/api/lti", HERE + "/api/lti/authorize");
    String practice = Practice.address() + "/lti";
    PracticeTools.platform(
        FLYFLOOR, Practice.address(), "larkmoor", practice, practice + "/authorize");
  }

  private static String registration(String deployment) {
    return """
        {"deployment":"%s","login":"https://flyfloor.example/login","launches":
         ["https://flyfloor.example/launch"],"keySet":"https://flyfloor.example/keys"}"""
        .formatted(deployment);
  }

  private static String entry(String name) {
    return connection(
        name,
        FLYFLOOR,
        "REGISTRATION",
        "\"CREDENTIALS\"",
        ",\"key\":\"larkmoor\",\"registration\":" + registration("d1"));
  }

  private String tried(String client, String deployment) {
    JsonNode a =
        administrator
            .post(
                "/api/tools/connections/try",
                """
                {"host":"flyfloor.example","way":"REGISTRATION","key":"%s","registration":%s}"""
                    .formatted(client, registration(deployment)))
            .json();
    return a.path("opened").asBoolean() ? "opened" : a.path("said").asString();
  }

  @Test
  void oneLaunchIsTriedWithAllItsStepsAndEachFlawIsNamed() throws Exception {
    assertThat(tried("larkmoor", "d1")).isEqualTo("opened");
    assertThat(tried("larkmoor-9", "d1"))
        .isEqualTo(
            "HTTP status 403: FlyFloor The registration larkmoor-9 of "
                + HERE
                + " is not known here.");
    assertThat(tried("larkmoor", "d9")).contains("The deployment d9 is not known here.");
    PracticeTools.clock(FLYFLOOR, 7200);
    assertThat(tried("larkmoor", "d1")).contains("has expired, or a clock is off");
    PracticeTools.knobs(FLYFLOOR, true, 0, 0, "");
    assertThat(tried("larkmoor", "d1")).isEqualTo("HTTP status 503");
    PracticeTools.knobs(FLYFLOOR, false, 5, 0, "");
    assertThat(tried("larkmoor", "d1")).isEqualTo("It did not answer within 3 s.");
  }

  @Test
  void whatIsWrongWithARegistrationIsToldBeforeItIsKept() {
    String wrong = entry("Wrong").replace("https://flyfloor.example/login", "flyfloor");
    assertThat(administrator.post("/api/tools/connections", wrong).text())
        .contains("“flyfloor” is no address where a login can begin.");
    String secret = entry("Wrong").replace("\"key\":", "\"secret\":\"s\",\"key\":");
    assertThat(administrator.post("/api/tools/connections", secret).text())
        .contains("A registration has no shared secret.");
  }

  /** The whole way: a draft, a pick, a version, shells, a launch as a student, a score. */
  @Test
  void aResourceIsPickedDeliveredLaunchedAndItsScoreIsScaled() throws Exception {
    UUID connection = add(entry("FlyFloor"));
    List<UUID> to = sections("lgt-rg1", "lgt-rg2");
    JsonNode intake =
        read(takeIn(Samples.toolCartridge("Fly", new String[] {"promptdesk.example"}), "f.imscc"));
    String master = master("TLR", intake.path("edition").asString());
    String pick = picked(master, connection, "drill");
    JsonNode shown = coordinator.get("/api/masters/" + master + "/draft/picks/" + pick).json();
    assertThat(shown.path("tool").asString()).isEqualTo("FlyFloor");
    assertThat(shown.path("resources").get(0).path("title").asString()).isEqualTo("Fly cue drill");
    assertThat(shown.path("resources").get(0).path("points").asString()).isEqualTo("10");
    JsonNode keys =
        coordinator.post("/api/masters/" + master + "/draft/picks/" + pick + "/take", "{}").json();
    String key = keys.path("keys").get(0).asString();
    String item = "/api/masters/" + master + "/draft/items/" + key;
    assertThat(
            coordinator
                .get("/api/masters/" + master + "/versions/0/items/" + key)
                .json()
                .path("kind")
                .asString())
        .isEqualTo("ASSIGNMENT");
    assertThat(
            coordinator
                .post("/api/masters/" + master + "/draft/picks/" + pick + "/take", "{}")
                .status())
        .as("once")
        .isEqualTo(409);
    assertThat(coordinator.patch(item, "{\"points\":\"20\",\"due\":\"2027-02-12T18:00\"}").status())
        .isEqualTo(200);
    freeze(master);
    assertThat(deliver(master, 2, to).path("delivery").path("state").asString()).isEqualTo("DONE");

    comes(to.get(0), FLYFLOOR, "NOT_CONNECTED NOT_IN_SHELL");
    apply(connection, to, true);
    comes(to.get(0), FLYFLOOR, "WORKS WORKS");
    assertThat(PracticeTools.open("lgt-rg1", "Fly cue drill")).contains("as instructor");
    String inside = PracticeTools.openAs("lgt-rg1", "Fly cue drill", "Bo");
    assertThat(inside).contains("You are in", "Hand in");
    assertThat(PracticeTools.answer(inside, "/answer/score", Map.of("points", "8")))
        .contains("The score went to your class.");
    assertThat(Practice.page("/shells/lgt-rg1/grades"))
        .as("8 of 10 are 16 of 20")
        .contains("<td>16.0</td>");
    look(to.get(0));
    String told =
        await(
            () -> coordinator.get("/api/tools/sections/" + to.get(0)).json().toString(),
            t -> t.contains("\"scored\":\"2"));
    assertThat(told).contains("\"outOf\":10", "\"points\":20", "\"scaled\":true");
    whatDiffersIsFoundAndTakenIntoTheDraft(to, master, key);
  }

  /** The tool first follows the date of the class, then has one of its own. */
  private void whatDiffersIsFoundAndTakenIntoTheDraft(List<UUID> to, String master, String key)
      throws Exception {
    assertThat(told(to)).as("it followed").contains("POINTS").doesNotContain("DATE");
    PracticeTools.due(FLYFLOOR, "2027-02-14T18:00Z");
    for (int i = 0; i < 2; i++) {
      assertThat(PracticeTools.open("lgt-rg" + (i + 1), "Fly cue drill"))
          .contains("2027-02-14T18:00Z");
      look(to.get(i));
    }
    String told = await(() -> told(to), t -> t.contains("DATE") && t.contains("" + to.get(1)));
    assertThat(told)
        .contains("\"here\":\"2027-02-12T18:00\",\"there\":\"2027-02-14T18:00\"")
        .contains("\"here\":\"20\",\"there\":\"10\"")
        .contains("\"mend\":\"INTO_DRAFT\"", "\"code\":\"TLR\"")
        .contains("\"tasks\":2,\"scored\":1");
    assertThat(take(master, key, "DATE", "2027-02-15T18:00")).as("nobody says so").isEqualTo(409);
    assertThat(take(master, key, "DATE", "2027-02-14T18:00")).isEqualTo(204);
    assertThat(take(master, key, "POINTS", "10")).isEqualTo(204);
    JsonNode item = coordinator.get("/api/masters/" + master + "/versions/0/items/" + key).json();
    assertThat(item.toString()).contains("2027-02-14T18:00").doesNotContain("2027-02-12T18:00");
    assertThat(item.path("points").asString()).isEqualTo("10");
    freeze(master);
    deliver(master, 3, to);
    look(to.get(0));
    look(to.get(1));
    assertThat(await(() -> told(to), t -> !t.contains("" + to.get(1))))
        .as("where students handed in work, a person decides first")
        .contains("" + to.get(0));
  }

  private String told(List<UUID> to) {
    return coordinator.get("/api/tools/tasks?host=" + FLYFLOOR + "&term=" + term()).text();
  }

  private int take(String master, String key, String differs, String there) {
    return coordinator
        .post(
            "/api/tools/tasks/take",
            """
            {"term":"%s","host":"flyfloor.example","master":"%s","key":"%s","differs":"%s",
             "there":"%s"}"""
                .formatted(term(), master, key, differs, there))
        .status();
  }

  private void freeze(String master) {
    assertThat(
            coordinator
                .post("/api/masters/" + master + "/versions", "{\"note\":\"drill\"}")
                .status())
        .isEqualTo(201);
  }

  /** As a browser goes: to the tool, to us, to the tool, and back with what was picked. */
  private String picked(String master, UUID connection, String resource) throws Exception {
    String login =
        coordinator
            .post(
                "/api/masters/" + master + "/draft/picks",
                "{\"connection\":\"" + connection + "\"}")
            .json()
            .path("address")
            .asString();
    String asked = PracticeTools.leads(login);
    assertThat(asked).startsWith(HERE + "/api/lti/authorize?");
    String path = asked.substring(HERE.length());
    assertThat(administrator.get(path).text()).contains("You have not begun this.");
    Caller.Answer form = coordinator.get(path);
    assertThat(form.status()).as(form.text()).isEqualTo(200);
    assertThat(coordinator.get(path).text()).contains("This was asked for before.");
    String page = PracticeTools.answer(form.text(), "/at/flyfloor.example/launch", Map.of());
    String back = PracticeTools.answer(page, "/answer/pick", Map.of("resource", resource));
    String to = field(back, "action=\"([^\"]+)\"");
    String pick = to.substring(to.lastIndexOf('/') + 1);
    String at = URI.create(to).getPath();
    // forged, nothing is kept of it
    coordinator.form(at, "JWT=eyJhbGciOiJub25lIn0.eyJpc3MiOiJ4In0.");
    assertThat(
            coordinator
                .get("/api/masters/" + master + "/draft/picks/" + pick)
                .json()
                .path("trouble")
                .asString())
        .contains("FlyFloor sent what cannot be taken");
    String jwt = field(back, "name=\"JWT\" value=\"([^\"]+)\"");
    Caller.Answer r =
        new Caller(port).form(at, "JWT=" + URLEncoder.encode(jwt, StandardCharsets.UTF_8));
    assertThat(r.status()).as(r.text()).isIn(200, 303);
    return pick;
  }

  private static String field(String page, String pattern) {
    Matcher m = Pattern.compile(pattern).matcher(page);
    assertThat(m.find()).as(page).isTrue();
    return m.group(1);
  }

  @Test
  void keysAreForEverybodyAndShowNothingPrivate() {
    String keys = new Caller(port).get("/api/lti/keys").text();
    assertThat(keys).contains("\"kty\":\"RSA\"").doesNotContain("\"d\"", "\"p\"");
    assertThat(db.fetch("select * from signing_key").formatJSON()).doesNotContain("kty");
  }

  @Test
  void whoIsNotSignedInAsksForNothing() {
    assertThat(new Caller(port).get("/api/lti/authorize?login_hint=x").status()).isEqualTo(401);
    assertThat(coordinator.get("/api/lti/authorize?login_hint=" + UUID.randomUUID()).status())
        .isEqualTo(422);
  }
}
