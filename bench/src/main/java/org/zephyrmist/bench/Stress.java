package org.zephyrmist.bench;

import java.io.IOException;
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
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import org.zephyrmist.stage.Caller;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/**
 * Odd calls and races against every call of the API, while honest people go on working: no answer
 * may be a server's fault or come late, and no change that was acknowledged may be lost.
 */
final class Stress {
  /** What would end the callers themselves. */
  private static final List<String> LEFT_OUT =
      List.of("/api/me/password", "/api/sign-out", "/api/platforms/{id}", "/api/first-person");

  private static final Duration LATEST = Duration.ofSeconds(30);
  private static final int CALLERS = 6;
  private static final int WRITERS = 4;
  private final long seed;
  private final Duration time;
  private final HttpClient client =
      HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();
  private final List<String> faults = Collections.synchronizedList(new ArrayList<>());
  private final Map<String, AtomicInteger> answers = new ConcurrentHashMap<>();
  private final JsonNode description;
  private College college;
  private String master;
  private volatile Instant end;

  /** A call of the API. */
  private record Call(String method, String path, JsonNode operation) {}

  Stress(long seed, Duration time) throws IOException {
    this.seed = seed;
    this.time = time;
    this.description =
        Caller.JSON.readTree(
            Files.readString(Path.of(System.getProperty("root", "."), "web/openapi.json")));
  }

  /**
   * @return how often each status was answered
   * @throws IllegalStateException with what went wrong
   */
  Map<String, Integer> run() throws Exception {
    Path folder = Folders.fresh("stress");
    try (Stage s = Measuring.stage("-Xmx400m", Map.of())) {
      college = College.found(4, folder);
      master = college.make(college.takeIn(Samples.cartridge(folder, 30)));
      Map<String, List<String>> known = known(s);
      end = Instant.now().plus(time);
      ExecutorService pool = Executors.newFixedThreadPool(CALLERS + WRITERS);
      List<Future<?>> all = new ArrayList<>();
      List<String> tokens = tokens();
      for (int i = 0; i < CALLERS; i++) {
        Random random = new Random(seed + i);
        all.add(pool.submit(() -> odd(random, known, tokens)));
      }
      for (int i = 0; i < WRITERS; i++) {
        int writer = i;
        DraftWriter w = new DraftWriter(writer, master, end, faults);
        all.add(pool.submit(w));
      }
      for (Future<?> f : all) {
        f.get();
      }
      pool.shutdown();
      if (!college.api.get("/api/me").path("email").asString().contains("@")) {
        faults.add("The server does not answer as before");
      }
    }
    if (!faults.isEmpty()) {
      throw new IllegalStateException("With seed " + seed + ":\n" + String.join("\n", faults));
    }
    Map<String, Integer> sums = new TreeMap<>();
    answers.forEach((k, n) -> sums.put(k, n.get()));
    return sums;
  }

  /** Nobody, a false token, and tokens of every scope. */
  private List<String> tokens() {
    List<String> tokens = new ArrayList<>(List.of("", "zephyrmist_false"));
    for (int i = 0; i < 4; i++) {
      tokens.add(
          college
              .api
              .post(
                  "/api/me/tokens",
                  Map.of(
                      "name",
                      "stress",
                      "scopes",
                      List.of("READ", "SOURCES", "DELIVER", "COLLEGE"),
                      "days",
                      2))
              .path("token")
              .asString());
    }
    return tokens;
  }

  private Map<String, List<String>> known(Stage s) throws Exception {
    List<String> sections;
    try (var db = s.connect()) {
      sections = college.sections(db);
    }
    String other = college.make(college.api.get("/api/cartridges").get(0).path("id").asString());
    String delivery = college.plan(college.newest(), sections);
    List<String> keys = new ArrayList<>();
    for (JsonNode n : college.api.get("/api/masters/" + other + "/versions/0/outline")) {
      keys.add(n.path("key").asString());
    }
    JsonNode detail = college.api.get("/api/deliveries/" + delivery);
    Map<String, List<String>> known = new TreeMap<>();
    known.put("masters/id", List.of(other));
    known.put("master", List.of(other));
    known.put("sections/id", sections);
    known.put("section", sections);
    known.put("deliveries/id", List.of(delivery));
    known.put("line", List.of(detail.path("lines").get(0).path("id").asString()));
    known.put(
        "editions/id", List.of(college.api.get("/api/cartridges").get(0).path("id").asString()));
    known.put("edition", known.get("editions/id"));
    known.put("version", List.of(college.newest()));
    known.put("key", keys);
    known.put("parent", keys);
    known.put("before", keys);
    known.put("number", List.of("0", "1", "-1", "2147483648"));
    known.put("from", List.of("0", "1"));
    known.put("to", List.of("0", "1"));
    known.put("term", List.of(college.api.get("/api/coverage/terms").get(0).path("id").asString()));
    known.put("course", List.of(college.api.get("/api/courses").get(0).path("id").asString()));
    return known;
  }

  private List<Call> calls() {
    List<Call> all = new ArrayList<>();
    description
        .path("paths")
        .properties()
        .forEach(
            p ->
                p.getValue()
                    .properties()
                    .forEach(
                        m -> {
                          if (!LEFT_OUT.contains(p.getKey())) {
                            all.add(
                                new Call(
                                    m.getKey().toUpperCase(Locale.ROOT), p.getKey(), m.getValue()));
                          }
                        }));
    return all;
  }

  private void odd(Random random, Map<String, List<String>> known, List<String> tokens) {
    Oddities odd = new Oddities(random, known);
    List<Call> calls = calls();
    while (Instant.now().isBefore(end) && faults.size() < 20) {
      Call c = odd.pick(calls);
      StringBuilder address = new StringBuilder(odd.path(c.path()));
      char joint = '?';
      for (JsonNode p : c.operation().path("parameters")) {
        if (p.path("in").asString().equals("query") && !odd.chance(15)) {
          String name = p.path("name").asString();
          address.append(joint).append(name).append('=').append(Oddities.encode(odd.value(name)));
          joint = '&';
        }
      }
      String body = "";
      JsonNode content = c.operation().path("requestBody").path("content");
      if (!content.isMissingNode()) {
        JsonNode schema = content.properties().iterator().next().getValue().path("schema");
        body = odd.body(schema, description.path("components").path("schemas"));
      }
      String type =
          odd.chance(90)
              ? "application/json"
              : odd.pick(
                  List.of(
                      "text/plain",
                      "multipart/form-data",
                      "application/octet-stream",
                      "x",
                      "application/xml"));
      call(c.method(), address.toString(), type, body, odd.pick(tokens));
    }
  }

  private void call(String method, String address, String type, String body, String token) {
    HttpRequest.Builder b;
    try {
      b = HttpRequest.newBuilder(URI.create(Stage.address(0) + address));
    } catch (IllegalArgumentException e) {
      return; // not even a client can send it
    }
    b.method(method, HttpRequest.BodyPublishers.ofString(body, StandardCharsets.UTF_8))
        .header("Content-Type", type)
        .timeout(LATEST.plusSeconds(10));
    if (!token.isEmpty()) {
      b.header("Authorization", "Bearer " + token);
    }
    String what =
        method + " " + address + " " + (body.length() > 300 ? body.substring(0, 300) + "…" : body);
    Instant start = Instant.now();
    try {
      HttpResponse<String> r = client.send(b.build(), HttpResponse.BodyHandlers.ofString());
      answers
          .computeIfAbsent(String.valueOf(r.statusCode()), k -> new AtomicInteger())
          .incrementAndGet();
      if (r.statusCode() >= 500) {
        faults.add(r.statusCode() + ": " + what + " -> " + r.body());
      }
    } catch (IOException e) {
      boolean cut = body.length() > 1_000 || !type.equals("application/json");
      if (!cut) { // what is refused before it is read may be cut off
        faults.add("no answer (" + e + "): " + what);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    if (Duration.between(start, Instant.now()).compareTo(LATEST) > 0) {
      faults.add("late: " + what);
    }
  }
}
