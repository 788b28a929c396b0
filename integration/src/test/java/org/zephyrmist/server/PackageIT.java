package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Packages out, and what asks for a word before it may leave. */
class PackageIT extends ServerIT {
  private String path(String master, int version) {
    return "/api/masters/" + master + "/versions/" + version + "/package";
  }

  @Test
  void aVersionGoesOutAsAPackageThatKnowsWhereItCameFrom() throws Exception {
    sections("lgt-pk1");
    String master = master("PK");
    byte[] file = coordinator.download(path(master, 1) + "?format=CC_1_2");
    freeze(master, "nothing new");
    edit(master, "Checklist", "{\"title\":\"Safety list\"}");
    freeze(master, "a name");
    JsonNode intake = read(takeIn(file, "mailed.imscc"));
    JsonNode edition =
        coordinator.get("/api/cartridges/editions/" + intake.path("edition").asString()).json();
    assertThat(edition.path("ours").path("code").asString()).isEqualTo("PK");
    assertThat(edition.path("ours").path("version").asInt()).isEqualTo(1);
    assertThat(edition.path("ours").path("newest").asInt()).isEqualTo(2);
    assertThat(edition.path("report").path("deadReferences")).isEmpty();
  }

  @Test
  void whatAPackageLosesIsToldBeforeItIsMade() throws Exception {
    sections("lgt-pk2");
    String master = master("PL");
    JsonNode thin = coordinator.get(path(master, 1) + "/losses?format=THIN_1_3").json();
    assertThat(thin.path("losses").valueStream().map(l -> l.path("what").asString()))
        .anyMatch(w -> w.contains("no pages"))
        .anyMatch(w -> w.contains("no assignments"));
    JsonNode old = coordinator.get(path(master, 1) + "/losses?format=CC_1_1").json();
    assertThat(old.path("losses").valueStream().map(l -> l.path("handwork").asString()))
        .anyMatch(w -> w.contains("Make an assignment"));
    String part = "&part=" + key(master, "Checklist");
    assertThat(
            coordinator
                .get(path(master, 1) + "/losses?format=CC_1_3" + part)
                .json()
                .path("items")
                .asInt())
        .as("the page and its module")
        .isEqualTo(2);
  }

  @Test
  void aLargePackageIsMadeInTheBackgroundForWhoeverOrderedIt() throws Exception {
    sections("lgt-pk5");
    String master = master("PB");
    String packages = "/api/masters/" + master + "/packages";
    String id =
        coordinator
            .post(
                packages,
                "{\"version\":1,\"format\":\"CC_1_3\",\"parameters\":true,\"grading\":true,"
                    + "\"instructorsOnly\":true,\"parts\":[]}")
            .json()
            .path("id")
            .asString();
    JsonNode made =
        await(
            () -> coordinator.get(packages).json().get(0),
            p -> !p.path("state").asString().equals("MAKING"));
    assertThat(made.path("state").asString()).isEqualTo("READY");
    byte[] file = coordinator.download(packages + "/" + id);
    assertThat(file).hasSize(made.path("bytes").asInt());
    assertThat(read(takeIn(file, "made.imscc")).path("state").asString()).isEqualTo("DONE");
    assertThat(administrator.get(packages + "/" + id).status()).as("another's").isEqualTo(404);
  }

  @Test
  void whatAsksForAuthorisationLeavesOnlyWithAnAdministratorsWord() throws Exception {
    sections("lgt-pk3");
    TreeMap<String, String> files = new TreeMap<>();
    files.put("a.html", "<p>Licensed.</p>");
    files.put(
        "imsmanifest.xml",
        "<manifest xmlns='http://www.imsglobal.org/xsd/imsccv1p2/imscp_v1p1'><metadata><lom><general>"
            + "<title><string>Licensed light</string></title></general></lom></metadata><organizations>"
            + "<organization><item><item identifier='i' identifierref='r'><title>Protected</title></item>"
            + "</item></organization></organizations><resources><resource identifier='r' type='webcontent'"
            + " href='a.html' protected='true'><file href='a.html'/></resource></resources>"
            + "<authorizations access='resource' import='false'/></manifest>");
    JsonNode intake = read(takeIn(Samples.zip(files), "licensed.imscc"));
    String edition = intake.path("edition").asString();
    String made =
        coordinator
            .post(
                "/api/masters",
                "{\"code\":\"PC\",\"title\":\"t\",\"edition\":\"" + edition + "\",\"courses\":[]}")
            .json()
            .path("id")
            .asString();
    Caller.Answer refused = freeze(made, "first");
    assertThat(refused.status()).isEqualTo(409);
    assertThat(refused.json().path("detail").asString()).contains("Licensed light");
    assertThat(coordinator.get(path(made, 0) + "?format=CC_1_3").status()).isEqualTo(409);
    String cartridge =
        coordinator.get("/api/cartridges/editions/" + edition).json().path("cartridge").asString();
    administrator.call("PUT", "/api/cartridges/" + cartridge + "/consent", null);
    assertThat(freeze(made, "first").status()).isEqualTo(201);
    String packages = "/api/masters/" + made + "/packages";
    String ordered =
        coordinator
            .post(
                packages,
                "{\"version\":1,\"format\":\"CC_1_3\",\"parameters\":true,\"grading\":true,"
                    + "\"instructorsOnly\":true,\"parts\":[]}")
            .json()
            .path("id")
            .asString();
    await(
        () -> coordinator.get(packages).json().get(0),
        p -> p.path("state").asString().equals("READY"));
    assertThat(coordinator.get(packages + "/" + ordered).status()).isEqualTo(200);
    coordinator.delete("/api/masters/" + made + "/draft/items/" + key(made, "Protected"));
    administrator.call("DELETE", "/api/cartridges/" + cartridge + "/consent", null);
    assertThat(coordinator.get("/api/masters/" + made + "/archive").status())
        .as("version 1 holds it, though the draft no longer does")
        .isEqualTo(409);
    assertThat(coordinator.get(packages + "/" + ordered).status()).isEqualTo(409);
  }

  @Test
  void aFrameIsShownOnceItsHostIsApproved() throws Exception {
    sections("lgt-pk4");
    String master = master("PF");
    edit(
        master,
        "Checklist",
        "{\"html\":\"<p>See</p><iframe src='https://film.example.org/7'></iframe>\"}");
    String page =
        "/api/masters/" + master + "/versions/0/items/" + key(master, "Checklist") + "/page";
    assertThat(coordinator.get(page).text())
        .doesNotContain("<iframe")
        .contains("href=\"https://film.example.org/7\"");
    administrator.call("PUT", "/api/frames/film.example.org", null);
    assertThat(coordinator.get(page).text()).contains("<iframe").contains("sandbox=");
    administrator.call("DELETE", "/api/frames/film.example.org", null);
    assertThat(coordinator.get(page).text()).doesNotContain("<iframe");
    assertThat(administrator.call("PUT", "/api/frames/not%20a%20host", null).status())
        .isEqualTo(422);
  }
}
