package org.zephyrmist.server.platform;

import java.io.InputStream;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.delivery.StudentCounts;
import org.zephyrmist.core.shell.OpenDays;
import org.zephyrmist.server.Settings;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** A platform with an HTTP interface as docs/api.md describes it; the practice platform is one. */
final class HttpPlatform implements PlatformGateway {
  private static final Pattern COUNTS =
      Pattern.compile(
          "enrolments=(\\d{1,9}), work=(\\d{1,9}), grades=(\\d{1,9}), posts=(\\d{1,9})");
  private static final Pattern DAYS =
      Pattern.compile("opens=(|\\d{4}-\\d\\d-\\d\\d), closes=(|\\d{4}-\\d\\d-\\d\\d)");
  private static final int MOST_SHELLS = 200_000;
  private final HttpCalls calls;
  private final HttpItems wire;
  private final HttpTools tools;
  private final JsonMapper json;
  private final Settings settings;

  HttpPlatform(HttpCalls calls, JsonMapper json, Settings settings) {
    this.calls = calls;
    this.wire = new HttpItems(json);
    this.tools = new HttpTools(calls, json);
    this.json = json;
    this.settings = settings;
  }

  /** Pages follow each other in order of id; one that does not lead on would be read for ever. */
  @Override
  public List<Shell> shells() {
    List<Shell> all = new ArrayList<>();
    Instant end = Instant.now().plus(settings.callTotal());
    String after = "";
    while (true) {
      JsonNode page = calls.tree(calls.get("/api/shells?after=" + encode(after)));
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
    HttpResponse<byte[]> r = calls.send(calls.request(itemsOf(shell)).GET().build());
    List<ShellItem> items = new ArrayList<>();
    calls.tree(r).forEach(n -> wire.item(n).ifPresent(items::add));
    return new Contents(
        items,
        r.headers().firstValue("ETag").orElse(""),
        r.headers().firstValue("Shell-Counts").flatMap(HttpPlatform::counts),
        r.headers().firstValue("Shell-Open").flatMap(HttpPlatform::days));
  }

  /** What cannot be read as days tells nothing. */
  private static Optional<OpenDays> days(String header) {
    Matcher m = DAYS.matcher(header);
    try {
      return m.matches()
          ? Optional.of(new OpenDays(day(m.group(1)), day(m.group(2))))
          : Optional.empty();
    } catch (DateTimeException | IllegalArgumentException e) {
      return Optional.empty();
    }
  }

  private static Optional<LocalDate> day(String text) {
    return text.isEmpty() ? Optional.empty() : Optional.of(LocalDate.parse(text));
  }

  @Override
  public void open(String shell, OpenDays days) {
    ObjectNode body = json.createObjectNode();
    days.opens().ifPresent(d -> body.put("opens", d.toString()));
    days.closes().ifPresent(d -> body.put("closes", d.toString()));
    calls.send(
        calls
            .request("/api/shells/" + encode(shell) + "/open")
            .header("Content-Type", "application/json")
            .PUT(HttpRequest.BodyPublishers.ofString(body.toString()))
            .build());
  }

  /** What cannot be read as counts tells nothing. */
  private static Optional<StudentCounts> counts(String header) {
    Matcher m = COUNTS.matcher(header);
    return m.matches()
        ? Optional.of(
            new StudentCounts(
                Integer.parseInt(m.group(1)),
                Integer.parseInt(m.group(2)),
                Integer.parseInt(m.group(3)),
                Integer.parseInt(m.group(4))))
        : Optional.empty();
  }

  @Override
  public List<ToolHost> tools(List<String> shells) {
    return tools.of(shells);
  }

  @Override
  public void connect(List<ToolData> data) {
    tools.connect(data);
  }

  @Override
  public boolean unchanged(String shell, String tag) {
    return !tag.isEmpty()
        && calls
                .send(calls.request(itemsOf(shell)).header("If-None-Match", tag).GET().build())
                .statusCode()
            == HttpCalls.NOT_MODIFIED;
  }

  @Override
  public ShellAddresses addresses() {
    return HttpAddresses.SAME_EVERYWHERE;
  }

  private static String itemsOf(String shell) {
    return "/api/shells/" + encode(shell) + "/items";
  }

  @Override
  public Map<String, Written> apply(String shell, List<Write> writes) {
    ObjectNode body = json.createObjectNode();
    ArrayNode steps = body.putArray("steps");
    writes.forEach(w -> wire.write(steps.addObject(), w));
    Map<String, Written> written = new LinkedHashMap<>();
    HttpResponse<byte[]> answer =
        calls.post("/api/shells/" + encode(shell) + "/steps", body.toString());
    if (answer.statusCode() == HttpCalls.ACCEPTED) {
      throw PlatformException.accepted();
    }
    for (JsonNode a : calls.tree(answer).path("answers")) {
      written.put(
          a.path("key").asString(),
          new Written(
              Odd.id(a.path("id").asString("")),
              a.path("revision").asString(""),
              Odd.words(a.path("failed").asString(""))));
    }
    for (Write w : writes) {
      if (!written.containsKey(w.key())) {
        throw Odd.answer("it says nothing of some of the steps it was sent");
      }
    }
    return written;
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
    calls
        .tree(calls.post("/api/files/missing", body.toString()))
        .path("sha256")
        .forEach(n -> wanted.add(n.asString()));
    return files.stream().filter(f -> wanted.contains(f.sha256())).toList();
  }

  @Override
  public void upload(FileRef file, InputStream in) {
    HttpRequest request =
        calls
            .request("/api/files/" + file.sha256())
            .header("Content-Type", file.mediaType())
            .PUT(HttpRequest.BodyPublishers.ofInputStream(() -> in))
            .timeout(settings.callTimeout().multipliedBy(10))
            .build();
    calls.send(request, settings.callTotal().multipliedBy(10));
  }

  @Override
  public void download(String sha256, Path to) {
    calls.download(
        calls
            .request("/api/files/" + sha256)
            .GET()
            .timeout(settings.callTimeout().multipliedBy(10))
            .build(),
        settings.callTotal().multipliedBy(10),
        to);
  }

  private static String encode(String s) {
    return URLEncoder.encode(s, StandardCharsets.UTF_8).replace("+", "%20");
  }
}
