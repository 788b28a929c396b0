package org.zephyrmist.server.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.tool.DateMode;
import org.zephyrmist.core.tool.Pairing;
import org.zephyrmist.core.tool.Scope;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.core.tool.Way;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.ConnectionEdits;
import org.zephyrmist.server.tool.ConnectionEntry;
import org.zephyrmist.server.tool.EnteredRegistration;
import tools.jackson.databind.json.JsonMapper;

/** Tools at all stages: connected and opened, tied twice to one course, waiting, and dead. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoTools {
  private static final String SECRET = "larkmoor-practice";
  private final HttpClient client = HttpClient.newHttpClient();
  private final Settings settings;
  private final JsonMapper json;
  private final DemoDeliveries deliveries;
  private final ConnectionEdits edits;
  private final People people;

  DemoTools(
      Settings settings,
      JsonMapper json,
      DemoDeliveries deliveries,
      ConnectionEdits edits,
      People people) {
    this.settings = settings;
    this.json = json;
    this.deliveries = deliveries;
    this.edits = edits;
    this.people = people;
  }

  void make() {
    if (settings.practiceTools().isEmpty()) {
      return;
    }
    lighting(deliveries.shellIds("LGT 110"));
    sound(deliveries.shellIds("SND 120"));
    agreements(deliveries.shellIds("SAF 100"));
    flying(deliveries.shellIds("SCN 105"));
    enter(
        "PatternRoom",
        "patternroom.example",
        Way.KEY_AND_SECRET,
        Pairing.BY_RULE,
        "",
        Stage.CREDENTIALS,
        Stage.APPROVAL);
    write("patternroom.example", deliveries.shellIds("CST 130"), "");
    key("patternroom.example", "larkmoor", "");
    enter("PromptDesk", "promptdesk.example", Way.OPEN, Pairing.BY_RULE, "");
  }

  private SignedIn rosalind() {
    return people.loadUserByUsername("rosalind@larkmoor.example");
  }

  private void enter(
      String name, String host, Way way, Pairing pairing, String words, Stage... stages) {
    enter(name, host, way, pairing, words, null, stages);
  }

  private void enter(
      String name,
      String host,
      Way way,
      Pairing pairing,
      String words,
      EnteredRegistration registration,
      Stage... stages) {
    boolean keyed = way == Way.KEY_AND_SECRET;
    edits.add(
        new ConnectionEntry(
            name,
            List.of(host),
            way,
            Scope.Level.COLLEGE,
            "",
            List.of(stages),
            pairing,
            words,
            host.startsWith("tagout") ? 10 : 0,
            true,
            false,
            false,
            DateMode.SENT_ONCE,
            "Rosalind Achterberg",
            way == Way.OPEN ? "" : "larkmoor",
            keyed ? SECRET : null,
            false,
            null,
            null,
            Set.of(),
            registration,
            "",
            List.of()),
        rosalind());
  }

  /** Some works, some is not opened, some is tied twice to one course, some is not connected. */
  private void lighting(List<String> shells) {
    String host = "cuebench.example";
    enter(
        "CueBench",
        host,
        Way.KEY_AND_SECRET,
        Pairing.BY_ANSWER,
        "Tied to course {course}",
        Stage.CREDENTIALS,
        Stage.PAIRING,
        Stage.FIRST_OPENING);
    key(host, "larkmoor", "");
    placeholders(host, shells);
    int n = shells.size();
    List<String> connected = shells.subList(0, n * 7 / 8);
    write(host, connected, SECRET);
    List<String> opened = connected.subList(0, n * 5 / 8);
    List<Map<String, String>> courses = new ArrayList<>();
    List<Map<String, String>> ties = new ArrayList<>();
    List<Map<String, String>> openings = new ArrayList<>();
    for (int i = 0; i < opened.size(); i++) {
      String course = "cu-" + (i < 8 ? 100 + i / 2 : 200 + i);
      courses.add(Map.of("id", course, "title", "Stage lighting", "term", "this term"));
      ties.add(Map.of("context", opened.get(i), "course", course));
      openings.add(opening(opened.get(i), host, "Tied to course " + course));
    }
    tools("POST", host + "/courses", courses);
    tools("POST", host + "/ties", ties);
    platform("POST", "/openings", Map.of("openings", openings));
  }

  /** Nobody has entered anything; the packages brought placeholders. */
  private void sound(List<String> shells) {
    String host = "earshot.example";
    placeholders(host, shells);
    tools(
        "POST",
        host + "/keys",
        shells.stream()
            .map(s -> Map.of("key", "larkmoor-" + s, "secret", SECRET, "course", "ea-" + s))
            .toList());
  }

  private void agreements(List<String> shells) {
    String host = "tagout.example";
    enter(
        "TagOut",
        host,
        Way.OPEN,
        Pairing.BY_RULE,
        "Agreement accepted",
        Stage.SUPPORT,
        Stage.AGREEMENT,
        Stage.WAIT);
    List<String> agreed = shells.subList(0, shells.size() * 4 / 5);
    tools("POST", host + "/ties", agreed.stream().map(s -> Map.of("context", s)).toList());
    platform(
        "POST",
        "/openings",
        Map.of(
            "openings", agreed.stream().map(s -> opening(s, host, "Agreement accepted")).toList()));
    platform(
        "PUT",
        "/support",
        Map.of("shells", shells.subList(shells.size() - 3, shells.size()), "on", false));
  }

  /** Registered, and brought into some shells. */
  private void flying(List<String> shells) {
    String host = "flyfloor.example";
    String at = "https://" + host;
    platform(host, settings.address(), settings.address() + "/api/lti");
    platform(host, settings.practiceAddress(), settings.practiceAddress() + "/lti");
    EnteredRegistration r =
        new EnteredRegistration("north", at + "/login", List.of(at + "/launch"), at + "/keys");
    enter("FlyFloor", host, Way.REGISTRATION, Pairing.BY_RULE, "", r, Stage.CREDENTIALS);
    Map<String, Object> registration =
        Map.of(
            "client", "larkmoor",
            "deployment", r.deployment(),
            "login", r.login(),
            "launches", r.launches(),
            "keySet", r.keySet());
    platform(
        "PUT",
        "/data",
        shells.subList(0, shells.size() / 2).stream()
            .map(
                s ->
                    Map.of(
                        "shell", s,
                        "host", host,
                        "key", "larkmoor",
                        "secret", "",
                        "registration", registration))
            .toList());
  }

  /** Tells a registered tool of a platform. */
  private void platform(String host, String issuer, String at) {
    tools(
        "PUT",
        host + "/platforms",
        Map.of(
            "issuer",
            issuer,
            "client",
            "larkmoor",
            "deployments",
            List.of("north"),
            "keys",
            at + "/keys",
            "authorize",
            at + "/authorize",
            "token",
            at + "/token"));
  }

  private static Map<String, String> opening(String shell, String host, String said) {
    return Map.of("shell", shell, "host", host, "said", said);
  }

  private void key(String host, String key, String course) {
    tools("POST", host + "/keys", List.of(Map.of("key", key, "secret", SECRET, "course", course)));
  }

  private void placeholders(String host, List<String> shells) {
    platform("PUT", "/packaged", data(host, shells, "placeholder", "placeholder"));
  }

  private void write(String host, List<String> shells, String secret) {
    platform("PUT", "/data", data(host, shells, "larkmoor", secret));
  }

  private static List<Map<String, String>> data(
      String host, List<String> shells, String key, String secret) {
    return shells.stream()
        .map(s -> Map.of("shell", s, "host", host, "key", key, "secret", secret))
        .toList();
  }

  private void tools(String method, String path, Object body) {
    send(method, settings.practiceTools() + "/api/" + path, body);
  }

  private void platform(String method, String path, Object body) {
    send(method, settings.practiceAddress() + "/api/tools" + path, body);
  }

  private void send(String method, String address, Object body) {
    HttpRequest r =
        HttpRequest.newBuilder(URI.create(address))
            .header("Authorization", "Bearer " + settings.practiceToken())
            .header("Content-Type", "application/json")
            .method(method, HttpRequest.BodyPublishers.ofString(json.writeValueAsString(body)))
            .build();
    try {
      int status = client.send(r, HttpResponse.BodyHandlers.discarding()).statusCode();
      if (status >= 400) {
        throw new IllegalStateException(address + " answered " + status);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
