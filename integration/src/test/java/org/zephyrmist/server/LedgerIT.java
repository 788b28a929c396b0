package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** The ledger with its past, searched, and as tables. */
class LedgerIT extends ServerIT {
  private static final LocalDate TODAY = LocalDate.now(ZoneOffset.UTC);

  private JsonNode receipts(String query) {
    Caller.Answer a = coordinator.get("/api/ledger/receipts?" + query);
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    return a.json();
  }

  @Test
  void aReceiptIsFoundBySectionItemVersionDeliveryAndPerson() throws Exception {
    List<UUID> to = sections("lgt-xa1", "lgt-xa2");
    String master = master("LA");
    deliver(master, 1, to);
    edit(master, "Checklist", "{\"html\":\"<p>Boots.</p>\"}");
    freeze(master, "Second");
    String second = deliver(master, 2, to.subList(0, 1)).path("delivery").path("id").asString();

    JsonNode one = receipts("section=xa1&item=checkl&master=" + master);
    assertThat(one).hasSize(2);
    assertThat(one.get(0).path("number").asInt()).isEqualTo(2);
    assertThat(one.get(0).path("writes").get(0).asString()).isEqualTo("WORDING");
    assertThat(receipts("delivery=" + second)).hasSize(1);
    assertThat(receipts("version=2&master=" + master)).hasSize(1);
    assertThat(receipts("person=nobody&master=" + master)).isEmpty();
    assertThat(receipts("person=ines&master=" + master + "&to=" + TODAY.minusDays(1))).isEmpty();
    assertThat(receipts("master=" + master + "&from=" + TODAY.minusDays(1)).size()).isEqualTo(13);
    JsonNode page = receipts("most=5&master=" + master);
    JsonNode next = receipts("most=50&master=" + master + "&before=" + page.get(4).path("id"));
    assertThat(next).hasSize(8);
  }

  @Test
  void aSectionIsSeenAsItWasOnADay() throws Exception {
    List<UUID> to = sections("lgt-xb1");
    String master = master("LB");
    deliver(master, 1, to);
    String items = "/api/sections/" + to.get(0) + "/items?on=";
    assertThat(coordinator.get(items + TODAY).json()).hasSize(6);
    assertThat(coordinator.get(items + TODAY.minusDays(1)).json()).isEmpty();
    String delivery = coordinator.get("/api/deliveries").json().get(0).path("id").asString();
    String back =
        coordinator
            .post("/api/deliveries/" + delivery + "/take-back", "{}")
            .json()
            .path("id")
            .asString();
    rest(back, "PLANNING");
    confirm(back);
    assertThat(coordinator.get(items + TODAY).json()).isEmpty();
  }

  @Test
  void itComesAsATableInWhichNothingIsAFormula() throws Exception {
    List<UUID> to = sections("lgt-xc1");
    String master = master("LC");
    edit(master, "Checklist", "{\"title\":\"=1+1\"}");
    freeze(master, "Odd");
    deliver(master, 2, to);
    String file = "/api/ledger/receipts/file?master=" + master + "&format=";
    String csv = coordinator.get(file + "CSV").text();
    assertThat(csv).contains("time (UTC),section,master").contains("'=1+1").contains("lgt-xc1");
    Map<String, String> parts = unzip(coordinator.download(file + "XLSX"));
    assertThat(parts.keySet()).anyMatch(n -> n.endsWith("sheet1.xml"));
    assertThat(String.join("", parts.values())).contains("lgt-xc1").doesNotContain("<f>");
  }

  @Test
  void aPlanIsATableToo() throws Exception {
    List<UUID> to = sections("lgt-xd1", "lgt-xd2");
    String master = master("LD");
    String delivery = plan(master, 1, to);
    String csv = coordinator.get("/api/deliveries/" + delivery + "/plan/file?format=CSV").text();
    assertThat(csv.lines().count()).isEqualTo(13);
    assertThat(csv).contains("lgt-xd2,North,page,Checklist,add,new in version,yes");
    Caller.Answer odd = coordinator.get("/api/deliveries/" + delivery + "/plan/file?format=PDF");
    assertThat(odd.status()).isEqualTo(400);
  }

  @Test
  void aDayThatNoCalendarReachesIsRefused() throws Exception {
    List<UUID> to = sections("lgt-xf1");
    for (String path :
        List.of(
            "/api/ledger/receipts?to=%2B999999999-12-31",
            "/api/ledger/receipts?from=-9999-01-01",
            "/api/sections/" + to.get(0) + "/items?on=%2B999999999-12-31")) {
      Caller.Answer a = coordinator.get(path);
      assertThat(a.status()).as(a.text()).isEqualTo(422);
      assertThat(a.text()).contains("This day is out of range.");
    }
  }

  @Test
  void nobodyReadsOfSectionsBeyondReach() throws Exception {
    List<UUID> to = sections("lgt-xe1");
    String master = master("LE");
    deliver(master, 1, to);
    Caller sound = another("le@x.example", Role.COORDINATOR, "sound");
    assertThat(sound.get("/api/ledger/receipts?section=xe1").json()).isEmpty();
    assertThat(sound.get("/api/ledger/receipts/file?section=xe1&format=CSV").text().lines().count())
        .isEqualTo(1);
  }

  private static Map<String, String> unzip(byte[] bytes) throws IOException {
    Path file = Files.createTempFile("ledger", ".xlsx");
    Files.write(file, bytes);
    Map<String, String> all = new HashMap<>();
    try (ZipFile zip = new ZipFile(file.toFile())) {
      for (ZipEntry e : zip.stream().map(ZipEntry.class::cast).toList()) {
        all.put(
            e.getName(), new String(zip.getInputStream(e).readAllBytes(), StandardCharsets.UTF_8));
      }
    } finally {
      Files.delete(file);
    }
    return all;
  }
}
