package org.zephyrmist.server;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.List;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A person with a browser's cookies, calling the API over HTTP. */
final class Caller {
  private static final JsonMapper JSON = new JsonMapper();
  private final CookieManager cookies = new CookieManager();
  private final HttpClient client = HttpClient.newBuilder().cookieHandler(cookies).build();
  private final String base;
  private String token;

  Caller(int port) {
    base = "http://127.0.0.1:" + port;
  }

  record Answer(int status, String text) {
    JsonNode json() {
      return JSON.readTree(text);
    }

    byte[] bytes() {
      return text.getBytes(StandardCharsets.UTF_8);
    }
  }

  /** Cookies and token as header lines of a request. */
  String headers() {
    StringBuilder lines = new StringBuilder("Cookie: ");
    String csrf = "";
    for (HttpCookie c : cookies.getCookieStore().getCookies()) {
      lines.append(c.getName()).append('=').append(c.getValue()).append("; ");
      csrf = c.getName().equals("XSRF-TOKEN") ? c.getValue() : csrf;
    }
    return lines + "\r\nX-XSRF-TOKEN: " + csrf + "\r\n";
  }

  /** From now on with this token in the header. */
  Caller bearer(String text) {
    token = text;
    return this;
  }

  List<HttpCookie> cookies() {
    return cookies.getCookieStore().getCookies();
  }

  Answer form(String path, String fields) {
    return send(
        "POST",
        path,
        "application/x-www-form-urlencoded",
        HttpRequest.BodyPublishers.ofString(fields));
  }

  Answer call(String method, String path, String body) {
    return body == null
        ? send(method, path, null, HttpRequest.BodyPublishers.noBody())
        : send(method, path, "application/json", HttpRequest.BodyPublishers.ofString(body));
  }

  /** The bytes of a file. */
  byte[] download(String path) {
    try {
      return client
          .send(
              HttpRequest.newBuilder(URI.create(base + path)).build(),
              HttpResponse.BodyHandlers.ofByteArray())
          .body();
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  /** A header of the answer. */
  String header(String path, String name) {
    try {
      return client
          .send(
              HttpRequest.newBuilder(URI.create(base + path)).build(),
              HttpResponse.BodyHandlers.discarding())
          .headers()
          .firstValue(name)
          .orElse("");
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  Caller signIn(String email, String password) {
    get("/api/ready");
    Answer a =
        send(
            "POST",
            "/api/sign-in",
            "application/x-www-form-urlencoded",
            HttpRequest.BodyPublishers.ofString("username=" + email + "&password=" + password));
    if (a.status() != 204) {
      throw new IllegalStateException("Sign-in answered " + a);
    }
    get("/api/ready");
    return this;
  }

  Answer get(String path) {
    return send("GET", path, null, HttpRequest.BodyPublishers.noBody());
  }

  Answer post(String path, String body) {
    return send("POST", path, "application/json", HttpRequest.BodyPublishers.ofString(body));
  }

  Answer put(String path, String body) {
    return send("PUT", path, "application/json", HttpRequest.BodyPublishers.ofString(body));
  }

  Answer patch(String path, String body) {
    return send("PATCH", path, "application/json", HttpRequest.BodyPublishers.ofString(body));
  }

  Answer delete(String path) {
    return send("DELETE", path, null, HttpRequest.BodyPublishers.noBody());
  }

  Answer upload(String path, byte[] body) {
    return send(
        "POST", path, "application/octet-stream", HttpRequest.BodyPublishers.ofByteArray(body));
  }

  /** Looks at a roster and takes it in, whatever it asks. */
  Answer roster(byte[] bundle) {
    Answer seen = upload("/api/roster", bundle);
    return seen.status() == 200
        ? post("/api/roster/" + seen.json().path("id").asString() + "/take", "{\"despite\":true}")
        : seen;
  }

  /** Without the token against forged calls. */
  Answer forged(String path, String body) {
    return exchange(
        HttpRequest.newBuilder(URI.create(base + path))
            .header("Content-Type", "application/json")
            .POST(HttpRequest.BodyPublishers.ofString(body)));
  }

  private Answer send(String method, String path, String type, HttpRequest.BodyPublisher body) {
    HttpRequest.Builder b = HttpRequest.newBuilder(URI.create(base + path)).method(method, body);
    if (type != null) {
      b.header("Content-Type", type);
    }
    if (token != null) {
      b.header("Authorization", "Bearer " + token);
    }
    for (HttpCookie c : cookies.getCookieStore().getCookies()) {
      if (c.getName().equals("XSRF-TOKEN")) {
        b.header("X-XSRF-TOKEN", c.getValue());
      }
    }
    return exchange(b);
  }

  private Answer exchange(HttpRequest.Builder b) {
    try {
      HttpResponse<String> r = client.send(b.build(), HttpResponse.BodyHandlers.ofString());
      return new Answer(r.statusCode(), r.body());
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
