package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Shells of which something cannot be read. */
class UnreadIT extends ServerIT {
  private JsonNode section(UUID id) {
    return coordinator.get("/api/sections/" + id).json();
  }

  private void wording(String shell, String title, String json) {
    db.execute(
        "update practice.item set wording = ?::jsonb, changed_at = now() where shell_id = ? and title = ?",
        json,
        shell,
        title);
  }

  @Test
  void aQuizThatThePlatformGivesWithoutQuestionsIsReadAsOne() throws Exception {
    List<UUID> to = sections("lgt-un1");
    String master = master("UNA");
    deliver(master, 1, to);
    Practice.addPage("lgt-un1", "Surprise", "");
    db.execute(
        "update practice.item set kind = 'QUIZ' where shell_id = 'lgt-un1' and title = 'Surprise'");
    readShells(to);
    assertThat(section(to.get(0)).path("unread")).isEmpty();
    assertThat(coordinator.get("/api/sections/" + to.get(0) + "/own").text()).contains("Surprise");
  }

  @Test
  void whatCannotBeReadIsShownWherePeopleLookAndTheRestIsRead() throws Exception {
    List<UUID> to = sections("lgt-un2");
    String master = master("UNB");
    deliver(master, 1, to);
    Practice.addPage("lgt-un2", "Our own", "<p>Bring a torch.</p>");
    wording("lgt-un2", "Checklist", "{\"criteria\": 7}");
    readShells(to);
    JsonNode unread = section(to.get(0)).path("unread");
    assertThat(unread).hasSize(1);
    assertThat(unread.get(0).path("item").asString()).isEqualTo("Checklist");
    assertThat(coordinator.get("/api/sections/" + to.get(0) + "/own").text()).contains("Our own");
    JsonNode held = section(to.get(0)).path("masters").get(0);
    assertThat(held.path("held").asInt()).as("it counts as it was known").isEqualTo(6);
    String term = db.fetchSingle("select id::text from term where sourced_id = 't1'").get(0) + "";
    JsonNode coverage = coordinator.get("/api/coverage?term=" + term).json();
    assertThat(coverage.path("unread"))
        .extracting(n -> coverage.path("sections").get(n.asInt()).path("id").asString())
        .contains(to.get(0).toString());

    edit(master, "Checklist", "{\"html\":\"<p>Boots.</p>\"}");
    freeze(master, "Second");
    String delivery = plan(master, 2, to);
    JsonNode line = coordinator.get("/api/deliveries/" + delivery).json().path("lines").get(0);
    assertThat(line.path("state").asString()).isEqualTo("NEEDS_PERSON");
    assertThat(line.path("reason").asString()).contains("Checklist");

    wording("lgt-un2", "Checklist", "{}");
    readShells(to);
    assertThat(section(to.get(0)).path("unread")).isEmpty();
  }
}
