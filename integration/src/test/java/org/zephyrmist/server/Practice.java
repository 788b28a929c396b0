package org.zephyrmist.server;

import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import org.zephyrmist.stage.Ports;
import org.zephyrmist.stage.Postgres;
import org.zephyrmist.stage.Program;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The real practice platform, as a process of its own, started once for all tests. */
final class Practice {
  private static final int PORT = Ports.free();
  static final int SMTP_PORT = Ports.free();
  private static final HttpClient CLIENT = HttpClient.newHttpClient();
  private static final JsonMapper JSON = new JsonMapper();
  private static Program program;

  private Practice() {}

  static String address() {
    return "http://127.0.0.1:" + PORT;
  }

  static synchronized void start(Postgres in, String database) {
    if (program != null) {
      return;
    }
    Map<String, String> settings =
        Map.of(
            "STANDINS_PORT",
            String.valueOf(PORT),
            "STANDINS_SMTP_PORT",
            String.valueOf(SMTP_PORT),
            "STANDINS_TOOLS",
            PracticeTools.ADDRESS,
            "STANDINS_DB_URL",
            database + "?currentSchema=practice",
            "STANDINS_DB_USER",
            Postgres.ROLE,
            "STANDINS_DB_PASSWORD",
            in.password());
    try {
      program = Program.start("standins", "it-practice" + PORT, List.of("-Xmx300m"), settings);
      program.await(address() + "/");
    } catch (IOException | InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  static JsonNode get(String path) throws IOException, InterruptedException {
    HttpRequest r =
        HttpRequest.newBuilder(URI.create(address() + path))
            .header("Authorization", "Bearer practice-token")
            .build();
    return JSON.readTree(CLIENT.send(r, HttpResponse.BodyHandlers.ofString()).body());
  }

  private static void post(String path, String type, String body) throws Exception {
    HttpRequest r =
        HttpRequest.newBuilder(URI.create(address() + path))
            .header("Authorization", "Bearer practice-token")
            .header("Content-Type", type)
            .POST(HttpRequest.BodyPublishers.ofString(body))
            .build();
    int status = CLIENT.send(r, HttpResponse.BodyHandlers.discarding()).statusCode();
    if (status >= 400) {
      throw new IllegalStateException(path + " answered " + status);
    }
  }

  /** Closes the mailbox, or opens it. */
  static void mailbox(boolean closed) throws Exception {
    post("/mailbox/closed", "application/x-www-form-urlencoded", "closed=" + closed);
  }

  /** Pauses the platform's own queue, or lets it go on. */
  static void queue(boolean paused) throws Exception {
    HttpResponse<String> r =
        CLIENT.send(
            HttpRequest.newBuilder(URI.create(address() + "/api/queue"))
                .header("Authorization", "Bearer practice-token")
                .header("Content-Type", "application/json")
                .PUT(HttpRequest.BodyPublishers.ofString("{\"paused\":" + paused + "}"))
                .build(),
            HttpResponse.BodyHandlers.ofString());
    if (r.statusCode() != 200) {
      throw new AssertionError(r.body());
    }
  }

  static void makeShell(String id) throws Exception {
    post(
        "/api/shells",
        "application/json",
        JSON.writeValueAsString(
            List.of(
                Map.of("id", id, "title", id, "course", "LGT 110", "term", "t1", "students", 12))));
  }

  /** What goes wrong with the next so many calls on this shell; on every call without a shell. */
  static void fault(String shell, String kind, int times) throws Exception {
    Map<String, Object> f = new HashMap<>(Map.of("kind", kind, "times", times, "seconds", 1));
    f.put("shell", shell);
    f.put("status", 503);
    post("/api/faults", "application/json", JSON.writeValueAsString(f));
  }

  /** From now on, with this chance at each call on the shell. */
  static void faultAt(String shell, String kind, double chance) throws Exception {
    post(
        "/api/faults",
        "application/json",
        JSON.writeValueAsString(Map.of("shell", shell, "kind", kind, "chance", chance)));
  }

  static void noFaults() throws Exception {
    HttpRequest r =
        HttpRequest.newBuilder(URI.create(address() + "/api/faults"))
            .header("Authorization", "Bearer practice-token")
            .DELETE()
            .build();
    CLIENT.send(r, HttpResponse.BodyHandlers.discarding());
  }

  static List<JsonNode> items(String shell) throws Exception {
    List<JsonNode> all = new ArrayList<>();
    get("/api/shells/" + shell + "/items").forEach(all::add);
    return all;
  }

  static List<String> titles(String shell) throws Exception {
    return items(shell).stream().map(i -> i.path("wording").path("title").asString()).toList();
  }

  static JsonNode item(String shell, String title) throws Exception {
    return items(shell).stream()
        .filter(i -> i.path("wording").path("title").asString().equals(title))
        .findFirst()
        .orElseThrow();
  }

  static String html(String shell, String title) throws Exception {
    return item(shell, title).path("wording").path("html").asString("");
  }

  static byte[] bytes(String path) throws Exception {
    HttpRequest r = HttpRequest.newBuilder(URI.create(address() + path)).build();
    return CLIENT.send(r, HttpResponse.BodyHandlers.ofByteArray()).body();
  }

  /** A file that only the platform has. */
  static String file(byte[] bytes) throws Exception {
    String sha = HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    HttpRequest r =
        HttpRequest.newBuilder(URI.create(address() + "/api/files/" + sha))
            .header("Authorization", "Bearer practice-token")
            .header("Content-Type", "application/pdf")
            .PUT(HttpRequest.BodyPublishers.ofByteArray(bytes))
            .build();
    CLIENT.send(r, HttpResponse.BodyHandlers.discarding());
    return sha;
  }

  /** What somebody sees on a page of the platform. */
  static String page(String path) throws Exception {
    return new String(bytes(path), StandardCharsets.UTF_8);
  }

  /** The instructor adds a page at the end. */
  static void addPage(String shell, String title, String html) throws Exception {
    post(
        "/shells/" + shell + "/add",
        "application/x-www-form-urlencoded",
        fields(Map.of("title", title, "html", html)));
  }

  /** The instructor gives the shell so many places for weeks. */
  static void weeks(String shell, int places) throws Exception {
    post(
        "/shells/" + shell + "/weeks",
        "application/x-www-form-urlencoded",
        fields(Map.of("places", "" + places)));
  }

  /** What an instructor does on an item of the shell's page. */
  static void form(String shell, String title, String what, Map<String, String> fields)
      throws Exception {
    String id = item(shell, title).path("id").asString();
    post(
        "/shells/" + shell + "/items/" + id + "/" + what,
        "application/x-www-form-urlencoded",
        fields(fields));
  }

  /** An instructor brings a package in on the shell's page. */
  static void bringIn(String shell, byte[] cartridge) throws Exception {
    String edge = "edge-of-a-part";
    java.io.ByteArrayOutputStream body = new java.io.ByteArrayOutputStream();
    body.writeBytes(
        ("--"
                + edge
                + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"p.imscc\"\r\n"
                + "Content-Type: application/zip\r\n\r\n")
            .getBytes(StandardCharsets.UTF_8));
    body.writeBytes(cartridge);
    body.writeBytes(("\r\n--" + edge + "--\r\n").getBytes(StandardCharsets.UTF_8));
    int status =
        CLIENT
            .send(
                HttpRequest.newBuilder(URI.create(address() + "/shells/" + shell + "/package"))
                    .header("Content-Type", "multipart/form-data; boundary=" + edge)
                    .POST(HttpRequest.BodyPublishers.ofByteArray(body.toByteArray()))
                    .build(),
                HttpResponse.BodyHandlers.discarding())
            .statusCode();
    if (status >= 400) {
      throw new IllegalStateException("The practice platform answered " + status);
    }
  }

  private static String fields(Map<String, String> fields) {
    StringBuilder body = new StringBuilder();
    fields.forEach(
        (k, v) ->
            body.append(body.isEmpty() ? "" : "&")
                .append(k)
                .append('=')
                .append(URLEncoder.encode(v, StandardCharsets.UTF_8)));
    return body.toString();
  }
}
