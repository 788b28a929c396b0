package org.zephyrmist.server.platform;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.function.Function;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.outgoing.GuardedClient;
import org.zephyrmist.server.outgoing.TooLarge;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Calls to one platform: what is asked, what came back, and what went wrong in our words. */
final class HttpCalls {
  static final int ACCEPTED = 202;
  static final int NOT_MODIFIED = 304;
  private final GuardedClient client;
  private final JsonMapper json;
  private final String address;
  private final String token;
  private final Settings settings;
  private final Breaker breaker;

  HttpCalls(
      GuardedClient client,
      JsonMapper json,
      String address,
      String token,
      Settings settings,
      Breaker breaker) {
    this.client = client;
    this.json = json;
    this.address = address.replaceFirst("/+$", "");
    this.token = token;
    this.settings = settings;
    this.breaker = breaker;
  }

  HttpResponse<byte[]> get(String path) {
    return send(request(path).GET().build());
  }

  /** Sends JSON. */
  HttpResponse<byte[]> post(String path, String body) {
    return send(
        request(path)
            .header("Content-Type", "application/json")
            .POST(HttpRequest.BodyPublishers.ofString(body))
            .build());
  }

  /** The JSON that a call was answered with. */
  JsonNode tree(HttpResponse<byte[]> answer) {
    try {
      return json.readTree(answer.body());
    } catch (JacksonException e) {
      throw PlatformException.passing(
          "The platform answered with something that is not JSON.",
          "Look whether its address is right and it is up, then go on.",
          e);
    }
  }

  HttpRequest.Builder request(String path) {
    return HttpRequest.newBuilder(URI.create(address + path))
        .header("Authorization", "Bearer " + token)
        .timeout(settings.callTimeout());
  }

  HttpResponse<byte[]> send(HttpRequest request) {
    return send(request, settings.callTotal());
  }

  /**
   * @param total in which the answer has to have come whole
   */
  HttpResponse<byte[]> send(HttpRequest request, Duration total) {
    return breaker.call(() -> answer(() -> client.send(request, total), HttpResponse::body));
  }

  /** Writes the body of an answer into a file. */
  void download(HttpRequest request, Duration total, Path to) {
    breaker.call(() -> answer(() -> client.download(request, total, to), r -> new byte[0]));
  }

  private interface Call<T> {
    HttpResponse<T> make() throws IOException, InterruptedException;
  }

  /**
   * @param said the body of an answer that may say what was wrong
   */
  private <T> HttpResponse<T> answer(Call<T> call, Function<HttpResponse<T>, byte[]> said) {
    try {
      HttpResponse<T> r = call.make();
      if (r.statusCode() / 100 != 2 && r.statusCode() != NOT_MODIFIED) {
        throw refusal(r, said.apply(r));
      }
      return r;
    } catch (GuardedClient.NotAllowed e) {
      throw PlatformException.lasting(
          "The platform may not be called: " + e.getMessage(),
          "If it is meant to be there, name its host in the setting private-hosts.");
    } catch (TooLarge e) {
      throw Odd.answer("its answer has no end");
    } catch (HttpTimeoutException e) {
      throw PlatformException.passing(
          "The platform did not answer in time.",
          "Look whether the platform is up, then go on.",
          e);
    } catch (IOException e) {
      throw PlatformException.passing(
          "The platform cannot be reached, or the connection broke.",
          "Look whether the platform is up, then go on.",
          e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw PlatformException.resting("The server is stopping.", Duration.ZERO, e);
    }
  }

  private PlatformException refusal(HttpResponse<?> r, byte[] body) {
    int status = r.statusCode();
    return switch (status) {
      case 401 ->
          PlatformException.lasting(
              "The platform says that the token is wrong.",
              "Ask an administrator to renew the platform's token, then go on.");
      case 403 ->
          PlatformException.lasting(
              "The platform refuses access to this shell.",
              "Ask the platform's people to let Zephyrmist into it, then go on.");
      case 404 ->
          PlatformException.lasting(
              "The platform has no such shell.",
              "Have the shell created on the platform, then go on.");
      case 409 -> PlatformException.conflict("The shell changed while it was written.");
      case 429 ->
          PlatformException.resting("The platform asks for a pause.", RetryAfter.of(r), null);
      case 408, 500, 502, 503, 504 ->
          PlatformException.passing(
              "The platform answered with error " + status + ".",
              "Wait until the platform is well again, then go on.",
              null);
      default ->
          PlatformException.lasting(
              "The platform refused the steps with error " + status + "." + said(r, body),
              "Send this text to the platform's people.");
    };
  }

  /** What a problem of the platform says (RFC 9457), in one line; nothing else is passed on. */
  private String said(HttpResponse<?> r, byte[] body) {
    boolean problem =
        r.headers().firstValue("Content-Type").orElse("").startsWith("application/problem+json");
    try {
      JsonNode detail = problem ? json.readTree(body).path("detail") : null;
      String text = detail == null ? "" : Titles.clean(detail.asString(""));
      return text.isEmpty() ? "" : " It says: " + text;
    } catch (JacksonException e) {
      return "";
    }
  }
}
