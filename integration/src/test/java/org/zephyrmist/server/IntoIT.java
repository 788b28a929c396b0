package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A single item goes into a named place of each shell, without a module of its own. */
class IntoIT extends ServerIT {
  /** A small piece for the whole program: one page in a module. */
  private String piece(String code) {
    Caller.Answer made =
        coordinator.post(
            "/api/masters", "{\"code\":\"" + code + "\",\"title\":\"Piece\",\"courses\":[]}");
    String piece = made.json().path("id").asString();
    String module = add(piece, "{\"kind\":\"MODULE\",\"title\":\"Pieces\"}");
    for (String title : List.of("Ropes", "Knots")) {
      add(
          piece,
          "{\"kind\":\"PAGE\",\"title\":\"%s\",\"html\":\"<p>Check each.</p>\",\"parent\":\"%s\"}"
              .formatted(title, module));
    }
    freeze(piece, "First");
    return piece;
  }

  private String add(String master, String body) {
    Caller.Answer a = coordinator.post("/api/masters/" + master + "/draft/items", body);
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    return a.json().path("key").asString();
  }

  private String into(String piece, String place) {
    return "\"parts\":{\"what\":\"SOME\",\"items\":[\"%s\",\"%s\"],\"into\":%s}"
        .formatted(key(piece, "Ropes"), key(piece, "Knots"), place);
  }

  @Test
  void itStandsWhereItWasAskedAndTheNextDeliveryLeavesItThere() throws Exception {
    List<UUID> to = sections("lgt-inta1", "lgt-inta2");
    deliver(master("INTA"), 1, to.subList(0, 1));
    String piece = piece("INTAP");
    String place =
        "{\"module\":\"week 3\",\"nth\":0,\"side\":\"AFTER\",\"neighbour\":\"Paper plot\"}";
    JsonNode run = confirm(plan(piece, 1, to, into(piece, place)));
    JsonNode week = Practice.item("lgt-inta1", "Week 3");
    List<String> inside =
        Practice.items("lgt-inta1").stream()
            .filter(i -> i.path("parent").asString("").equals(week.path("id").asString()))
            .map(i -> i.path("wording").path("title").asString())
            .toList();
    assertThat(inside)
        .containsSubsequence("Paper plot", "Ropes", "Knots", "Manual")
        .contains("Checklist");
    assertThat(Practice.titles("lgt-inta1")).doesNotContain("Pieces");
    assertThat(Practice.titles("lgt-inta2")).isEmpty();
    assertThat(run.path("lines").get(1).path("activity").asString()).contains("no such place");

    edit(piece, "Ropes", "{\"html\":\"<p>Check each, twice.</p>\"}");
    freeze(piece, "Second");
    deliver(piece, 2, to.subList(0, 1));
    JsonNode ropes = Practice.item("lgt-inta1", "Ropes");
    assertThat(ropes.path("wording").path("html").asString()).contains("twice");
    assertThat(ropes.path("parent").asString()).isEqualTo(week.path("id").asString());
  }
}
