package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Grades of LTI 1.1: a task that is done in a tool, and what comes back of it. */
class GradesIT extends ToolsStage {
  private static final String HOST = "patternroom.example";

  @AfterEach
  void end() {
    db.execute(
        "delete from tool_connection where id in (select connection_id from tool_host where host ="
            + " ?)",
        HOST);
  }

  @Test
  void aTaskIsDoneInAToolAndItsGradeComesBackSigned() throws Exception {
    PracticeTools.start(POSTGRES, DATABASE);
    PracticeTools.key(HOST, "larkmoor", "practice");
    PracticeTools.knobs(HOST, false, 0, 0, "");
    UUID connection =
        add(
            connection(
                "Graded",
                HOST,
                "KEY_AND_SECRET",
                "\"CREDENTIALS\"",
                ",\"key\":\"larkmoor\",\"secret\":\"practice\""));
    List<UUID> to = sections("lgt-gr1");
    JsonNode intake = read(takeIn(Samples.cartridge("Graded"), "g.imscc"));
    String master = master("TLG", intake.path("edition").asString());
    String items = "/api/masters/" + master + "/draft/items";
    String key =
        coordinator
            .post(items, "{\"kind\":\"ASSIGNMENT\",\"title\":\"Cut a sleeve\",\"points\":\"20\"}")
            .json()
            .path("key")
            .asString();
    assertThat(
            coordinator
                .patch(items + "/" + key, "{\"address\":\"https://patternroom.example/launch\"}")
                .status())
        .isEqualTo(200);
    assertThat(coordinator.patch(items + "/" + key, "{\"address\":\"nowhere\"}").text())
        .contains("A tool is launched at an address of the web.");
    coordinator.post("/api/masters/" + master + "/versions", "{\"note\":\"tool\"}");
    deliver(master, 2, to);
    comes(to.get(0), HOST, "NOT_CONNECTED NOT_IN_SHELL");
    apply(connection, to, true);
    comes(to.get(0), HOST, "WORKS WORKS");

    String inside = PracticeTools.openAs("lgt-gr1", "Cut a sleeve", "Bo");
    assertThat(inside).contains("You are in", "Hand in");
    assertThat(PracticeTools.answer(inside, "/answer/grade", Map.of("points", "8")))
        .contains("The grade went to your class.");
    assertThat(Practice.page("/shells/lgt-gr1/grades")).contains("<td>16.0");
    PracticeTools.key(HOST, "larkmoor", "another one");
    assertThat(PracticeTools.answer(inside, "/answer/grade", Map.of("points", "9")))
        .contains("did not take the grade", "the signature is wrong");
  }
}
