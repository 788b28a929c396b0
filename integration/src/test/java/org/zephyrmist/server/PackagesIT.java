package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Sections whose platform has no interface: a package out for each, an export back in. */
class PackagesIT extends ServerIT {
  /** Sections whose platform has no interface, each with a room nobody can ask. */
  private List<UUID> quiet(String... codes) throws Exception {
    for (String c : codes) {
      Practice.makeShell(room(c));
    }
    return sections(codes);
  }

  /** What its instructor calls the shell of a section. */
  private static String room(String code) {
    return "room." + code;
  }

  private static byte[] exported(String code) throws Exception {
    return Practice.bytes("/shells/" + room(code) + "/package");
  }

  private byte[] packaged(UUID section) {
    return coordinator.download("/api/packages/" + section + "/package");
  }

  private Caller.Answer upload(UUID section, byte[] file) {
    return coordinator.upload("/api/packages/" + section + "/export?fileName=e.imscc", file);
  }

  private JsonNode line(String delivery, UUID section) {
    return coordinator
        .get("/api/deliveries/" + delivery)
        .json()
        .path("lines")
        .valueStream()
        .filter(l -> l.path("section").asString().equals(section.toString()))
        .findFirst()
        .orElseThrow();
  }

  private JsonNode done(String delivery, UUID section) {
    return await(() -> line(delivery, section), l -> l.path("state").asString().equals("DONE"));
  }

  private JsonNode held(UUID section) {
    return coordinator.get("/api/sections/" + section).json().path("masters").get(0);
  }

  private static String id(JsonNode delivery) {
    return delivery.path("delivery").path("id").asString();
  }

  private void broughtIn(UUID... sections) {
    StringBuilder ids = new StringBuilder();
    for (UUID s : sections) {
      ids.append(ids.isEmpty() ? "" : ",").append('"').append(s).append('"');
    }
    Caller.Answer a = coordinator.post("/api/packages/brought-in", "{\"sections\":[" + ids + "]}");
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    assertThat(a.json()).hasSize(sections.length);
  }

  private static List<String> names(byte[] zip) {
    List<String> names = new ArrayList<>();
    try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
      for (ZipEntry e; (e = in.getNextEntry()) != null; ) {
        names.add(e.getName());
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return names;
  }

  @Test
  void aPackageGoesOutAndTheExportProvesThatItCameIn() throws Exception {
    List<UUID> to = quiet("lgt-pka1", "lgt-pka2");
    String delivery = id(deliver(master("PKA"), 1, to));
    JsonNode waits = line(delivery, to.get(0));
    assertThat(waits.path("state").asString()).isEqualTo("NOT_YET");
    assertThat(waits.path("waitsFor").asString()).isEqualTo("PACKAGE");
    assertThat(coordinator.get("/api/packages?delivery=" + delivery).json()).hasSize(2);
    assertThat(coordinator.get("/api/sections/" + to.get(0)).json().path("masters")).isEmpty();
    assertThat(names(coordinator.download("/api/packages/all?delivery=" + delivery)))
        .containsExactly(
            "lgt-pka1-PKA-v1/sheet.html",
            "lgt-pka1-PKA-v1/lgt-pka1-PKA-v1.imscc",
            "lgt-pka2-PKA-v1/sheet.html",
            "lgt-pka2-PKA-v1/lgt-pka2-PKA-v1.imscc");

    Practice.bringIn(room("lgt-pka1"), packaged(to.get(0)));
    assertThat(Practice.html(room("lgt-pka1"), "Reading: loads"))
        .contains("/items/" + Practice.item(room("lgt-pka1"), "Checklist").path("id").asString());
    Caller.Answer told = upload(to.get(0), exported("lgt-pka1"));
    assertThat(told.status()).as(told.text()).isEqualTo(200);
    assertThat(told.json().path("came").asInt()).isEqualTo(6);
    assertThat(told.json().path("missing").asInt()).isZero();
    assertThat(told.json().path("changed").asInt()).isZero();
    assertThat(done(delivery, to.get(0)).path("activity").asString()).contains("all as meant");
    assertThat(held(to.get(0)).path("held").asInt()).isEqualTo(6);
    assertThat(held(to.get(0)).path("changed").asInt()).isZero();

    broughtIn(to.get(1));
    done(delivery, to.get(1));
    assertThat(held(to.get(1)).path("held").asInt()).isEqualTo(6);
    assertThat(coordinator.get("/api/packages/" + to.get(1)).json().get(0).path("known").asString())
        .isEqualTo("SAID");
  }

  @Test
  void onlyWhatIsToChangeIsInTheNextPackageAndWhatWasChangedThereIsKnown() throws Exception {
    List<UUID> to = quiet("lgt-pkb1");
    String master = master("PKB");
    String first = id(deliver(master, 1, to));
    Practice.bringIn(room("lgt-pkb1"), packaged(to.get(0)));
    broughtIn(to.get(0));
    done(first, to.get(0));
    Practice.form(
        room("lgt-pkb1"),
        "Reading: loads",
        "text",
        java.util.Map.of("title", "Reading: loads", "html", "<p>Ours carries 1,000 watts.</p>"));
    Practice.addPage(room("lgt-pkb1"), "Our own", "<p>Bring a torch.</p>");
    JsonNode told = upload(to.get(0), exported("lgt-pkb1")).json();
    assertThat(told.path("changed").asInt()).isEqualTo(1);
    assertThat(told.path("fresh").asInt()).isEqualTo(1);
    assertThat(held(to.get(0)).path("changed").asInt()).isEqualTo(1);
    assertThat(coordinator.get("/api/sections/" + to.get(0) + "/own").json())
        .extracting(o -> o.path("title").asString())
        .containsExactly("Our own");

    edit(master, "Checklist", "{\"html\":\"<p>Gloves and boots.</p>\"}");
    freeze(master, "Second");
    String second = id(deliver(master, 2, to));
    assertThat(names(packaged(to.get(0))).stream().filter(n -> n.endsWith(".html"))).hasSize(1);
    String sheet = coordinator.get("/api/packages/" + to.get(0) + "/sheet").text();
    assertThat(sheet).contains("Checklist", "take the older one").doesNotContain("Reading: loads");
    broughtIn(to.get(0));
    done(second, to.get(0));
    assertThat(held(to.get(0)).path("number").asInt()).isEqualTo(2);
    assertThat(held(to.get(0)).path("changed").asInt()).isEqualTo(1);
  }

  @Test
  void whatIsMissingAfterAnExportComesOnceWithTheNextPackage() throws Exception {
    List<UUID> to = quiet("lgt-pkg1");
    String room = room("lgt-pkg1");
    String master = master("PKG");
    String first = id(deliver(master, 1, to));
    Practice.bringIn(room, packaged(to.get(0)));
    Practice.form(room, "Checklist", "delete", java.util.Map.of());
    assertThat(upload(to.get(0), exported("lgt-pkg1")).json().path("missing").asInt()).isEqualTo(1);
    await(
        () -> coordinator.get("/api/packages?delivery=" + first).json(),
        waits -> waits.size() == 1 && names(packaged(to.get(0))).size() > 1);
    assertThat(names(packaged(to.get(0))).stream().filter(n -> n.endsWith(".html"))).hasSize(1);
    Practice.bringIn(room, packaged(to.get(0)));
    assertThat(upload(to.get(0), exported("lgt-pkg1")).json().path("missing").asInt()).isZero();
    done(first, to.get(0));
    assertThat(Practice.titles(room)).containsOnlyOnce("Checklist");
    assertThat(held(to.get(0)).path("held").asInt()).isEqualTo(6);
    assertThat(held(to.get(0)).path("changed").asInt()).isZero();
    String again = plan(master, 1, to);
    assertThat(line(again, to.get(0)).path("counts").toString()).isEqualTo("{\"SAME\":6}");
  }

  @Test
  void afterAPackageThatUpdatesUntouchedPagesAreAsTheyWere() throws Exception {
    List<UUID> to = quiet("lgt-pkh1");
    String room = room("lgt-pkh1");
    String master = master("PKH");
    String first = id(deliver(master, 1, to));
    Practice.bringIn(room, packaged(to.get(0)));
    upload(to.get(0), exported("lgt-pkh1"));
    done(first, to.get(0));
    edit(master, "Checklist", "{\"html\":\"<p>Gloves and boots.</p>\"}");
    freeze(master, "Second");
    String second = id(deliver(master, 2, to));
    Practice.form(room, "Checklist", "delete", java.util.Map.of()); // as the sheet says
    Practice.bringIn(room, packaged(to.get(0)));
    JsonNode told = upload(to.get(0), exported("lgt-pkh1")).json();
    assertThat(told.path("fresh").asInt()).as(told + " " + Practice.items(room)).isLessThan(2);
    done(second, to.get(0));
    assertThat(held(to.get(0)).path("changed").asInt()).isZero();
    assertThat(line(plan(master, 2, to), to.get(0)).path("counts").toString())
        .isEqualTo("{\"SAME\":6}");
  }

  @Test
  void whatIsNoExportOfThisShellIsRefusedAndNothingMoves() throws Exception {
    List<UUID> to = quiet("lgt-pkc1", "lgt-pkc2");
    String master = master("PKC");
    String delivery = id(deliver(master, 1, to));
    assertThat(upload(to.get(0), packaged(to.get(0))).text()).contains("goes into the shell");
    assertThat(upload(to.get(0), "no zip".getBytes()).status()).isEqualTo(422);
    assertThat(upload(to.get(0), exported("lgt-pkc1")).text()).contains("before the package");
    for (int i = 0; i < 2; i++) {
      Practice.bringIn(room("lgt-pkc" + (i + 1)), packaged(to.get(i)));
    }
    Caller.Answer another = upload(to.get(0), exported("lgt-pkc2"));
    assertThat(another.status()).isEqualTo(422);
    assertThat(another.text()).contains("export of lgt-pkc2, not of lgt-pkc1");
    assertThat(line(delivery, to.get(0)).path("state").asString()).isEqualTo("NOT_YET");
    byte[] old = exported("lgt-pkc1");
    assertThat(upload(to.get(0), old).status()).isEqualTo(200);
    done(delivery, to.get(0));
    coordinator.post(
        "/api/masters/" + master + "/draft/items",
        "{\"kind\":\"PAGE\",\"title\":\"Ropes\",\"html\":\"<p>Check each rope.</p>\"}");
    freeze(master, "With ropes");
    deliver(master, 2, to.subList(0, 1));
    Caller.Answer older = upload(to.get(0), old);
    assertThat(older.status()).isEqualTo(409);
    assertThat(older.text()).contains("before the package was brought in");
  }

  @Test
  void aPackageThatIsPutAwayIsMadeAnewByTheNextDelivery() throws Exception {
    List<UUID> to = quiet("lgt-pkd1");
    String master = master("PKD");
    String first = id(deliver(master, 1, to));
    String again = plan(master, 1, to);
    assertThat(line(again, to.get(0)).path("state").asString()).isEqualTo("NEEDS_PERSON");
    assertThat(coordinator.post("/api/packages/" + to.get(0) + "/put-away", "").status())
        .isEqualTo(200);
    assertThat(line(first, to.get(0)).path("state").asString()).isEqualTo("STOPPED");
    String next = id(deliver(master, 1, to));
    assertThat(line(next, to.get(0)).path("waitsFor").asString()).isEqualTo("PACKAGE");
    broughtIn(to.get(0));
    done(next, to.get(0));
    assertThat(held(to.get(0)).path("held").asInt()).isEqualTo(6);
  }

  @Test
  void aStoppedLineWhosePackageCameInAllTheSameIsNotMixedUpWithTheNext() throws Exception {
    List<UUID> to = quiet("lgt-pkf1");
    String master = master("PKF");
    String first = id(deliver(master, 1, to));
    assertThat(coordinator.post("/api/deliveries/" + first + "/stop", "").status()).isLessThan(300);
    broughtIn(to.get(0));
    edit(master, "Checklist", "{\"html\":\"<p>Gloves and boots.</p>\"}");
    freeze(master, "Second");
    String second = id(deliver(master, 2, to));
    assertThat(coordinator.get("/api/packages?delivery=" + first).json()).isEmpty();
    assertThat(coordinator.get("/api/packages?delivery=" + second).json()).hasSize(1);
    broughtIn(to.get(0));
    done(second, to.get(0));
    assertThat(held(to.get(0)).path("number").asInt()).isEqualTo(2);
  }

  @Test
  void nobodyFromElsewhereReachesAPackage() throws Exception {
    List<UUID> to = quiet("lgt-pke1");
    String delivery = id(deliver(master("PKE"), 1, to));
    Caller elsewhere = another("pk-sound@x.example", Role.COORDINATOR, "sound");
    assertThat(elsewhere.get("/api/packages/" + to.get(0) + "/package").status()).isEqualTo(404);
    assertThat(
            elsewhere
                .post("/api/packages/brought-in", "{\"sections\":[\"" + to.get(0) + "\"]}")
                .json())
        .isEmpty();
    assertThat(line(delivery, to.get(0)).path("state").asString()).isEqualTo("NOT_YET");
  }
}
