package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Several people in one draft lose nothing. */
class DraftIT extends ServerIT {
  private static List<Caller.Answer> atOnce(List<Callable<Caller.Answer>> calls) throws Exception {
    ExecutorService pool = Executors.newFixedThreadPool(calls.size());
    try {
      List<Caller.Answer> all = new ArrayList<>();
      for (Future<Caller.Answer> f : pool.invokeAll(calls)) {
        all.add(f.get());
      }
      return all;
    } finally {
      pool.shutdown();
    }
  }

  private String items(String master) {
    return "/api/masters/" + master + "/draft/items";
  }

  private String add(String master, String kind, String title) {
    return coordinator
        .post(items(master), "{\"kind\":\"" + kind + "\",\"title\":\"" + title + "\"}")
        .json()
        .path("key")
        .asString();
  }

  private JsonNode item(String master, String title) {
    return coordinator
        .get("/api/masters/" + master + "/versions/0/items/" + key(master, title))
        .json();
  }

  private List<String> titles(String master) {
    return coordinator
        .get("/api/masters/" + master + "/versions/0/outline")
        .json()
        .valueStream()
        .map(n -> n.path("title").asString())
        .toList();
  }

  @Test
  void twoModulesThatAreMovedIntoEachOtherAtOnceNeverVanish() throws Exception {
    sections("lgt-da1");
    String master = master("DA");
    for (int i = 0; i < 8; i++) {
      String a = add(master, "MODULE", "A" + i);
      String b = add(master, "MODULE", "B" + i);
      List<Caller.Answer> answers =
          atOnce(
              List.of(
                  () ->
                      coordinator.post(
                          items(master) + "/" + a + "/place", "{\"parent\":\"" + b + "\"}"),
                  () ->
                      coordinator.post(
                          items(master) + "/" + b + "/place", "{\"parent\":\"" + a + "\"}")));
      assertThat(answers).extracting(Caller.Answer::status).containsOnlyOnce(200);
      assertThat(titles(master)).contains("A" + i, "B" + i);
    }
  }

  @Test
  void theSchemaItselfKnowsNeitherRingsNorEqualRanks() throws Exception {
    sections("lgt-db1");
    String master = master("DB");
    String a = add(master, "MODULE", "A");
    String b = add(master, "MODULE", "B");
    UUID tree =
        db.fetchSingle("select draft_tree_id from master where id = ?::uuid", master)
            .get(0, UUID.class);
    String move = "update tree_item set parent_key = ? where tree_id = ? and item_key = ?";
    db.query(move, a, tree, b).execute();
    assertThat(refused(move, b, tree, a)).contains("would stand in itself");
    String rank =
        "update tree_item set rank = (select rank from tree_item where tree_id = ? and item_key = ?)"
            + " where tree_id = ? and item_key = ?";
    assertThat(refused(rank, tree, a, tree, key(master, "Week 3"))).contains("tree_item_rank");
  }

  private String refused(String query, Object... values) {
    try {
      db.query(query, values).execute();
      return "not refused";
    } catch (RuntimeException e) {
      return e.toString();
    }
  }

  @Test
  void changesOfDifferentFieldsAtOnceAreAllKept() throws Exception {
    sections("lgt-dc1");
    String master = master("DC");
    String path = items(master) + "/" + key(master, "Paper plot");
    for (int i = 0; i < 8; i++) {
      String n = String.valueOf(i);
      List<Caller.Answer> answers =
          atOnce(
              List.of(
                  () -> coordinator.patch(path, "{\"html\":\"<p>Text " + n + "</p>\"}"),
                  () -> coordinator.patch(path, "{\"points\":\"1" + n + "\"}"),
                  () ->
                      coordinator.patch(
                          path, "{\"due\":\"2026-10-0" + (Integer.parseInt(n) + 1) + "T18:00\"}")));
      assertThat(answers).allMatch(a -> a.status() == 200);
      JsonNode now = item(master, "Paper plot");
      assertThat(now.path("html").asString()).contains("Text " + n);
      assertThat(now.path("points").asString()).isEqualTo("1" + n);
      assertThat(now.path("due").asString()).startsWith("2026-10-0" + (i + 1));
    }
  }

  @Test
  void itemsAddedAtOnceStandInAnOrderAndCanBeMoved() throws Exception {
    sections("lgt-dd1");
    String master = master("DD");
    List<Callable<Caller.Answer>> calls = new ArrayList<>();
    for (int i = 0; i < 12; i++) {
      String body = "{\"kind\":\"PAGE\",\"title\":\"N" + i + "\"}";
      calls.add(() -> coordinator.post(items(master), body));
    }
    assertThat(atOnce(calls)).allMatch(a -> a.status() == 201);
    for (int i = 1; i < 12; i++) {
      String before = key(master, "N" + (i - 1));
      assertThat(
              coordinator
                  .post(
                      items(master) + "/" + key(master, "N" + i) + "/place",
                      "{\"before\":\"" + before + "\"}")
                  .status())
          .isEqualTo(200);
    }
    assertThat(titles(master)).containsSubsequence("N11", "N10", "N9", "N1", "N0");
    assertThat(coordinator.get("/api/masters/" + master).json().path("items").asInt())
        .isEqualTo(18);
    freeze(master, "With all of them");
    assertThat(
            coordinator
                .get("/api/masters/" + master)
                .json()
                .path("versions")
                .get(1)
                .path("items")
                .asInt())
        .isEqualTo(18);
  }

  @Test
  void aChangeOfWhatSomebodyElseHasChangedIsToldAndOthersAreMerged() throws Exception {
    sections("lgt-de1");
    String master = master("DE");
    Caller teodor = another("teodor@x.example", Role.DESIGNER, "light");
    JsonNode seen = item(master, "Paper plot");
    String path = items(master) + "/" + key(master, "Paper plot");
    String aspects = "\"seen\":" + seen.path("aspects");
    assertThat(teodor.patch(path, "{\"html\":\"<p>Teodor's.</p>\"," + aspects + "}").status())
        .isEqualTo(200);
    Caller.Answer late = coordinator.patch(path, "{\"html\":\"<p>Mine.</p>\"," + aspects + "}");
    assertThat(late.status()).isEqualTo(409);
    assertThat(late.json().path("detail").asString())
        .isEqualTo(
            "teodor@x.example changed the wording of “Paper plot” while you were at it; yours was not kept.");
    assertThat(coordinator.patch(path, "{\"points\":\"30\"," + aspects + "}").status())
        .isEqualTo(200);
    JsonNode now = item(master, "Paper plot");
    assertThat(now.path("html").asString()).isEqualTo("<p>Teodor's.</p>");
    assertThat(now.path("points").asString()).isEqualTo("30");
    assertThat(coordinator.delete(path + "?seen=" + seen.path("state").asString()).status())
        .isEqualTo(409);
    assertThat(coordinator.delete(path + "?seen=" + now.path("state").asString()).status())
        .isEqualTo(200);
  }

  @Test
  void aTextThatNamesWhatIsNowhereIsDeliveredWithoutIt() throws Exception {
    List<UUID> to = sections("lgt-df1");
    String master = master("DF");
    String nowhere = "zref:file/" + "ab".repeat(32) + "/lost.pdf";
    edit(
        master,
        "Checklist",
        "{\"html\":\"<p><a href='"
            + nowhere
            + "'>a</a><a href='zref:item/unknown'>b</a><a href='zref:item/!'>c</a></p>\"}");
    freeze(master, "With dead references");
    JsonNode done = deliver(master, 2, to);
    JsonNode line = done.path("lines").get(0);
    assertThat(line.path("state").asString()).as(line.toString()).isEqualTo("DONE");
    assertThat(line.path("activity").asString()).contains("3 references lead nowhere");
    assertThat(Practice.html("lgt-df1", "Checklist")).doesNotContain("zref").contains(">a</a>");
    assertThat(deliver(master, 2, to).path("lines").get(0).path("counts").path("SAME").asInt())
        .isEqualTo(6);
  }

  @Test
  void pointsOfAQuizKeepItsAttempts() throws Exception {
    sections("lgt-dg1");
    String master = master("DG");
    for (Map.Entry<String, String> odd :
        Map.of(
                "{\"title\":\"\\u200b\"}", "The title shows nothing.",
                "{\"points\":\"1e-200000000\"}", "Points are a number from 0 to 100,000.",
                "{\"due\":\"+999999999-01-01T00:00\"}",
                    "“+999999999-01-01T00:00” is no day and time.")
            .entrySet()) {
      Caller.Answer a =
          coordinator.patch(items(master) + "/" + key(master, "Paper plot"), odd.getKey());
      assertThat(a.status()).as(odd.getKey()).isEqualTo(422);
      assertThat(a.json().path("detail").asString()).isEqualTo(odd.getValue());
    }
    assertThat(
            coordinator
                .patch(
                    items(master) + "/" + key(master, "Manual"),
                    "{\"address\":\"javascript:alert(1)\"}")
                .status())
        .isEqualTo(422);
  }

  @Test
  void whateverKindCanBeAddedHereCanBeWrittenHere() throws Exception {
    sections("lgt-dk1");
    String master = master("DK");
    for (JsonNode k : coordinator.get("/api/masters/kinds").json()) {
      String kind = k.path("kind").asString();
      List<String> fields = k.path("fields").valueStream().map(JsonNode::asString).toList();
      boolean leads = fields.contains("ADDRESS") || fields.contains("LAUNCH_ADDRESS");
      String body =
          "{\"kind\":\"%s\",\"title\":\"New %s\",\"address\":\"%s\"}"
              .formatted(kind, kind, leads ? "https://made.example/" : "");
      Caller.Answer added = coordinator.post(items(master), body);
      if (!k.path("fromNothing").asBoolean()) {
        assertThat(added.status()).as(kind).isEqualTo(422);
        continue;
      }
      assertThat(added.status()).as(kind).isEqualTo(201);
      Caller.Answer written =
          coordinator.patch(
              items(master) + "/" + added.json().path("key").asString(),
              "{\"html\":\"<p>Written.</p>\"}");
      boolean text = fields.contains("TEXT");
      assertThat(written.status()).as(kind).isEqualTo(text ? 200 : 422);
      assertThat(item(master, "New " + kind).path("html").asString())
          .as(kind)
          .isEqualTo(text ? "<p>Written.</p>" : "");
    }
  }

  private Caller.Answer undo(String master) {
    return coordinator.post("/api/masters/" + master + "/draft/undo", "");
  }

  private Caller.Answer redo(String master) {
    return coordinator.post("/api/masters/" + master + "/draft/redo", "");
  }

  @Test
  void everyStepIsUndoneAndDoneAgainAlsoTakingOutAWholeModule() throws Exception {
    sections("lgt-du1");
    String master = master("DU");
    List<String> before = titles(master);
    edit(master, "Checklist", "{\"title\":\"Safety list\"}");
    coordinator.post(
        "/api/masters/" + master + "/draft/take-out",
        "{\"keys\":[\"" + key(master, "Week 3") + "\"]}");
    assertThat(titles(master)).isEmpty();
    assertThat(undo(master).json().path("what").asString()).isEqualTo("took out “Week 3”");
    assertThat(titles(master)).hasSameSizeAs(before).contains("Safety list");
    assertThat(undo(master).status()).isEqualTo(200);
    assertThat(titles(master)).isEqualTo(before);
    assertThat(undo(master).status()).as("nothing more of one's own").isEqualTo(422);
    assertThat(redo(master).status()).isEqualTo(200);
    assertThat(titles(master)).contains("Safety list");
    edit(master, "Safety list", "{\"title\":\"List\"}");
    assertThat(redo(master).status()).as("something else was done since").isEqualTo(422);
  }

  @Test
  void aNewChangeEndsWhatCouldBeDoneAgain() throws Exception {
    sections("lgt-du5");
    String master = master("DU5");
    edit(master, "Checklist", "{\"title\":\"First\"}");
    undo(master);
    edit(master, "Checklist", "{\"title\":\"Second\"}");
    undo(master);
    assertThat(redo(master).status()).isEqualTo(200);
    assertThat(titles(master)).contains("Second").doesNotContain("First");
    assertThat(redo(master).status()).isEqualTo(422);
  }

  @Test
  void whatWasTakenOutComesBackThoughSomebodyElseAddedSomethingInItsPlace() throws Exception {
    sections("lgt-du6");
    String master = master("DU6");
    List<String> before = titles(master);
    edit(master, "Checklist", "{\"title\":\"Safety list\"}");
    coordinator.post(
        "/api/masters/" + master + "/draft/take-out",
        "{\"keys\":[\"" + key(master, "Week 3") + "\"]}");
    Caller other = another("du6@x.example", Role.DESIGNER, "light");
    Caller.Answer added =
        other.post(items(master), "{\"kind\":\"PAGE\",\"title\":\"Of a colleague\"}");
    assertThat(added.status()).as(added.text()).isEqualTo(201);
    Caller.Answer undone = undo(master);
    assertThat(undone.status()).as(undone.text()).isEqualTo(200);
    assertThat(titles(master)).hasSize(before.size() + 1).contains("Of a colleague", "Week 3");
    assertThat(redo(master).status()).isEqualTo(200);
    assertThat(titles(master)).containsExactly("Of a colleague");
    assertThat(undo(master).status()).isEqualTo(200);
    assertThat(undo(master).status()).as("and the step before it").isEqualTo(200);
    assertThat(titles(master)).contains("Checklist");
  }

  @Test
  void whatComesBackWhereItsModuleIsGoneStandsAtTheTop() throws Exception {
    sections("lgt-du7");
    String master = master("DU7B");
    String week =
        coordinator
            .post(items(master), "{\"kind\":\"MODULE\",\"title\":\"Week\"}")
            .json()
            .path("key")
            .asString();
    Caller other = another("du7b@x.example", Role.DESIGNER, "light");
    String page =
        other
            .post(
                items(master),
                "{\"kind\":\"PAGE\",\"title\":\"Ropes\",\"parent\":\"" + week + "\"}")
            .json()
            .path("key")
            .asString();
    String out = "/api/masters/" + master + "/draft/take-out";
    assertThat(other.post(out, "{\"keys\":[\"" + page + "\"]}").status()).isLessThan(300);
    assertThat(undo(master).status()).isEqualTo(200);
    assertThat(titles(master)).doesNotContain("Week", "Ropes");
    Caller.Answer undone = other.post("/api/masters/" + master + "/draft/undo", "");
    assertThat(undone.status()).as(undone.text()).isEqualTo(200);
    assertThat(titles(master)).contains("Ropes").doesNotContain("Week");
  }

  @Test
  void aStepFromWhichSomebodyElseWentOnBarsNoneBeforeIt() throws Exception {
    sections("lgt-du7");
    String master = master("DU7");
    edit(master, "Paper plot", "{\"title\":\"First\"}");
    edit(master, "Checklist", "{\"title\":\"Second\"}");
    Caller other = another("du7@x.example", Role.DESIGNER, "light");
    other.patch(items(master) + "/" + key(master, "Second"), "{\"title\":\"Theirs\"}");
    assertThat(undo(master).status()).isEqualTo(409);
    assertThat(undo(master).status()).isEqualTo(200);
    assertThat(titles(master)).contains("Theirs", "Paper plot").doesNotContain("First");
    assertThat(redo(master).status()).isEqualTo(200);
    assertThat(titles(master)).contains("First");
  }

  @Test
  void whatSomebodyElseChangedSinceIsNotUndoneOver() throws Exception {
    sections("lgt-du2");
    String master = master("DV");
    edit(master, "Checklist", "{\"title\":\"Mine\"}");
    Caller other = another("dv@x.example", Role.DESIGNER, "light");
    other.patch(items(master) + "/" + key(master, "Mine"), "{\"title\":\"Theirs\"}");
    Caller.Answer a = undo(master);
    assertThat(a.status()).isEqualTo(409);
    assertThat(titles(master)).contains("Theirs");
  }

  @Test
  void severalAreMovedAtOnceAndStayInTheirOrder() throws Exception {
    sections("lgt-du3");
    String master = master("DW");
    String module = add(master, "MODULE", "Week 4");
    String keys = "\"" + key(master, "Manual") + "\",\"" + key(master, "Checklist") + "\"";
    Caller.Answer a =
        coordinator.post(
            "/api/masters/" + master + "/draft/move",
            "{\"keys\":[" + keys + "],\"parent\":\"" + module + "\"}");
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    assertThat(titles(master)).endsWith("Week 4", "Manual", "Checklist");
    undo(master);
    assertThat(titles(master)).endsWith("Manual", "Checklist", "Week 4");
  }

  @Test
  void itemsAreTakenOverFromAnotherMasterWithTheFilesTheyLeadTo() throws Exception {
    sections("lgt-du4");
    String from = master("DX");
    String into =
        coordinator
            .post("/api/masters", "{\"code\":\"DY\",\"title\":\"t\",\"courses\":[]}")
            .json()
            .path("id")
            .asString();
    String body =
        "{\"master\":\"%s\",\"version\":1,\"keys\":[\"%s\"]}".formatted(from, key(from, "Week 3"));
    Caller.Answer a = coordinator.post("/api/masters/" + into + "/draft/take-over", body);
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    assertThat(titles(into)).isEqualTo(titles(from));
    assertThat(coordinator.post("/api/masters/" + into + "/draft/take-over", body).status())
        .as("a second time, under keys of their own")
        .isEqualTo(200);
    assertThat(titles(into)).hasSize(2 * titles(from).size());
    Caller other = another("dx@x.example", Role.DESIGNER, "sound");
    String own =
        other
            .post("/api/masters", "{\"code\":\"DZ\",\"title\":\"t\",\"courses\":[]}")
            .json()
            .path("id")
            .asString();
    assertThat(other.post("/api/masters/" + own + "/draft/take-over", body).status())
        .as("from a master out of reach")
        .isEqualTo(404);
    String cut =
        "{\"master\":\"%s\",\"version\":0,\"keys\":[\"%s\"],\"away\":true}"
            .formatted(into, key(into, "Checklist"));
    assertThat(other.post("/api/masters/" + own + "/draft/take-over", cut).status())
        .as("cut from a master that is the college's")
        .isEqualTo(403);
    assertThat(titles(into)).contains("Checklist");
  }

  @Test
  void whatIsCutInOneMasterAndPutIntoAnotherIsAlwaysInOneOfThem() throws Exception {
    sections("lgt-du8");
    String from = master("DU8");
    String into =
        coordinator
            .post("/api/masters", "{\"code\":\"DU9\",\"title\":\"t\",\"courses\":[]}")
            .json()
            .path("id")
            .asString();
    List<String> all = titles(from);
    String checklist = key(from, "Checklist");
    String cut =
        "{\"master\":\"%s\",\"version\":0,\"keys\":[\"%s\"],\"away\":true}"
            .formatted(from, checklist);
    Caller.Answer put = coordinator.post("/api/masters/" + into + "/draft/take-over", cut);
    assertThat(put.status()).as(put.text()).isEqualTo(200);
    assertThat(titles(into)).contains("Checklist");
    assertThat(titles(from)).doesNotContain("Checklist");
    assertThat(undo(into).status()).isEqualTo(200);
    assertThat(titles(into)).doesNotContain("Checklist");
    assertThat(titles(from)).isEqualTo(all);
    assertThat(redo(from).status()).as("from the other side").isEqualTo(200);
    assertThat(titles(into)).contains("Checklist");
    assertThat(titles(from)).doesNotContain("Checklist");
    assertThat(undo(from).status()).isEqualTo(200);
    assertThat(titles(from)).isEqualTo(all);
    assertThat(titles(into)).doesNotContain("Checklist");
    coordinator.post(items(into), "{\"kind\":\"PAGE\",\"title\":\"Something new\"}");
    assertThat(redo(from).status())
        .as("a new step there ends what could be done again")
        .isEqualTo(422);
    assertThat(titles(from)).isEqualTo(all);
  }

  @Test
  void anyVersionIsRestoredAsTheDraftAndThatCanBeUndone() throws Exception {
    sections("lgt-du5");
    String master = master("DR");
    List<String> first = titles(master);
    add(master, "PAGE", "New");
    edit(master, "Checklist", "{\"title\":\"Safety list\"}");
    freeze(master, "second");
    Caller.Answer a =
        coordinator.post("/api/masters/" + master + "/draft/restore", "{\"version\":1}");
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    assertThat(titles(master)).isEqualTo(first);
    undo(master);
    assertThat(titles(master)).contains("New", "Safety list");
    assertThat(
            coordinator
                .post("/api/masters/" + master + "/draft/restore", "{\"version\":0}")
                .status())
        .isEqualTo(422);
  }
}
