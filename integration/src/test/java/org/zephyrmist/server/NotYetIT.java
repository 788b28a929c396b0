package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.OffsetDateTime;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.db.Tables;
import tools.jackson.databind.JsonNode;

/** Lines that wait for something outside and go on by themselves. */
class NotYetIT extends ServerIT {
  private JsonNode line(String delivery, int n) {
    return coordinator.get("/api/deliveries/" + delivery).json().path("lines").get(n);
  }

  private JsonNode done(String delivery, int n) {
    return await(() -> line(delivery, n), l -> l.path("state").asString().equals("DONE"));
  }

  @Test
  void aSectionWithoutAShellWaitsAndIsFilledWhenItAppears() throws Exception {
    List<UUID> with = sections("lgt-na2");
    administrator.roster(Samples.roster("lgt-na1"));
    UUID without =
        db.select(Tables.SECTION.ID)
            .from(Tables.SECTION)
            .where(Tables.SECTION.SOURCED_ID.eq("lgt-na1"))
            .fetchSingle()
            .value1();
    List<UUID> to = List.of(without, with.get(0));
    String master = master("NA");
    String delivery = plan(master, 1, to);
    JsonNode waiting = line(delivery, 0);
    assertThat(waiting.path("state").asString()).isEqualTo("NOT_YET");
    assertThat(waiting.path("waitsFor").asString()).isEqualTo("SHELL");
    assertThat(waiting.path("counts").path("ADD").asInt()).isPositive();

    JsonNode run = confirm(delivery);
    assertThat(run.path("delivery").path("state").asString()).isEqualTo("DONE");
    assertThat(run.path("lines").get(1).path("state").asString()).isEqualTo("DONE");

    Practice.makeShell("lgt-na1");
    done(delivery, 0);
    assertThat(Practice.titles("lgt-na1")).contains("Checklist");
    await(
        () -> coordinator.get("/api/deliveries/" + delivery).json().path("delivery"),
        d -> d.path("state").asString().equals("DONE"));
  }

  @Test
  void onlyIfEmptyWaitsUntilTheShellIsClearedAndThenGoesOn() throws Exception {
    List<UUID> to = sections("lgt-nb1", "lgt-nb2");
    Practice.addPage("lgt-nb1", "Old notes", "<p>From last year.</p>");
    String master = master("NB");
    String delivery = plan(master, 1, to, "\"onto\":\"IF_EMPTY\"");
    assertThat(line(delivery, 0).path("waitsFor").asString()).isEqualTo("EMPTY");
    assertThat(line(delivery, 0).path("reason").asString()).isEqualTo("The shell holds an item.");
    confirm(delivery);
    done(delivery, 1);
    assertThat(Practice.titles("lgt-nb1")).containsExactly("Old notes");

    Practice.form("lgt-nb1", "Old notes", "delete", java.util.Map.of());
    done(delivery, 0);
    assertThat(Practice.titles("lgt-nb1")).contains("Checklist").doesNotContain("Old notes");
  }

  @Test
  void aShellFilledAfterItWasPlannedIsNotWrittenInto() throws Exception {
    List<UUID> to = sections("lgt-nc1");
    String master = master("NC");
    String delivery = plan(master, 1, to, "\"onto\":\"IF_EMPTY\"");
    assertThat(line(delivery, 0).path("state").asString()).isEqualTo("PLANNED");
    Practice.addPage("lgt-nc1", "Meanwhile", "<p>Mine.</p>");
    confirm(delivery);
    assertThat(line(delivery, 0).path("waitsFor").asString()).isEqualTo("EMPTY");
    assertThat(Practice.titles("lgt-nc1")).containsExactly("Meanwhile");
  }

  @Test
  void itBeginsAtItsTimeAndCanBeStoppedUntilThen() throws Exception {
    List<UUID> to = sections("lgt-nd1");
    String master = master("ND");
    String delivery = plan(master, 1, to);
    Caller.Answer past =
        coordinator.post(
            "/api/deliveries/" + delivery + "/confirm",
            "{\"at\":\"" + OffsetDateTime.now().minusMinutes(1) + "\"}");
    assertThat(past.status()).isEqualTo(422);
    assertThat(past.text()).contains("This time is past.");
    String soon = OffsetDateTime.now().plusSeconds(2).toString();
    assertThat(
            coordinator
                .post("/api/deliveries/" + delivery + "/confirm", "{\"at\":\"" + soon + "\"}")
                .status())
        .isEqualTo(200);
    assertThat(line(delivery, 0).path("waitsFor").asString()).isEqualTo("TIME");
    assertThat(Practice.titles("lgt-nd1")).isEmpty();
    done(delivery, 0);
    assertThat(Practice.titles("lgt-nd1")).contains("Checklist");

    String later = plan(master, 1, to);
    coordinator.post(
        "/api/deliveries/" + later + "/confirm",
        "{\"at\":\"" + OffsetDateTime.now().plusDays(1) + "\"}");
    coordinator.post("/api/deliveries/" + later + "/stop", "");
    JsonNode stopped = coordinator.get("/api/deliveries/" + later).json();
    assertThat(stopped.path("delivery").path("state").asString()).isEqualTo("STOPPED");
    assertThat(stopped.path("lines").get(0).path("state").asString()).isEqualTo("STOPPED");
  }

  @Test
  void noMoreSectionsThanAllowedAreWrittenAtOnce() throws Exception {
    List<UUID> to = sections("lgt-ne1", "lgt-ne2", "lgt-ne3", "lgt-ne4");
    String master = master("NE");
    String delivery = plan(master, 1, to, "\"atOnce\":1");
    for (String shell : List.of("lgt-ne1", "lgt-ne2", "lgt-ne3", "lgt-ne4")) {
      Practice.fault(shell, "SLOW", 1);
    }
    coordinator.post("/api/deliveries/" + delivery + "/confirm", "");
    int[] most = {0};
    await(
        () -> coordinator.get("/api/deliveries/" + delivery).json(),
        d -> {
          int running = 0;
          for (JsonNode l : d.path("lines")) {
            running += l.path("state").asString().equals("RUNNING") ? 1 : 0;
          }
          most[0] = Math.max(most[0], running);
          return d.path("delivery").path("state").asString().equals("DONE");
        });
    assertThat(most[0]).isEqualTo(1);
  }

  @Test
  void whatAPlatformHasAcceptedIsNotCalledDoneBeforeItIsThere() throws Exception {
    List<UUID> to = sections("lgt-nq1");
    String master = master("NQ");
    String id = plan(master, 1, to);
    Practice.queue(true);
    try {
      coordinator.post("/api/deliveries/" + id + "/confirm", "");
      JsonNode accepted =
          await(
              () -> coordinator.get("/api/deliveries/" + id).json(),
              d -> d.path("lines").get(0).path("state").asString().equals("ACCEPTED"));
      JsonNode section = coordinator.get("/api/sections/" + to.get(0)).json();
      assertThat(section.path("arriving").get(0).path("masterCode").asString()).isEqualTo("NQ");
      assertThat(accepted.path("delivery").path("state").asString()).isEqualTo("RUNNING");
      assertThat(accepted.path("lines").get(0).path("reason").asString()).contains("not there yet");
      assertThat(Practice.titles("lgt-nq1")).isEmpty();
    } finally {
      Practice.queue(false);
    }
    JsonNode done = rest(id, "RUNNING");
    assertThat(coordinator.get("/api/sections/" + to.get(0)).json().path("arriving")).isEmpty();
    assertThat(done.path("lines").get(0).path("state").asString()).isEqualTo("DONE");
    assertThat(Practice.titles("lgt-nq1")).contains("Checklist").doesNotHaveDuplicates();
  }
}
