package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.PLATFORM;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Practice and shared shells are targets, though they are no sections. */
class OtherShellIT extends ServerIT {
  private String body(String shell, String purpose) {
    UUID platform =
        db.select(PLATFORM.ID)
            .from(PLATFORM)
            .where(PLATFORM.NAME.eq("Practice"))
            .fetchSingle()
            .value1();
    UUID course =
        db.select(COURSE.ID).from(COURSE).where(COURSE.CODE.eq("LGT 110")).fetchSingle().value1();
    return "{\"platform\":\"%s\",\"shell\":\"%s\",\"purpose\":\"%s\",\"course\":\"%s\"}"
        .formatted(platform, shell, purpose, course);
  }

  private String loose() {
    UUID platform =
        db.select(PLATFORM.ID)
            .from(PLATFORM)
            .where(PLATFORM.NAME.eq("Practice"))
            .fetchSingle()
            .value1();
    return coordinator.get("/api/shells/loose/" + platform + "?find=try").text();
  }

  @Test
  void aShellIsTriedFirstAndStandsInNoTermAndNoCoverage() throws Exception {
    sections("lgt-osa1");
    Practice.makeShell("try-osa");
    assertThat(loose()).contains("try-osa");
    Caller.Answer taken = coordinator.post("/api/shells", body("try-osa", "PRACTICE"));
    assertThat(taken.status()).as(taken.text()).isEqualTo(201);
    assertThat(loose()).doesNotContain("try-osa");
    UUID section = UUID.fromString(taken.json().path("section").asString());

    JsonNode run = deliver(master("OSA"), 1, List.of(section));
    assertThat(run.path("lines").get(0).path("state").asString()).isEqualTo("DONE");
    assertThat(Practice.titles("try-osa")).contains("Checklist");
    assertThat(coordinator.get("/api/sections/" + section).json().path("masters")).hasSize(1);
    String term = coordinator.get("/api/coverage/terms").json().get(0).path("id").asString();
    assertThat(coordinator.get("/api/coverage?term=" + term).text())
        .doesNotContain(section.toString());
    assertThat(coordinator.get("/api/shells").json())
        .extracting(s -> s.path("title").asString())
        .contains("try-osa");
  }

  @Test
  void theShellOfASectionIsNoneAndTheNextRosterLeavesItAlone() throws Exception {
    sections("lgt-osb1");
    assertThat(coordinator.post("/api/shells", body("lgt-osb1", "SHARED")).status()).isEqualTo(409);
    assertThat(coordinator.post("/api/shells", body("nowhere-osb", "SHARED")).status())
        .isEqualTo(404);
    Practice.makeShell("shared-osb");
    Caller.Answer taken = coordinator.post("/api/shells", body("shared-osb", "SHARED"));
    assertThat(taken.status()).as(taken.text()).isEqualTo(201);
    sections("lgt-osb1", "lgt-osb2");
    assertThat(coordinator.get("/api/shells").text()).contains("shared-osb");
    assertThat(coordinator.post("/api/shells", body("shared-osb", "PRACTICE")).status())
        .isEqualTo(409);
    Caller sound = another("osb@x.example", Role.COORDINATOR, "sound");
    assertThat(sound.get("/api/shells").text()).doesNotContain("shared-osb");
  }
}
