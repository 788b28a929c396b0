package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Coverage rules and section sets. */
class ExpectationIT extends ServerIT {
  private UUID term(UUID section) {
    return db.select(SECTION.TERM_ID)
        .from(SECTION)
        .where(SECTION.ID.eq(section))
        .fetchSingle()
        .value1();
  }

  /** The version that a section is expected to hold; none if it is not expected to. */
  private Integer wanted(UUID section, String master) {
    JsonNode c = coordinator.get("/api/coverage?term=" + term(section)).json();
    for (int m = 0; m < c.path("masters").size(); m++) {
      if (!c.path("masters").get(m).path("id").asString().equals(master)) {
        continue;
      }
      JsonNode column = c.path("standings").get(m);
      for (int i = 0; i < column.path("section").size(); i++) {
        int at = column.path("section").get(i).asInt();
        if (c.path("sections").get(at).path("id").asString().equals(section.toString())) {
          return column.path("wanted").get(i).asInt();
        }
      }
    }
    return null;
  }

  private String set(String name, String what) {
    Caller.Answer a =
        coordinator.post("/api/coverage/sets", "{\"name\":\"" + name + "\"," + what + "}");
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    return a.json().path("id").asString();
  }

  private Caller.Answer rule(String master, String more) {
    return coordinator.post("/api/coverage/rules", "{\"master\":\"" + master + "\"" + more + "}");
  }

  @Test
  void aRuleForASetMakesItsSectionsExpectedAndPinsThem() throws Exception {
    List<UUID> ids = sections("snd-xa1", "snd-xa2");
    String master = master("XA");
    assertThat(wanted(ids.get(0), master)).isNull();
    String set = set("XA pilot", "\"sections\":[\"" + ids.get(0) + "\"]");
    edit(master, "Checklist", "{\"html\":\"<p>Boots.</p>\"}");
    freeze(master, "Second");
    Caller.Answer made = rule(master, ",\"set\":\"" + set + "\",\"pinned\":1");
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    assertThat(wanted(ids.get(0), master)).isEqualTo(1);
    assertThat(wanted(ids.get(1), master)).isNull();
    String rule = made.json().path("id").asString();
    coordinator.call("PUT", "/api/coverage/rules/" + rule, "{}");
    assertThat(wanted(ids.get(0), master)).isEqualTo(2);
    assertThat(coordinator.call("DELETE", "/api/coverage/sets/" + set, null).status())
        .isEqualTo(409);
    assertThat(coordinator.call("DELETE", "/api/coverage/rules/" + rule, null).status())
        .isEqualTo(204);
    assertThat(wanted(ids.get(0), master)).isNull();
    assertThat(coordinator.call("DELETE", "/api/coverage/sets/" + set, null).status())
        .isEqualTo(204);
  }

  @Test
  void aSetByFilterStaysCurrent() throws Exception {
    List<UUID> ids = sections("lgt-xb1");
    String set = set("XB by words", "\"filter\":{\"text\":\"lgt-xb\"}");
    String address = "/api/coverage/sets/" + set + "/sections?term=" + term(ids.get(0));
    assertThat(coordinator.get(address).json()).hasSize(1);
    sections("lgt-xb1", "lgt-xb2");
    assertThat(coordinator.get(address).json()).hasSize(2);
    Caller sound = another("xb-s@x.example", Role.COORDINATOR, "sound");
    assertThat(sound.get(address).json()).isEmpty();
    assertThat(sound.call("DELETE", "/api/coverage/sets/" + set, null).status()).isEqualTo(404);
  }

  @Test
  void aSetOfNothingOrOfEverythingIsRefusedAndNothingIsKept() throws Exception {
    sections("lgt-xc1");
    for (String what :
        List.of(
            "\"filter\":{\"text\":\"no such section\"}",
            "\"filter\":{\"text\":\" \"}",
            "\"sections\":[]",
            "\"sections\":null")) {
      Caller.Answer a = coordinator.post("/api/coverage/sets", "{\"name\":\"XC\"," + what + "}");
      assertThat(a.status()).as(what + a.text()).isEqualTo(422);
    }
    set("XC", "\"filter\":{\"text\":\"lgt-xc\"}");
    Caller.Answer twice =
        coordinator.post(
            "/api/coverage/sets", "{\"name\":\"XC\",\"filter\":{\"text\":\"lgt-xc\"}}");
    assertThat(twice.status()).isEqualTo(409);
  }

  @Test
  void aRuleForAVersionThatIsNotThereIsRefused() throws Exception {
    List<UUID> ids = sections("lgt-xd1");
    String master = master("XD");
    assertThat(rule(master, ",\"pinned\":2").text()).contains("no version 2");
    assertThat(wanted(ids.get(0), master)).isEqualTo(1);
    assertThat(rule(master, "").status()).isEqualTo(201);
    assertThat(rule(master, "").status()).isEqualTo(409);
    JsonNode rules = coordinator.get("/api/coverage/rules?term=" + term(ids.get(0))).json();
    assertThat(
            rules
                .valueStream()
                .filter(r -> r.path("master").asString().equals(master))
                .map(r -> r.path("scope").asString()))
        .containsExactlyInAnyOrder("COURSE", "EVERY_SECTION");
  }
}
