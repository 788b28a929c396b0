package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;

/** What tests of tools do again and again. */
abstract class ToolsStage extends ServerIT {
  /** Sections that hold a master with a link to each of the hosts. */
  List<UUID> delivered(String master, String[] hosts, String... codes) throws Exception {
    List<UUID> to = sections(codes);
    JsonNode intake = read(takeIn(Samples.toolCartridge("Tools " + master, hosts), "t.imscc"));
    String id = master(master, intake.path("edition").asString());
    assertThat(deliver(id, 1, to).path("delivery").path("state").asString()).isEqualTo("DONE");
    return to;
  }

  static String connection(String name, String host, String way, String stages, String more) {
    return """
        {"name":"%s","hosts":["%s"],"way":"%s","level":"COLLEGE","scopeOf":"","stages":[%s],
         "pairing":"BY_ANSWER","waitMinutes":0,"sendsName":true,"sendsMail":false,
         "grades":false,"dates":"SENT_ONCE","owner":"","approved":false,"terms":[]%s%s%s%s%s}"""
        .formatted(
            name,
            host,
            way,
            stages,
            more.contains("\"key\"") ? "" : ",\"key\":\"\"",
            more.contains("\"words\"") ? "" : ",\"words\":\"\"",
            more.contains("\"course\"") ? "" : ",\"course\":\"\"",
            more.contains("\"mastersCourses\"") ? "" : ",\"mastersCourses\":[]",
            more);
  }

  UUID add(String entry) {
    Caller.Answer a = administrator.post("/api/tools/connections", entry);
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    return UUID.fromString(a.json().path("id").asString());
  }

  UUID term() {
    return db.select(org.zephyrmist.server.db.Tables.TERM.ID)
        .from(org.zephyrmist.server.db.Tables.TERM)
        .where(org.zephyrmist.server.db.Tables.TERM.SOURCED_ID.eq("t1"))
        .fetchSingle()
        .value1();
  }

  /** How far a host is in a section: standing and reason; empty if no link leads there. */
  String state(UUID section, String host) {
    JsonNode all = coordinator.get("/api/tools?term=" + term()).json();
    for (JsonNode h : all.path("hosts")) {
      for (int i = 0; i < h.path("section").size(); i++) {
        JsonNode s = all.path("sections").get(h.path("section").get(i).asInt());
        if (h.path("host").asString().equals(host)
            && s.path("id").asString().equals("" + section)) {
          JsonNode state = all.path("states").get(h.path("state").get(i).asInt());
          return state.path("standing").asString() + " " + state.path("reason").asString();
        }
      }
    }
    return "";
  }

  void comes(UUID section, String host, String state) {
    await(() -> state(section, host), state::equals);
  }

  JsonNode apply(UUID connection, List<UUID> to, boolean really) {
    String ids = to.stream().map(s -> "\"" + s + "\"").collect(Collectors.joining(","));
    Caller.Answer a =
        coordinator.post(
            "/api/tools/connections/" + connection + "/apply",
            "{\"sections\":[" + ids + "],\"really\":" + really + "}");
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    return a.json();
  }

  void look(UUID section) {
    coordinator.post("/api/tools/look", "{\"sections\":[\"" + section + "\"]}");
  }
}
