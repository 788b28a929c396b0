package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/**
 * What somebody causes goes no further than they reach; how a master is called, and how it ends.
 */
class ReachIT extends ServerIT {
  private static final String FRAME = "{\"code\":\"%s\",\"title\":\"Frame\",\"courses\":[]}";

  private static String made(Caller.Answer a) {
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    return a.json().path("id").asString();
  }

  private JsonNode rule(Caller who, String master) {
    String term = coordinator.get("/api/coverage/terms").json().get(0).path("id").asString();
    return who.get("/api/coverage/rules?term=" + term)
        .json()
        .valueStream()
        .filter(r -> r.path("master").asString().equals(master))
        .findFirst()
        .orElseThrow();
  }

  private int sectionsOf(String program) {
    return db.fetchSingle(
            "select count(*)::int from section s join course c on c.id = s.course_id join program p"
                + " on p.id = c.program_id where p.sourced_id = ? and s.term_id = (select id from"
                + " term where sourced_id <> 't0' order by first_day desc limit 1)",
            program)
        .get(0, Integer.class);
  }

  @Test
  void aRuleForEverySectionReachesNoFurtherThanWhoMakesIt() throws Exception {
    sections("lgt-ra", "snd-rb", "snd-rc");
    Caller sound = another("ra@x.example", Role.COORDINATOR, "sound");
    String master = made(sound.post("/api/masters", FRAME.formatted("RASND")));
    JsonNode rule = rule(coordinator, master);
    assertThat(rule.path("scope").asString()).isEqualTo("PROGRAM");
    assertThat(rule.path("sections").asInt()).isEqualTo(sectionsOf("sound")).isPositive();
    made(sound.post("/api/coverage/rules", set("RA set", master, sound)));

    Caller none = another("rc@x.example", Role.DESIGNER, "none such");
    assertThat(none.get("/api/me").json().path("programs")).isEmpty();
    assertThat(none.post("/api/masters", FRAME.formatted("RANONE")).status()).isEqualTo(422);
  }

  private String set(String name, String master, Caller who) {
    UUID section =
        db.fetchSingle("select id from section where code = 'lgt-ra'").get(0, UUID.class);
    String made =
        coordinator
            .post(
                "/api/coverage/sets",
                "{\"name\":\"" + name + "\",\"sections\":[\"" + section + "\"]}")
            .json()
            .path("id")
            .asString();
    return "{\"master\":\"" + master + "\",\"set\":\"" + made + "\"}";
  }

  @Test
  void aRuleOfTheWholeCollegeIsNotEndedByWhoReachesAPartOfIt() throws Exception {
    sections("lgt-rd", "snd-re");
    Caller sound = another("rd@x.example", Role.COORDINATOR, "sound");
    String own = made(sound.post("/api/masters", FRAME.formatted("RDSND")));
    made(coordinator.post("/api/coverage/rules", "{\"master\":\"" + own + "\"}"));
    List<JsonNode> rules =
        db.fetch("select id::text from coverage_rule where master_id = ?::uuid", own).stream()
            .map(r -> sound.delete("/api/coverage/rules/" + r.get(0)).json())
            .toList();
    assertThat(rules.stream().map(r -> r.path("status").asInt()).toList()).contains(403);
    assertThat(
            db.fetchCount(
                db.selectFrom("coverage_rule")
                    .where("master_id = ?::uuid and program_id is null", own)))
        .isEqualTo(1);
  }

  @Test
  void aMasterOfTheCollegeIsChangedByThoseWhoReachItAllAndThoseWhoAreNamed() throws Exception {
    sections("lgt-rf", "snd-rg");
    Caller designer = another("rf@x.example", Role.DESIGNER, "sound");
    String master = made(administrator.post("/api/masters", FRAME.formatted("RFALL")));
    String items = "/api/masters/" + master + "/draft/items";
    String page = "{\"kind\":\"PAGE\",\"title\":\"Welcome\"}";
    assertThat(designer.get("/api/masters/" + master).json().path("yours").asBoolean()).isFalse();
    assertThat(coordinator.get("/api/masters/" + master).json().path("yours").asBoolean())
        .as("who reaches every program reaches the college")
        .isTrue();
    assertThat(designer.post(items, page).status()).as("seen, and not changed").isEqualTo(403);
    assertThat(designer.post("/api/masters/" + master + "/versions", "{\"note\":\"x\"}").status())
        .isEqualTo(403);
    assertThat(designer.delete("/api/masters/" + master).status()).isEqualTo(403);
    assertThat(
            another("rg@x.example", Role.COORDINATOR, "sound")
                .post("/api/coverage/rules", "{\"master\":\"" + master + "\"}")
                .status())
        .isEqualTo(403);
    String link =
        "{\"from\":\"//rf.example{*rest}\",\"to\":\"https://n.example{*rest}\",\"parameters\":{},"
            + "\"masters\":[\"%s\"],\"terms\":[],\"campuses\":[]}";
    Caller rules = another("ri@x.example", Role.COORDINATOR, "sound");
    assertThat(rules.post("/api/tools/rules", link.formatted(master)).status()).isEqualTo(403);
    String lighting = master("RFL");
    made(coordinator.post("/api/tools/rules", link.formatted(lighting)));
    assertThat(rules.get("/api/tools/rules").text()).doesNotContain(lighting);
    assertThat(coordinator.get("/api/tools/rules").text()).contains(lighting);
    String named = "{\"people\":[\"" + people.loadUserByUsername("rf@x.example").id() + "\"]}";
    assertThat(administrator.put("/api/masters/" + master + "/keepers", named).status())
        .isEqualTo(204);
    assertThat(designer.post(items, page).status()).as("now that they are named").isEqualTo(201);
  }

  @Test
  void aCalendarThatSectionsOfOthersGoByIsNeitherChangedNorEnded() throws Exception {
    List<UUID> ids = sections("lgt-rk", "snd-rl");
    Caller sound = another("rk@x.example", Role.COORDINATOR, "sound");
    String term =
        db.fetchSingle("select term_id::text from section where id = ?", ids.get(0))
            .get(0, String.class);
    String body =
        """
        {"name":"Late start","first":"2026-09-14","last":"2026-12-11","zone":"UTC",
         "weeks":"CALENDAR","weekdays":[1,2,3,4,5],"fit":"AS_SAID","off":[]}""";
    String path = "/api/calendars/" + made(sound.post("/api/calendars?term=" + term, body));
    String sections = "{\"sections\":[\"%s\"]}";
    assertThat(sound.put(path + "/sections", sections.formatted(ids.get(1))).status())
        .isLessThan(300);
    assertThat(sound.put(path, body).status()).as("only sound goes by it").isLessThan(300);
    assertThat(coordinator.put(path + "/sections", sections.formatted(ids.get(0))).status())
        .isLessThan(300);
    assertThat(sound.put(path, body).status()).isEqualTo(403);
    assertThat(sound.delete(path).status()).isEqualTo(403);
    assertThat(coordinator.delete(path).status()).isLessThan(300);
  }

  @Test
  void aMasterIsCalledOtherwiseRetiredBroughtBackAndDeletedIfNothingEverHeldIt() throws Exception {
    List<UUID> to = sections("lgt-rh");
    String master = master("RH");
    String path = "/api/masters/" + master;
    String program =
        db.fetchSingle("select program_id::text from master where id = ?::uuid", master)
            .get(0, String.class);
    String called = "{\"code\":\"RH 2\",\"title\":\"Light, new\",\"program\":\"" + program + "\"}";
    assertThat(coordinator.put(path, called).status()).isEqualTo(204);
    assertThat(coordinator.get(path).json().path("title").asString()).isEqualTo("Light, new");
    deliver(master, 1, to);
    assertThat(coordinator.delete(path).status()).as("was delivered").isEqualTo(409);
    assertThat(coordinator.get(path + "/holders").json().path("sections"))
        .extracting(h -> h.path("section").asString())
        .containsExactly("lgt-rh");
    assertThat(coordinator.post(path + "/retire", "").status()).isEqualTo(204);
    String body =
        "{\"version\":\"%s\",\"sections\":[\"%s\"]}".formatted(version(master, 1), to.get(0));
    assertThat(coordinator.post("/api/deliveries", body).status()).isEqualTo(409);
    assertThat(
            coordinator.post(path + "/draft/items", "{\"kind\":\"PAGE\",\"title\":\"x\"}").status())
        .isEqualTo(409);
    assertThat(coordinator.post(path + "/bring-back", "").status()).isEqualTo(204);
    assertThat(coordinator.post("/api/deliveries", body).status()).isEqualTo(201);

    String never = master("RHX");
    assertThat(coordinator.delete("/api/masters/" + never).status()).isEqualTo(204);
    assertThat(coordinator.get("/api/masters/" + never).status()).isEqualTo(404);
  }
}
