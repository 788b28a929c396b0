package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.MASTER;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Masters whose items have the same keys, or the same identifiers, in one shell. */
class MastersMeetIT extends ServerIT {
  private String edition(String title) throws Exception {
    return read(takeIn(Samples.cartridge(title), "light.imscc")).path("edition").asString();
  }

  /** Ledger, section page, coverage and shell say the same of every master in the section. */
  private void agree(UUID section, String shell, Map<String, Integer> itemsByMaster)
      throws Exception {
    JsonNode page = coordinator.get("/api/sections/" + section).json();
    JsonNode lines = coordinator.get("/api/sections/" + section + "/items").json();
    int all = 0;
    for (Map.Entry<String, Integer> e : itemsByMaster.entrySet()) {
      all += e.getValue();
      JsonNode held =
          page.path("masters")
              .valueStream()
              .filter(m -> m.path("code").asString().equals(e.getKey()))
              .findFirst()
              .orElseThrow();
      assertThat(held.path("held").asInt()).as(e.getKey()).isEqualTo(e.getValue());
      assertThat(held.path("expected").asInt()).isEqualTo(e.getValue());
      assertThat(
              lines.valueStream().filter(l -> l.path("masterCode").asString().equals(e.getKey())))
          .hasSize(e.getValue())
          .noneMatch(l -> l.path("state").asString().equals("GONE"));
    }
    assertThat(lines).hasSize(all);
    List<String> ids = new ArrayList<>();
    db.fetch("select platform_item from holding where section_id = ?", section)
        .forEach(r -> ids.add(r.get(0, String.class)));
    assertThat(Practice.items(shell))
        .extracting(i -> i.path("id").asString())
        .containsExactlyInAnyOrderElementsOf(ids);
  }

  /** Delivers both, edits, delivers the next version of each in turn, retires. */
  private void liveTogether(String shell, String one, String two, String codeOne, String codeTwo)
      throws Exception {
    List<UUID> to = sections(shell);
    UUID section = to.get(0);
    deliver(one, 1, to);
    agree(section, shell, Map.of(codeOne, 6));
    deliver(two, 1, to);
    agree(section, shell, Map.of(codeOne, 6, codeTwo, 6));

    edit(one, "Checklist", "{\"html\":\"<p>Gloves of one.</p>\"}");
    freeze(one, "Second");
    deliver(one, 2, to);
    agree(section, shell, Map.of(codeOne, 6, codeTwo, 6));
    edit(two, "Checklist", "{\"html\":\"<p>Gloves of two.</p>\"}");
    freeze(two, "Second");
    deliver(two, 2, to);
    agree(section, shell, Map.of(codeOne, 6, codeTwo, 6));
    assertThat(Practice.items(shell))
        .filteredOn(i -> i.path("wording").path("title").asString().equals("Checklist"))
        .extracting(i -> i.path("wording").path("html").asString())
        .containsExactlyInAnyOrder("<p>Gloves of one.</p>", "<p>Gloves of two.</p>");
    // The reading of each leads to the checklist of the same master.
    for (JsonNode reading : Practice.items(shell)) {
      if (reading.path("wording").path("title").asString().equals("Reading: loads")) {
        String module = reading.path("parent").asString();
        String checklist =
            Practice.items(shell).stream()
                .filter(i -> i.path("wording").path("title").asString().equals("Checklist"))
                .filter(i -> i.path("parent").asString().equals(module))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        assertThat(reading.path("wording").path("html").asString()).contains(checklist);
      }
    }
    String key = key(two, "Checklist");
    for (String master : List.of(one, two)) {
      assertThat(
              coordinator
                  .get(
                      "/api/sections/%s/masters/%s/items/%s/receipts"
                          .formatted(section, master, key(master, "Checklist")))
                  .json())
          .extracting(r -> r.path("how").asString())
          .containsExactly("UPDATED", "ADDED");
    }

    coordinator.delete("/api/masters/" + two + "/draft/items/" + key);
    freeze(two, "Third");
    deliver(two, 3, to);
    agree(section, shell, Map.of(codeOne, 6, codeTwo, 5));
    JsonNode again = deliver(one, 2, to);
    assertThat(again.path("lines").get(0).path("counts").path("SAME").asInt()).isEqualTo(6);
    agree(section, shell, Map.of(codeOne, 6, codeTwo, 5));
  }

  @Test
  void twoMastersOfOneCartridgeLiveInOneShell() throws Exception {
    sections("lgt-mm1");
    String edition = edition("Twice used");
    liveTogether("lgt-mm1", master("MM1", edition), master("MM2", edition), "MM1", "MM2");
  }

  @Test
  void aPageThatTwoMastersShareComesOnceThoughTheyAreDeliveredOneAfterTheOther() throws Exception {
    List<UUID> to = sections("lgt-mms");
    List<String> masters = List.of(master("MMS1"), master("MMS2"));
    for (String m : masters) {
      deliver(m, 1, to);
      coordinator.post(
          "/api/masters/" + m + "/draft/items",
          "{\"kind\":\"PAGE\",\"title\":\"Where to find help\",\"html\":\"<p>At the desk.</p>\"}");
      freeze(m, "With help");
    }
    for (int round = 0; round < 2; round++) {
      for (String m : masters) {
        deliver(m, 2, to);
        assertThat(Practice.titles("lgt-mms")).containsOnlyOnce("Where to find help");
      }
    }
  }

  @Test
  void twoCartridgesWithEqualIdentifiersLiveInOneShell() throws Exception {
    sections("lgt-mm2");
    String one = master("MM3", edition("Light of one press"));
    String two = master("MM4", edition("Light of another"));
    assertThat(key(one, "Checklist")).isNotEqualTo(key(two, "Checklist"));
    liveTogether("lgt-mm2", one, two, "MM3", "MM4");
  }

  @Test
  void anotherEditionOfACartridgeGivesItsItemsTheSameKeys() throws Exception {
    sections("lgt-mm3");
    String first = master("MM5", edition("Two editions"));
    byte[] other = Samples.cartridge("Two editions", "<p>Gloves, and a hat.</p>");
    String next = master("MM6", read(takeIn(other, "b.imscc")).path("edition").asString());
    assertThat(key(next, "Checklist")).isEqualTo(key(first, "Checklist"));
  }

  @Test
  void theFirstEditOfACoverageRuleMovesNothing() throws Exception {
    List<UUID> to = sections("lgt-mm4");
    String master = master("MM7", edition("Stays where it is"));
    deliver(master, 1, to);
    String rank = Practice.item("lgt-mm4", "Week 3").path("rank").asString();
    db.query(
            "update coverage_rule set course_id = null where master_id = ?::uuid",
            UUID.fromString(master))
        .execute();
    JsonNode again = deliver(master, 1, to);
    assertThat(again.path("lines").get(0).path("counts").path("SAME").asInt()).isEqualTo(6);
    assertThat(Practice.item("lgt-mm4", "Week 3").path("rank").asString()).isEqualTo(rank);
    assertThat(db.fetchCount(MASTER, MASTER.ID.eq(UUID.fromString(master)))).isOne();
  }
}
