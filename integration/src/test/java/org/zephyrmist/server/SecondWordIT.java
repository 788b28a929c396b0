package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Large deliveries, and those that remove anything, may need a second person's word. */
class SecondWordIT extends ServerIT {
  private void rule(String rule) {
    assertThat(administrator.call("PUT", "/api/deliveries/second-word", rule).status())
        .isEqualTo(200);
  }

  @AfterEach
  void noRule() {
    rule("{\"removes\":false}");
  }

  private JsonNode detail(String id) {
    return coordinator.get("/api/deliveries/" + id).json();
  }

  private static String state(JsonNode detail) {
    return detail.path("delivery").path("state").asString();
  }

  @Test
  void aLargeDeliveryBeginsOnlyWhenAnotherPersonConfirmsItToo() throws Exception {
    List<UUID> to = sections("lgt-zwa1", "lgt-zwa2");
    String master = master("ZWA");
    rule("{\"fromSections\":2,\"removes\":false}");
    String id = plan(master, 1, to);
    assertThat(detail(id).path("secondWord").path("why").asString()).isEqualTo("SECTIONS");
    for (int twice = 0; twice < 2; twice++) {
      coordinator.post("/api/deliveries/" + id + "/confirm", "{\"note\":\"New week 3\"}");
      assertThat(state(detail(id))).isEqualTo("PLANNED");
    }
    assertThat(detail(id).path("secondWord").path("mine").asBoolean()).isTrue();
    assertThat(Practice.titles("lgt-zwa1")).isEmpty();

    Caller designer = another("wa-3@x.example", Role.DESIGNER, "light", "sound");
    assertThat(designer.post("/api/deliveries/" + id + "/confirm", "").status()).isEqualTo(403);
    Caller second = another("wa-2@x.example", Role.COORDINATOR, "light", "sound");
    assertThat(second.post("/api/deliveries/" + id + "/confirm", "").status()).isEqualTo(200);
    assertThat(state(rest(id, "RUNNING"))).isEqualTo("DONE");
    assertThat(Practice.titles("lgt-zwa1")).contains("Checklist");
  }

  @Test
  void whatWasAskedForOnePlanIsNoWordForAnother() throws Exception {
    List<UUID> to = sections("lgt-zwb1", "lgt-zwb2");
    String master = master("ZWB");
    rule("{\"fromSections\":2,\"removes\":false}");
    String id = plan(master, 1, to);
    coordinator.post("/api/deliveries/" + id + "/confirm", "");
    coordinator.call(
        "PUT",
        "/api/deliveries/" + id + "/choices",
        "{\"clash\":\"TAKE_VERSION\",\"twin\":\"ADOPT\"}");
    rest(id, "PLANNING");
    assertThat(detail(id).path("secondWord").path("askedBy").isMissingNode()).isTrue();
    Caller second = another("wb-2@x.example", Role.COORDINATOR, "light", "sound");
    second.post("/api/deliveries/" + id + "/confirm", "");
    assertThat(state(detail(id))).isEqualTo("PLANNED");
  }

  @Test
  void aDeliveryThatRemovesSomethingNeedsItWhateverItsSize() throws Exception {
    List<UUID> to = sections("lgt-zwc1");
    String master = master("ZWC");
    deliver(master, 1, to);
    rule("{\"removes\":true}");
    String small = plan(master, 1, to);
    assertThat(detail(small).path("secondWord").isMissingNode()).isTrue();
    coordinator.post(
        "/api/masters/" + master + "/draft/take-out",
        "{\"keys\":[\"" + key(master, "Manual") + "\"]}");
    freeze(master, "Without the manual");
    String id = plan(master, 2, to);
    assertThat(detail(id).path("secondWord").path("why").asString()).isEqualTo("REMOVES");
  }

  @Test
  void onlyAnAdministratorSaysWhenItIsNeeded() {
    assertThat(
            coordinator.call("PUT", "/api/deliveries/second-word", "{\"removes\":true}").status())
        .isEqualTo(403);
    assertThat(
            administrator
                .call("PUT", "/api/deliveries/second-word", "{\"fromSections\":0,\"removes\":true}")
                .status())
        .isEqualTo(400);
  }
}
