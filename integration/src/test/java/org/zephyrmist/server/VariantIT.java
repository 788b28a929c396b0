package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.db.Tables;
import tools.jackson.databind.JsonNode;

/** One item across all sections: told apart, put back, accepted, taken into the master. */
class VariantIT extends ServerIT {
  private static final String MORE = "<p>Gloves.</p><p>Bring a torch.</p>";

  /** The term of the samples; other tests have terms of their own. */
  private String term() {
    return db.select(Tables.TERM.ID)
        .from(Tables.TERM)
        .where(Tables.TERM.SOURCED_ID.eq("t1"))
        .fetchSingle(Tables.TERM.ID)
        .toString();
  }

  private JsonNode variants(String master, String key) {
    return coordinator
        .get("/api/coverage/masters/" + master + "/items/" + key + "?term=" + term())
        .json();
  }

  private JsonNode of(JsonNode variants, UUID section) {
    for (JsonNode s : variants.path("sections")) {
      if (s.path("section").asString().equals(section.toString())) {
        return s;
      }
    }
    throw new AssertionError("No section " + section);
  }

  private void read(List<UUID> sections) {
    String body = "{\"sections\":[\"" + sections.get(0) + "\",\"" + sections.get(1) + "\"]}";
    coordinator.post("/api/deliveries/readings", body);
    await(
        () -> coordinator.post("/api/deliveries/readings/left", body).json(),
        l -> l.path("sections").asInt() == 0);
  }

  private void changed(String shell) throws Exception {
    Practice.form(shell, "Checklist", "text", Map.of("title", "Checklist", "html", MORE));
  }

  @Test
  void sectionsThatMadeTheSameOfItStandTogetherAndOneWithoutItIsTold() throws Exception {
    List<UUID> to = sections("lgt-va1", "lgt-va2", "lgt-va3", "lgt-va4");
    String master = master("VH");
    String key = key(master, "Checklist");
    deliver(master, 1, to.subList(0, 3));
    changed("lgt-va1");
    changed("lgt-va2");
    read(to);
    JsonNode v = variants(master, key);
    JsonNode one = of(v, to.get(0));
    assertThat(one.path("here")).isEqualTo(of(v, to.get(1)).path("here"));
    assertThat(one.path("changed").get(0).asString()).isEqualTo("WORDING");
    assertThat(one.path("by").asString()).isEqualTo("the instructor");
    assertThat(of(v, to.get(2)).path("changed")).isEmpty();
    assertThat(of(v, to.get(3)).path("number").asInt()).isZero();
    assertThat(of(v, to.get(3)).path("here").isMissingNode()).isTrue();
    assertThat(v.path("views").get(0).path("view").path("html").asString()).contains("torch");
    JsonNode drift =
        coordinator.get("/api/coverage/masters/" + master + "/drift?term=" + term()).json();
    assertThat(drift.get(0).path("title").asString()).isEqualTo("Checklist");
    assertThat(drift.get(0).path("changed").path("WORDING").asInt()).isEqualTo(2);
  }

  @Test
  void whatSectionsAddedByHandIsGatheredHoweverItIsWritten() throws Exception {
    List<UUID> to = sections("lgt-vg1", "lgt-vg2", "lgt-vg3");
    String master = master("VGA");
    deliver(master, 1, to.subList(0, 2));
    Practice.addPage("lgt-vg1", "Office hours", "<p>Tuesdays.</p>");
    Practice.addPage("lgt-vg2", "office  hours", "<p>Fridays.</p>");
    Practice.addPage("lgt-vg2", "Crew list", "<p>Ask me.</p>");
    Practice.addPage("lgt-vg3", "Office hours", "<p>It does not hold this master.</p>");
    read(to);
    JsonNode added =
        coordinator.get("/api/coverage/masters/" + master + "/added?term=" + term()).json();
    assertThat(added).hasSize(2);
    assertThat(added.get(0).path("title").asString()).isEqualToIgnoringCase("Office hours");
    assertThat(added.get(0).path("sections").valueStream().map(JsonNode::asString))
        .containsExactlyInAnyOrder(to.get(0).toString(), to.get(1).toString());
    assertThat(added.get(1).path("title").asString()).isEqualTo("Crew list");
  }

  @Test
  void theVersionIsPutBackWhereOnlyTheSectionChangedIt() throws Exception {
    List<UUID> to = sections("lgt-vb1", "lgt-vb2");
    String master = master("VI");
    deliver(master, 1, to);
    changed("lgt-vb1");
    changed("lgt-vb2");
    String only = "\"parts\":{\"what\":\"SOME\",\"items\":[\"" + key(master, "Checklist") + "\"]}";
    String kept = plan(master, 1, to, only);
    assertThat(
            coordinator
                .get("/api/deliveries/" + kept)
                .json()
                .path("lines")
                .get(0)
                .path("counts")
                .path("KEEP")
                .asInt())
        .isEqualTo(1);
    Caller.Answer a =
        coordinator.put(
            "/api/deliveries/" + kept + "/choices",
            "{\"clash\":\"PUT_BACK\",\"twin\":\"ADOPT\"," + only + "}");
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    rest(kept, "PLANNING");
    confirm(kept);
    assertThat(Practice.html("lgt-vb1", "Checklist")).doesNotContain("torch");
  }

  @Test
  void whatIsAcceptedIsAskedAboutNoMoreAndNotOverwritten() throws Exception {
    List<UUID> to = sections("lgt-vc1", "lgt-vc2");
    String master = master("VJ");
    String key = key(master, "Checklist");
    deliver(master, 1, to);
    changed("lgt-vc1");
    read(to);
    Caller.Answer a =
        coordinator.post(
            "/api/coverage/masters/" + master + "/items/" + key + "/accept",
            "{\"sections\":[\"" + to.get(0) + "\"]}");
    assertThat(a.json().path("sections").asInt()).as(a.text()).isEqualTo(1);
    JsonNode one = of(variants(master, key), to.get(0));
    assertThat(one.path("changed")).isEmpty();
    assertThat(one.path("accepted").get(0).asString()).isEqualTo("WORDING");
    assertThat(
            coordinator
                .get("/api/sections/" + to.get(0))
                .json()
                .path("masters")
                .get(0)
                .path("changed")
                .asInt())
        .isZero();
    edit(master, "Checklist", "{\"html\":\"<p>Gloves and a card.</p>\"}");
    freeze(master, "Second");
    JsonNode done = deliver(master, 2, to);
    assertThat(Practice.html("lgt-vc1", "Checklist")).contains("torch");
    assertThat(Practice.html("lgt-vc2", "Checklist")).contains("a card");
    assertThat(done.path("lines").get(0).path("counts").path("KEEP").asInt()).isEqualTo(1);
  }

  @Test
  void anImprovementIsTakenIntoTheDraftAndCanBeUndone() throws Exception {
    List<UUID> to = sections("lgt-vd1", "lgt-vd2");
    String master = master("VK");
    String key = key(master, "Checklist");
    deliver(master, 1, to);
    changed("lgt-vd1");
    read(to);
    String item = "/api/masters/" + master + "/draft/items/" + key + "/from-section";
    Caller.Answer a =
        coordinator.post(item, "{\"section\":\"" + to.get(0) + "\",\"aspects\":[\"WORDING\"]}");
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    String draft = "/api/masters/" + master + "/versions/0/items/" + key;
    assertThat(coordinator.get(draft).json().path("html").asString()).contains("torch");
    freeze(master, "With a torch");
    JsonNode done = deliver(master, 2, to);
    assertThat(done.path("lines").get(0).path("steps").asInt()).isZero();
    assertThat(Practice.html("lgt-vd2", "Checklist")).contains("torch");
    coordinator.post("/api/masters/" + master + "/draft/undo", "");
    assertThat(coordinator.get(draft).json().path("html").asString()).doesNotContain("torch");
  }
}
