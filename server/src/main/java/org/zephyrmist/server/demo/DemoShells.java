package org.zephyrmist.server.demo;

import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.Settings;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What people do on the practice platform: make shells, fill them, change and hand in. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoShells {
  private final HttpClient client = HttpClient.newHttpClient();
  private final Settings settings;
  private final JsonMapper json;

  DemoShells(Settings settings, JsonMapper json) {
    this.settings = settings;
    this.json = json;
  }

  /** Both are started at once. */
  void awaitPlatform() throws InterruptedException {
    for (int i = 0; i < 1_000; i++) {
      try {
        client.send(HttpRequest.newBuilder(uri("/")).build(), BodyHandlers.discarding());
        return;
      } catch (IOException notUpYet) {
        Thread.sleep(300);
      }
    }
    throw new IllegalStateException(uri("/") + " does not answer; the demo is made on it.");
  }

  void make(List<DemoRoster.Section> sections) {
    List<Map<String, Object>> shells =
        sections.stream()
            .map(
                s ->
                    Map.<String, Object>of(
                        "id",
                        s.id(),
                        "title",
                        s.course() + ", section " + s.code(),
                        "course",
                        s.course(),
                        "term",
                        s.term().equals("t1") ? "this term" : "next term",
                        "students",
                        12 + Math.floorMod(s.id().hashCode(), 15)))
            .toList();
    api("/api/shells", json.writeValueAsString(shells));
  }

  /** Access to this shell is refused from now on. */
  void refuse(String shell) {
    api("/api/faults", json.writeValueAsString(Map.of("shell", shell, "kind", "REFUSE")));
  }

  void refuseNoLonger(String shell) {
    send(
        HttpRequest.newBuilder(uri("/api/faults?shell=" + shell))
            .header("Authorization", "Bearer " + settings.practiceToken())
            .DELETE()
            .build());
  }

  void addPage(String shell, String title, String html) {
    form("/shells/" + shell + "/add", Map.of("title", title, "html", html));
  }

  /** Students may enter from this day on. */
  void open(String shell, LocalDate from) {
    form("/shells/" + shell + "/term", Map.of("opens", from.toString()));
  }

  /** So many places for weeks, and no more. */
  void weeks(String shell, int places) {
    form("/shells/" + shell + "/weeks", Map.of("places", "" + places));
  }

  void write(String shell, String title, String html) {
    item(shell, title)
        .ifPresent(i -> form(path(shell, i) + "/text", Map.of("title", title, "html", html)));
  }

  /** Adds a paragraph to what an item says. */
  void append(String shell, String title, String paragraph) {
    rewrite(shell, title, html -> html + "<p>" + paragraph + "</p>");
  }

  /** Other words in what an item says. */
  void replace(String shell, String title, String words, String others) {
    rewrite(shell, title, html -> html.replace(words, others));
  }

  private void rewrite(String shell, String title, UnaryOperator<String> to) {
    item(shell, title)
        .ifPresent(
            i ->
                form(
                    path(shell, i) + "/text",
                    Map.of(
                        "title",
                        title,
                        "html",
                        to.apply(i.path("wording").path("html").asString("")))));
  }

  void due(String shell, String title, String due) {
    item(shell, title).ifPresent(i -> form(path(shell, i) + "/due", Map.of("due", due)));
  }

  void hide(String shell, String title) {
    item(shell, title)
        .ifPresent(i -> form(path(shell, i) + "/visibility", Map.of("shown", "false")));
  }

  void delete(String shell, String title) {
    item(shell, title).ifPresent(i -> form(path(shell, i) + "/delete", Map.of()));
  }

  void handIn(String shell, String title, String student) {
    item(shell, title)
        .ifPresent(
            i -> form(path(shell, i) + "/work", Map.of("student", student, "text", "My page.")));
  }

  private static String path(String shell, JsonNode item) {
    return "/shells/" + shell + "/items/" + item.path("id").asString();
  }

  /** The first item whose title begins so. */
  Optional<String> titled(String shell, String beginning) {
    for (JsonNode i : items(shell)) {
      String title = i.path("wording").path("title").asString("");
      if (title.startsWith(beginning)) {
        return Optional.of(title);
      }
    }
    return Optional.empty();
  }

  private JsonNode items(String shell) {
    return json.readTree(
        send(
            HttpRequest.newBuilder(uri("/api/shells/" + shell + "/items"))
                .header("Authorization", "Bearer " + settings.practiceToken())
                .build()));
  }

  private Optional<JsonNode> item(String shell, String title) {
    for (JsonNode i : items(shell)) {
      if (i.path("wording").path("title").asString("").equals(title)) {
        return Optional.of(i);
      }
    }
    return Optional.empty();
  }

  private void api(String path, String body) {
    send(
        HttpRequest.newBuilder(uri(path))
            .header("Authorization", "Bearer " + settings.practiceToken())
            .header("Content-Type", "application/json")
            .POST(HttpRequest.BodyPublishers.ofString(body))
            .build());
  }

  private void form(String path, Map<String, String> fields) {
    String body =
        fields.entrySet().stream()
            .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
            .collect(Collectors.joining("&"));
    send(
        HttpRequest.newBuilder(uri(path))
            .header("Content-Type", "application/x-www-form-urlencoded")
            .POST(HttpRequest.BodyPublishers.ofString(body))
            .build());
  }

  private URI uri(String path) {
    return URI.create(settings.practiceAddress() + path);
  }

  private String send(HttpRequest request) {
    try {
      HttpResponse<String> r = client.send(request, HttpResponse.BodyHandlers.ofString());
      if (r.statusCode() >= 400) {
        throw new IllegalStateException(request.uri() + " answered " + r.statusCode());
      }
      return r.body();
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
