package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.STANDING;
import static org.zephyrmist.server.db.Tables.TERM;

import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.zephyrmist.server.shell.Looks;
import org.zephyrmist.server.shell.ShellReader;
import tools.jackson.databind.JsonNode;

class CoverageIT extends ServerIT {
  @Autowired Looks looks;
  @Autowired ShellReader reader;

  private JsonNode coverage() {
    UUID term = db.select(TERM.ID).from(TERM).fetchSingle().value1();
    return coordinator.get("/api/coverage?term=" + term).json();
  }

  /** What the coverage says of a section and a master; null if neither held nor expected. */
  private Map<String, Integer> cell(String section, String master) {
    JsonNode c = coverage();
    int s = place(c.path("sections"), section);
    JsonNode column = c.path("standings").get(place(c.path("masters"), master));
    for (int i = 0; i < column.path("section").size(); i++) {
      if (column.path("section").get(i).asInt() == s) {
        Map<String, Integer> cell = new HashMap<>();
        for (String value : List.of("number", "expected", "held", "changed")) {
          cell.put(value, column.path(value).get(i).asInt());
        }
        boolean waits = column.path("needsPerson").valueStream().anyMatch(n -> n.asInt() == s);
        cell.put("needsPerson", waits ? 1 : 0);
        return cell;
      }
    }
    return null;
  }

  private static int place(JsonNode list, String code) {
    for (int i = 0; i < list.size(); i++) {
      if (list.get(i).path("code").asString().equals(code)) {
        return i;
      }
    }
    throw new AssertionError(code + " is not listed");
  }

  @Test
  void aSectionOfTheCourseIsExpectedToHoldTheMasterAndOneOfAnotherIsNot() throws Exception {
    sections("lgt-ca1", "snd-ca2");
    master("CA");
    assertThat(cell("lgt-ca1", "CA").get("number")).isZero();
    assertThat(cell("snd-ca2", "CA")).isNull();
  }

  @Test
  void theLedgerSaysWhichVersionASectionHoldsAndThatItWaitsForAPerson() throws Exception {
    List<UUID> to = sections("lgt-cb1");
    String master = master("CB");
    deliver(master, 1, to);
    assertThat(cell("lgt-cb1", "CB").get("number")).isEqualTo(1);
    assertThat(cell("lgt-cb1", "CB").get("held")).isEqualTo(6);
    edit(master, "Checklist", "{\"html\":\"<p>New.</p>\"}");
    freeze(master, "Second");
    String id = plan(master, 2, to);
    Practice.fault("lgt-cb1", "REFUSE", 1000);
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    rest(id, "RUNNING");
    assertThat(cell("lgt-cb1", "CB").get("number")).isEqualTo(1);
    assertThat(cell("lgt-cb1", "CB").get("needsPerson")).isEqualTo(1);
  }

  @Test
  void aSectionWhoseFirstDeliveryWaitsIsShownThoughItWasNotExpectedToHoldTheMaster()
      throws Exception {
    List<UUID> to = sections("snd-cg1");
    String master = master("CG");
    assertThat(cell("snd-cg1", "CG")).isNull();
    String id = plan(master, 1, to);
    Practice.fault("snd-cg1", "REFUSE", 1000);
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    rest(id, "RUNNING");
    assertThat(cell("snd-cg1", "CG")).containsEntry("number", 0).containsEntry("needsPerson", 1);
  }

  @Test
  void whatALaterDeliveryBroughtNoLongerWaits() throws Exception {
    List<UUID> to = sections("lgt-ci1");
    String master = master("CI");
    String refused = plan(master, 1, to);
    Practice.fault("lgt-ci1", "REFUSE", 1000);
    coordinator.post("/api/deliveries/" + refused + "/confirm", "");
    rest(refused, "RUNNING");
    assertThat(cell("lgt-ci1", "CI")).containsEntry("needsPerson", 1);
    Practice.noFaults();
    deliver(master, 1, to);
    assertThat(cell("lgt-ci1", "CI")).containsEntry("number", 1).containsEntry("needsPerson", 0);
  }

  @Test
  void readingAShellAgainShowsWhatTheInstructorChangedAndRemoved() throws Exception {
    List<UUID> to = sections("lgt-cc1");
    deliver(master("CC"), 1, to);
    Practice.form(
        "lgt-cc1", "Checklist", "text", Map.of("title", "Checklist", "html", "<p>Mine.</p>"));
    Practice.form("lgt-cc1", "Manual", "delete", Map.of());
    assertThat(cell("lgt-cc1", "CC").get("changed")).isZero();
    String body = "{\"sections\":[\"" + to.get(0) + "\"]}";
    Caller.Answer a = coordinator.post("/api/deliveries/readings", body);
    assertThat(a.json().path("sections").asInt()).isEqualTo(1);
    await(
        () -> coordinator.post("/api/deliveries/readings/left", body).json(),
        left -> left.path("sections").asInt() == 0);
    assertThat(cell("lgt-cc1", "CC").get("changed")).isEqualTo(1);
    assertThat(cell("lgt-cc1", "CC").get("held")).isEqualTo(5);
    JsonNode gone =
        coordinator
            .get("/api/sections/" + to.get(0) + "/items")
            .json()
            .valueStream()
            .filter(i -> i.path("title").asString().equals("Manual"))
            .findFirst()
            .orElseThrow();
    assertThat(gone.path("state").asString()).isEqualTo("GONE");
  }

  @Test
  void everyReceiptOfAnItemIsKeptNewestFirst() throws Exception {
    List<UUID> to = sections("lgt-cd1");
    String master = master("CD");
    deliver(master, 1, to);
    edit(master, "Checklist", "{\"html\":\"<p>New.</p>\"}");
    freeze(master, "Second");
    deliver(master, 2, to);
    String key = key(master, "Checklist");
    JsonNode receipts =
        coordinator
            .get("/api/sections/%s/masters/%s/items/%s/receipts".formatted(to.get(0), master, key))
            .json();
    assertThat(receipts)
        .extracting(r -> r.path("number").asInt() + " " + r.path("how").asString())
        .containsExactly("2 UPDATED", "1 ADDED");
    assertThat(receipts.get(0).path("writes").get(0).asString()).isEqualTo("WORDING");
  }

  @Test
  void aDeliveryIsStoppedAndGoneOnWith() throws Exception {
    List<UUID> to = sections("lgt-ce1", "lgt-ce2");
    String master = master("CE");
    String id = plan(master, 1, to);
    assertThat(coordinator.post("/api/deliveries/" + id + "/go-on", "").status()).isEqualTo(409);
    Practice.fault("lgt-ce1", "ERROR", 2);
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    assertThat(coordinator.post("/api/deliveries/" + id + "/confirm", "").status()).isEqualTo(409);
    coordinator.post("/api/deliveries/" + id + "/stop", "");
    await(
        () -> coordinator.get("/api/deliveries/" + id).json(),
        d ->
            d.path("lines")
                .valueStream()
                .noneMatch(l -> l.path("state").asString().equals("RUNNING")));
    coordinator.post("/api/deliveries/" + id + "/go-on", "");
    JsonNode done = rest(id, "RUNNING");
    assertThat(done.path("lines")).allMatch(l -> l.path("state").asString().equals("DONE"));
    assertThat(Practice.titles("lgt-ce1")).hasSize(6).doesNotHaveDuplicates();
  }

  @Test
  void goingOnWithADeliveryThatStillMovesDoesNotEndIt() throws Exception {
    List<UUID> to = sections("lgt-ch1");
    String id = plan(master("CH"), 1, to);
    Practice.fault("lgt-ch1", "SLOW", 1);
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    await(
        () -> coordinator.get("/api/deliveries/" + id).json(),
        d -> d.path("lines").get(0).path("state").asString().equals("RUNNING"));
    assertThat(coordinator.post("/api/deliveries/" + id + "/go-on", "").status()).isEqualTo(200);
    JsonNode on = coordinator.get("/api/deliveries/" + id).json();
    assertThat(on.path("delivery").path("state").asString()).isEqualTo("RUNNING");
    JsonNode done = rest(id, "RUNNING");
    assertThat(done.path("lines").get(0).path("state").asString()).isEqualTo("DONE");
    coordinator.post("/api/deliveries/" + id + "/go-on", "");
    assertThat(rest(id, "RUNNING").path("delivery").path("state").asString()).isEqualTo("DONE");
  }

  @Test
  void searchFindsSectionsByInstructorAndMastersByTitle() throws Exception {
    sections("lgt-cf1");
    master("CF");
    assertThat(coordinator.get("/api/search?q=agnes").json())
        .anyMatch(h -> h.path("name").asString().startsWith("lgt-cf1"));
    assertThat(coordinator.get("/api/search?q=cf").json())
        .anyMatch(h -> h.path("subject").asString().equals("MASTER"));
    assertThat(coordinator.get("/api/search?q=checkl").json())
        .anyMatch(
            h ->
                h.path("subject").asString().equals("ITEM")
                    && h.path("beside").asString().equals("CF"));
    assertThat(coordinator.get("/api/search?q=%20").json()).isEmpty();
  }

  @Test
  void aMasterThatNoSectionIsExpectedToHoldIsListedAllTheSame() throws Exception {
    sections("lgt-cz1");
    String master = master("CZ");
    db.query("delete from coverage_rule where master_id = ?::uuid", master).execute();
    String term = coordinator.get("/api/coverage/terms").json().get(0).path("id").asString();
    assertThat(coordinator.get("/api/coverage?term=" + term).status()).isEqualTo(200);
  }

  @Test
  void shellsAreLookedAtByScheduleWhichReadsOnlyThoseThatMoved() throws Exception {
    List<UUID> to = sections("lgt-cj1");
    deliver(master("CJ"), 1, to);
    assertThat(looks.due(Duration.ofHours(24), 10_000)).contains(to.get(0));
    reader.refresh(to.get(0));
    assertThat(looks.due(Duration.ofHours(24), 10_000)).doesNotContain(to.get(0));
    Practice.addPage("lgt-cj1", "Office hours", "<p>Tuesdays.</p>");
    reader.refresh(to.get(0));
    JsonNode own = coordinator.get("/api/sections/" + to.get(0) + "/own").json();
    assertThat(own.valueStream().map(o -> o.path("title").asString()))
        .containsExactly("Office hours");
    OffsetDateTime before = readAt(to.get(0));
    reader.refresh(to.get(0));
    assertThat(readAt(to.get(0))).isAfter(before);
    assertThat(looks.due(Duration.ZERO, 10_000)).isEmpty();
  }

  private OffsetDateTime readAt(UUID section) {
    return db.select(STANDING.READ_AT)
        .from(STANDING)
        .where(STANDING.SECTION_ID.eq(section))
        .fetchSingle()
        .value1();
  }
}
