package org.zephyrmist.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.context.SpringBootTest.WebEnvironment;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.zephyrmist.core.tool.BasicLaunch;
import org.zephyrmist.core.tool.BasicLaunch.Role;
import org.zephyrmist.core.tool.LaunchAnswer;
import org.zephyrmist.core.tool.Privacy;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.standins.tool.ToolsApplication;

/** The practice tools over HTTP, launched as a platform would. */
@SpringBootTest(classes = ToolsApplication.class, webEnvironment = WebEnvironment.RANDOM_PORT)
class PracticeToolsIT {
  private static final String BACK = "http://127.0.0.1:1/back";
  private static final String CUEBENCH = "cuebench.example";
  private final HttpClient client = HttpClient.newHttpClient();
  private final String context = UUID.randomUUID().toString();
  @LocalServerPort int port;

  @DynamicPropertySource
  static void database(DynamicPropertyRegistry r) {
    PracticePlatformIT.database(r);
  }

  @BeforeEach
  void keys() throws Exception {
    api("POST", CUEBENCH + "/keys", "[{'key':'k','secret':'s e/c','course':''}]");
    api("POST", "ropewalk.example/keys", "[{'key':'k','secret':'s','course':''}]");
    api("POST", "earshot.example/keys", "[{'key':'k7','secret':'s','course':'ea-7'}]");
    for (String h : new String[] {CUEBENCH, "ropewalk.example", "tagout.example"}) {
      knobs(h, false, 0, 0, "");
    }
  }

  private void knobs(String host, boolean down, int minutes, int clockOff, String movedTo)
      throws Exception {
    api(
        "PUT",
        host + "/knobs",
        "{'down':%s,'slow':0,'minutes':%d,'clockOff':%d,'movedTo':'%s'}"
            .formatted(down, minutes, clockOff, movedTo));
  }

  private void api(String method, String path, String body) throws Exception {
    int status =
        client
            .send(
                HttpRequest.newBuilder(URI.create(here() + "/api/" + path))
                    .header("Authorization", "Bearer practice-token")
                    .header("Content-Type", "application/json")
                    .method(method, HttpRequest.BodyPublishers.ofString(body.replace('\'', '"')))
                    .build(),
                HttpResponse.BodyHandlers.discarding())
            .statusCode();
    assertThat(status).isEqualTo(200);
  }

  private String here() {
    return "http://127.0.0.1:" + port;
  }

  private BasicLaunch launch(String host, Role role, Map<String, String> sent) {
    return new BasicLaunch(
        new Link(
            "https://" + host + "/launch?room=2 é".replace(" é", "%20%C3%A9"), new TreeMap<>(sent)),
        "p7",
        "A link",
        new BasicLaunch.Course(context, "110-03", "Stage lighting"),
        new BasicLaunch.Person("u9", "Agnes Pell", "agnes@larkmoor.example", role),
        new Privacy(true, true),
        Optional.empty(),
        "larkmoor.example",
        Optional.of(BACK));
  }

  private HttpResponse<String> post(String path, Map<String, String> form) throws Exception {
    return Forms.post(here() + path, form);
  }

  private HttpResponse<String> open(String host, Map<String, String> form) throws Exception {
    return post("/at/" + host + "/launch?room=2%20%C3%A9", form);
  }

  private static String said(HttpResponse<String> r) {
    return LaunchAnswer.of(r.statusCode(), r.headers().firstValue("Location").orElse(""), BACK, "")
        .said();
  }

  private Map<String, String> signed(String host, Role role, String key, String secret) {
    return launch(host, role, Map.of())
        .signed(key, secret, Instant.now(), UUID.randomUUID().toString());
  }

  @Test
  void whoIsSignedForGetsIn() throws Exception {
    HttpResponse<String> r =
        open("ropewalk.example", signed("ropewalk.example", Role.LEARNER, "k", "s"));
    assertThat(r.statusCode()).isEqualTo(200);
    assertThat(r.body()).contains("You are in", "Agnes Pell");
  }

  @Test
  void eachFlawIsRefusedWithItsReason() throws Exception {
    String host = "ropewalk.example";
    assertThat(said(open(host, signed(host, Role.LEARNER, "k", "other"))))
        .isEqualTo("The signature is wrong: the secret of k is another one.");
    assertThat(said(open(host, signed(host, Role.LEARNER, "unknown", "s"))))
        .isEqualTo("The key unknown is not known at ropewalk.example.");
    BasicLaunch l = launch(host, Role.LEARNER, Map.of());
    assertThat(said(open(host, l.signed("k", "s", Instant.now().minusSeconds(400), "n"))))
        .startsWith("The launch was signed more than five minutes");
    assertThat(said(open(host, l.parameters()))).contains("not signed");
    Map<String, String> changed = signed(host, Role.LEARNER, "k", "s");
    changed.put("roles", "Instructor");
    assertThat(said(open(host, changed))).startsWith("The signature is wrong");
    Map<String, String> once = signed(host, Role.LEARNER, "k", "s");
    assertThat(said(open(host, once))).isEmpty();
    assertThat(said(open(host, once))).isEqualTo("This launch was used before.");
    knobs(host, false, 0, 900, "");
    assertThat(said(open(host, signed(host, Role.LEARNER, "k", "s"))))
        .startsWith("The launch was signed more than five minutes");
  }

  @Test
  void theInstructorSaysOnceWhichCourseTheClassComesTo() throws Exception {
    assertThat(said(open(CUEBENCH, signed(CUEBENCH, Role.LEARNER, "k", "s e/c"))))
        .isEqualTo("Your instructor has to open this first.");
    HttpResponse<String> asked = open(CUEBENCH, signed(CUEBENCH, Role.INSTRUCTOR, "k", "s e/c"));
    assertThat(asked.body()).contains("Which course does");
    HttpResponse<String> told = post("/answer/course", Map.of("ticket", ticket(asked.body())));
    assertThat(told.headers().firstValue("Location").orElse("")).startsWith(BACK + "?lti_msg=Tied");
    assertThat(open(CUEBENCH, signed(CUEBENCH, Role.LEARNER, "k", "s e/c")).body())
        .contains("You are in", "Course");
    assertThat(post("/answer/course", Map.of("ticket", ticket(asked.body()))).statusCode())
        .isEqualTo(400);
  }

  @Test
  void aCourseThatTheLinkNamesGoesBeforeTheOwn() throws Exception {
    api("POST", CUEBENCH + "/courses", "[{'id':'cu-old','title':'Old','term':'Spring 2026'}]");
    Map<String, String> form =
        launch(CUEBENCH, Role.LEARNER, Map.of("tool_course", "cu-old"))
            .signed("k", "s e/c", Instant.now(), UUID.randomUUID().toString());
    assertThat(open(CUEBENCH, form).body()).contains("cu-old");
  }

  @Test
  void aKeyCarriesItsCourseAndNobodyComesInByThemselves() throws Exception {
    String host = "earshot.example";
    assertThat(open(host, signed(host, Role.LEARNER, "k7", "s")).body()).contains("ea-7");
    HttpResponse<String> r =
        client.send(
            HttpRequest.newBuilder(URI.create(here() + "/at/" + host + "/")).build(),
            HttpResponse.BodyHandlers.ofString());
    assertThat(r.statusCode()).isEqualTo(403);
    assertThat(r.body()).contains("Come from the page of your class.");
  }

  @Test
  void anAgreementIsFollowedByAWait() throws Exception {
    String host = "tagout.example";
    knobs(host, false, 7, 0, "");
    assertThat(said(open(host, launch(host, Role.LEARNER, Map.of()).parameters())))
        .contains("accept the agreement");
    HttpResponse<String> asked = open(host, launch(host, Role.INSTRUCTOR, Map.of()).parameters());
    post("/answer/agreement", Map.of("ticket", ticket(asked.body())));
    HttpResponse<String> waits = open(host, launch(host, Role.INSTRUCTOR, Map.of()).parameters());
    assertThat(said(waits)).isEqualTo("This class is made ready, which takes 7 minutes more.");
    assertThat(waits.headers().firstValue("Retry-After")).isPresent();
  }

  @Test
  void aToolThatIsDownOrHasMovedSaysSo() throws Exception {
    knobs("ropewalk.example", true, 0, 0, "");
    assertThat(
            open("ropewalk.example", signed("ropewalk.example", Role.LEARNER, "k", "s"))
                .statusCode())
        .isEqualTo(503);
    knobs("ropewalk.example", false, 0, 0, "new.ropewalk.example");
    assertThat(said(open("ropewalk.example", signed("ropewalk.example", Role.LEARNER, "k", "s"))))
        .isEqualTo("This tool is found at new.ropewalk.example now.");
    assertThat(
            open("new.ropewalk.example", signed("new.ropewalk.example", Role.LEARNER, "k", "s"))
                .statusCode())
        .isEqualTo(200);
  }

  private static String ticket(String page) {
    Matcher m = Pattern.compile("name=\"ticket\" value=\"([^\"]+)\"").matcher(page);
    assertThat(m.find()).isTrue();
    return m.group(1);
  }
}
