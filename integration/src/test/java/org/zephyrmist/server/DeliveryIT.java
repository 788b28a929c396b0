package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.DELIVERY_STEP;
import static org.zephyrmist.server.db.Tables.HOLDING;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.delivery.DeliveryState;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.server.db.Tables;
import org.zephyrmist.server.delivery.PlanViews;
import tools.jackson.databind.JsonNode;

class DeliveryIT extends ServerIT {
  @Autowired PlanViews planViews;
  @Autowired PlatformTransactionManager transactions;

  private static JsonNode line(JsonNode detail, int n) {
    return detail.path("lines").get(n);
  }

  @Test
  void aVersionArrivesWholeWithItsFilesItsLinksAndItsReceipts() throws Exception {
    List<UUID> to = sections("lgt-a1", "lgt-a2");
    String master = master("A");
    JsonNode done = deliver(master, 1, to);
    assertThat(done.path("delivery").path("state").asString()).isEqualTo("DONE");
    assertThat(Practice.titles("lgt-a1"))
        .containsExactlyInAnyOrder(
            "Week 3", "Reading: loads", "Load table", "Paper plot", "Manual", "Checklist");
    String html = Practice.html("lgt-a1", "Reading: loads");
    String checklist = Practice.item("lgt-a1", "Checklist").path("id").asString();
    JsonNode table = Practice.item("lgt-a1", "Load table");
    assertThat(html)
        .contains("/shells/lgt-a1/items/" + checklist)
        .contains("/shells/lgt-a1/items/" + table.path("id").asString());
    String file = table.path("wording").path("more").path("file").path("sha256").asString();
    assertThat(Practice.bytes("/files/" + file + "/loads.pdf")).isEqualTo(Samples.PDF);
    JsonNode items = coordinator.get("/api/sections/" + to.get(0) + "/items").json();
    assertThat(items).hasSize(6);
    assertThat(items).allMatch(i -> i.path("state").asString().equals("AS_DELIVERED"));
    assertThat(items).allMatch(i -> i.path("by").asString().equals("Ines"));
  }

  @Test
  void deliveringTheSameVersionAgainDoesNothingAndSaysSo() throws Exception {
    List<UUID> to = sections("lgt-b1");
    String master = master("B");
    deliver(master, 1, to);
    List<String> before = Practice.titles("lgt-b1");
    JsonNode again = deliver(master, 1, to);
    assertThat(line(again, 0).path("activity").asString())
        .isEqualTo("nothing to do: it holds version 1");
    assertThat(Practice.titles("lgt-b1")).isEqualTo(before);
    assertThat(Practice.items("lgt-b1"))
        .allMatch(i -> i.path("changedBy").asString().equals("Zephyrmist"));
  }

  @Test
  void versionTwoBringsOnlyWhatChangedAndKeepsWhatTheInstructorChanged() throws Exception {
    List<UUID> to = sections("lgt-c1", "lgt-c2");
    String master = master("C");
    deliver(master, 1, to);
    Practice.form("lgt-c1", "Paper plot", "due", Map.of("due", "2026-10-02T18:00"));
    Practice.form(
        "lgt-c1", "Checklist", "text", Map.of("title", "Checklist", "html", "<p>Mine.</p>"));
    edit(master, "Paper plot", "{\"html\":\"<p>Draw it twice.</p>\"}");
    freeze(master, "Twice");
    JsonNode done = deliver(master, 2, to);
    assertThat(line(done, 0).path("counts"))
        .isEqualTo(
            new tools.jackson.databind.json.JsonMapper()
                .readTree("{\"UPDATE\":1,\"KEEP\":1,\"SAME\":4}"));
    assertThat(Practice.html("lgt-c1", "Paper plot")).isEqualTo("<p>Draw it twice.</p>");
    assertThat(Practice.item("lgt-c1", "Paper plot").path("timing").path("due").asString())
        .isEqualTo("2026-10-02T18:00");
    assertThat(Practice.html("lgt-c1", "Checklist")).isEqualTo("<p>Mine.</p>");
    JsonNode items = coordinator.get("/api/sections/" + to.get(0) + "/items").json();
    assertThat(items)
        .filteredOn(i -> i.path("state").asString().equals("CHANGED"))
        .extracting(i -> i.path("title").asString())
        .containsExactly("Paper plot", "Checklist");
  }

  @Test
  void bothChangedATextIsAClashThatKeepsTheSectionsUnlessTheDeliveryChoosesOtherwise()
      throws Exception {
    List<UUID> to = sections("lgt-d1");
    String master = master("D");
    deliver(master, 1, to);
    Practice.form(
        "lgt-d1", "Checklist", "text", Map.of("title", "Checklist", "html", "<p>Mine.</p>"));
    edit(master, "Checklist", "{\"html\":\"<p>Gloves and card.</p>\"}");
    freeze(master, "Card");
    String id = plan(master, 2, to);
    JsonNode detail = coordinator.get("/api/deliveries/" + id).json();
    assertThat(line(detail, 0).path("counts").path("CLASH").asInt()).isEqualTo(1);
    String key = key(master, "Checklist");
    JsonNode sides =
        coordinator
            .get(
                "/api/deliveries/%s/lines/%s/steps/%s"
                    .formatted(id, line(detail, 0).path("id").asString(), key))
            .json();
    assertThat(sides.path("here").path("html").asString()).isEqualTo("<p>Mine.</p>");
    assertThat(sides.path("before").path("html").asString()).isEqualTo("<p>Gloves.</p>");
    assertThat(sides.path("version").path("html").asString()).isEqualTo("<p>Gloves and card.</p>");
    coordinator.put(
        "/api/deliveries/" + id + "/choices", "{\"clash\":\"TAKE_VERSION\",\"twin\":\"ADOPT\"}");
    rest(id, "PLANNING");
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    rest(id, "RUNNING");
    assertThat(Practice.html("lgt-d1", "Checklist")).isEqualTo("<p>Gloves and card.</p>");
  }

  @Test
  void aShellThatChangedUnderAConfirmedPlanIsShownAgainBeforeItIsOverwritten() throws Exception {
    List<UUID> to = sections("lgt-e1");
    String master = master("E");
    deliver(master, 1, to);
    edit(master, "Checklist", "{\"html\":\"<p>New.</p>\",\"rule\":\"FIXED\"}");
    freeze(master, "Fixed");
    String id = plan(master, 2, to);
    Practice.form(
        "lgt-e1", "Checklist", "text", Map.of("title", "Checklist", "html", "<p>Late.</p>"));
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    JsonNode stopped = rest(id, "RUNNING");
    assertThat(line(stopped, 0).path("state").asString()).isEqualTo("NEEDS_PERSON");
    assertThat(Practice.html("lgt-e1", "Checklist")).isEqualTo("<p>Late.</p>");
    coordinator.post("/api/deliveries/" + id + "/go-on", "");
    rest(id, "RUNNING");
    assertThat(Practice.html("lgt-e1", "Checklist")).isEqualTo("<p>New.</p>");
  }

  @Test
  void aPassingFaultIsTriedAgainAndALastingOneWaitsForAPersonWhileOthersGoOn() throws Exception {
    List<UUID> to = sections("lgt-f1", "lgt-f2", "lgt-f3");
    String master = master("F");
    String id = plan(master, 1, to);
    Practice.fault("lgt-f1", "ERROR", 1);
    Practice.fault("lgt-f2", "REFUSE", 1000);
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    JsonNode done = rest(id, "RUNNING");
    assertThat(line(done, 0).path("state").asString()).isEqualTo("DONE");
    assertThat(line(done, 1).path("state").asString()).isEqualTo("NEEDS_PERSON");
    assertThat(line(done, 1).path("reason").asString())
        .isEqualTo("The platform refuses access to this shell.");
    assertThat(line(done, 1).path("remedy").asString()).contains("let Zephyrmist into it");
    assertThat(line(done, 2).path("state").asString()).isEqualTo("DONE");
    Practice.noFaults();
    coordinator.post("/api/deliveries/" + id + "/go-on", "");
    assertThat(line(rest(id, "RUNNING"), 1).path("state").asString()).isEqualTo("DONE");
    assertThat(Practice.titles("lgt-f2")).hasSize(6).doesNotHaveDuplicates();
  }

  @Test
  void whatWasSentBeforeAServerDiedIsFoundAgainAndNothingIsDoubled() throws Exception {
    List<UUID> to = sections("lgt-g1");
    String master = master("G");
    String id = deliver(master, 1, to).path("delivery").path("id").asString();
    UUID line =
        db.select(DELIVERY_LINE.ID)
            .from(DELIVERY_LINE)
            .where(DELIVERY_LINE.DELIVERY_ID.eq(UUID.fromString(id)))
            .fetchSingle()
            .value1();
    // As if the server had died after the platform did the work and before it was recorded.
    db.deleteFrom(HOLDING).where(HOLDING.SECTION_ID.eq(to.get(0))).execute();
    db.update(DELIVERY_STEP)
        .set(DELIVERY_STEP.DONE, false)
        .set(DELIVERY_STEP.RECORDED, false)
        .setNull(DELIVERY_STEP.PLATFORM_ITEM)
        .where(DELIVERY_STEP.LINE_ID.eq(line))
        .execute();
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.STOPPED)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
    coordinator.post("/api/deliveries/" + id + "/go-on", "");
    JsonNode done = rest(id, "RUNNING");
    assertThat(line(done, 0).path("state").asString()).isEqualTo("DONE");
    assertThat(Practice.titles("lgt-g1")).hasSize(6).doesNotHaveDuplicates();
    assertThat(coordinator.get("/api/sections/" + to.get(0) + "/items").json()).hasSize(6);
    String checklist = Practice.item("lgt-g1", "Checklist").path("id").asString();
    assertThat(Practice.html("lgt-g1", "Reading: loads")).contains(checklist);
  }

  @Test
  void aLineThatIsMissingOnTheQueueIsFoundAndRun() throws Exception {
    List<UUID> to = sections("lgt-n1");
    String id = plan(master("N"), 1, to);
    // As if the server had died after the order was kept and before it was queued.
    UUID delivery = UUID.fromString(id);
    db.update(DELIVERY)
        .set(DELIVERY.STATE, DeliveryState.RUNNING)
        .set(DELIVERY.CONFIRMED_BY, DELIVERY.MADE_BY)
        .set(DELIVERY.CONFIRMED_AT, DELIVERY.MADE_AT)
        .where(DELIVERY.ID.eq(delivery))
        .execute();
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.WAITING)
        .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
        .execute();
    assertThat(line(rest(id, "RUNNING"), 0).path("state").asString()).isEqualTo("DONE");
  }

  @Test
  void studentWorkBlocksAChangeOfGradingUntilAPersonDecides() throws Exception {
    List<UUID> to = sections("lgt-h1");
    String master = master("H");
    deliver(master, 1, to);
    Practice.form("lgt-h1", "Paper plot", "work", Map.of("student", "A", "text", "done"));
    edit(master, "Paper plot", "{\"points\":\"20\"}");
    freeze(master, "Twenty points");
    JsonNode done = deliver(master, 2, to);
    assertThat(line(done, 0).path("counts").path("BLOCKED").asInt()).isEqualTo(1);
    assertThat(Practice.item("lgt-h1", "Paper plot").path("grading").path("points").asInt())
        .isEqualTo(10);
  }

  @Test
  void whatTheSectionHasAlreadyIsAdoptedAndNotDoubled() throws Exception {
    List<UUID> to = sections("lgt-k1");
    Practice.addPage("lgt-k1", "Checklist", "<p>My own gloves.</p>");
    JsonNode done = deliver(master("K"), 1, to);
    assertThat(line(done, 0).path("counts").path("TWIN").asInt()).isEqualTo(1);
    assertThat(Practice.titles("lgt-k1")).hasSize(6).doesNotHaveDuplicates();
    assertThat(Practice.html("lgt-k1", "Checklist")).isEqualTo("<p>My own gloves.</p>");
  }

  @Test
  void anItemOfAnotherMasterIsNoTwin() throws Exception {
    List<UUID> to = sections("lgt-l1");
    deliver(master("L"), 1, to);
    JsonNode second = deliver(master("L2"), 1, to);
    assertThat(line(second, 0).path("counts").path("ADD").asInt()).isEqualTo(6);
    assertThat(Practice.titles("lgt-l1").stream().filter("Checklist"::equals)).hasSize(2);
  }

  @Test
  void whatLeftTheVersionIsRetiredAndItsModuleWithIt() throws Exception {
    List<UUID> to = sections("lgt-m1");
    String master = master("M");
    deliver(master, 1, to);
    coordinator.delete("/api/masters/" + master + "/draft/items/" + key(master, "Week 3"));
    coordinator.post(
        "/api/masters/" + master + "/draft/items", "{\"kind\":\"PAGE\",\"title\":\"Only this\"}");
    freeze(master, "Less");
    JsonNode done = deliver(master, 2, to);
    assertThat(line(done, 0).path("counts").path("RETIRE").asInt()).isEqualTo(6);
    assertThat(Practice.titles("lgt-m1")).containsExactly("Only this");
  }

  @Test
  void whatTheInstructorRemovedStaysRemovedAndCoverageCallsTheSectionPartial() throws Exception {
    List<UUID> to = sections("lgt-i1");
    String master = master("I");
    deliver(master, 1, to);
    Practice.form("lgt-i1", "Manual", "delete", Map.of());
    deliver(master, 1, to);
    assertThat(Practice.titles("lgt-i1")).doesNotContain("Manual");
    JsonNode section = coordinator.get("/api/sections/" + to.get(0)).json();
    JsonNode held =
        section
            .path("masters")
            .valueStream()
            .filter(m -> m.path("code").asString().equals("I"))
            .findFirst()
            .orElseThrow();
    assertThat(held.path("held").asInt()).isEqualTo(5);
    assertThat(held.path("expected").asInt()).isEqualTo(6);
  }

  @Test
  void aSectionWithoutAShellSaysSoAndWhatToDo() throws Exception {
    sections("lgt-j1");
    String master = master("J");
    administrator.roster(Samples.roster("lgt-nowhere"));
    UUID nowhere =
        db.select(Tables.SECTION.ID)
            .from(org.zephyrmist.server.db.Tables.SECTION)
            .where(org.zephyrmist.server.db.Tables.SECTION.SOURCED_ID.eq("lgt-nowhere"))
            .fetchSingle()
            .value1();
    String id = plan(master, 1, List.of(nowhere));
    JsonNode l = line(coordinator.get("/api/deliveries/" + id).json(), 0);
    assertThat(l.path("state").asString()).isEqualTo("NOT_YET");
    assertThat(l.path("reason").asString()).isEqualTo("This section has no shell yet.");
  }

  /** Hundreds of sections times a thousand items took minutes where this was not so. */
  @Test
  void theStepsOfAPlanAreNeverComparedOneByOneWithItsItems() {
    String question =
        "explain select * from delivery_step s join unnest('{a,b}'::text[]) r (item)"
            + " on r.item = s.item_key where s.line_id = '"
            + new UUID(0, 0)
            + "'";
    new TransactionTemplate(transactions)
        .executeWithoutResult(
            t -> {
              assertThat(db.fetch(question).format()).contains("Nested Loop");
              planViews.joinInBulk();
              assertThat(db.fetch(question).format()).doesNotContain("Nested Loop");
            });
    assertThat(db.fetch(question).format()).contains("Nested Loop");
  }

  @Test
  void whatIsTheStudentsOwnIsCountedBeforeAndAfter() throws Exception {
    List<UUID> to = sections("lgt-dq1");
    String master = master("DQ");
    deliver(master, 1, to);
    Practice.form("lgt-dq1", "Checklist", "post", Map.of("text", "When do we meet?"));
    edit(master, "Checklist", "{\"html\":\"<p>Counted.</p>\"}");
    freeze(master, "Second");
    JsonNode line = deliver(master, 2, to).path("lines").get(0);
    for (String side : List.of("before", "after")) {
      assertThat(line.path(side).path("posts").asInt()).isEqualTo(1);
      assertThat(line.path(side).path("work").asInt()).isZero();
    }
  }

  @Test
  void aPlanIsThrownAwayAndADeliveryIsNot() throws Exception {
    List<UUID> to = sections("lgt-dza1", "lgt-dza2");
    String master = master("DZA");
    String plan = plan(master, 1, to);
    assertThat(coordinator.delete("/api/deliveries/" + plan).status()).isEqualTo(200);
    assertThat(coordinator.get("/api/deliveries/" + plan).status()).isEqualTo(404);
    assertThat(coordinator.delete("/api/deliveries/" + plan).status()).isEqualTo(404);
    String begun = begin(master, to);
    assertThat(coordinator.delete("/api/deliveries/" + begun).status())
        .as("while it is planned")
        .isEqualTo(200);
    String other = plan(master, 1, to);
    confirm(other);
    assertThat(coordinator.delete("/api/deliveries/" + other).status()).isEqualTo(409);
    assertThat(Practice.titles("lgt-dza1")).contains("Checklist");
    String later = plan(master, 1, to);
    assertThat(coordinator.post("/api/masters/" + master + "/retire", "").status()).isEqualTo(204);
    assertThat(coordinator.post("/api/deliveries/" + later + "/confirm", "").json().toString())
        .contains("DZA is retired");
  }

  private String begin(String master, List<UUID> to) {
    String body = "{\"version\":\"%s\",\"sections\":[\"%s\"]}";
    return coordinator
        .post("/api/deliveries", body.formatted(version(master, 1), to.get(0)))
        .json()
        .path("id")
        .asString();
  }

  @Test
  void deliveriesAreFoundByTheirNamesMastersPeopleSectionsAndDays() throws Exception {
    List<UUID> to = sections("lgt-dzb1");
    String plan = plan(master("DZB"), 1, to);
    String named = "/api/deliveries/" + plan + "/name";
    assertThat(coordinator.put(named, "{\"name\":\" Before  opening night \"}").status())
        .isEqualTo(200);
    String code =
        db.fetchSingle("select code from section where id = ?", to.get(0)).get(0, String.class);
    for (String text : List.of("opening NIGHT", "dzb", code, "night DZB " + LocalDate.now())) {
      assertThat(found(text)).as(text).containsExactly("Before opening night");
    }
    assertThat(found("opening night nowhere")).isEmpty();
    assertThat(found("100%")).isEmpty();
    coordinator.put(named, "{\"name\":\"\"}");
    assertThat(found("opening night")).isEmpty();
  }

  private List<String> found(String text) {
    return coordinator
        .get("/api/deliveries?text=" + URLEncoder.encode(text, StandardCharsets.UTF_8))
        .json()
        .valueStream()
        .map(d -> d.path("name").asString())
        .toList();
  }
}
