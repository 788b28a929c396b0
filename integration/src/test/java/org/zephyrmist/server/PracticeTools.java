package org.zephyrmist.server;

import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.zephyrmist.stage.Ports;
import org.zephyrmist.stage.Postgres;
import org.zephyrmist.stage.Program;

/** The practice tools, as a process of their own, started once for all tests that need them. */
final class PracticeTools {
  private static final int PORT = Ports.free();
  static final String ADDRESS = "http://127.0.0.1:" + PORT;
  private static final HttpClient CLIENT = HttpClient.newHttpClient();
  private static Program program;

  private PracticeTools() {}

  static synchronized void start(Postgres in, String database) throws Exception {
    if (program != null) {
      return;
    }
    Map<String, String> settings =
        Map.of(
            "STANDINS_WHAT",
            "tools",
            "STANDINS_POOL",
            "4",
            "STANDINS_PORT",
            String.valueOf(PORT),
            "STANDINS_DB_URL",
            database + "?currentSchema=practice",
            "STANDINS_DB_USER",
            Postgres.ROLE,
            "STANDINS_DB_PASSWORD",
            in.password());
    program = Program.start("standins", "it-tools" + PORT, List.of("-Xmx200m"), settings);
    program.await(ADDRESS + "/");
  }

  private static HttpResponse<String> call(String method, String path, String type, String body)
      throws Exception {
    HttpRequest.Builder r =
        HttpRequest.newBuilder(URI.create(path.startsWith("http") ? path : ADDRESS + path))
            .header("Authorization", "Bearer practice-token")
            .method(method, HttpRequest.BodyPublishers.ofString(body));
    if (type != null) {
      r.header("Content-Type", type);
    }
    return CLIENT.send(r.build(), HttpResponse.BodyHandlers.ofString());
  }

  static void key(String host, String key, String secret) throws Exception {
    courseKey(host, key, secret, "");
  }

  /** Gives a key out that carries a course. */
  static void courseKey(String host, String key, String secret, String course) throws Exception {
    json(
        "POST",
        "/api/" + host + "/keys",
        "[{\"key\":\"%s\",\"secret\":\"%s\",\"course\":\"%s\"}]".formatted(key, secret, course));
  }

  static void knobs(String host, boolean down, int slow, int minutes, String movedTo)
      throws Exception {
    json(
        "PUT",
        "/api/" + host + "/knobs",
        "{\"down\":%s,\"slow\":%d,\"minutes\":%d,\"clockOff\":0,\"movedTo\":\"%s\"}"
            .formatted(down, slow, minutes, movedTo));
  }

  /** Tasks are due at a time of the tool's own. */
  static void due(String host, String due) throws Exception {
    json(
        "PUT",
        "/api/" + host + "/knobs",
        "{\"down\":false,\"slow\":0,\"minutes\":0,\"clockOff\":0,\"movedTo\":\"\",\"due\":\"%s\"}"
            .formatted(due));
  }

  private static void json(String method, String path, String body) throws Exception {
    int status = call(method, path, "application/json", body).statusCode();
    if (status != 200) {
      throw new AssertionError(path + " answered " + status);
    }
  }

  /** Tells a registered tool of a platform, with the deployment d1. */
  static void platform(String host, String issuer, String client, String at, String authorize)
      throws Exception {
    json(
        "PUT",
        "/api/" + host + "/platforms",
        ("{\"issuer\":\"%s\",\"client\":\"%s\",\"deployments\":[\"d1\"],\"keys\":\"%s/keys\","
                + "\"authorize\":\"%s\",\"token\":\"%s/token\"}")
            .formatted(issuer, client, at, authorize, at));
  }

  /** The tool's clock is ahead by some seconds. */
  static void clock(String host, int seconds) throws Exception {
    json(
        "PUT",
        "/api/" + host + "/knobs",
        "{\"down\":false,\"slow\":0,\"minutes\":0,\"clockOff\":%d,\"movedTo\":\"\"}"
            .formatted(seconds));
  }

  /** An instructor opens a tool link of a shell, as a browser would; gives the tool's page. */
  static String open(String shell, String title) throws Exception {
    return open(shell, title, "work=true");
  }

  static String openAs(String shell, String title, String student) throws Exception {
    return open(shell, title, "student=" + student);
  }

  /** A registration goes to the tool and back before the page comes. */
  private static String open(String shell, String title, String who) throws Exception {
    String item = Practice.item(shell, title).path("id").asString();
    String form = Practice.page("/shells/" + shell + "/items/" + item + "/open?" + who);
    String page = send(action(form), fields(form));
    return page.contains("name=\"id_token\"") ? send(action(page), fields(page)) : page;
  }

  private static String action(String form) {
    Matcher action = Pattern.compile("<form[^>]* action=\"([^\"]+)\"").matcher(form);
    if (!action.find()) {
      throw new AssertionError(form);
    }
    return action.group(1).replace("&amp;", "&");
  }

  /** Presses the first button of a tool's page. */
  static String answer(String page, String path) throws Exception {
    return answer(page, path, Map.of());
  }

  /** The same, with what a person fills in. */
  static String answer(String page, String path, Map<String, String> filled) throws Exception {
    Map<String, String> all = fields(page);
    all.putAll(filled);
    return send(ADDRESS + path, all);
  }

  /** Where an address leads on to. */
  static String leads(String address) throws Exception {
    return call("GET", address, null, "").headers().firstValue("Location").orElse("");
  }

  private static String send(String to, Map<String, String> fields) throws Exception {
    String body =
        fields.entrySet().stream()
            .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
            .collect(Collectors.joining("&"));
    HttpResponse<String> r = call("POST", to, "application/x-www-form-urlencoded", body);
    return r.statusCode() / 100 == 3
        ? call("GET", r.headers().firstValue("Location").orElseThrow(), null, "").body()
        : r.body();
  }

  /** Hidden fields of a page, the last of each name. */
  private static Map<String, String> fields(String page) {
    Map<String, String> all = new java.util.TreeMap<>();
    Matcher m =
        Pattern.compile("<input type=\"hidden\"[^>]* name=\"([^\"]+)\" value=\"([^\"]*)\"")
            .matcher(page);
    while (m.find()) {
      all.put(
          m.group(1),
          m.group(2)
              .replace("&#39;", "'")
              .replace("&quot;", "\"")
              .replace("&lt;", "<")
              .replace("&gt;", ">")
              .replace("&amp;", "&"));
    }
    return all;
  }
}
