package org.zephyrmist.server.platform;

import java.math.BigDecimal;
import java.net.http.HttpRequest;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.tool.Scored;
import org.zephyrmist.core.tool.Seen;
import org.zephyrmist.core.tool.TaskSides;
import org.zephyrmist.server.platform.PlatformGateway.ToolData;
import org.zephyrmist.server.platform.PlatformGateway.ToolHost;
import org.zephyrmist.server.platform.PlatformGateway.ToolTask;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** External tools of shells, as docs/api.md describes the interface of a platform. */
final class HttpTools {
  private static final int MOST_HOSTS = 20_000;
  private static final int MOST_TASKS = 5_000;
  private final HttpCalls calls;
  private final JsonMapper json;

  HttpTools(HttpCalls calls, JsonMapper json) {
    this.calls = calls;
    this.json = json;
  }

  List<ToolHost> of(List<String> shells) {
    JsonNode answer =
        calls.tree(
            calls.post("/api/tools/look", json.writeValueAsString(Map.of("shells", shells))));
    if (answer.size() > MOST_HOSTS) {
      throw Odd.answer("it lists more than " + MOST_HOSTS + " hosts");
    }
    Set<String> asked = new HashSet<>(shells);
    List<ToolHost> all = new ArrayList<>();
    for (JsonNode n : answer) {
      if (asked.contains(n.path("shell").asString(""))) {
        all.add(host(n));
      }
    }
    return all;
  }

  private static ToolHost host(JsonNode n) {
    return new ToolHost(
        n.path("shell").asString(),
        Odd.words(n.path("host").asString("").toLowerCase(Locale.ROOT)),
        n.path("support").asBoolean(true),
        Math.max(0, n.path("links").asInt(0)),
        switch (n.path("by").asString("")) {
          case "" -> Seen.Data.NONE;
          case "PACKAGE" -> Seen.Data.PLACEHOLDER;
          default -> Seen.Data.THERE;
        },
        time(n.path("opened").asString("")),
        Odd.words(n.path("said").asString("")),
        Odd.words(n.path("course").asString("")),
        scored(n),
        tasks(n.path("tasks")));
  }

  private static List<ToolTask> tasks(JsonNode all) {
    if (all.size() > MOST_TASKS) {
      throw Odd.answer("it lists more than " + MOST_TASKS + " tasks of one tool");
    }
    List<ToolTask> tasks = new ArrayList<>();
    for (JsonNode t : all) {
      tasks.add(
          new ToolTask(
              Odd.id(t.path("item").asString("")),
              Odd.words(t.path("title").asString("")),
              new TaskSides(
                  points(t.path("points")),
                  points(t.path("outOf")),
                  Timing.at(t.path("due").asString("")),
                  Timing.at(t.path("toolDue").asString("")))));
    }
    return tasks;
  }

  private static Optional<BigDecimal> points(JsonNode n) {
    return Optional.of(n.asDecimal(BigDecimal.ZERO)).filter(p -> p.signum() > 0);
  }

  private static Optional<Scored> scored(JsonNode n) {
    BigDecimal outOf = n.path("outOf").asDecimal(BigDecimal.ZERO);
    return time(n.path("scored").asString(""))
        .filter(at -> outOf.signum() > 0)
        .map(at -> new Scored(at, outOf, points(n.path("points"))));
  }

  private static Optional<Instant> time(String text) {
    try {
      return text.isEmpty()
          ? Optional.empty()
          : Optional.of(OffsetDateTime.parse(text).toInstant());
    } catch (DateTimeParseException e) {
      throw Odd.answer("it gives a time that is none");
    }
  }

  private static Map<String, Object> sent(ToolData d) {
    Map<String, Object> all = new HashMap<>();
    all.put("shell", d.shell());
    all.put("host", d.host());
    all.put("key", d.key());
    all.put("secret", d.secret());
    d.course().ifPresent(c -> all.put("course", c));
    d.registration()
        .ifPresent(
            r ->
                all.put(
                    "registration",
                    Map.of(
                        "client", r.client(),
                        "deployment", r.deployment(),
                        "login", r.login(),
                        "launches", r.launches(),
                        "keySet", r.keySet())));
    return all;
  }

  void connect(List<ToolData> data) {
    List<Map<String, Object>> body = data.stream().map(HttpTools::sent).toList();
    calls.send(
        calls
            .request("/api/tools/data")
            .header("Content-Type", "application/json")
            .PUT(HttpRequest.BodyPublishers.ofString(json.writeValueAsString(body)))
            .build());
  }
}
