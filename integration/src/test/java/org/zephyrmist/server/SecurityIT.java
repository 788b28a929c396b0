package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.PLATFORM;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

class SecurityIT extends ServerIT {
  @Test
  void withoutSignInNothingIsTold() {
    Caller nobody = new Caller(port);
    for (String path :
        List.of("/api/me", "/api/coverage/terms", "/api/masters", "/api/sections/mine")) {
      assertThat(nobody.get(path).status()).as(path).isEqualTo(401);
    }
  }

  @Test
  void aWrongPasswordAndAnUnknownPersonAreAnsweredAlike() {
    Caller c = new Caller(port);
    c.get("/api/ready");
    assertThat(c.forged("/api/sign-in", "").status()).isEqualTo(403);
    List<String> answers =
        List.of("coordinator@x.example", "nobody@x.example").stream()
            .map(
                who -> {
                  try {
                    return new Caller(port).signIn(who, "wrong-password").toString();
                  } catch (IllegalStateException e) {
                    return e.getMessage();
                  }
                })
            .distinct()
            .toList();
    assertThat(answers).hasSize(1);
    assertThat(answers.get(0)).contains("401");
  }

  @Test
  void aForgedCallWithoutTheTokenIsRefused() {
    assertThat(coordinator.forged("/api/masters", "{}").status()).isEqualTo(403);
  }

  @Test
  void anInstructorSeesOwnSectionsAndNothingElse() throws Exception {
    List<UUID> ids = sections("lgt-s1", "lgt-s2");
    String master = master("S");
    deliver(master, 1, ids);
    people.admit("instructor@x.example", "Agnes Pell", Role.INSTRUCTOR, PASSWORD);
    Caller agnes = new Caller(port).signIn("instructor@x.example", PASSWORD);
    assertThat(agnes.get("/api/sections/" + ids.get(0)).status()).isEqualTo(200);
    assertThat(agnes.get("/api/sections/" + ids.get(0) + "/items").json()).hasSize(6);
    assertThat(agnes.get("/api/sections/" + ids.get(1)).status()).isEqualTo(404);
    assertThat(agnes.get("/api/sections/" + ids.get(1) + "/items").status()).isEqualTo(404);
    for (String path :
        List.of(
            "/api/masters",
            "/api/masters/" + master,
            "/api/cartridges",
            "/api/deliveries",
            "/api/coverage?term=" + UUID.randomUUID(),
            "/api/courses",
            "/api/platforms")) {
      assertThat(agnes.get(path).status()).as(path).isEqualTo(403);
    }
    assertThat(agnes.get("/api/search?q=S").json())
        .noneMatch(h -> h.path("subject").asString().equals("MASTER"));
    assertThat(agnes.post("/api/deliveries", "{}").status()).isIn(400, 403);
  }

  @Test
  void aCoordinatorOfSoundReachesNothingOfLighting() throws Exception {
    List<UUID> ids = sections("lgt-t1", "snd-t2");
    String master = master("T");
    String version = version(master, 1);
    Caller signe = another("signe@x.example", Role.COORDINATOR, "sound");
    assertThat(signe.get("/api/masters/" + master).status()).isEqualTo(404);
    assertThat(signe.get("/api/sections/" + ids.get(0)).status()).isEqualTo(404);
    assertThat(signe.get("/api/sections/" + ids.get(1)).status()).isEqualTo(200);
    String body = "{\"version\":\"" + version + "\",\"sections\":[\"" + ids.get(1) + "\"]}";
    assertThat(signe.post("/api/deliveries", body).status()).isEqualTo(404);
    assertThat(signe.post("/api/masters/" + master + "/versions", "{\"note\":\"x\"}").status())
        .isEqualTo(404);
    assertThat(
            signe.patch("/api/masters/" + master + "/draft/items/x", "{\"title\":\"x\"}").status())
        .isEqualTo(404);
  }

  @Test
  void aDesignerDoesNotDeliverToSectionsOfAnotherProgram() throws Exception {
    List<UUID> ids = sections("lgt-u1", "snd-u2");
    Caller designer = another("designer@x.example", Role.DESIGNER, "light");
    String master = master("U");
    String body =
        "{\"version\":\"" + version(master, 1) + "\",\"sections\":[\"" + ids.get(1) + "\"]}";
    assertThat(designer.post("/api/deliveries", body).status()).isEqualTo(404);
  }

  @Test
  void nobodyActsOnADeliveryThatGoesToSectionsBeyondTheirReach() throws Exception {
    List<UUID> ids = sections("lgt-q1", "snd-q2");
    Caller signe = another("signe2@x.example", Role.COORDINATOR, "sound");
    String made =
        coordinator
            .post("/api/masters", "{\"code\":\"Q\",\"title\":\"Frame\",\"courses\":[]}")
            .json()
            .path("id")
            .asString();
    coordinator.post(
        "/api/masters/" + made + "/draft/items", "{\"kind\":\"PAGE\",\"title\":\"Welcome\"}");
    freeze(made, "First");
    String id = plan(made, 1, ids);
    JsonNode seen = signe.get("/api/deliveries/" + id).json();
    assertThat(seen.path("lines"))
        .extracting(l -> l.path("code").asString())
        .containsExactly("snd-q2");
    for (String act : List.of("/confirm", "/stop", "/go-on")) {
      assertThat(signe.post("/api/deliveries/" + id + act, "").status()).as(act).isEqualTo(403);
    }
    String chosen = "{\"clash\":\"TAKE_VERSION\",\"twin\":\"ADD\"}";
    assertThat(signe.put("/api/deliveries/" + id + "/choices", chosen).status()).isEqualTo(403);
    assertThat(coordinator.post("/api/deliveries/" + id + "/confirm", "").status()).isEqualTo(200);
  }

  @Test
  void onlyAnAdministratorNamesPlatformsAndPeopleAndNoTokenEverComesBack() throws Exception {
    sections("lgt-z1");
    String platform = "{\"name\":\"P\",\"address\":\"http://127.0.0.1:1\",\"token\":\"t\"}";
    assertThat(coordinator.post("/api/platforms", platform).status()).isEqualTo(403);
    assertThat(administrator.post("/api/platforms", platform).status()).isEqualTo(422);
    assertThat(coordinator.post("/api/people", "{}").status()).isIn(400, 403);
    assertThat(administrator.get("/api/platforms").text()).doesNotContain("practice-token");
    byte[] stored = db.select(PLATFORM.TOKEN).from(PLATFORM).limit(1).fetchSingle().value1();
    assertThat(new String(stored, StandardCharsets.ISO_8859_1)).doesNotContain("practice-token");
  }

  @Test
  void theFirstPersonIsMadeOnlyOnce() {
    String p =
        "{\"name\":\"X\",\"email\":\"x@x.example\",\"role\":\"ADMINISTRATOR\","
            + "\"password\":\"a-long-password\"}";
    Caller c = new Caller(port);
    c.get("/api/ready");
    assertThat(c.post("/api/first-person", p).status()).isEqualTo(409);
  }
}
