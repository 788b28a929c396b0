package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Masters from shells, archives of whole masters, and two sources side by side. */
class WholeIT extends ServerIT {
  private JsonNode outline(String master, int version) {
    return coordinator.get("/api/masters/" + master + "/versions/" + version + "/outline").json();
  }

  private static List<String> titles(JsonNode outline) {
    return outline.valueStream().map(n -> n.path("title").asString()).toList();
  }

  @Test
  void aFilledShellBecomesAMasterWhoseItemsKnowTheirSource() throws Exception {
    List<UUID> to = sections("lgt-fs1");
    String first = master("FS");
    deliver(first, 1, to);
    Practice.form("lgt-fs1", "Paper plot", "due", Map.of("due", "2026-10-02T18:00"));
    Practice.form("lgt-fs1", "Paper plot", "work", Map.of("student", "A", "text", "mine"));
    String sha = Practice.file("a plan of the stage".getBytes(StandardCharsets.UTF_8));
    Practice.addPage(
        "lgt-fs1",
        "House rules",
        "<p>Quiet backstage.</p><p><a href='/files/" + sha + "/stage.pdf'>Stage</a></p>");
    JsonNode look = coordinator.get("/api/masters/shells/" + to.get(0)).json();
    assertThat(look.path("items").asInt()).isEqualTo(7);
    assertThat(look.path("known").asInt()).isEqualTo(6);
    assertThat(look.path("missing").get(0).asString()).isEqualTo("stage.pdf");
    assertThat(look.path("left").valueStream().map(l -> l.path("why").asString()))
        .contains("STUDENT_WORK");
    String made =
        coordinator
            .post(
                "/api/masters/shells/" + to.get(0),
                "{\"code\":\"FS2\",\"title\":\"From a shell\",\"courses\":[]}")
            .json()
            .path("id")
            .asString();
    assertThat(
            new String(
                coordinator.download("/api/files/" + sha + "/stage.pdf"), StandardCharsets.UTF_8))
        .isEqualTo("a plan of the stage");
    JsonNode outline = outline(made, 0);
    assertThat(titles(outline)).contains("House rules", "Paper plot", "Week 3");
    assertThat(key(made, "Checklist")).isEqualTo(key(first, "Checklist"));
    JsonNode plot =
        coordinator
            .get("/api/masters/" + made + "/versions/0/items/" + key(made, "Paper plot"))
            .json();
    assertThat(plot.path("due").asString()).as("its date, by that term").startsWith("week ");
    String reading =
        coordinator
            .get("/api/masters/" + made + "/versions/0/items/" + key(made, "Reading: loads"))
            .json()
            .path("html")
            .asString();
    assertThat(reading).contains("zref:item/" + key(made, "Checklist")).doesNotContain("/shells/");
    assertThat(coordinator.get("/api/masters/" + made + "/ready").json().valueStream())
        .noneMatch(f -> f.path("rule").asString().equals("DEAD_LINK"));
  }

  @Test
  void whatWasCopiedByHandAndRewrittenIsStillKnown() throws Exception {
    List<UUID> to = sections("lgt-fs2");
    String first = master("FT");
    Practice.addPage("lgt-fs2", "House rules", "<p>Quiet backstage.</p>");
    for (String title : List.of("Checklist", "Reading: loads")) {
      String html =
          coordinator
              .get("/api/masters/" + first + "/versions/1/items/" + key(first, title))
              .json()
              .path("html")
              .asString();
      Practice.addPage("lgt-fs2", title, html + "<p>Bring gloves.</p>");
    }
    JsonNode look = coordinator.get("/api/masters/shells/" + to.get(0)).json();
    assertThat(look.path("items").asInt()).isEqualTo(3);
    assertThat(look.path("known").asInt()).isEqualTo(2);
  }

  @Test
  void whatIsTakenFreshEachTermIsLeftInTheShellOfTheTermBefore() throws Exception {
    List<UUID> to = sections("lgt-fs3");
    String fresh = master("FF");
    deliver(fresh, 1, to);
    Practice.addPage("lgt-fs3", "House rules", "<p>Quiet backstage.</p>");
    String path = "/api/masters/shells/" + to.get(0);
    int whole = coordinator.get(path).json().path("items").asInt();
    assertThat(whole).isGreaterThan(1);
    assertThat(coordinator.put("/api/masters/" + fresh + "/fresh", "{}").status()).isEqualTo(200);
    JsonNode look = coordinator.get(path).json();
    assertThat(look.path("items").asInt()).isEqualTo(1);
    assertThat(look.path("left").toString()).contains("FRESH_EACH_TERM").contains("Checklist");
    coordinator.call("DELETE", "/api/masters/" + fresh + "/fresh", null);
    assertThat(coordinator.get(path).json().path("items").asInt()).isEqualTo(whole);
  }

  @Test
  void aMasterMovesWithAllItsVersionsAndIsEqualOnTheOtherSide() throws Exception {
    sections("lgt-ar1");
    String master = master("AR");
    edit(
        master,
        "Checklist",
        "{\"html\":\"<p>Card.</p>\",\"appliesTo\":{\"campuses\":[\"quay\"],\"modes\":[],\"tags\":[],"
            + "\"nobody\":false}}");
    freeze(master, "second");
    byte[] archive = coordinator.download("/api/masters/" + master + "/archive");
    String beside = take("", archive).path("master").asString();
    assertThat(coordinator.get("/api/masters/" + beside).json().path("code").asString())
        .as("its code is taken")
        .isEqualTo("AR (2)");
    assertThat(take("?code=AR", archive).path("problem").asString())
        .isEqualTo("There is a master AR already.");
    String other = take("?code=AR2", archive).path("master").asString();
    assertThat(outline(other, 1)).isEqualTo(outline(master, 1));
    assertThat(outline(other, 2)).isEqualTo(outline(master, 2));
    String item = "/versions/0/items/" + key(master, "Checklist");
    assertThat(coordinator.get("/api/masters/" + other + item).json().path("own").path("appliesTo"))
        .isEqualTo(
            coordinator.get("/api/masters/" + master + item).json().path("own").path("appliesTo"));
    JsonNode versions = coordinator.get("/api/masters/" + other).json().path("versions");
    assertThat(versions.get(1).path("note").asString()).isEqualTo("second");
    byte[] torn = "no archive".getBytes(StandardCharsets.UTF_8);
    JsonNode refused = take("?code=AR3", torn);
    assertThat(refused.path("state").asString()).isEqualTo("REFUSED");
    assertThat(refused.path("remedy").asString()).isNotBlank();
  }

  @Test
  void manyArchivesAtOnceByOnePersonWaitInLineAndKeepNobodyOut() throws Exception {
    String path = "/api/masters/" + master("ARM") + "/archive";
    List<Future<Integer>> calls = new ArrayList<>();
    ExecutorService many = Executors.newFixedThreadPool(60);
    try {
      for (int i = 0; i < 200; i++) {
        calls.add(many.submit(() -> coordinator.get(path).status()));
      }
      assertThat(administrator.get(path).status()).isEqualTo(200);
      List<Integer> said = new ArrayList<>();
      for (Future<Integer> c : calls) {
        said.add(c.get());
      }
      assertThat(said).containsOnly(200, 429).contains(200);
    } finally {
      many.shutdownNow();
    }
    assertThat(coordinator.get(path).status()).isEqualTo(200);
  }

  /** Takes an archive in; what became of it. */
  private JsonNode take(String query, byte[] archive) {
    Caller.Answer begun = coordinator.upload("/api/archives" + query, archive);
    assertThat(begun.status()).as(begun.text()).isEqualTo(202);
    return read(begun.json().path("id").asString());
  }

  @Test
  void aCartridgeMovesWithItsEditionsOnlyWhereItIsNotYet() throws Exception {
    String edition =
        read(takeIn(Samples.cartridge("Rigging for travellers"), "rigging.imscc"))
            .path("edition")
            .asString();
    JsonNode before = coordinator.get("/api/cartridges/editions/" + edition).json();
    String cartridge = before.path("cartridge").asString();
    byte[] archive = coordinator.download("/api/cartridges/" + cartridge + "/archive");
    assertThat(take("", archive).path("problem").asString())
        .contains("“Rigging for travellers”, edition 1");
    db.execute(
        "update edition set sha256 = decode(repeat('ab', 32), 'hex') where id = '" + edition + "'");
    String other = take("", archive).path("edition").asString();
    String outline = "/outline";
    assertThat(coordinator.get("/api/cartridges/editions/" + other + outline).json())
        .isEqualTo(coordinator.get("/api/cartridges/editions/" + edition + outline).json());
    assertThat(coordinator.get("/api/cartridges/editions/" + other).json().path("report"))
        .isEqualTo(before.path("report"));
    assertThat(coordinator.get("/api/cartridges/editions/" + other + "/files").json())
        .isEqualTo(coordinator.get("/api/cartridges/editions/" + edition + "/files").json());
  }

  @Test
  void twoSourcesAreSeenSideBySideAlsoAShell() throws Exception {
    List<UUID> to = sections("lgt-sl1");
    String master = master("SL");
    deliver(master, 1, to);
    Practice.addPage("lgt-sl1", "House rules", "<p>Quiet backstage.</p>");
    edit(master, "Checklist", "{\"html\":\"<p>Gloves, a card and a pencil for each.</p>\"}");
    JsonNode look =
        coordinator
            .get("/api/library/beside?left=master:" + master + ":0&right=section:" + to.get(0))
            .json();
    assertThat(look.path("right").path("onlyHere").get(0).path("title").asString())
        .isEqualTo("House rules");
    assertThat(look.path("left").path("only").asInt()).isZero();
    assertThat(look.path("differing").valueStream().map(d -> d.path("left").asString()))
        .contains("Checklist");
    assertThat(coordinator.get("/api/library/beside?left=nothing&right=edition:x").status())
        .isEqualTo(422);
  }
}
