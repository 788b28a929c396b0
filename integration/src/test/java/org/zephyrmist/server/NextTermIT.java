package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** One term brought into the next: proposed, changed, planned, and never twice. */
class NextTermIT extends ServerIT {
  private static final String TEXT = "{\"master\":\"%s\",\"item\":\"%s\",\"onward\":\"%s\"}";

  @AfterEach
  void oneTerm() {
    db.execute(
        "update section set term_id = (select id from term where sourced_id = 't1') where term_id ="
            + " (select id from term where sourced_id = 't2')");
    db.execute("delete from term where sourced_id = 't2'");
  }

  private String term(String name) {
    return db.fetchSingle("select id::text from term where sourced_id = ?", name)
        .get(0, String.class);
  }

  private String path(String of) {
    return "/api/coverage/next-term" + of + "?from=" + term("t1") + "&to=" + term("t2");
  }

  private JsonNode proposal() {
    Caller.Answer a = coordinator.get(path(""));
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    return a.json();
  }

  /** Two sections of one term and two of the next; Agnes teaches the first of each. */
  private List<UUID> twoTerms(String code) throws Exception {
    List<UUID> all = sections(code + "a1", code + "a2", code + "b1", code + "b2");
    db.execute(
        "insert into term (id, sourced_id, title, first_day, last_day) select gen_random_uuid(),"
            + " 't2', 'Spring', last_day + 30, last_day + 140 from term where sourced_id = 't1'");
    db.execute(
        "update section set term_id = ?::uuid where sourced_id in (?, ?)",
        term("t2"),
        code + "b1",
        code + "b2");
    db.execute(
        "insert into section_instructor (section_id, person_id) select ?, person_id from"
            + " section_instructor where section_id = ?",
        all.get(2),
        all.get(0));
    return all;
  }

  /** Other tests have left rules of what every section should hold. */
  private void only(String master) {
    for (JsonNode m : proposal().path("masters")) {
      if (!m.path("master").asString().equals(master)) {
        String out = "{\"master\":\"" + m.path("master").asString() + "\",\"leftOut\":true}";
        assertThat(coordinator.put(path("/masters"), out).status()).isEqualTo(200);
      }
    }
  }

  private static JsonNode with(JsonNode all, String of, String is) {
    return all.valueStream()
        .filter(x -> x.path(of).asString().equals(is))
        .findFirst()
        .orElseThrow();
  }

  private String follows(UUID section) {
    return proposal()
        .path("pairs")
        .valueStream()
        .filter(p -> p.path("from").path("id").asString().equals(section.toString()))
        .map(p -> p.path("to").path("code").asString() + " " + p.path("why").asString())
        .findFirst()
        .orElseThrow();
  }

  private void done(String delivery) {
    confirm(delivery);
    await(
        () -> coordinator.get("/api/deliveries/" + delivery).json().path("together"),
        all -> all.valueStream().allMatch(d -> d.path("state").asString().equals("DONE")));
  }

  @Test
  void whatASectionMadeOfATextGoesAlongToTheOneThatFollowsIt() throws Exception {
    List<UUID> all = twoTerms("lgt-nta");
    String master = master("NTA");
    deliver(master, 1, all.subList(0, 2));
    Practice.form(
        "lgt-ntaa1",
        "Checklist",
        "text",
        Map.of("title", "Checklist", "html", "<p>My own gloves.</p>"));
    deliver(master, 1, all.subList(0, 1)); // which reads it
    edit(master, "Paper plot", "{\"html\":\"<p>Draw it twice.</p>\"}");
    freeze(master, "Second");
    List<Map<String, String>> before = shell("lgt-ntaa1");
    only(master);

    JsonNode p = proposal();
    assertThat(follows(all.get(0))).isEqualTo("lgt-ntab1 INSTRUCTOR_AND_CAMPUS");
    assertThat(follows(all.get(1))).isEqualTo("lgt-ntab2 CAMPUS");
    JsonNode coming = with(p.path("masters"), "master", master);
    assertThat(coming.path("number").asInt()).as("the newest").isEqualTo(2);
    assertThat(coming.path("open").asInt()).isEqualTo(2);
    JsonNode text = with(p.path("texts"), "master", master);
    assertThat(text.path("title").asString()).isEqualTo("Checklist");
    assertThat(text.path("onward").isMissingNode()).as("only where somebody says so").isTrue();
    assertThat(text.path("into").asInt()).isEqualTo(1);
    String said = TEXT.formatted(master, text.path("item").asString(), "AGAIN");
    assertThat(coordinator.put(path("/texts"), said).status()).isEqualTo(200);

    Caller.Answer made = coordinator.post(path(""), "");
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    assertThat(made.json().path("deliveries")).hasSize(1);
    String first = made.json().path("deliveries").get(0).asString();
    await(
        () -> coordinator.get("/api/deliveries/" + first).json().path("together"),
        d -> d.valueStream().allMatch(x -> x.path("state").asString().equals("PLANNED")));
    assertThat(coordinator.post(path(""), "").status()).as("it is on its way").isEqualTo(422);
    done(first);
    assertThat(Practice.html("lgt-ntab1", "Checklist")).isEqualTo("<p>My own gloves.</p>");
    assertThat(Practice.html("lgt-ntab2", "Checklist")).isEqualTo("<p>Gloves.</p>");
    assertThat(Practice.html("lgt-ntab1", "Paper plot")).isEqualTo("<p>Draw it twice.</p>");
    assertThat(shell("lgt-ntaa1")).as("the earlier term stays as it was").isEqualTo(before);

    assertThat(proposal().path("open").asInt()).isZero();
    assertThat(with(proposal().path("texts"), "master", master).path("into").asInt())
        .as("a text goes along with its master, and not for itself")
        .isZero();
    assertThat(coordinator.post(path(""), "").status()).as("again it adds nothing").isEqualTo(422);
  }

  private String planned() {
    Caller.Answer made = coordinator.post(path(""), "");
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    String first = made.json().path("deliveries").get(0).asString();
    await(
        () -> coordinator.get("/api/deliveries/" + first).json().path("together"),
        d -> d.valueStream().allMatch(x -> x.path("state").asString().equals("PLANNED")));
    return first;
  }

  @Test
  void whatWasPutIntoBlanksGoesIntoTheNewerTextAndIsAskedOnce() throws Exception {
    List<UUID> all = twoTerms("lgt-ntd");
    String master = master("NTD");
    String ask = "{\"html\":\"<p>%sAsk in <span class=\\\"z-blank\\\">room</span>.</p>\"}";
    edit(master, "Checklist", ask.formatted(""));
    freeze(master, "With a blank");
    deliver(master, 2, all.subList(0, 2));
    Practice.form(
        "lgt-ntda1",
        "Checklist",
        "text",
        Map.of("title", "Checklist", "html", "<p>Ask in <b>B 12</b>.</p>"));
    deliver(master, 2, all.subList(0, 1)); // which reads it
    edit(master, "Checklist", ask.formatted("Gloves on. "));
    freeze(master, "Gloves");
    only(master);
    JsonNode text = with(proposal().path("texts"), "master", master);
    assertThat(text.path("filled").asInt()).isEqualTo(1);
    assertThat(text.path("onward").asString()).as("proposed").isEqualTo("BLANKS");
    done(planned());
    assertThat(Practice.html("lgt-ntdb1", "Checklist"))
        .isEqualTo("<p>Gloves on. Ask in <b>B 12</b>.</p>");
    assertThat(Practice.html("lgt-ntdb2", "Checklist"))
        .as("open where nobody filled it")
        .isEqualTo("<p>Gloves on. Ask in [room].</p>");

    String dropped = TEXT.formatted(master, text.path("item").asString(), "DROPPED");
    assertThat(coordinator.put(path("/texts"), dropped).status()).isEqualTo(200);
    db.execute(
        "update next_term set to_term = from_term, from_term = to_term where to_term = ?::uuid",
        term("t2"));
    assertThat(with(proposal().path("texts"), "master", master).path("onward").asString())
        .as("what was said for other terms counts until somebody says something else")
        .isEqualTo("DROPPED");
  }

  @Test
  void aMasterComesByTheRecipeOfTheEarlierTermAndPartsGoByTheirCalendars() throws Exception {
    List<UUID> all = twoTerms("lgt-nte");
    String master = master("NTE");
    String recipe =
        coordinator
            .post(
                "/api/deliveries/recipes",
                "{\"master\":\"%s\",\"name\":\"Hidden first\",\"choices\":{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\",\"arrival\":\"HIDDEN\"}}"
                    .formatted(master))
            .json()
            .path("id")
            .asString();
    String first = plan(master, 1, all.subList(0, 2));
    db.execute("update delivery set recipe_id = ?::uuid where id = ?::uuid", recipe, first);
    confirm(first);
    String half = half("t1");
    coordinator.put(
        "/api/calendars/" + half + "/sections", "{\"sections\":[\"" + all.get(0) + "\"]}");
    only(master);
    JsonNode coming = with(proposal().path("masters"), "master", master);
    assertThat(coming.path("recipe").asString()).isEqualTo(recipe);
    assertThat(proposal().path("parts").get(0).path("there").asBoolean()).isFalse();
    String next = half("t2");
    JsonNode part = proposal().path("parts").get(0);
    assertThat(part.path("there").asBoolean()).isTrue();
    assertThat(part.path("sections").asInt()).isEqualTo(1);

    String other =
        "{\"master\":\"%s\",\"leftOut\":false,\"noRecipe\":false,\"recipe\":\"%s\"}"
            .formatted(master, UUID.randomUUID());
    assertThat(coordinator.put(path("/masters"), other).text()).contains("no such recipe");
    String order = planned();
    JsonNode d = coordinator.get("/api/deliveries/" + order).json();
    assertThat(d.toString()).contains("\"arrival\":\"HIDDEN\"");
    assertThat(
            db.fetchSingle(
                    "select calendar_id::text from section_calendar where section_id = ?",
                    all.get(2))
                .get(0))
        .isEqualTo(next);
    assertThat(proposal().path("busy").toString())
        .as("left to the delivery that waits")
        .isEqualTo("[\"lgt-nteb1\",\"lgt-nteb2\"]");
    coordinator.post("/api/deliveries/" + order + "/stop", "");
    db.execute("delete from calendar where not whole");
  }

  private String half(String term) {
    JsonNode c = coordinator.get("/api/calendars?term=" + term(term)).json().get(0).path("says");
    Caller.Answer a =
        coordinator.post(
            "/api/calendars?term=" + term(term),
            CalendarIT.entry("Half", c.path("first").asString(), c.path("last").asString(), ""));
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    return a.json().path("id").asString();
  }

  private static List<Map<String, String>> shell(String shell) throws Exception {
    List<Map<String, String>> all = new java.util.ArrayList<>();
    for (JsonNode i : Practice.items(shell)) {
      all.add(Map.of("id", i.path("id").asString(), "all", i.toString()));
    }
    return all;
  }

  @Test
  void aSuccessorThatTwoSectionsClaimIsRefused() throws Exception {
    List<UUID> all = twoTerms("lgt-ntb");
    String pair = "{\"section\":\"%s\",\"to\":\"%s\",\"propose\":false}";
    assertThat(coordinator.put(path("/pairs"), pair.formatted(all.get(0), all.get(3))).status())
        .isEqualTo(200);
    assertThat(follows(all.get(0))).isEqualTo("lgt-ntbb2 BY_HAND");
    assertThat(follows(all.get(1))).as("it takes what is left").isEqualTo("lgt-ntbb1 CAMPUS");
    Caller.Answer twice = coordinator.put(path("/pairs"), pair.formatted(all.get(1), all.get(3)));
    assertThat(twice.status()).isEqualTo(409);
    assertThat(twice.text()).contains("follows lgt-ntba1 already");
    String none = "{\"section\":\"" + all.get(0) + "\",\"propose\":%s}";
    coordinator.put(path("/pairs"), none.formatted("false"));
    assertThat(follows(all.get(0))).as("nothing follows it").isBlank();
    coordinator.put(path("/pairs"), none.formatted("true"));
    assertThat(follows(all.get(0))).isEqualTo("lgt-ntbb1 INSTRUCTOR_AND_CAMPUS");
  }

  @Test
  void whatCannotBeIsRefusedWithWhatToDo() throws Exception {
    List<UUID> all = twoTerms("lgt-ntc");
    String master = master("NTC");
    String same = "/api/coverage/next-term?from=" + term("t1") + "&to=" + term("t1");
    assertThat(coordinator.get(same).text()).contains("does not follow itself");
    String pinned = "{\"master\":\"" + master + "\",\"pinned\":7,\"leftOut\":false}";
    assertThat(coordinator.put(path("/masters"), pinned).text()).contains("no version 7");
    String other = "{\"section\":\"%s\",\"to\":\"%s\",\"propose\":false}";
    assertThat(coordinator.put(path("/pairs"), other.formatted(all.get(0), all.get(1))).status())
        .as("a section of the same term")
        .isEqualTo(404);
    String carry =
        "{\"what\":\"CARRY\",\"sections\":[\"%s\"],\"about\":[\"ours %s %s\"]}"
            .formatted(all.get(2), master, key(master, "Checklist"));
    assertThat(coordinator.post("/api/deliveries/edits", carry).text())
        .contains("carried over with their term");
    Caller sound = another("nt-c@x.example", Role.COORDINATOR, "sound");
    assertThat(sound.put(path("/pairs"), other.formatted(all.get(0), all.get(2))).status())
        .isEqualTo(404);
  }
}
