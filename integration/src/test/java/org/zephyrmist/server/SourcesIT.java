package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.FILE;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TREE;

import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

class SourcesIT extends ServerIT {
  @Test
  void aCartridgeIsTakenInAndReported() throws Exception {
    JsonNode intake = read(takeIn(Samples.cartridge("Reported"), "anything.bin"));
    assertThat(intake.path("state").asString()).isEqualTo("DONE");
    JsonNode e =
        coordinator.get("/api/cartridges/editions/" + intake.path("edition").asString()).json();
    assertThat(e.path("title").asString()).isEqualTo("Reported");
    assertThat(e.path("report").path("facts").path("profile").asString())
        .isEqualTo("Common Cartridge 1.3");
    assertThat(e.path("report").path("counts").path("PAGE").asInt()).isEqualTo(2);
  }

  @Test
  void theSameFileAgainIsKnownAndANewOneOfTheSameTitleIsTheNextEdition() throws Exception {
    byte[] first = Samples.cartridge("Twice");
    JsonNode a = read(takeIn(first, "a.imscc"));
    JsonNode b = read(takeIn(first, "b.imscc"));
    assertThat(b.path("knownAlready").asBoolean()).isTrue();
    assertThat(b.path("edition")).isEqualTo(a.path("edition"));
    Thread.sleep(2100); // the ZIP format counts time in two seconds, so the bytes differ now
    JsonNode c = read(takeIn(Samples.cartridge("Twice"), "c.imscc"));
    JsonNode e = coordinator.get("/api/cartridges/editions/" + c.path("edition").asString()).json();
    assertThat(e.path("number").asInt()).isEqualTo(2);
  }

  @Test
  void aRefusedPackageLeavesNothingBehind() throws Exception {
    int trees = db.fetchCount(TREE);
    int files = db.fetchCount(FILE);
    int editions = db.fetchCount(EDITION);
    byte[] evil =
        Samples.zip(
            Map.of("a.txt", "kept before it fails?", "imsmanifest.xml", "<manifest><broken>"));
    JsonNode intake = read(takeIn(evil, "evil.zip"));
    assertThat(intake.path("state").asString()).isEqualTo("REFUSED");
    assertThat(intake.path("place").asString()).startsWith("imsmanifest.xml, line 1");
    assertThat(intake.path("remedy").asString()).isNotBlank();
    assertThat(db.fetchCount(TREE)).isEqualTo(trees);
    assertThat(db.fetchCount(FILE)).isEqualTo(files);
    assertThat(db.fetchCount(EDITION)).isEqualTo(editions);
  }

  @Test
  void twoVersionsAreComparedAsAddedGoneMovedAndChangedByAspect() throws Exception {
    sections("lgt-v1");
    String m = master("V");
    edit(m, "Reading: loads", "{\"html\":\"<p>1,920 watts.</p>\"}");
    edit(m, "Checklist", "{\"title\":\"Checklist for week 3\"}");
    edit(m, "Manual", "{\"shown\":false}");
    String plot = key(m, "Paper plot");
    String reading = key(m, "Reading: loads");
    String week = key(m, "Week 3");
    coordinator.post(
        "/api/masters/" + m + "/draft/items/" + plot + "/place",
        "{\"parent\":\"" + week + "\",\"before\":\"" + reading + "\"}");
    coordinator.delete("/api/masters/" + m + "/draft/items/" + key(m, "Load table"));
    coordinator.post(
        "/api/masters/" + m + "/draft/items",
        "{\"kind\":\"PAGE\",\"title\":\"Extra\",\"parent\":\"" + week + "\"}");
    freeze(m, "Second");
    JsonNode changes = coordinator.get("/api/masters/" + m + "/changes?from=1&to=2").json();
    assertThat(changes)
        .extracting(
            c ->
                c.path("title").asString()
                    + " "
                    + c.path("how").asString()
                    + " "
                    + c.path("aspects"))
        .containsExactlyInAnyOrder(
            "Paper plot MOVED [\"PLACE\"]",
            "Reading: loads CHANGED [\"WORDING\"]",
            "Manual CHANGED [\"VISIBILITY\"]",
            "Checklist for week 3 CHANGED [\"WORDING\"]",
            "Extra ADDED []",
            "Load table GONE []");
    assertThat(freeze(m, "Again").status()).isEqualTo(422);
  }

  @Test
  void aModuleCannotGoIntoItself() throws Exception {
    sections("lgt-w1");
    String m = master("W");
    String week = key(m, "Week 3");
    Caller.Answer a =
        coordinator.post(
            "/api/masters/" + m + "/draft/items/" + week + "/place",
            "{\"parent\":\"" + week + "\"}");
    assertThat(a.status()).isEqualTo(422);
    assertThat(a.json().path("remedy").asString()).isNotBlank();
  }

  @Test
  void aPreviewRunsNothing() throws Exception {
    sections("lgt-x1");
    String m = master("X");
    edit(m, "Checklist", "{\"html\":\"<p onclick='x()'>A<script>x()</script></p>\"}");
    String address = "/api/masters/" + m + "/versions/0/items/" + key(m, "Checklist") + "/page";
    Caller.Answer page = coordinator.get(address);
    assertThat(coordinator.header(address, "Content-Security-Policy"))
        .startsWith("default-src 'none'")
        .contains("sandbox")
        .doesNotContain("script");
    assertThat(page.text()).contains("<p>A</p>").doesNotContain("script").doesNotContain("onclick");
  }

  @Test
  void aRosterTakenInTwiceDoublesNothingAndKeepsWhatVanished() throws Exception {
    sections("lgt-y1", "lgt-y2");
    int before = db.fetchCount(SECTION);
    JsonNode report = administrator.roster(Samples.roster("lgt-y1")).json();
    assertThat(db.fetchCount(SECTION)).isEqualTo(before);
    assertThat(report.path("ended").asInt()).isGreaterThan(0);
    assertThat(
            db.select(SECTION.IN_ROSTER)
                .from(SECTION)
                .where(SECTION.SOURCED_ID.eq("lgt-y2"))
                .fetchSingle()
                .value1())
        .isFalse();
  }

  @Test
  void aRosterThatIsNoArchiveIsRefusedWithARemedy() {
    Caller.Answer a = administrator.roster("hello".getBytes());
    assertThat(a.status()).isEqualTo(422);
    assertThat(a.json().path("remedy").asString()).contains("ZIP");
  }
}
