package org.zephyrmist.server.platform;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.outgoing.GuardedClient;
import org.zephyrmist.server.outgoing.TooLarge;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** A platform with an HTTP interface as docs/api.md describes it; the practice platform is one. */
final class HttpPlatform implements PlatformGateway {
  private static final int NOT_MODIFIED = 304;
  private static final int MOST_SHELLS = 200_000;
  private static final int LONGEST_TEXT = 4 << 20;
  private static final JsonMapper JSON = new JsonMapper();
  private final GuardedClient client;
  private final JsonMapper json;
  private final String address;
  private final String token;
  private final Settings settings;
  private final Breaker breaker;

  HttpPlatform(
      GuardedClient client,
      JsonMapper json,
      String address,
      String token,
      Settings settings,
      Breaker breaker) {
    this.breaker = breaker;
    this.client = client;
    this.json = json;
    this.address = address.replaceFirst("/+$", "");
    this.token = token;
    this.settings = settings;
  }

  /** Pages follow each other in order of id; one that does not lead on would be read for ever. */
  @Override
  public List<Shell> shells() {
    List<Shell> all = new ArrayList<>();
    Instant end = Instant.now().plus(settings.callTotal());
    String after = "";
    while (true) {
      JsonNode page = call("GET", "/api/shells?after=" + encode(after), null);
      if (page.size() == 0) {
        return all;
      }
      for (JsonNode s : page) {
        String id = Odd.id(s.path("id").asString(""));
        if (id.compareTo(after) <= 0) {
          throw Odd.answer("its list of shells does not go on in order of id");
        }
        after = id;
        all.add(new Shell(id, s.path("title").asString(""), s.path("students").asInt(0)));
      }
      if (all.size() > MOST_SHELLS) {
        throw Odd.answer("it lists more than " + MOST_SHELLS + " shells");
      }
      if (Instant.now().isAfter(end)) {
        throw PlatformException.passing(
            "The platform did not list its shells in time.",
            "Look whether the platform is up, then try again.",
            null);
      }
    }
  }

  @Override
  public Contents read(String shell) {
    HttpResponse<byte[]> r = send(request(itemsOf(shell)).GET().build());
    List<ShellItem> items = new ArrayList<>();
    for (JsonNode n : tree(r.body())) {
      kind(n).ifPresent(k -> items.add(item(n, k)));
    }
    return new Contents(items, r.headers().firstValue("ETag").orElse(""));
  }

  @Override
  public boolean unchanged(String shell, String tag) {
    return !tag.isEmpty()
        && send(request(itemsOf(shell)).header("If-None-Match", tag).GET().build()).statusCode()
            == NOT_MODIFIED;
  }

  @Override
  public ShellAddresses addresses() {
    return HttpAddresses.SAME_EVERYWHERE;
  }

  private static String itemsOf(String shell) {
    return "/api/shells/" + encode(shell) + "/items";
  }

  /** None for kinds that we do not know: a platform may have some of its own. */
  private static Optional<Kind> kind(JsonNode n) {
    String kind = n.path("kind").asString("");
    return Stream.of(Kind.values()).filter(k -> k.name().equals(kind)).findFirst();
  }

  private ShellItem item(JsonNode n, Kind kind) {
    EnumMap<Aspect, String> forms = new EnumMap<>(Aspect.class);
    ObjectNode wording = json.createObjectNode();
    n.path("wording").path("more").properties().forEach(e -> wording.set(e.getKey(), e.getValue()));
    wording.put("title", n.path("wording").path("title").asString(""));
    String html = n.path("wording").path("html").asString("");
    if (html.length() > LONGEST_TEXT) {
      throw Odd.answer("the text of item " + n.path("id").asString("") + " is larger than 4 MB");
    }
    wording.put("html", html);
    ObjectNode place = json.createObjectNode();
    Optional<String> parent = Optional.ofNullable(n.path("parent").asString(null));
    parent.ifPresent(p -> place.put("parent", p));
    place.put("rank", n.path("rank").asString(""));
    forms.put(Aspect.WORDING, wording.toString());
    forms.put(Aspect.GRADING, object(n.path("grading")));
    forms.put(Aspect.TIMING, object(n.path("timing")));
    forms.put(Aspect.PLACE, place.toString());
    forms.put(Aspect.VISIBILITY, object(n.path("visibility")));
    forms.put(Aspect.LAUNCH, object(n.path("launch")));
    return new ShellItem(
        Odd.id(n.path("id").asString("")),
        kind,
        parent,
        forms,
        n.path("submissions").asInt(0) > 0,
        n.path("changedBy").asString(""),
        n.path("changedAt").asString(""),
        n.path("revision").asString(""));
  }

  private static String object(JsonNode n) {
    return n.isObject() ? n.toString() : "{}";
  }

  @Override
  public Map<String, Written> apply(String shell, List<Write> writes) {
    ObjectNode body = json.createObjectNode();
    var steps = body.putArray("steps");
    for (Write w : writes) {
      ObjectNode s = steps.addObject().put("key", w.key());
      if (w instanceof Write.Add a) {
        s.put("op", "ADD").put("kind", a.kind().name());
        forms(s, a.forms());
      } else if (w instanceof Write.Update u) {
        s.put("op", "UPDATE").put("id", u.id()).put("revision", u.revision());
        forms(s, u.forms());
      } else if (w instanceof Write.Remove r) {
        s.put("op", "REMOVE").put("id", r.id()).put("revision", r.revision());
      }
    }
    Map<String, Written> written = new LinkedHashMap<>();
    for (JsonNode a :
        call("POST", "/api/shells/" + encode(shell) + "/steps", body.toString()).path("answers")) {
      written.put(
          a.path("key").asString(),
          new Written(Odd.id(a.path("id").asString("")), a.path("revision").asString("")));
    }
    for (Write w : writes) {
      if (!written.containsKey(w.key())) {
        throw Odd.answer("it says nothing of some of the steps it was sent");
      }
    }
    return written;
  }

  private void forms(ObjectNode step, Map<Aspect, String> forms) {
    forms.forEach(
        (aspect, form) -> {
          ObjectNode n = (ObjectNode) json.readTree(form);
          if (aspect == Aspect.WORDING) {
            ObjectNode wording = step.putObject("wording");
            wording.put("title", n.path("title").asString(""));
            wording.put("html", n.path("html").asString(""));
            n.remove(List.of("title", "html"));
            wording.set("more", n);
          } else {
            step.set(aspect.name().toLowerCase(Locale.ROOT), n);
          }
        });
  }

  @Override
  public List<FileRef> missing(List<FileRef> files) {
    if (files.isEmpty()) {
      return List.of();
    }
    ObjectNode body = json.createObjectNode();
    var hashes = body.putArray("sha256");
    files.forEach(f -> hashes.add(f.sha256()));
    Set<String> wanted = new HashSet<>();
    call("POST", "/api/files/missing", body.toString())
        .path("sha256")
        .forEach(n -> wanted.add(n.asString()));
    return files.stream().filter(f -> wanted.contains(f.sha256())).toList();
  }

  @Override
  public void upload(FileRef file, InputStream in) {
    HttpRequest request =
        request("/api/files/" + file.sha256())
            .header("Content-Type", file.mediaType())
            .PUT(HttpRequest.BodyPublishers.ofInputStream(() -> in))
            .timeout(settings.callTimeout().multipliedBy(10))
            .build();
    send(request, settings.callTotal().multipliedBy(10));
  }

  private JsonNode call(String method, String path, String body) {
    HttpRequest request =
        request(path)
            .header("Content-Type", "application/json")
            .method(
                method,
                body == null
                    ? HttpRequest.BodyPublishers.noBody()
                    : HttpRequest.BodyPublishers.ofString(body))
            .build();
    return tree(send(request).body());
  }

  private JsonNode tree(byte[] answer) {
    try {
      return json.readTree(answer);
    } catch (JacksonException e) {
      throw PlatformException.passing(
          "The platform answered with something that is not JSON.",
          "Look whether its address is right and it is up, then go on.",
          e);
    }
  }

  private HttpRequest.Builder request(String path) {
    return HttpRequest.newBuilder(URI.create(address + path))
        .header("Authorization", "Bearer " + token)
        .timeout(settings.callTimeout());
  }

  private HttpResponse<byte[]> send(HttpRequest request) {
    return send(request, settings.callTotal());
  }

  private HttpResponse<byte[]> send(HttpRequest request, Duration total) {
    return breaker.call(() -> answer(request, total));
  }

  private HttpResponse<byte[]> answer(HttpRequest request, Duration total) {
    try {
      HttpResponse<byte[]> r = client.send(request, total);
      if (r.statusCode() / 100 != 2 && r.statusCode() != NOT_MODIFIED) {
        throw refusal(r);
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

  private static PlatformException refusal(HttpResponse<byte[]> r) {
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
              "The platform refused the steps with error " + status + "." + said(r),
              "Send this text to the platform's people.");
    };
  }

  /** What a problem of the platform says (RFC 9457), in one line; nothing else is passed on. */
  private static String said(HttpResponse<byte[]> r) {
    boolean problem =
        r.headers().firstValue("Content-Type").orElse("").startsWith("application/problem+json");
    try {
      JsonNode detail = problem ? JSON.readTree(r.body()).path("detail") : null;
      String text = detail == null ? "" : Titles.clean(detail.asString(""));
      return text.isEmpty() ? "" : " It says: " + text;
    } catch (JacksonException e) {
      return "";
    }
  }

  private static String encode(String s) {
    return java.net.URLEncoder.encode(s, StandardCharsets.UTF_8).replace("+", "%20");
  }
}
