package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.References;
import tools.jackson.databind.JsonNode;

/** Several masters as one order: one plan, nothing doubled, one after the other in a section. */
class OrderIT extends ServerIT {
  private static final String HELP = "<p>The crew room, third door on the left.</p>";

  private String add(String master, String kind, String title, String more) {
    Caller.Answer a =
        coordinator.post(
            "/api/masters/" + master + "/draft/items",
            "{\"kind\":\"" + kind + "\",\"title\":\"" + title + "\"" + more + "}");
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    return a.json().path("key").asString();
  }

  /** The whole college's, with a help page and a link to the library. */
  private String frame(String code) {
    Caller.Answer made =
        coordinator.post(
            "/api/masters", "{\"code\":\"" + code + "\",\"title\":\"Frame\",\"courses\":[]}");
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    String frame = made.json().path("id").asString();
    add(frame, "PAGE", "Where to find help", ",\"html\":\"" + HELP + "\"");
    add(frame, "WEB_LINK", "Library", ",\"address\":\"https://library.example.org/new\"");
    freeze(frame, "First");
    return frame;
  }

  /** An older copy of both stands in the course. */
  private String course(String code) throws Exception {
    String course = master(code);
    String help = add(course, "PAGE", "Where to find help", ",\"html\":\"" + HELP + "\"");
    add(course, "WEB_LINK", "Library", ",\"address\":\"https://library.example.org/old\"");
    edit(
        course,
        "Checklist",
        "{\"html\":\"<p>Gloves. <a href='"
            + References.item(new ItemKey(help), "")
            + "'>Help</a></p>\"}");
    freeze(course, "With help");
    return course;
  }

  private String order(List<UUID> sections, String own, String... versions) {
    Caller.Answer a =
        coordinator.post(
            "/api/deliveries",
            "{\"version\":\""
                + own
                + "\",\"sections\":"
                + sections.stream().map(s -> "\"" + s + "\"").toList()
                + ",\"together\":"
                + List.of(versions).stream().map(s -> "\"" + s + "\"").toList()
                + "}");
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    String id = a.json().path("id").asString();
    await(
        () -> coordinator.get("/api/deliveries/" + id).json().path("together"),
        all -> all.valueStream().allMatch(d -> d.path("state").asString().equals("PLANNED")));
    return id;
  }

  private JsonNode delivery(String id) {
    return coordinator.get("/api/deliveries/" + id).json();
  }

  private String reason(String delivery, String line, String key) {
    return coordinator
        .get("/api/deliveries/" + delivery + "/lines/" + line + "/steps/" + key)
        .json()
        .path("reason")
        .asString();
  }

  @Test
  void theFrameComesFirstAndWhatItBringsIsNotDoubled() throws Exception {
    List<UUID> to = sections("lgt-zoa1", "lgt-zoa2");
    String frame = frame("ZOAF");
    String course = course("ZOA");
    String id = order(to, version(course, 2), version(frame, 1), version(course, 2));
    JsonNode plan = delivery(id);
    assertThat(plan.path("together").valueStream().map(d -> d.path("masterCode").asString()))
        .containsExactly("ZOAF", "ZOA");
    String line = plan.path("lines").get(0).path("id").asString();
    assertThat(reason(id, line, key(course, "Where to find help"))).isEqualTo("SUPPLIED");
    assertThat(reason(id, line, key(course, "Library"))).isEqualTo("SUPPLIED");

    confirm(id);
    await(
        () -> delivery(id).path("together"),
        all -> all.valueStream().allMatch(d -> d.path("state").asString().equals("DONE")));
    assertThat(Practice.titles("lgt-zoa1"))
        .contains("Checklist", "Library", "Where to find help")
        .doesNotHaveDuplicates();
    String help = Practice.item("lgt-zoa1", "Where to find help").path("id").asString();
    assertThat(Practice.html("lgt-zoa1", "Checklist")).contains(help);
    JsonNode held =
        coordinator
            .get("/api/sections/" + to.get(0))
            .json()
            .path("masters")
            .valueStream()
            .filter(m -> m.path("code").asString().equals("ZOA"))
            .findFirst()
            .orElseThrow();
    assertThat(held.path("held").asInt()).isEqualTo(held.path("expected").asInt());

    JsonNode again = deliver(course, 2, to);
    assertThat(again.path("lines").get(0).path("activity").asString()).contains("nothing to do");
  }

  @Test
  void whatFollowsWaitsForWhatComesBeforeItAndIsStoppedWithIt() throws Exception {
    List<UUID> to = sections("lgt-zob1");
    String frame = frame("ZOBF");
    String course = course("ZOB");
    String id = order(to, version(course, 2), version(frame, 1), version(course, 2));
    Practice.fault("lgt-zob1", "REFUSE", 1_000);
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    JsonNode waits =
        await(
            () -> delivery(id).path("lines").get(0),
            l -> l.path("waitsFor").asString().equals("BEFORE"));
    assertThat(waits.path("state").asString()).isEqualTo("NOT_YET");
    String first = delivery(id).path("together").get(0).path("id").asString();
    await(
        () -> delivery(first).path("lines").get(0),
        l -> l.path("state").asString().equals("NEEDS_PERSON"));
    Practice.noFaults();
    coordinator.post("/api/deliveries/" + first + "/go-on", "");
    await(() -> delivery(id).path("lines").get(0), l -> l.path("state").asString().equals("DONE"));
    assertThat(Practice.titles("lgt-zob1")).contains("Checklist").doesNotHaveDuplicates();
  }

  @Test
  void aSecondWordAskedForAnOrderIsNoWordOnceAPartOfItIsPlannedAnew() throws Exception {
    List<UUID> to = sections("lgt-zod1");
    String course = course("ZOD");
    String id = order(to, version(course, 2), version(frame("ZODF"), 1), version(course, 2));
    String first = delivery(id).path("together").get(0).path("id").asString();
    administrator.call(
        "PUT", "/api/deliveries/second-word", "{\"fromSections\":1,\"removes\":false}");
    try {
      coordinator.post("/api/deliveries/" + first + "/confirm", "");
      assertThat(delivery(id).path("secondWord").path("mine").asBoolean()).isTrue();
      coordinator.call(
          "PUT",
          "/api/deliveries/" + id + "/choices",
          "{\"clash\":\"TAKE_VERSION\",\"twin\":\"ADOPT\"}");
      rest(id, "PLANNING");
      assertThat(delivery(first).path("secondWord").has("askedBy")).isFalse();
    } finally {
      administrator.call("PUT", "/api/deliveries/second-word", "{\"removes\":false}");
    }
  }

  @Test
  void aMasterIsNamedOnceAndItsOwnAmongThem() throws Exception {
    List<UUID> to = sections("lgt-zoc1");
    String course = course("ZOC");
    for (String together :
        List.of(
            "\"" + version(course, 1) + "\",\"" + version(course, 2) + "\"",
            "\"" + version(course, 1) + "\",\"" + version(frame("ZOCF"), 1) + "\"")) {
      Caller.Answer a =
          coordinator.post(
              "/api/deliveries",
              "{\"version\":\""
                  + version(course, 2)
                  + "\",\"sections\":[\""
                  + to.get(0)
                  + "\"],\"together\":["
                  + together
                  + "]}");
      assertThat(a.status()).as(a.text()).isEqualTo(422);
    }
  }
}
