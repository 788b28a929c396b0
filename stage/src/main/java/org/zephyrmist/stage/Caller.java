package org.zephyrmist.stage;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Calls one server; the session lives in the database, so any server will do. */
public final class Caller {
  public static final JsonMapper JSON = new JsonMapper();
  private final CookieManager cookies = new CookieManager();
  private final HttpClient client = HttpClient.newBuilder().cookieHandler(cookies).build();
  private String base;

  public Caller(String base) {
    this.base = base;
  }

  /** From now on another server. */
  public void turnTo(String other) {
    base = other;
  }

  public void signIn(String email, String password) {
    get("/api/ready");
    send(
        "POST",
        "/api/sign-in",
        "application/x-www-form-urlencoded",
        HttpRequest.BodyPublishers.ofString(form(Map.of("username", email, "password", password))));
    get("/api/ready");
  }

  public static String form(Map<String, String> fields) {
    return fields.entrySet().stream()
        .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
        .collect(Collectors.joining("&"));
  }

  public JsonNode get(String path) {
    return send("GET", path, null, HttpRequest.BodyPublishers.noBody());
  }

  public JsonNode post(String path, Object body) {
    String json = body == null ? "" : JSON.writeValueAsString(body);
    return send("POST", path, "application/json", HttpRequest.BodyPublishers.ofString(json));
  }

  public JsonNode patch(String path, Object body) {
    return json("PATCH", path, body);
  }

  public JsonNode put(String path, Object body) {
    return json("PUT", path, body);
  }

  private JsonNode json(String method, String path, Object body) {
    return send(
        method,
        path,
        "application/json",
        HttpRequest.BodyPublishers.ofString(JSON.writeValueAsString(body)));
  }

  public JsonNode upload(String path, Path file) throws IOException {
    return send("POST", path, "application/octet-stream", HttpRequest.BodyPublishers.ofFile(file));
  }

  public JsonNode upload(String path, byte[] body) {
    return send(
        "POST", path, "application/octet-stream", HttpRequest.BodyPublishers.ofByteArray(body));
  }

  /** A file that the server gives. */
  public byte[] bytes(String path) {
    return got(HttpRequest.newBuilder(URI.create(base + path)).build(), path);
  }

  /** A page that the server gives. */
  public String text(String path) {
    return new String(bytes(path), StandardCharsets.UTF_8);
  }

  /** Looks at a roster and takes it in, whatever it asks. */
  public JsonNode roster(Path file) throws IOException {
    String id = upload("/api/roster", file).path("id").asString();
    return post("/api/roster/" + id + "/take", Map.of("despite", true));
  }

  /** What a server answers that is not well, or no server. */
  public static final class Failed extends RuntimeException {
    public final int status;

    Failed(int status, String text, Throwable cause) {
      super(status + " " + text, cause);
      this.status = status;
    }
  }

  /** The answer as it comes, packed as browsers ask for it; its length. */
  public int raw(String path) {
    return got(
            HttpRequest.newBuilder(URI.create(base + path))
                .header("Accept-Encoding", "gzip")
                .build(),
            path)
        .length;
  }

  private byte[] got(HttpRequest r, String path) {
    try {
      HttpResponse<byte[]> answer = client.send(r, HttpResponse.BodyHandlers.ofByteArray());
      if (answer.statusCode() != 200) {
        throw new Failed(answer.statusCode(), path, null);
      }
      return answer.body();
    } catch (IOException e) {
      throw new Failed(0, path, e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  private JsonNode send(String method, String path, String type, HttpRequest.BodyPublisher body) {
    HttpRequest.Builder b =
        HttpRequest.newBuilder(URI.create(base + path))
            .timeout(Duration.ofMinutes(10))
            .method(method, body);
    if (type != null) {
      b.header("Content-Type", type);
    }
    for (HttpCookie c : cookies.getCookieStore().getCookies()) {
      if (c.getName().equals("XSRF-TOKEN")) {
        b.header("X-XSRF-TOKEN", c.getValue());
      }
    }
    try {
      HttpResponse<String> r = client.send(b.build(), HttpResponse.BodyHandlers.ofString());
      if (r.statusCode() >= 300) {
        throw new Failed(r.statusCode(), method + " " + path + ": " + r.body(), null);
      }
      return r.body().isEmpty() ? JSON.createObjectNode() : JSON.readTree(r.body());
    } catch (IOException e) {
      throw new Failed(0, method + " " + path, e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
