package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zephyrmist.core.content.Fingerprint;
import tools.jackson.databind.json.JsonMapper;

/** Calls as nobody should make them: each has the right refusal, and nobody else notices. */
class RoughIT extends ServerIT {
  private static final HttpClient PLAIN = HttpClient.newHttpClient();

  private HttpResponse<String> plain(HttpRequest.Builder b) throws Exception {
    return PLAIN.send(b.build(), HttpResponse.BodyHandlers.ofString());
  }

  private HttpRequest.Builder at(String path) {
    return HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path));
  }

  private void problem(Caller.Answer a, int status) {
    assertThat(a.status()).as(a.text()).isEqualTo(status);
    for (String field : List.of("detail", "remedy")) {
      assertThat(new JsonMapper().readTree(a.text()).path(field).asString())
          .as(field + " of " + a.text())
          .isNotBlank();
    }
  }

  @Test
  void whatIsWrongWithACallIsSaidInPlainWords() throws Exception {
    String nowhere = coordinator.get("/api/nowhere").text();
    assertThat(nowhere).contains("There is nothing at this address").doesNotContain("static");
    assertThat(coordinator.get("/api/deliveries?most=-1").text()).contains("Not valid: most ");
    assertThat(coordinator.get("/api/masters/xyz").text()).contains("Not valid: id.");
    assertThat(coordinator.delete("/api/deliveries").text()).contains("DELETE");
    assertThat(coordinator.post("/api/masters", "{\"code\":\"A\",\"title\":\"\u200b\"}").text())
        .contains("Not valid: title needs a letter or a digit");
  }

  @Test
  void aFileUnderALongNameIsNotFoundAndTheAnswersOfOthersStayWhole() throws Exception {
    String sha = "ab".repeat(32);
    for (int i = 0; i < 20; i++) {
      problem(coordinator.get("/api/files/" + sha + "/" + "n".repeat(4_000)), 404);
      assertThat(coordinator.get("/api/me").json().path("email").asString())
          .isEqualTo("coordinator@x.example");
    }
  }

  @Test
  void aFileThatIsThereIsServedUnderAnyNameAndInParts() throws Exception {
    sections("lgt-ra1");
    master("RA");
    byte[] pdf = Samples.PDF;
    String sha = Fingerprint.of(Fingerprint.sha256().digest(pdf)).hex();
    String path = "/api/files/" + sha + "/" + "%E2%82%AC%22".repeat(20) + ".pdf";
    assertThat(coordinator.get(path).text()).isEqualTo(new String(pdf, StandardCharsets.UTF_8));
    problem(coordinator.get("/api/files/" + sha + "/" + "n".repeat(4_000)), 404);
    HttpRequest.Builder part = at("/api/files/" + sha + "/x.pdf").header("Range", "bytes=5-7");
    coordinator.cookies().forEach(c -> part.header("Cookie", c.getName() + "=" + c.getValue()));
    HttpResponse<String> r = plain(part);
    assertThat(r.statusCode()).isEqualTo(206);
    assertThat(r.body()).isEqualTo(new String(pdf, 5, 3, StandardCharsets.UTF_8));
    assertThat(r.headers().firstValue("Content-Range").orElse("")).endsWith("/" + pdf.length);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "POST | /api/masters | {\"code\":\"A\\u0000B\",\"title\":\"T\"} | 400",
        "POST | /api/masters | {\"code\":\"\\u200b\",\"title\":\"T\"} | 400",
        "POST | /api/masters | {\"code\":\"R\",\"title\":\"\\u200b\\u2060\"} | 400",
        "POST | /api/masters | {\"code\": | 400",
        "POST | /api/masters | [] | 400",
        "POST | /api/masters | null | 400",
        "POST | /api/masters | {\"code\":\"R\",\"title\":\"T\",\"edition\":\"x\"} | 400",
        "POST | /api/masters | {\"code\":\"R\",\"title\":\"T\",\"courses\":[null]} | 400",
        "POST | /api/deliveries | {} | 400",
        "POST | /api/deliveries | {\"version\":\"00000000-0000-0000-0000-000000000000\",\"sections\":[null]} | 400",
        "POST | /api/deliveries | {\"version\":\"00000000-0000-0000-0000-000000000000\",\"sections\":[],\"choices\":{}} | 400",
        "POST | /api/deliveries/readings | {\"sections\":null} | 400",
        "PUT | /api/deliveries/00000000-0000-0000-0000-000000000000/choices | {} | 400",
        "POST | /api/me/tokens | {\"name\":\"t\",\"scopes\":[null],\"days\":5} | 400",
        "POST | /api/me/tokens | {\"name\":\"t\",\"scopes\":[\"READ\"],\"days\":999999999} | 400",
        "GET | /api/coverage?term=x | | 400",
        "GET | /api/coverage | | 400",
        "GET | /api/search | | 400",
        "GET | /api/search?q=%00 | | 400",
        "GET | /api/masters/x | | 400",
        "GET | /api/nothing | | 404",
        "GET | /error | | 404",
        "GET | /nothing/at/all.css | | 404",
        "DELETE | /api/masters | | 405",
        "POST | /api/cartridges/intakes?fileName=%20 | x | 415",
      })
  void anOddCallIsAProblemOfTheCaller(String method, String path, String body, int status) {
    problem(coordinator.call(method, path, body), status);
  }

  @ParameterizedTest
  @ValueSource(strings = {"?most=-1", "?most=0", "?most=100000", "?most=x"})
  void aListHasNoOddLength(String query) {
    assertThat(coordinator.get("/api/deliveries" + query).status()).isEqualTo(400);
  }

  @Test
  void aFileWithoutANameAndAFormWhereJsonIsWantedAreRefused() throws Exception {
    problem(
        coordinator.upload("/api/cartridges/intakes?fileName=%20%E2%80%8B", new byte[] {1}), 422);
    HttpRequest.Builder form =
        at("/api/masters")
            .header("Content-Type", "multipart/form-data; boundary=x")
            .POST(HttpRequest.BodyPublishers.ofString("--x\r\n\r\n--x--"));
    String cookies = "";
    for (var c : coordinator.cookies()) {
      cookies += c.getName() + "=" + c.getValue() + "; ";
      if (c.getName().equals("XSRF-TOKEN")) {
        form.header("X-XSRF-TOKEN", c.getValue());
      }
    }
    HttpResponse<String> r = plain(form.header("Cookie", cookies));
    assertThat(r.statusCode()).as(r.body()).isEqualTo(415);
  }

  @Test
  void aMissingTokenAgainstForgedCallsIsSaidAsSuch() {
    Caller.Answer a = coordinator.forged("/api/masters", "{}");
    problem(a, 403);
    assertThat(a.json().path("detail").asString()).contains("comes from our own pages");
  }

  @Test
  void aTokenAgainstForgedCallsIsOfOneSession() throws Exception {
    String session = "";
    for (var c : coordinator.cookies()) {
      session += c.getName().equals("XSRF-TOKEN") ? "" : c.getName() + "=" + c.getValue() + "; ";
    }
    String others = "";
    for (var c : administrator.cookies()) {
      others = c.getName().equals("XSRF-TOKEN") ? c.getValue() : others;
    }
    for (String token : List.of(others, "b3f7c1a6-0000-4000-8000-1d2a3b4c5d6e")) {
      HttpResponse<String> r =
          plain(
              at("/api/deliveries")
                  .header("Content-Type", "application/json")
                  .header("Cookie", session + "XSRF-TOKEN=" + token)
                  .header("X-XSRF-TOKEN", token)
                  .POST(HttpRequest.BodyPublishers.ofString("{}")));
      assertThat(r.statusCode()).as(r.body()).isEqualTo(403);
      assertThat(r.body()).contains("comes from our own pages");
    }
    assertThat(coordinator.post("/api/deliveries", "{}").status()).isEqualTo(400);
  }

  /** What is wrong with the body is for those to know who may make the call. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "POST | /api/platforms | {} | 403",
        "POST | /api/platforms | { | 403",
        "POST | /api/tools/connections | {\"name\":7} | 403",
        "PUT | /api/tools/connections/x | {} | 403",
      })
  void theRoleIsLookedAtBeforeTheBody(String method, String path, String body, int status) {
    problem(coordinator.call(method, path, body), status);
  }

  @Test
  void whatTheContainerItselfRefusesIsAProblemWithHeadersToo() throws Exception {
    for (String line : List.of("GET /%zz HTTP/1.1", "GET /api/[ HTTP/1.1", "NONSENSE")) {
      try (Socket s = new Socket("127.0.0.1", port)) {
        s.setSoTimeout(20_000);
        s.getOutputStream()
            .write(
                (line + "\r\nHost: x\r\nConnection: close\r\n\r\n")
                    .getBytes(StandardCharsets.US_ASCII));
        String answer = new String(s.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(answer).as(line).startsWith("HTTP/1.1 4").doesNotContain("<html");
        if (!line.equals("NONSENSE")) {
          assertThat(answer).as(line).contains("application/problem+json", "nosniff");
        }
      } catch (java.net.SocketException closedAtOnce) {
        assertThat(line).isNotBlank();
      }
    }
  }

  @Test
  void everyPageOfTheInterfaceHasAnAddressThatCanBeOpened() throws Exception {
    String routes = Files.readString(Path.of("..", "web", "src", "routes.ts"));
    List<String> pages =
        Pattern.compile("at: '(/[^']+)'").matcher(routes).results().map(r -> r.group(1)).toList();
    assertThat(pages).contains("/checks", "/deliveries/");
    for (String at : pages) {
      HttpResponse<String> r = plain(at(at));
      assertThat(r.statusCode()).as(at).isEqualTo(200);
      assertThat(r.headers().firstValue("Content-Type").orElse("")).as(at).contains("text/html");
    }
  }

  @Test
  void errorPagesCarryOurHeaders() throws Exception {
    for (String path : List.of("/api/nothing", "/nothing", "/error")) {
      HttpResponse<String> r = plain(at(path));
      assertThat(r.statusCode()).isIn(401, 404);
      assertThat(r.headers().firstValue("Content-Security-Policy").orElse(""))
          .as(path)
          .contains("default-src 'none'");
      assertThat(r.headers().firstValue("X-Content-Type-Options")).as(path).contains("nosniff");
    }
  }

  @Test
  void thePageIsAskedForEachTimeAndItsAssetsAreKept() throws Exception {
    HttpResponse<String> page = plain(at("/"));
    assertThat(page.headers().firstValue("Cache-Control").orElse(""))
        .containsAnyOf("no-cache", "no-store");
    int from = page.body().indexOf("/assets/");
    if (from > 0) {
      String asset = page.body().substring(from, page.body().indexOf('"', from));
      assertThat(plain(at(asset)).headers().firstValue("Cache-Control").orElse(""))
          .contains("immutable");
    }
  }

  @Test
  void bodiesHaveASizeBeforeTheyAreRead() throws Exception {
    Instant start = Instant.now();
    for (String path : List.of("/api/first-person", "/api/sign-in", "/api/masters")) {
      try (Socket s = new Socket("127.0.0.1", port)) {
        s.setSoTimeout(20_000);
        s.getOutputStream()
            .write(
                ("POST "
                        + path
                        + " HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\n"
                        + "Content-Length: 95000000\r\n\r\n{")
                    .getBytes(StandardCharsets.US_ASCII));
        byte[] answer = s.getInputStream().readNBytes(12);
        assertThat(new String(answer, StandardCharsets.US_ASCII)).isEqualTo("HTTP/1.1 413");
      }
    }
    assertThat(Duration.between(start, Instant.now())).isLessThan(Duration.ofSeconds(20));
    String large = "{\"title\":\"" + "x".repeat(9_000_000) + "\"}";
    HttpRequest.Builder chunked =
        at("/api/masters")
            .header("Content-Type", "application/json")
            .POST(
                HttpRequest.BodyPublishers.fromPublisher(
                    HttpRequest.BodyPublishers.ofString(large)));
    try {
      assertThat(plain(chunked).statusCode()).isEqualTo(413);
    } catch (IOException closedWhileSending) {
      assertThat(coordinator.get("/api/me").status()).isEqualTo(200);
    }
  }

  @Test
  void slowBodiesHoldNobodyUp() throws Exception {
    List<Socket> slow = new ArrayList<>();
    try {
      for (int i = 0; i < 260; i++) {
        Socket s = new Socket("127.0.0.1", port);
        slow.add(s);
        String path = i % 3 == 0 ? "/api/sign-in" : i % 3 == 1 ? "/api/masters" : "/api/roster";
        String type = i % 3 == 2 ? "application/octet-stream" : "application/json";
        s.getOutputStream()
            .write(
                ("POST "
                        + path
                        + " HTTP/1.1\r\nHost: x\r\nContent-Type: "
                        + type
                        + "\r\nContent-Length: 900\r\n\r\n{")
                    .getBytes(StandardCharsets.US_ASCII));
      }
      Instant start = Instant.now();
      for (int i = 0; i < 10; i++) {
        assertThat(coordinator.get("/api/me").status()).isEqualTo(200);
        assertThat(
                coordinator
                    .patch("/api/masters/00000000-0000-0000-0000-000000000000/draft/items/x", "{}")
                    .status())
            .isEqualTo(404);
      }
      assertThat(Duration.between(start, Instant.now())).isLessThan(Duration.ofSeconds(20));
      Socket one = slow.get(1);
      one.setSoTimeout(30_000);
      assertThat(new String(one.getInputStream().readNBytes(12), StandardCharsets.US_ASCII))
          .isEqualTo("HTTP/1.1 408");
    } finally {
      for (Socket s : slow) {
        s.close();
      }
    }
  }

  @Test
  void aCodeIsGivenOnceHoweverManyAskAtOnce() throws Exception {
    sections("lgt-rb1");
    List<Thread> all = new ArrayList<>();
    List<Integer> answers = Collections.synchronizedList(new ArrayList<>());
    for (int i = 0; i < 8; i++) {
      Thread t =
          new Thread(
              () ->
                  answers.add(
                      coordinator
                          .post(
                              "/api/masters", "{\"code\":\"ONCE\",\"title\":\"T\",\"courses\":[]}")
                          .status()));
      all.add(t);
      t.start();
    }
    for (Thread t : all) {
      t.join();
    }
    assertThat(answers).containsOnlyOnce(201).allMatch(s -> s == 201 || s == 409);
  }

  @Test
  void aNameWithNulInAnArchiveIsRefusedAsWhatItIs() throws Exception {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.write(Samples.zip(Map.of("imsmanifest.xml", "<manifest/>", "a#b", "x")));
    byte[] zip = out.toByteArray();
    for (int i = 0; i < zip.length - 2; i++) {
      if (zip[i] == 'a' && zip[i + 1] == '#' && zip[i + 2] == 'b') {
        zip[i + 1] = 0;
      }
    }
    var intake = read(takeIn(zip, "nul.imscc"));
    assertThat(intake.path("state").asString()).isEqualTo("REFUSED");
    assertThat(intake.path("place").asString()).isEqualTo("a·b");
    assertThat(intake.path("problem").asString()).doesNotContain("server stopped");
  }
}
