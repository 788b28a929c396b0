package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Taking back what a delivery did; clean starts; restore points. */
class TakeBackIT extends ServerIT {
  private static String id(JsonNode delivery) {
    return delivery.path("delivery").path("id").asString();
  }

  private String takeBack(String delivery, String sections) {
    Caller.Answer a =
        coordinator.post("/api/deliveries/" + delivery + "/take-back", "{" + sections + "}");
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    String back = a.json().path("id").asString();
    rest(back, "PLANNING");
    return back;
  }

  private JsonNode standing(UUID section) {
    return coordinator.get("/api/sections/" + section).json().path("masters");
  }

  private String twoVersions(String code, List<UUID> to) throws Exception {
    String master = master(code);
    deliver(master, 1, to);
    edit(master, "Checklist", "{\"html\":\"<p>Gloves and boots.</p>\"}");
    Caller.Answer gone =
        coordinator.delete("/api/masters/" + master + "/draft/items/" + key(master, "Manual"));
    assertThat(gone.status()).as(gone.text()).isLessThan(300);
    freeze(master, "Second");
    return master;
  }

  @Test
  void whatAnUpdateWroteBecomesAsItWasAndWhatItRemovedComesAgain() throws Exception {
    List<UUID> to = sections("lgt-ta1", "lgt-ta2");
    String master = twoVersions("TA", to);
    List<String> before = Practice.titles("lgt-ta1");
    String delivery = id(deliver(master, 2, to));
    assertThat(Practice.html("lgt-ta1", "Checklist")).contains("boots");
    assertThat(Practice.titles("lgt-ta1")).doesNotContain("Manual");
    Practice.form(
        "lgt-ta2", "Checklist", "text", Map.of("title", "Checklist", "html", "<p>My own.</p>"));

    JsonNode run = confirm(takeBack(delivery, ""));

    assertThat(run.path("delivery").path("takesBack").asString()).isEqualTo(delivery);
    assertThat(Practice.html("lgt-ta1", "Checklist")).contains("Gloves.").doesNotContain("boots");
    assertThat(Practice.titles("lgt-ta1")).containsExactlyInAnyOrderElementsOf(before);
    assertThat(Practice.html("lgt-ta1", "Reading: loads"))
        .contains("/items/" + Practice.item("lgt-ta1", "Checklist").path("id").asString());
    assertThat(Practice.html("lgt-ta2", "Checklist")).contains("My own.");
    assertThat(standing(to.get(0)).get(0).path("number").asInt()).isEqualTo(1);
    assertThat(standing(to.get(0)).get(0).path("held").asInt())
        .isEqualTo(standing(to.get(0)).get(0).path("expected").asInt());
    assertThat(run.path("lines").get(1).path("activity").asString())
        .isEqualTo("taken back; 1 item left as it is");
    assertThat(
            coordinator
                .get("/api/deliveries/" + delivery)
                .json()
                .path("takenBackBy")
                .get(0)
                .asString())
        .isEqualTo(id(run));
    String again = plan(master, 1, to);
    assertThat(
            coordinator
                .get("/api/deliveries/" + again)
                .json()
                .path("lines")
                .get(0)
                .path("steps")
                .asInt())
        .as("the ledger says what it said before, so there is nothing to do")
        .isZero();
  }

  @Test
  void aFirstDeliveryTakenBackLeavesTheShellAsItWasAndWhatStudentsHandedIn() throws Exception {
    List<UUID> to = sections("lgt-tb1", "lgt-tb2");
    Practice.addPage("lgt-tb1", "Welcome", "<p>Mine.</p>");
    String master = master("TB");
    String delivery = id(deliver(master, 1, to));
    Practice.form("lgt-tb2", "Paper plot", "work", Map.of());

    confirm(takeBack(delivery, ""));

    assertThat(Practice.titles("lgt-tb1")).containsExactly("Welcome");
    assertThat(standing(to.get(0))).isEmpty();
    assertThat(Practice.titles("lgt-tb2")).contains("Paper plot");
    assertThat(standing(to.get(1)).get(0).path("held").asInt()).isPositive();
  }

  @Test
  void aDeliveryThatChangedNothingIsNeverOfferedForTakeBack() throws Exception {
    List<UUID> to = sections("lgt-tn1");
    String master = twoVersions("TN", to);
    String nothing = id(deliver(master, 1, to));
    deliver(master, 2, to);
    JsonNode can = coordinator.get("/api/deliveries/" + nothing + "/take-back").json();
    assertThat(can.path("sections")).isEmpty();
    assertThat(can.path("not").get(0).path("why").asString()).isEqualTo("NOTHING_DONE");
    assertThat(coordinator.post("/api/deliveries/" + nothing + "/take-back", "{}").status())
        .isEqualTo(409);
    assertThat(standing(to.get(0)).get(0).path("number").asInt()).isEqualTo(2);
  }

  @Test
  void onlySomeSectionsAreTakenBackAndTheLatestFirst() throws Exception {
    List<UUID> to = sections("lgt-tc1", "lgt-tc2");
    String master = twoVersions("TC", to);
    String first = coordinator.get("/api/deliveries").json().get(0).path("id").asString();
    String second = id(deliver(master, 2, List.of(to.get(1))));
    JsonNode can = coordinator.get("/api/deliveries/" + first + "/take-back").json();
    assertThat(can.path("sections").get(0).asString()).isEqualTo(to.get(0).toString());
    assertThat(can.path("not").get(0).path("why").asString()).isEqualTo("RECEIVED_SINCE");
    Caller.Answer refused =
        coordinator.post(
            "/api/deliveries/" + first + "/take-back", "{\"sections\":[\"" + to.get(1) + "\"]}");
    assertThat(refused.status()).isEqualTo(409);
    assertThat(refused.text()).contains("Take back first what came there later.");

    confirm(takeBack(second, "\"sections\":[\"" + to.get(1) + "\"]"));
    assertThat(Practice.html("lgt-tc2", "Checklist")).doesNotContain("boots");
    Caller.Answer twice = coordinator.post("/api/deliveries/" + second + "/take-back", "{}");
    assertThat(twice.status()).as(twice.text()).isEqualTo(409);
  }

  @Test
  void aTakeBackThatALaterDeliveryOvertookWaitsForAPerson() throws Exception {
    List<UUID> to = sections("lgt-td1");
    String master = twoVersions("TD", to);
    String back =
        takeBack(coordinator.get("/api/deliveries").json().get(0).path("id").asString(), "");
    deliver(master, 2, to);
    JsonNode run = confirm(back);
    assertThat(run.path("lines").get(0).path("reason").asString())
        .isEqualTo("This section has received something of the same master since.");
    assertThat(Practice.html("lgt-td1", "Checklist")).contains("boots");
  }

  @Test
  void aCleanStartClearsTheShellAndIsTakenBackWithAllThatStoodThere() throws Exception {
    List<UUID> to = sections("lgt-te1", "lgt-te2");
    for (String shell : List.of("lgt-te1", "lgt-te2")) {
      Practice.addPage(shell, "Old notes", "<p>From last year.</p>");
      Practice.addPage(shell, "Welcome", "<p>Hello.</p>");
    }
    String master = master("TE");
    deliver(master, 1, List.of(to.get(1)));
    Practice.form("lgt-te2", "Paper plot", "work", Map.of());
    List<String> worked = Practice.titles("lgt-te2");
    String delivery = plan(master, 1, to, "\"onto\":\"CLEAN\"");
    assertThat(
            coordinator
                .get("/api/deliveries/" + delivery)
                .json()
                .path("lines")
                .get(0)
                .path("counts")
                .path("RETIRE")
                .asInt())
        .isEqualTo(2);

    JsonNode run = confirm(delivery);

    assertThat(Practice.titles("lgt-te1"))
        .doesNotContain("Old notes", "Welcome")
        .contains("Week 3");
    assertThat(Practice.titles("lgt-te2")).isEqualTo(worked);
    assertThat(run.path("lines").get(1).path("activity").asString())
        .contains("students have handed in work here");
    JsonNode points = coordinator.get("/api/sections/" + to.get(0) + "/restore-points").json();
    assertThat(points).hasSize(1);
    assertThat(points.get(0).path("items").asInt()).isEqualTo(2);
    JsonNode differs =
        coordinator
            .get(
                "/api/sections/"
                    + to.get(0)
                    + "/restore-points/"
                    + points.get(0).path("delivery").asString())
            .json();
    assertThat(differs.path("missing")).hasSize(2);
    assertThat(differs.path("surplus").size()).isGreaterThan(3);

    List<String> cleared = Practice.titles("lgt-te1");
    String back = takeBack(delivery, "\"sections\":[\"" + to.get(0) + "\"]");
    confirm(back);
    assertThat(Practice.titles("lgt-te1")).containsExactlyInAnyOrder("Old notes", "Welcome");
    assertThat(Practice.html("lgt-te1", "Old notes")).contains("From last year.");
    String again = takeBack(back, "");
    confirm(again);
    assertThat(Practice.titles("lgt-te1")).containsExactlyInAnyOrderElementsOf(cleared);
    confirm(takeBack(again, ""));
    assertThat(Practice.titles("lgt-te1")).containsExactlyInAnyOrder("Old notes", "Welcome");
  }

  @Test
  void oneWhoDoesNotReachAllOfItTakesNothingBack() throws Exception {
    List<UUID> to = sections("lgt-tf1");
    String master = master("TF");
    String delivery = id(deliver(master, 1, to));
    Caller other = another("back@x.example", Role.COORDINATOR, "sound");
    assertThat(other.post("/api/deliveries/" + delivery + "/take-back", "{}").status())
        .isIn(403, 404);
    assertThat(other.get("/api/sections/" + to.get(0) + "/restore-points").status()).isEqualTo(404);
  }
}
