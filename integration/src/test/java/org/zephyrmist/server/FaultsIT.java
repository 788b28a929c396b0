package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** A platform that fails in every way it can. Nothing is doubled, nothing lost, others go on. */
class FaultsIT extends ServerIT {
  @AfterEach
  void mend() throws Exception {
    Practice.noFaults();
  }

  private JsonNode begin(String id) {
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    return rest(id, "RUNNING");
  }

  private static List<String> states(JsonNode detail) {
    return detail.path("lines").valueStream().map(l -> l.path("state").asString()).toList();
  }

  private void agrees(String shell, UUID section) throws Exception {
    assertThat(Practice.titles(shell)).hasSize(6).doesNotHaveDuplicates();
    assertThat(coordinator.get("/api/sections/" + section + "/items").json())
        .hasSize(6)
        .allMatch(i -> i.path("state").asString().equals("AS_DELIVERED"));
    String checklist = Practice.item(shell, "Checklist").path("id").asString();
    assertThat(Practice.html(shell, "Reading: loads")).contains(checklist);
  }

  @ParameterizedTest
  @ValueSource(strings = {"SLOW", "LIMIT", "ERROR", "CUT", "LOSE", "PART"})
  void whatPassesIsTriedAgainAndTheOtherSectionsGoOn(String kind) throws Exception {
    String shell = "lgt-x" + kind.toLowerCase(Locale.ROOT);
    List<UUID> to = sections(shell, shell + "2");
    String id = plan(master("X" + kind), 1, to);
    Practice.fault(shell, kind, 2);
    JsonNode done = begin(id);
    assertThat(states(done)).containsExactly("DONE", "DONE");
    agrees(shell, to.get(0));
    agrees(shell + "2", to.get(1));
  }

  /** The fault meets the call that writes, not the one that reads. */
  @ParameterizedTest
  @ValueSource(strings = {"LOSE", "PART", "CUT", "ERROR"})
  void whatBreaksOffInTheMiddleIsCompletedOnce(String kind) throws Exception {
    String shell = "lgt-y" + kind.toLowerCase(java.util.Locale.ROOT);
    List<UUID> to = sections(shell);
    String id = plan(master("Y" + kind), 1, to);
    for (int i = 0; i < 4; i++) {
      Practice.faultAt(shell, kind, 0.5);
    }
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    Thread.sleep(1_500);
    Practice.noFaults();
    JsonNode rest = rest(id, "RUNNING");
    if (!states(rest).equals(List.of("DONE"))) {
      coordinator.post("/api/deliveries/" + id + "/go-on", "");
      rest = rest(id, "RUNNING");
    }
    assertThat(states(rest)).containsExactly("DONE");
    agrees(shell, to.get(0));
  }

  @ParameterizedTest
  @CsvSource({"TOKEN,token is wrong,renew", "REFUSE,refuses access,let Zephyrmist into it"})
  void whatLastsWaitsForAPersonWithReasonAndRemedyAndIsThenRetried(
      String kind, String reason, String remedy) throws Exception {
    String shell = "lgt-z" + kind.toLowerCase(java.util.Locale.ROOT);
    List<UUID> to = sections(shell, shell + "2");
    String id = plan(master("Z" + kind), 1, to);
    Practice.fault(shell, kind, 100);
    JsonNode waits = begin(id);
    assertThat(states(waits)).containsExactly("NEEDS_PERSON", "DONE");
    assertThat(waits.path("lines").get(0).path("reason").asString()).contains(reason);
    assertThat(waits.path("lines").get(0).path("remedy").asString()).contains(remedy);
    Practice.noFaults();
    coordinator.post("/api/deliveries/" + id + "/go-on", "");
    assertThat(states(rest(id, "RUNNING"))).containsExactly("DONE", "DONE");
    agrees(shell, to.get(0));
  }

  @Test
  void anItemThatAnInstructorChangesJustBeforeItIsWrittenIsNotOverwritten() throws Exception {
    List<UUID> to = sections("lgt-meddle");
    String master = master("MED");
    deliver(master, 1, to);
    edit(master, "Checklist", "{\"html\":\"<p>Gloves and card.</p>\"}");
    edit(master, "Paper plot", "{\"html\":\"<p>Draw it twice.</p>\"}");
    freeze(master, "Second");
    String id = plan(master, 2, to);
    Practice.fault("lgt-meddle", "MEDDLE", 2);
    JsonNode rest = begin(id);
    if (states(rest).equals(List.of("NEEDS_PERSON"))) {
      coordinator.post("/api/deliveries/" + id + "/go-on", "");
      rest = rest(id, "RUNNING");
    }
    assertThat(states(rest)).containsExactly("DONE");
    List<String> texts =
        List.of(
            Practice.html("lgt-meddle", "Checklist"), Practice.html("lgt-meddle", "Paper plot"));
    assertThat(texts).anyMatch(t -> t.contains("Changed meanwhile."));
    assertThat(Practice.titles("lgt-meddle")).hasSize(6).doesNotHaveDuplicates();
  }

  @Test
  void aPlatformThatIsDownIsLeftAloneAndEverySectionGoesOnWhenItIsBack() throws Exception {
    String[] shells = new String[8];
    for (int i = 0; i < shells.length; i++) {
      shells[i] = "lgt-down" + i;
    }
    List<UUID> to = sections(shells);
    String id = plan(master("DOWN"), 1, to);
    Practice.fault(null, "DOWN", 100_000);
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    JsonNode waiting =
        await(
            () -> coordinator.get("/api/deliveries/" + id).json(),
            d ->
                d.path("lines")
                    .valueStream()
                    .anyMatch(l -> l.path("reason").asString("").contains("left alone")));
    assertThat(states(waiting)).doesNotContain("DONE");
    JsonNode resting =
        waiting
            .path("lines")
            .valueStream()
            .filter(l -> l.path("reason").asString("").contains("left alone"))
            .findFirst()
            .orElseThrow();
    assertThat(resting.path("remedy").asString()).contains("goes on by itself");
    Practice.noFaults();
    JsonNode done = rest(id, "RUNNING");
    if (states(done).contains("NEEDS_PERSON")) {
      coordinator.post("/api/deliveries/" + id + "/go-on", "");
      done = rest(id, "RUNNING");
    }
    assertThat(states(done)).hasSize(8).containsOnly("DONE");
    for (int i = 0; i < shells.length; i++) {
      agrees(shells[i], to.get(i));
    }
  }

  @Test
  void anItemThatWasDeletedBehindABrokenLineDoesNotHoldItUpForEver() throws Exception {
    List<UUID> to = sections("lgt-gone");
    String master = master("GONE");
    deliver(master, 1, to);
    edit(master, "Checklist", "{\"html\":\"<p>Second.</p>\"}");
    freeze(master, "Second");
    String id = plan(master, 2, to);
    Practice.fault("lgt-gone", "ERROR", 0);
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    rest(id, "RUNNING");
    // As if the answer had been lost and the item deleted before anybody could ask again.
    UUID line =
        UUID.fromString(
            coordinator
                .get("/api/deliveries/" + id)
                .json()
                .path("lines")
                .get(0)
                .path("id")
                .asString());
    db.query(
            "update delivery_step set done = false, recorded = false, sent_key = 'never-seen'"
                + " where line_id = ?",
            line)
        .execute();
    Practice.form("lgt-gone", "Checklist", "delete", Map.of());
    edit(master, "Paper plot", "{\"html\":\"<p>Third.</p>\"}");
    freeze(master, "Third");
    assertThat(states(deliver(master, 3, to))).containsExactly("DONE");
    assertThat(Practice.html("lgt-gone", "Paper plot")).contains("Third");
  }

  @Test
  void aRosterIsTakenInThoughThePlatformIsDownAndSaysSo() throws Exception {
    sections("lgt-r1");
    Practice.fault(null, "DOWN", 100);
    Caller.Answer a = administrator.roster(Samples.roster("lgt-r1", "lgt-r2"));
    assertThat(a.status()).isEqualTo(200);
    assertThat(a.json().path("remarks").toString()).contains("not tied to their shells");
  }
}
