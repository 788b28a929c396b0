package org.zephyrmist.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.context.SpringBootTest.WebEnvironment;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The practice platform over HTTP, as a real one would be called. */
@SpringBootTest(classes = StandinsApplication.class, webEnvironment = WebEnvironment.RANDOM_PORT)
class PracticePlatformIT {
  private static final JsonMapper JSON = new JsonMapper();
  private final HttpClient client = HttpClient.newHttpClient();
  @LocalServerPort int port;

  @DynamicPropertySource
  static void database(DynamicPropertyRegistry r) {
    r.add("practice.smtp-port", () -> 0); // any that is free
    r.add("spring.datasource.username", () -> System.getProperty("pg.user"));
    r.add("spring.datasource.password", () -> System.getProperty("pg.password"));
    r.add(
        "spring.datasource.url",
        () ->
            "jdbc:postgresql://127.0.0.1:"
                + System.getProperty("pg.port")
                + "/practice_codegen?currentSchema=practice");
  }

  @BeforeEach
  void aShell() throws Exception {
    call(
        "POST",
        "/api/shells",
        "[{\"id\":\"s\",\"title\":\"S\",\"course\":\"C\",\"term\":\"T\",\"students\":9}]");
  }

  private HttpResponse<String> call(String method, String path, String body) throws Exception {
    return client.send(
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
            .header("Authorization", "Bearer practice-token")
            .header("Content-Type", "application/json")
            .method(method, HttpRequest.BodyPublishers.ofString(body))
            .build(),
        HttpResponse.BodyHandlers.ofString());
  }

  private JsonNode steps(String step) throws Exception {
    HttpResponse<String> r = call("POST", "/api/shells/s/steps", "{\"steps\":[" + step + "]}");
    assertThat(r.statusCode()).as(r.body()).isEqualTo(200);
    return JSON.readTree(r.body()).path("answers").get(0);
  }

  private static String add(String key, String title, String html) {
    return """
        {"key":"%s","op":"ADD","kind":"PAGE","wording":{"title":"%s","html":"%s","more":{}},
         "place":{"rank":"1"},"visibility":{"shown":true,"instructorsOnly":false}}"""
        .formatted(key, title, html);
  }

  private long titled(String title) throws Exception {
    return JSON.readTree(call("GET", "/api/shells/s/items", "").body())
        .valueStream()
        .filter(i -> i.path("wording").path("title").asString().equals(title))
        .count();
  }

  private HttpResponse<String> form(String path, String fields) throws Exception {
    return client.send(
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
            .header("Content-Type", "application/x-www-form-urlencoded")
            .POST(HttpRequest.BodyPublishers.ofString(fields))
            .build(),
        HttpResponse.BodyHandlers.ofString());
  }

  private String seen(String more) throws Exception {
    return call("GET", "/shells/s?" + more, "").body();
  }

  @Test
  void aWeekBeyondTheLastPlaceFallsIntoTheLast() throws Exception {
    form("/shells/s/weeks", "places=2");
    String week = add("w%1$d", "Week %1$d · x", "").replace("PAGE", "MODULE");
    String second = steps(week.formatted(2)).path("id").asString();
    String third = steps(week.formatted(3)).path("id").asString();
    JsonNode items = JSON.readTree(call("GET", "/api/shells/s/items", "").body());
    assertThat(items.valueStream().filter(i -> i.path("id").asString().equals(third)).findFirst())
        .hasValueSatisfying(i -> assertThat(i.path("parent").asString("")).isEqualTo(second));
    form("/shells/s/weeks", "places=4");
    String fourth = steps(week.formatted(4)).path("id").asString();
    items = JSON.readTree(call("GET", "/api/shells/s/items", "").body());
    assertThat(items.valueStream().filter(i -> i.path("id").asString().equals(fourth)).findFirst())
        .hasValueSatisfying(i -> assertThat(i.path("parent").asString("")).isEmpty());
  }

  @Test
  void aShellIsOpenToStudentsBetweenItsDays() throws Exception {
    steps(add("term1", "In term", "<p>Here.</p>"));
    form("/shells/s/term", "opens=2026-02-02&closes=2026-05-15");
    assertThat(seen("day=2026-02-01")).contains("opens on 2026-02-02").doesNotContain("In term");
    assertThat(seen("day=2026-05-15")).contains("In term");
    assertThat(seen("day=2026-05-16")).contains("was closed").doesNotContain("In term");
    assertThat(seen("work=true")).contains("In term");
    assertThat(form("/shells/s/term", "opens=2026-02-02&closes=2026-01-01").statusCode())
        .isEqualTo(400);
    form("/shells/s/term", "");
  }

  @Test
  void aStudentOpensAnItemByDoingWhatItAsksFor() throws Exception {
    String first = steps(add("c1", "Read me first", "<p>Now.</p>")).path("id").asString();
    String then =
        add("c2", "Then me", "<p>The secret.</p>")
            .replace(
                "\"instructorsOnly\":false",
                "\"instructorsOnly\":false,\"conditions\":[{\"what\":\"READ\",\"item\":\""
                    + first
                    + "\"}]");
    String second = steps(then).path("id").asString();
    assertThat(seen("student=Ada&item=" + second))
        .contains("after reading “Read me first”")
        .doesNotContain("The secret.");
    seen("student=Ada&item=" + first);
    assertThat(seen("student=Ada&item=" + second)).contains("The secret.");
    assertThat(seen("student=Ben&item=" + second)).doesNotContain("The secret.");
  }

  @Test
  void theFrontPageOpensFirstAndTheMenuLeadsOn() throws Exception {
    call(
        "POST",
        "/api/shells",
        "[{\"id\":\"set\",\"title\":\"S\",\"course\":\"C\",\"term\":\"T\",\"students\":9}]");
    String setup = add("%s", "%s", "<p>Welcome in.</p>").replace("PAGE", "SETUP");
    String front =
        setup
            .formatted("f1", "Front")
            .replace("\"more\":{}", "\"more\":{\"subject\":\"FRONT_PAGE\"}");
    String menu =
        setup
            .formatted("f2", "Menu")
            .replace(
                "\"more\":{}",
                "\"more\":{\"subject\":\"MENU\",\"entries\":[{\"label\":\"Help desk\",\"value\":\"https://help.example\"}]}");
    call("POST", "/api/shells/set/steps", "{\"steps\":[" + front + "," + menu + "]}");
    assertThat(call("GET", "/shells/set", "").body())
        .contains("Welcome in.", "href=\"https://help.example\"");
  }

  @Test
  void gradesAreListedByStudent() throws Exception {
    String quiz =
        steps(
                add("g1", "Fire quiz", "")
                    .replace("PAGE", "ASSIGNMENT")
                    .replace("\"place\"", "\"grading\":{\"points\":20},\"place\""))
            .path("id")
            .asString();
    form("/shells/s/items/" + quiz + "/work", "student=Ada+Finch&text=Done");
    form("/shells/s/items/" + quiz + "/grade", "points=15");
    assertThat(call("GET", "/shells/s/grades", "").body())
        .contains("Ada Finch", "Fire quiz", "75.0");
  }

  @Test
  void aStepSentTwiceIsDoneOnce() throws Exception {
    JsonNode first = steps(add("k1", "Once", "<p>a</p>"));
    JsonNode again = steps(add("k1", "Once", "<p>a</p>"));
    assertThat(again.path("id")).isEqualTo(first.path("id"));
    assertThat(again.path("repeated").asBoolean()).isTrue();
    assertThat(titled("Once")).isEqualTo(1);
  }

  @Test
  void aBatchWithAStepThatCannotBeDoneChangesNothing() throws Exception {
    String missing =
        "{\"key\":\"k3\",\"op\":\"UPDATE\",\"id\":\"nowhere\",\"wording\":{\"title\":\"x\"}}";
    HttpResponse<String> r =
        call(
            "POST",
            "/api/shells/s/steps",
            "{\"steps\":[" + add("k2", "Half", "") + "," + missing + "]}");
    assertThat(r.statusCode()).isEqualTo(409);
    assertThat(titled("Half")).isZero();
  }

  @Test
  void aTextIsTidiedAsPlatformsDo() throws Exception {
    steps(
        add(
            "k4",
            "Tidy",
            "<p class='x'>A <a href='https://e.example' target='_blank'>b</a></p><script>x</script>"));
    String all = call("GET", "/api/shells/s/items", "").body();
    assertThat(all).contains("noopener").doesNotContain("script").doesNotContain("class=");
  }

  @Test
  void withoutTheTokenNothingIsTold() throws Exception {
    HttpResponse<String> r =
        client.send(
            HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api/shells")).build(),
            HttpResponse.BodyHandlers.ofString());
    assertThat(r.statusCode()).isEqualTo(401);
  }

  @ParameterizedTest
  @ValueSource(strings = {"/%61pi/shells", "/api;x/shells", "/api/shells;x=/files", "//api/shells"})
  void withoutTheTokenNoSpellingOfAnAddressPasses(String address) throws Exception {
    HttpResponse<String> r = page(address);
    assertThat(r.statusCode()).isIn(400, 401, 404);
    assertThat(r.body()).doesNotContain("\"title\"");
  }

  private HttpResponse<String> page(String path) throws Exception {
    return client.send(
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path)).build(),
        HttpResponse.BodyHandlers.ofString());
  }

  private String keep(String content) throws Exception {
    byte[] bytes = content.getBytes(StandardCharsets.UTF_8);
    String sha = HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    assertThat(call("PUT", "/api/files/" + sha, content).statusCode()).isEqualTo(200);
    return sha;
  }

  @Test
  void studentsSeeNeitherWhatIsForInstructorsNorBanksNorTheirFilesByAnyAddress() throws Exception {
    String key = keep("The answers");
    String hidden =
        add("v1", "Answer key", "<a href='/files/" + key + "/key.pdf'>key</a>")
            .replace("\"instructorsOnly\":false", "\"instructorsOnly\":true");
    String bank = keep("The bank");
    String banked =
        add("v2", "Bank of answers", "")
            .replace("PAGE", "QUESTION_BANK")
            .replace("\"more\":{}", "\"more\":{\"file\":{\"sha256\":\"" + bank + "\"}}");
    for (String step : List.of(hidden, banked)) {
      String id = steps(step).path("id").asString();
      assertThat(page("/shells/s").body()).doesNotContain("nswer");
      assertThat(page("/shells/s?item=" + id).body()).doesNotContain("nswer");
      assertThat(page("/shells/s?work=true&item=" + id).body()).contains("nswer");
    }
    for (String sha : List.of(key, bank)) {
      assertThat(page("/files/" + sha + "/x").statusCode()).isEqualTo(404);
      assertThat(page("/files/" + sha + "/x?work=true").statusCode()).isEqualTo(200);
    }
    steps(add("v3", "For all", "<a href='/files/" + key + "/key.pdf'>key</a>"));
    assertThat(page("/files/" + key + "/x").statusCode()).isEqualTo(200);
  }

  @Test
  void aFileIsAskedForOnceAndWrongBytesAreRefused() throws Exception {
    byte[] bytes = "load table".getBytes(StandardCharsets.UTF_8);
    String sha = HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    String asked = "{\"sha256\":[\"" + sha + "\"]}";
    assertThat(call("POST", "/api/files/missing", asked).body()).contains(sha);
    assertThat(call("PUT", "/api/files/" + sha, "something else").statusCode()).isEqualTo(400);
    assertThat(call("POST", "/api/files/missing", asked).body()).contains(sha);
    assertThat(call("PUT", "/api/files/" + sha, "load table").statusCode()).isEqualTo(200);
    assertThat(call("POST", "/api/files/missing", asked).body()).doesNotContain(sha);
    assertThat(call("GET", "/files/" + sha + "/t.txt?work=true", "").body())
        .isEqualTo("load table");
  }

  private void fault(String kind) throws Exception {
    call(
        "POST",
        "/api/faults",
        "{\"shell\":\"s\",\"kind\":\"" + kind + "\",\"times\":1,\"seconds\":1}");
  }

  private int read() throws Exception {
    return call("GET", "/api/shells/s/items", "").statusCode();
  }

  @ParameterizedTest
  @CsvSource({"ERROR,500", "REFUSE,403", "TOKEN,401", "LIMIT,429", "SLOW,200"})
  void aShellFailsAsOftenAsItWasAskedTo(String kind, int status) throws Exception {
    fault(kind);
    assertThat(read()).isEqualTo(status);
    assertThat(read()).isEqualTo(200);
  }

  @Test
  void aCutConnectionDoesNothingAndALostAnswerHasDoneTheWork() throws Exception {
    fault("CUT");
    assertThatThrownBy(() -> steps(add("cut", "Cut", ""))).isInstanceOf(IOException.class);
    assertThat(titled("Cut")).isZero();
    fault("LOSE");
    assertThatThrownBy(() -> steps(add("lost", "Lost", ""))).isInstanceOf(IOException.class);
    assertThat(titled("Lost")).isEqualTo(1);
    assertThat(steps(add("lost", "Lost", "")).path("repeated").asBoolean()).isTrue();
  }

  @Test
  void halfABatchMayBeDone() throws Exception {
    fault("PART");
    String both = "{\"steps\":[" + add("p1", "First", "") + "," + add("p2", "Second", "") + "]}";
    assertThat(call("POST", "/api/shells/s/steps", both).statusCode()).isEqualTo(500);
    assertThat(titled("First") + titled("Second")).isEqualTo(1);
  }

  @Test
  void anItemThatIsNotAsTheWriterHasSeenItIsNotWritten() throws Exception {
    JsonNode added = steps(add("r1", "Seen", "<p>a</p>"));
    String update =
        """
        {"key":"%s","op":"UPDATE","id":"%s","revision":%d,"wording":{"title":"Seen","html":"b"}}""";
    String id = added.path("id").asString();
    long revision = added.path("revision").asLong();
    JsonNode once = steps(update.formatted("r2", id, revision));
    assertThat(once.path("revision").asLong()).isGreaterThan(revision);
    String stale = "{\"steps\":[" + update.formatted("r3", id, revision) + "]}";
    assertThat(call("POST", "/api/shells/s/steps", stale).statusCode()).isEqualTo(409);
  }

  @Test
  void anItemInAModuleThatIsNotThereIsNotAdded() throws Exception {
    String lost = add("m1", "Lost child", "").replace("\"rank\"", "\"parent\":\"x\",\"rank\"");
    assertThat(call("POST", "/api/shells/s/steps", "{\"steps\":[" + lost + "]}").statusCode())
        .isEqualTo(409);
  }

  @Test
  void aShellThatIsNotThereIsNotFound() throws Exception {
    assertThat(call("GET", "/api/shells/nowhere/items", "").statusCode()).isEqualTo(404);
  }

  @Test
  void shellsAreMadeByHandFromLinesOfIdsAndTitles() throws Exception {
    client.send(
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/shells"))
            .header("Content-Type", "application/x-www-form-urlencoded")
            .POST(HttpRequest.BodyPublishers.ofString("lines=h1,+Rigging,+one%0D%0A%0D%0Ah2"))
            .build(),
        HttpResponse.BodyHandlers.ofString());
    assertThat(call("GET", "/api/shells?after=h", "").body())
        .contains("\"id\":\"h1\",\"title\":\"Rigging, one\"", "\"id\":\"h2\",\"title\":\"h2\"");
  }

  @Test
  void whatIsSentWhileTheQueueIsPausedIsAcceptedAndDoneOnceWhenItGoesOn() throws Exception {
    String step =
        "{\"steps\":[{\"key\":\"q1\",\"op\":\"ADD\",\"kind\":\"PAGE\","
            + "\"wording\":{\"title\":\"Queued\",\"html\":\"<p>q</p>\"}}]}";
    call("PUT", "/api/queue", "{\"paused\":true}");
    try {
      assertThat(call("POST", "/api/shells/s/steps", step).statusCode()).isEqualTo(202);
      assertThat(call("POST", "/api/shells/s/steps", step).statusCode()).isEqualTo(202);
      assertThat(call("GET", "/api/shells/s/items", "").body()).doesNotContain("Queued");
    } finally {
      call("PUT", "/api/queue", "{\"paused\":false}");
    }
    assertThat(call("GET", "/api/shells/s/items", "").body()).containsOnlyOnce("Queued");
    assertThat(call("POST", "/api/shells/s/steps", step).statusCode()).isEqualTo(200);
    assertThat(call("GET", "/api/shells/s/items", "").body()).containsOnlyOnce("Queued");
  }
}
