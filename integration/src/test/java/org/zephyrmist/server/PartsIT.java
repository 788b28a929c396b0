package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Deliveries of parts: what is chosen, what comes along, what is left out, how it arrives. */
class PartsIT extends ServerIT {
  private static final String USUAL = "\"arrival\":\"AS_IN_MASTER\"";

  private String order(String master, int number, List<UUID> sections, String choices) {
    String ids = sections.stream().map(s -> "\"" + s + "\"").collect(Collectors.joining(","));
    return "{\"version\":\"%s\",\"sections\":[%s],\"choices\":{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\",%s}}"
        .formatted(version(master, number), ids, choices);
  }

  private JsonNode forecast(String master, int number, List<UUID> sections, String choices) {
    Caller.Answer a =
        coordinator.post("/api/deliveries/forecast", order(master, number, sections, choices));
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    return a.json();
  }

  private JsonNode delivered(String master, int number, List<UUID> sections, String choices) {
    Caller.Answer a = coordinator.post("/api/deliveries", order(master, number, sections, choices));
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    String id = a.json().path("id").asString();
    rest(id, "PLANNING");
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    return rest(id, "RUNNING");
  }

  private static String some(String... keys) {
    String items =
        List.of(keys).stream().map(k -> "\"" + k + "\"").collect(Collectors.joining(","));
    return "\"parts\":{\"what\":\"SOME\",\"items\":[" + items + "]}";
  }

  private static JsonNode row(JsonNode forecast, String title) {
    return forecast
        .path("rows")
        .valueStream()
        .filter(r -> r.path("title").asString().equals(title))
        .findFirst()
        .orElseThrow();
  }

  private JsonNode standing(UUID section, String master) {
    return coordinator
        .get("/api/sections/" + section)
        .json()
        .path("masters")
        .valueStream()
        .filter(m -> m.path("master").asString().equals(master))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void oneItemComesWithWhatItNeedsAndNothingElse() throws Exception {
    List<UUID> to = sections("lgt-pa1", "lgt-pa2");
    String master = master("VA");
    String rubric =
        coordinator
            .post(
                "/api/masters/" + master + "/draft/items",
                "{\"kind\":\"RUBRIC\",\"title\":\"How a plot is graded\",\"address\":\"\"}")
            .json()
            .path("key")
            .asString();
    edit(master, "Paper plot", "{\"rubric\":\"" + rubric + "\"}");
    freeze(master, "with a rubric");
    String choices = some(key(master, "Paper plot"));
    JsonNode seen = forecast(master, 2, to, choices);
    assertThat(row(seen, "How a plot is graded").path("because").path("why").asString())
        .isEqualTo("RUBRIC");
    assertThat(row(seen, "How a plot is graded").path("along").asInt()).isEqualTo(2);
    assertThat(seen.path("items").asInt()).isEqualTo(2);
    assertThat(seen.path("totals").path("ADD").asInt()).isEqualTo(4);
    JsonNode done = delivered(master, 2, to, choices);
    assertThat(Practice.titles("lgt-pa1"))
        .containsExactlyInAnyOrder("Week 3", "Paper plot", "How a plot is graded");
    assertThat(done.path("parts").path("what").asString()).isEqualTo("SOME");
    JsonNode again = delivered(master, 2, to, choices).path("lines").get(0);
    assertThat(again.path("activity").asString())
        .isEqualTo("nothing to do: it holds these parts of version 2");
  }

  private String add(String master, String kind, String title) {
    return coordinator
        .post(
            "/api/masters/" + master + "/draft/items",
            "{\"kind\":\"%s\",\"title\":\"%s\",\"address\":\"\"}".formatted(kind, title))
        .json()
        .path("key")
        .asString();
  }

  @Test
  void groupsComeAlongAndSoDoesTheOutcomeThatALineOfTheRubricShows() throws Exception {
    List<UUID> to = sections("lgt-pag1");
    String master = master("VAG");
    String rubric = add(master, "RUBRIC", "How it is graded");
    String outcome = add(master, "OUTCOME", "Works to scale");
    String crews = add(master, "GROUP_SET", "Crews");
    edit(
        master,
        "How it is graded",
        "{\"criteria\":[{\"text\":\"To scale\",\"points\":\"4\",\"outcome\":\"%s\"}]}"
            .formatted(outcome));
    edit(master, "Crews", "{\"groups\":[\"North\"]}");
    edit(master, "Paper plot", "{\"rubric\":\"%s\",\"groupSet\":\"%s\"}".formatted(rubric, crews));
    freeze(master, "done by crews");
    String choices = some(key(master, "Paper plot"));
    JsonNode seen = forecast(master, 2, to, choices);
    assertThat(row(seen, "Works to scale").path("because").path("why").asString())
        .isEqualTo("OUTCOME");
    assertThat(row(seen, "Crews").path("because").path("why").asString()).isEqualTo("GROUPS");
    delivered(master, 2, to, choices);
    assertThat(Practice.titles("lgt-pag1"))
        .containsExactlyInAnyOrder(
            "Week 3", "Paper plot", "How it is graded", "Works to scale", "Crews");
  }

  @Test
  void aSectionStaysAtItsVersionUntilNothingOfItIsLeft() throws Exception {
    List<UUID> to = sections("lgt-pb1");
    String master = master("VB");
    deliver(master, 1, to);
    edit(master, "Checklist", "{\"html\":\"<p>Gloves and a card.</p>\"}");
    edit(master, "Paper plot", "{\"points\":\"20\"}");
    freeze(master, "two changes");
    delivered(master, 2, to, some(key(master, "Checklist")));
    assertThat(Practice.html("lgt-pb1", "Checklist")).contains("and a card");
    assertThat(standing(to.get(0), master).path("number").asInt()).isEqualTo(1);
    JsonNode rest = forecast(master, 2, to, "\"parts\":{\"what\":\"CHANGED\"}");
    assertThat(rest.path("items").asInt()).as("what is left").isEqualTo(1);
    assertThat(rest.path("totals").path("UPDATE").asInt()).isEqualTo(1);
    delivered(master, 2, to, "\"parts\":{\"what\":\"CHANGED\"}");
    assertThat(standing(to.get(0), master).path("number").asInt()).isEqualTo(2);
  }

  @Test
  void whatIsAlwaysLeftOutIsLeftOut() throws Exception {
    List<UUID> to = sections("lgt-pc1");
    String master = master("VC");
    String without =
        "\"parts\":{\"what\":\"EVERYTHING\",\"without\":[\"%s\"]}"
            .formatted(key(master, "Checklist"));
    assertThat(row(forecast(master, 1, to, without), "Checklist").path("leftOut").asBoolean())
        .isTrue();
    delivered(master, 1, to, without);
    assertThat(Practice.titles("lgt-pc1")).contains("Paper plot").doesNotContain("Checklist");
    JsonNode stands = standing(to.get(0), master);
    assertThat(stands.path("number").asInt()).isEqualTo(1);
    assertThat(stands.path("held").asInt()).isLessThan(stands.path("expected").asInt());
  }

  @Test
  void newItemsArriveHiddenAndWithoutDatesIfSoChosenAndStaySo() throws Exception {
    List<UUID> to = sections("lgt-pd1");
    String master = master("VD");
    edit(master, "Paper plot", "{\"due\":\"2026-10-02T18:00\"}");
    freeze(master, "with a date");
    delivered(master, 2, to, "\"arrival\":\"HIDDEN\",\"dates\":\"AWAY\"");
    JsonNode plot = Practice.item("lgt-pd1", "Paper plot");
    assertThat(plot.path("visibility").path("shown").asBoolean()).isFalse();
    assertThat(plot.path("timing").path("due").isMissingNode()).isTrue();
    assertThat(deliver(master, 2, to).path("lines").get(0).path("activity").asString())
        .isEqualTo("nothing to do: it holds version 2");
    Practice.form("lgt-pd1", "Paper plot", "due", Map.of("due", "2026-10-09T18:00"));
    edit(master, "Paper plot", "{\"due\":\"2026-10-05T18:00\",\"points\":\"30\"}");
    freeze(master, "another date");
    delivered(master, 3, to, "\"dates\":\"LEFT\"");
    assertThat(Practice.item("lgt-pd1", "Paper plot").path("timing").path("due").asString())
        .isEqualTo("2026-10-09T18:00");
    assertThat(Practice.item("lgt-pd1", "Paper plot").path("grading").path("points").asInt())
        .isEqualTo(30);
  }

  @Test
  void aWrongTargetIsMarkedAndAnEmptyChoiceRefused() throws Exception {
    List<UUID> to = sections("lgt-pe1");
    String master = master("VE");
    Caller.Answer empty =
        coordinator.post("/api/deliveries", order(master, 1, to, some("no-such-item")));
    assertThat(empty.status()).isEqualTo(422);
    assertThat(empty.json().path("detail").asString()).isEqualTo("No item of version 1 is chosen.");
    db.update(org.zephyrmist.server.db.Tables.SECTION)
        .setNull(org.zephyrmist.server.db.Tables.SECTION.SHELL)
        .setNull(org.zephyrmist.server.db.Tables.SECTION.PLATFORM_ID)
        .where(org.zephyrmist.server.db.Tables.SECTION.ID.eq(to.get(0)))
        .execute();
    JsonNode f = forecast(master, 1, to, "\"arrival\":\"SHOWN\"");
    assertThat(f.path("unfit").path("noShell").get(0).path("section").asString())
        .isEqualTo(to.get(0).toString());
    assertThat(f.path("unfit").path("otherCourse").size()).isZero();
    assertThat(f.path("stand").path("0").asInt()).isEqualTo(1);
  }

  private static List<String> codes(JsonNode forecast, String list) {
    return forecast
        .path("unfit")
        .path(list)
        .valueStream()
        .map(u -> u.path("code").asString())
        .toList();
  }

  @Test
  void aFewOfAnotherCampusAndShellsWherePackagesWaitAreMarked() throws Exception {
    List<UUID> to =
        sections(
            "lgt-ph0",
            "lgt-ph1",
            "lgt-ph2",
            "lgt-ph3",
            "lgt-ph4",
            "lgt-ph5",
            "lgt-ph6",
            "lgt-ph7",
            "lgt-ph8",
            "lgt-pkph");
    String master = master("VHH");
    JsonNode f = forecast(master, 1, to, USUAL);
    assertThat(codes(f, "otherCampus")).containsExactly("lgt-pkph");
    assertThat(codes(f, "packageWaits")).isEmpty();
    assertThat(codes(forecast(master, 1, to.subList(7, 10), USUAL), "otherCampus"))
        .as("two and one are no mistake")
        .isEmpty();
    delivered(master, 1, to.subList(9, 10), USUAL);
    assertThat(codes(forecast(master, 1, to, USUAL), "packageWaits")).containsExactly("lgt-pkph");
  }

  @Test
  void theShellFromWhichAMasterWasMadeIsMarked() throws Exception {
    List<UUID> to = sections("lgt-pi1", "lgt-pi2");
    Practice.addPage("lgt-pi1", "Ropes", "<p>Check each.</p>");
    Caller.Answer made =
        coordinator.post(
            "/api/masters/shells/" + to.get(0),
            "{\"code\":\"VII\",\"title\":\"From a shell\",\"courses\":[]}");
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    String master = made.json().path("id").asString();
    freeze(master, "First");
    assertThat(codes(forecast(master, 1, to, USUAL), "own")).containsExactly("lgt-pi1");
  }

  @Test
  void aRecipeKeepsTheChoicesAndKnowsWhenItWasUsed() throws Exception {
    List<UUID> to = sections("lgt-pf1");
    String master = master("VF");
    String choices =
        "{\"clash\":\"TAKE_VERSION\",\"twin\":\"LEAVE\",\"arrival\":\"HIDDEN\",\"parts\":{\"what\":"
            + "\"EVERYTHING\",\"withoutKinds\":[\"DISCUSSION\"]}}";
    String body =
        "{\"master\":\"" + master + "\",\"name\":\"Start of term\",\"choices\":" + choices + "}";
    Caller.Answer kept = coordinator.post("/api/deliveries/recipes", body);
    assertThat(kept.status()).as(kept.text()).isEqualTo(201);
    assertThat(coordinator.post("/api/deliveries/recipes", body).status()).isEqualTo(409);
    String recipe = kept.json().path("id").asString();
    String order =
        "{\"version\":\"%s\",\"sections\":[\"%s\"],\"recipe\":\"%s\",\"choices\":%s}"
            .formatted(version(master, 1), to.get(0), recipe, choices);
    String id = coordinator.post("/api/deliveries", order).json().path("id").asString();
    rest(id, "PLANNING");
    String list = "/api/deliveries/recipes?master=" + master;
    assertThat(coordinator.get(list).json().get(0).path("used").asInt()).as("planned").isZero();
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    rest(id, "RUNNING");
    JsonNode used = coordinator.get(list).json().get(0);
    assertThat(used.path("used").asInt()).isEqualTo(1);
    assertThat(used.path("sections").asInt()).isEqualTo(1);
    assertThat(used.path("choices").path("parts").path("withoutKinds").get(0).asString())
        .isEqualTo("DISCUSSION");
    coordinator.call("DELETE", "/api/deliveries/recipes/" + recipe, null);
    assertThat(coordinator.get(list).json().size()).isZero();
    assertThat(coordinator.get("/api/deliveries/" + id).status()).isEqualTo(200);
  }

  @Test
  void aRecipeKeepsTheOtherMastersOfItsOrderAndTellsIfOneIsGone() throws Exception {
    sections("lgt-pfr1");
    String master = master("PFRA");
    String other = master("PFRB");
    String empty =
        coordinator
            .post("/api/masters", "{\"code\":\"PFRC\",\"title\":\"None yet\",\"courses\":[]}")
            .json()
            .path("id")
            .asString();
    String body =
        "{\"master\":\"%s\",\"name\":\"Both\",\"others\":[\"%s\",\"%s\"],"
            + "\"choices\":{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\"}}";
    String kept = body.formatted(master, other, empty);
    assertThat(coordinator.post("/api/deliveries/recipes", kept).status()).isEqualTo(201);
    JsonNode r = coordinator.get("/api/deliveries/recipes?master=" + master).json().get(0);
    assertThat(r.path("others").valueStream().map(JsonNode::asString)).containsExactly(other);
    assertThat(r.path("gone").asInt()).as("it has no version").isEqualTo(1);
    String own = body.formatted(master, master, other).replace("Both", "Own");
    assertThat(coordinator.post("/api/deliveries/recipes", own).status()).isEqualTo(422);
    String nobodys = body.formatted(master, UUID.randomUUID(), other).replace("Both", "Nobody");
    assertThat(coordinator.post("/api/deliveries/recipes", nobodys).status()).isEqualTo(404);
  }

  @Test
  void partsThatNameNothingAreNoFaultOfTheServer() throws Exception {
    List<UUID> to = sections("lgt-pg1");
    String master = master("VG");
    String odd = "\"parts\":{\"what\":\"EVERYTHING\",\"withoutKinds\":[null],\"items\":[null]}";
    assertThat(coordinator.post("/api/deliveries/forecast", order(master, 1, to, odd)).status())
        .isBetween(400, 422);
    String recipe =
        "{\"master\":\"%s\",\"name\":\"odd\",\"choices\":{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\","
            + "\"parts\":{\"what\":\"SOME\",\"items\":[\"a\\u0000b\",\"x y\"]}}}";
    assertThat(coordinator.post("/api/deliveries/recipes", recipe.formatted(master)).status())
        .isEqualTo(400);
  }
}
