package org.zephyrmist.stage;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** The practice platform as programs and as its instructors use it. */
public final class Practice {
  private final HttpClient client = HttpClient.newHttpClient();

  public void makeShells(List<String> ids) {
    List<Map<String, Object>> shells = new ArrayList<>();
    for (String id : ids) {
      shells.add(
          Map.of("id", id, "title", id, "course", "LGT 110", "term", "Autumn", "students", 12));
    }
    call("POST", "/api/shells", "application/json", Caller.JSON.writeValueAsString(shells));
  }

  public JsonNode items(String shell) {
    return Caller.JSON.readTree(call("GET", "/api/shells/" + shell + "/items", null, null));
  }

  public void fault(String shell, String kind, int times) {
    Map<String, Object> f = new HashMap<>(Map.of("kind", kind, "times", times, "seconds", 1));
    if (shell != null) {
      f.put("shell", shell);
    }
    call("POST", "/api/faults", "application/json", Caller.JSON.writeValueAsString(f));
  }

  /** Openings as if instructors had made them, and what the tool said of each. */
  public void opened(String host, Map<String, String> saidByShell) {
    List<Map<String, String>> all =
        saidByShell.entrySet().stream()
            .map(e -> Map.of("shell", e.getKey(), "host", host, "said", e.getValue()))
            .toList();
    call(
        "POST",
        "/api/tools/openings",
        "application/json",
        Caller.JSON.writeValueAsString(Map.of("openings", all)));
  }

  /** Pauses its own queue, or lets it go on. */
  public void queue(boolean paused) {
    call("PUT", "/api/queue", "application/json", "{\"paused\":" + paused + "}");
  }

  public void noFaults() {
    call("DELETE", "/api/faults", null, null);
  }

  /** What an instructor does on the page of a shell. */
  public void form(String path, Map<String, String> fields) {
    call("POST", path, "application/x-www-form-urlencoded", Caller.form(fields));
  }

  /** What an instructor exports on the page of a shell. */
  public byte[] exported(String shell) {
    String path = "/shells/" + shell + "/package";
    return sent(
        HttpRequest.newBuilder(URI.create(Stage.practiceAddress() + path)).build(),
        path,
        HttpResponse.BodyHandlers.ofByteArray());
  }

  /** An instructor brings a package in on the page of a shell. */
  public void bringIn(String shell, byte[] cartridge) {
    String edge = "edge-of-a-part";
    ByteArrayOutputStream body = new ByteArrayOutputStream();
    body.writeBytes(
        ("--"
                + edge
                + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"p.imscc\"\r\n"
                + "Content-Type: application/zip\r\n\r\n")
            .getBytes(StandardCharsets.UTF_8));
    body.writeBytes(cartridge);
    body.writeBytes(("\r\n--" + edge + "--\r\n").getBytes(StandardCharsets.UTF_8));
    String path = "/shells/" + shell + "/package";
    sent(
        HttpRequest.newBuilder(URI.create(Stage.practiceAddress() + path))
            .header("Content-Type", "multipart/form-data; boundary=" + edge)
            .POST(HttpRequest.BodyPublishers.ofByteArray(body.toByteArray()))
            .build(),
        path,
        HttpResponse.BodyHandlers.ofString());
  }

  public String call(String method, String path, String type, String body) {
    HttpRequest.Builder b =
        HttpRequest.newBuilder(URI.create(Stage.practiceAddress() + path))
            .header("Authorization", "Bearer practice-token")
            .method(
                method,
                body == null
                    ? HttpRequest.BodyPublishers.noBody()
                    : HttpRequest.BodyPublishers.ofString(body));
    if (type != null) {
      b.header("Content-Type", type);
    }
    return sent(b.build(), path, HttpResponse.BodyHandlers.ofString());
  }

  private <T> T sent(HttpRequest request, String path, HttpResponse.BodyHandler<T> as) {
    try {
      HttpResponse<T> r = client.send(request, as);
      if (r.statusCode() >= 400) {
        throw new Caller.Failed(r.statusCode(), path + ": " + r.body(), null);
      }
      return r.body();
    } catch (IOException e) {
      throw new Caller.Failed(0, path, e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
