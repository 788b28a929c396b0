package org.zephyrmist.stage;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;

/** The practice tools as a program sets them. */
public final class PracticeTools {
  private final HttpClient client = HttpClient.newHttpClient();

  /** Gives a key out. */
  public void key(String host, String key, String secret) {
    post(host + "/keys", List.of(Map.of("key", key, "secret", secret, "course", "")));
  }

  /** Tells a registered tool of a platform under a client, with one deployment. */
  public void platform(String host, String client, String issuer, String at) {
    send(
        "PUT",
        host + "/platforms",
        Map.of(
            "issuer",
            issuer,
            "client",
            client,
            "deployments",
            List.of("d1"),
            "keys",
            at + "/keys",
            "authorize",
            at + "/authorize",
            "token",
            at + "/token"));
  }

  /** Courses of classes that came before, as if their instructors had answered. */
  public void courses(String host, Map<String, String> byContext) {
    post(
        host + "/courses",
        byContext.values().stream()
            .distinct()
            .map(c -> Map.of("id", c, "title", "Light", "term", "Autumn"))
            .toList());
    post(
        host + "/ties",
        byContext.entrySet().stream()
            .map(e -> Map.of("context", e.getKey(), "course", e.getValue()))
            .toList());
  }

  /** Classes that have accepted the agreement. */
  public void agreed(String host, List<String> contexts) {
    post(host + "/ties", contexts.stream().map(c -> Map.of("context", c)).toList());
  }

  /** From now on the tool is found at another host. */
  public void moved(String host, String to) {
    send(
        "PUT",
        host + "/knobs",
        Map.of("down", false, "slow", 0, "minutes", 0, "clockOff", 0, "movedTo", to));
  }

  private void post(String path, Object body) {
    send("POST", path, body);
  }

  private void send(String method, String path, Object body) {
    HttpRequest r =
        HttpRequest.newBuilder(URI.create(Stage.toolsAddress() + "/api/" + path))
            .header("Authorization", "Bearer practice-token")
            .header("Content-Type", "application/json")
            .method(
                method, HttpRequest.BodyPublishers.ofString(Caller.JSON.writeValueAsString(body)))
            .build();
    try {
      HttpResponse<String> a = client.send(r, HttpResponse.BodyHandlers.ofString());
      if (a.statusCode() >= 400) {
        throw new Caller.Failed(a.statusCode(), path + ": " + a.body(), null);
      }
    } catch (IOException e) {
      throw new Caller.Failed(0, path, e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
