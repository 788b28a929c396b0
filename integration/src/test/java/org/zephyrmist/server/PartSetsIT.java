package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Parts under a name that serve every master, and what is attached as a choice. */
class PartSetsIT extends ServerIT {
  private static final String SETS = "/api/deliveries/part-sets";
  private static final String BARE =
      "\"parts\":{\"what\":\"EVERYTHING\",\"withoutAttachments\":true}";

  private static String order(String version, UUID section, String choices) {
    return "{\"version\":\"%s\",\"sections\":[\"%s\"],\"choices\":{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\",%s}}"
        .formatted(version, section, choices);
  }

  private JsonNode delivered(String order) {
    Caller.Answer a = coordinator.post("/api/deliveries", order);
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    String id = a.json().path("id").asString();
    rest(id, "PLANNING");
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    return rest(id, "RUNNING").path("lines").get(0);
  }

  private JsonNode forecast(String order) {
    return coordinator.post("/api/deliveries/forecast", order).json();
  }

  private static String set(String name, String kinds, String titles) {
    return "{\"name\":\"%s\",\"kinds\":[%s],\"titles\":[%s]}".formatted(name, kinds, titles);
  }

  @Test
  void aSetIsKeptUnderOneNameAndChangedByWhoeverMadeIt() {
    String mine = set("My own things", "\"DISCUSSION\",\"ANNOUNCEMENT\"", "\"Syllabus\"");
    Caller.Answer kept = coordinator.post(SETS, mine);
    assertThat(kept.status()).as(kept.text()).isEqualTo(201);
    String at = SETS + "/" + kept.json().path("id").asString();
    assertThat(coordinator.post(SETS, mine).json().path("detail").asString())
        .isEqualTo("There is a set “My own things”.");
    assertThat(coordinator.put(at, set("My own things", "", "\"Syllabus\",\" \"")).status())
        .as("a title of nothing")
        .isEqualTo(400);
    assertThat(coordinator.put(at, set("My own things", "", "\"—\"")).status()).isEqualTo(422);
    assertThat(coordinator.put(at, set("Own", "\"DISCUSSION\"", "\"who  teaches\"")).status())
        .isEqualTo(204);
    JsonNode own =
        coordinator
            .get(SETS)
            .json()
            .valueStream()
            .filter(s -> s.path("name").asString().equals("Own"))
            .findFirst()
            .orElseThrow();
    assertThat(own.path("titles").get(0).asString()).isEqualTo("who teaches");
    assertThat(own.path("mine").asBoolean()).isTrue();
    assertThat(coordinator.call("DELETE", at, null).status()).isEqualTo(204);
    assertThat(coordinator.call("DELETE", at, null).status()).isEqualTo(404);
  }

  @Test
  void whatASetNamesIsSparedInEveryMasterOfAnOrder() throws Exception {
    List<UUID> to = sections("lgt-ps1");
    String frame = master("PSF");
    String course = master("PSC");
    String spare =
        "\"parts\":{\"what\":\"EVERYTHING\",\"withoutKinds\":[\"DISCUSSION\"],\"withoutTitles\":[\"check\"]}";
    String both =
        order(version(course, 1), to.get(0), spare)
            .replaceFirst(
                "\\{",
                "{\"together\":[\"%s\",\"%s\"],".formatted(version(frame, 1), version(course, 1)));
    JsonNode done = delivered(both);
    assertThat(done.path("state").asString()).isEqualTo("DONE");
    assertThat(Practice.titles("lgt-ps1")).contains("Paper plot").doesNotContain("Checklist");
    JsonNode row =
        forecast(order(version(frame, 1), to.get(0), spare))
            .path("rows")
            .valueStream()
            .filter(r -> r.path("title").asString().equals("Checklist"))
            .findFirst()
            .orElseThrow();
    assertThat(row.path("leftOut").asBoolean()).isTrue();
    assertThat(row.path("steps").size()).isZero();
  }

  @Test
  void titlesAloneMayBeBrought() throws Exception {
    List<UUID> to = sections("lgt-ps2");
    String master = master("PSD");
    delivered(
        order(
            version(master, 1),
            to.get(0),
            "\"parts\":{\"what\":\"SOME\",\"titles\":[\"checkl\"]}"));
    assertThat(Practice.titles("lgt-ps2")).contains("Checklist").doesNotContain("Paper plot");
  }

  private void attach(String master, String name, String text) {
    String sha =
        coordinator
            .upload(
                "/api/masters/" + master + "/draft/files?fileName=" + name,
                text.getBytes(StandardCharsets.UTF_8))
            .json()
            .path("sha256")
            .asString();
    edit(
        master,
        "Paper plot",
        "{\"attached\":[{\"sha256\":\"%s\",\"name\":\"%s\"}]}".formatted(sha, name));
  }

  private static String attached(String shell) throws Exception {
    return Practice.item(shell, "Paper plot").path("wording").toString();
  }

  @Test
  void whatIsAttachedComesOrStaysAsItWasChosen() throws Exception {
    List<UUID> to = sections("lgt-ps3", "lgt-ps4");
    String master = master("PSA");
    attach(master, "plot.pdf", "the first plot");
    freeze(master, "with a plot");
    JsonNode f = forecast(order(version(master, 2), to.get(0), BARE));
    assertThat(f.path("attaching").asInt()).isEqualTo(1);
    delivered(order(version(master, 2), to.get(0), BARE));
    deliver(master, 2, to.subList(1, 2));
    assertThat(attached("lgt-ps3")).as("new, without").doesNotContain("plot.pdf");
    assertThat(attached("lgt-ps4")).contains("plot.pdf");
    assertThat(delivered(order(version(master, 2), to.get(0), BARE)).path("activity").asString())
        .startsWith("nothing to do");

    attach(master, "better.pdf", "a better plot");
    freeze(master, "only what is attached has changed");
    for (UUID s : to) {
      JsonNode again = forecast(order(version(master, 3), s, BARE));
      assertThat(again.path("totals").path("UPDATE").asInt()).as("%s", again).isZero();
      assertThat(delivered(order(version(master, 3), s, BARE)).path("activity").asString())
          .startsWith("nothing to do");
    }
    edit(master, "Paper plot", "{\"html\":\"<p>Draw it to scale.</p>\"}");
    freeze(master, "another text");
    for (UUID s : to) {
      assertThat(forecast(order(version(master, 4), s, BARE)).path("totals").path("UPDATE").asInt())
          .isEqualTo(1);
      delivered(order(version(master, 4), s, BARE));
    }
    assertThat(attached("lgt-ps3")).contains("to scale").doesNotContain(".pdf");
    assertThat(attached("lgt-ps4"))
        .contains("to scale", "plot.pdf")
        .as("what came with it stays")
        .doesNotContain("better.pdf");
    JsonNode stands = coordinator.get("/api/sections/" + to.get(0)).json().path("masters").get(0);
    assertThat(stands.path("held").asInt()).isEqualTo(stands.path("expected").asInt() - 1);

    deliver(master, 4, to);
    assertThat(attached("lgt-ps3")).contains("better.pdf");
    assertThat(attached("lgt-ps4")).contains("better.pdf").doesNotContain("plot.pdf");
  }
}
