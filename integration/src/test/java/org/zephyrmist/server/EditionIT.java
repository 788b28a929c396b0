package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A newer edition of a cartridge, taken into a master that was adapted. */
class EditionIT extends ServerIT {
  private static final String POWER =
      "<p>A 20-amp circuit carries 2,400 watts of lanterns and practicals together.</p>"
          + "<p>Count every lantern that hangs on the bar before you write the plot.</p>";
  private static final String LENS =
      "<p>A lens gathers what the lamp gives and throws it where the designer points.</p>";
  private static final String GEL =
      "<p>Gel takes colour away from the beam; dichroic glass sends it back to the lamp.</p>";

  /** A package of pages, each with identifier and title; "id|title". */
  private static byte[] pages(String title, String identifier, Map<String, String> pages)
      throws IOException {
    Map<String, String> files = new TreeMap<>();
    StringBuilder items = new StringBuilder();
    StringBuilder resources = new StringBuilder();
    pages.forEach(
        (name, html) -> {
          String[] p = name.split("\\|");
          items
              .append("<item identifier='")
              .append(p[0])
              .append("' identifierref='r-")
              .append(p[0])
              .append("'><title>")
              .append(p[1])
              .append("</title></item>");
          resources
              .append("<resource identifier='r-")
              .append(p[0])
              .append("' type='webcontent' href='")
              .append(p[0])
              .append(".html'><file href='")
              .append(p[0])
              .append(".html'/></resource>");
          files.put(p[0] + ".html", html);
        });
    files.put(
        "imsmanifest.xml",
        "<manifest identifier='"
            + identifier
            + "' xmlns='http://www.imsglobal.org/xsd/imsccv1p2/imscp_v1p1'>"
            + "<metadata><schema>IMS Common Cartridge</schema><schemaversion>1.2.0</schemaversion><lom><general>"
            + "<title><string>"
            + title
            + "</string></title></general></lom></metadata><organizations>"
            + "<organization><item>"
            + items
            + "</item></organization></organizations><resources>"
            + resources
            + "</resources></manifest>");
    return Samples.zip(files);
  }

  private static Map<String, String> of(String... pairs) {
    Map<String, String> all = new LinkedHashMap<>();
    for (int i = 0; i < pairs.length; i += 2) {
      all.put(pairs[i], pairs[i + 1]);
    }
    return all;
  }

  private String edition(String title, String identifier, Map<String, String> pages)
      throws Exception {
    JsonNode intake = read(takeIn(pages(title, identifier, pages), "e.imscc"));
    assertThat(intake.path("state").asString()).as(intake.toString()).isEqualTo("DONE");
    return intake.path("edition").asString();
  }

  private String merge(String master, String edition) {
    return "/api/masters/" + master + "/editions/" + edition;
  }

  private JsonNode change(JsonNode view, String title) {
    return view.path("changes")
        .valueStream()
        .filter(c -> c.path("title").asString().equals(title))
        .findFirst()
        .orElseThrow();
  }

  private String html(String master, String title) {
    return coordinator
        .get("/api/masters/" + master + "/versions/0/items/" + key(master, title))
        .json()
        .path("html")
        .asString();
  }

  private List<String> titles(String master) {
    return coordinator
        .get("/api/masters/" + master + "/versions/0/outline")
        .json()
        .valueStream()
        .map(n -> n.path("title").asString())
        .toList();
  }

  @Test
  void aNewEditionIsTakenOverAndNothingOfOnesOwnIsLost() throws Exception {
    sections("lgt-ed1");
    String first =
        edition(
            "Light E1",
            "maker-number-0001",
            of(
                "a|Reading: power",
                POWER,
                "b|Reading: lenses",
                LENS,
                "c|Reading: colour",
                GEL,
                "d|Old lamps",
                "<p>Carbon arcs were tended by hand.</p>"));
    String master = master("E1", first);
    edit(
        master,
        "Reading: power",
        "{\"html\":\"" + POWER.replace("together.", "together. Ours: the Mill has two.") + "\"}");
    edit(master, "Reading: lenses", "{\"html\":\"<p>Wholly ours.</p>\"}");
    String second =
        edition(
            "Light, once more",
            "maker-number-0001",
            of(
                "a|Safe loads",
                POWER.replace("2,400 watts", "1,920 watts in steady use"),
                "x|Reading: mixing",
                "<p>Mixing three lights gives white where they meet on the cloth.</p>",
                "b|Reading: lenses",
                LENS.replace("designer", "lighting designer"),
                "c|Reading: colour",
                GEL));
    JsonNode seen = coordinator.get("/api/cartridges/editions/" + second).json();
    assertThat(seen.path("number").asInt())
        .as("the same cartridge under another title")
        .isEqualTo(2);
    assertThat(coordinator.get("/api/masters/" + master).json().path("newerEdition").asString())
        .isEqualTo(second);

    JsonNode view = coordinator.get(merge(master, second)).json();
    assertThat(change(view, "Safe loads").path("what").asString()).isEqualTo("CLASH");
    assertThat(change(view, "Reading: lenses").path("what").asString()).isEqualTo("CLASH");
    assertThat(change(view, "Reading: mixing").path("what").asString()).isEqualTo("ADD");
    assertThat(change(view, "Old lamps").path("what").asString()).isEqualTo("RETIRE");
    assertThat(change(view, "Reading: colour").path("what").asString()).isEqualTo("SAME");

    String power = change(view, "Safe loads").path("key").asString();
    JsonNode sides = coordinator.get(merge(master, second) + "/items/" + power).json();
    assertThat(sides.path("clean").asBoolean()).isTrue();
    assertThat(sides.path("mergedHtml").asString())
        .contains("1,920 watts in steady use")
        .contains("the Mill has two");

    Caller.Answer taken =
        coordinator.post(
            merge(master, second) + "/take", "{\"sides\":{\"" + power + "\":\"TOGETHER\"}}");
    assertThat(taken.json().path("taken").asInt()).as(taken.text()).isEqualTo(3);
    assertThat(titles(master))
        .containsExactly("Safe loads", "Reading: mixing", "Reading: lenses", "Reading: colour");
    assertThat(html(master, "Safe loads"))
        .contains("1,920 watts in steady use")
        .contains("the Mill has two");
    assertThat(html(master, "Reading: lenses")).isEqualTo("<p>Wholly ours.</p>");

    JsonNode left = coordinator.get(merge(master, second)).json();
    assertThat(change(left, "Reading: mixing").path("what").asString()).isEqualTo("SAME");
    assertThat(change(left, "Safe loads").path("what").asString())
        .as("a clash that was decided is none any more")
        .isEqualTo("SAME");
    coordinator.post("/api/masters/" + master + "/draft/undo", "");
    assertThat(
            change(coordinator.get(merge(master, second)).json(), "Safe loads")
                .path("what")
                .asString())
        .as("undone, it is asked again")
        .isEqualTo("CLASH");
    assertThat(titles(master))
        .containsExactly("Reading: power", "Reading: lenses", "Reading: colour", "Old lamps");
    coordinator.post("/api/masters/" + master + "/draft/redo", "");
    assertThat(titles(master)).contains("Reading: mixing");

    assertThat(coordinator.post(merge(master, second) + "/finish", "").status()).isEqualTo(200);
    assertThat(coordinator.get("/api/masters/" + master).json().path("builtOn").asString())
        .endsWith("edition 2");
    assertThat(coordinator.get(merge(master, second)).status()).isEqualTo(422);
  }

  @Test
  void aDecidedPairIsRememberedForEveryMasterAndCanBeTakenBack() throws Exception {
    sections("lgt-ed2");
    String first = edition("Light E2", "maker-number-0002", of("a|First", LENS, "b|Second", GEL));
    String one = master("E2a", first);
    String two = master("E2b", first);
    String second =
        edition(
            "Light E2",
            "maker-number-0002",
            of(
                "p|First, again",
                LENS,
                "q|Second, again",
                GEL,
                "s|Third",
                "<p>Who is called when.</p>"));
    JsonNode view = coordinator.get(merge(one, second)).json();
    String older = view.path("older").get(0).path("key").asString();
    String third = view.path("newer").get(2).path("key").asString();
    assertThat(
            coordinator
                .call(
                    "PUT", merge(one, second) + "/pairs/" + older, "{\"newer\":\"" + third + "\"}")
                .status())
        .isEqualTo(200);
    JsonNode other = coordinator.get(merge(two, second)).json();
    assertThat(
            other
                .path("pairs")
                .valueStream()
                .filter(p -> p.path("older").asString().equals(older))
                .toList())
        .singleElement()
        .satisfies(
            p -> {
              assertThat(p.path("newer").asString()).isEqualTo(third);
              assertThat(p.path("certainty").asString()).isEqualTo("DECIDED");
            });
    coordinator.call("DELETE", merge(one, second) + "/pairs/" + older, null);
    assertThat(
            coordinator
                .get(merge(two, second))
                .json()
                .path("pairs")
                .valueStream()
                .map(p -> p.path("certainty").asString()))
        .doesNotContain("DECIDED");
  }

  @Test
  void aMasterOfNoCartridgeIsToldSo() throws Exception {
    sections("lgt-ed4");
    String edition = edition("Light E4", "maker-number-0004", of("a|A", LENS));
    String id =
        coordinator
            .post("/api/masters", "{\"code\":\"E4\",\"title\":\"Own\",\"courses\":[]}")
            .json()
            .path("id")
            .asString();
    Caller.Answer a = coordinator.get(merge(id, edition));
    assertThat(a.status()).isEqualTo(422);
    assertThat(a.json().path("detail").asString()).contains("not built on a cartridge");
  }

  @Test
  void editionsAreJoinedAndPartedByHand() throws Exception {
    sections("lgt-ed5");
    String one = edition("Joined E5", "maker-number-0005", of("a|A", LENS));
    String other = edition("Elsewhere E5", "maker-number-0055", of("a|A", GEL));
    String path = "/api/cartridges/editions/";
    String cartridge = coordinator.get(path + one).json().path("cartridge").asString();
    coordinator.put(path + other + "/cartridge", "{\"cartridge\":\"" + cartridge + "\"}");
    assertThat(coordinator.get(path + other).json().path("number").asInt()).isEqualTo(2);
    assertThat(coordinator.get(path + other).json().path("title").asString())
        .isEqualTo("Joined E5");
    String master = master("E5", one);
    assertThat(coordinator.get(merge(master, other)).status()).isEqualTo(200);
    coordinator.put(path + other + "/cartridge", "{}");
    assertThat(coordinator.get(path + other).json().path("number").asInt()).isEqualTo(1);
    assertThat(coordinator.get(merge(master, other)).status()).isEqualTo(422);
  }

  /** Nobody has to say first that the master is built on the second. */
  @Test
  void whatWasTakenOfTheSecondEditionDoesNotComeTwiceWithTheThird() throws Exception {
    sections("lgt-ed8");
    String cue = "<p>A cue light says stand by in red, and go in green.</p>";
    String first = edition("Light E8", "maker-number-0008", of("a|Reading: power", POWER));
    String master = master("E8", first);
    String second =
        edition(
            "Light E8",
            "maker-number-0008",
            of("a|Reading: power", POWER + "<p>Second.</p>", "b|Reading: cues", cue));
    String added =
        coordinator
            .get(merge(master, second))
            .json()
            .path("changes")
            .valueStream()
            .filter(c -> c.path("what").asString().equals("ADD"))
            .findFirst()
            .orElseThrow()
            .path("key")
            .asString();
    coordinator.post(merge(master, second) + "/take", "{\"keys\":[\"" + added + "\"]}");
    String third =
        edition(
            "Light E8",
            "maker-number-0008",
            of("a|Reading: power", POWER + "<p>Third.</p>", "z|Reading: cues", cue));
    JsonNode view = coordinator.get(merge(master, third)).json();
    assertThat(change(view, "Reading: cues").path("what").asString()).isEqualTo("SAME");
    assertThat(change(view, "Reading: power").path("what").asString()).isEqualTo("TAKE");
    take(master, third);
    assertThat(titles(master)).containsExactly("Reading: power", "Reading: cues");
    assertThat(html(master, "Reading: power")).contains("Third.").doesNotContain("Second.");
  }

  @Test
  void twoWhoBuildItOnTheSameEditionAtOnceDoItOnce() throws Exception {
    sections("lgt-ed7");
    String master = master("E7", edition("Light E7", "maker-number-0007", of("a|First", LENS)));
    String second = edition("Light E7", "maker-number-0007", of("a|First", LENS, "b|Next", GEL));
    take(master, second);
    String path = merge(master, second) + "/finish";
    List<Integer> answers =
        Stream.of(1, 2)
            .map(i -> CompletableFuture.supplyAsync(() -> coordinator.post(path, "").status()))
            .toList()
            .stream()
            .map(CompletableFuture::join)
            .toList();
    assertThat(answers).containsExactlyInAnyOrder(200, 422);
  }

  /** Publishers exchange and rename identifiers; the master's keys last through all editions. */
  @Test
  void aThirdEditionFindsItsItemsThoughTheSecondExchangedTheirIdentifiers() throws Exception {
    sections("lgt-ed9");
    String first =
        edition(
            "Light E9",
            "maker-number-0009",
            of("a|Reading: power", POWER, "b|Reading: lenses", LENS, "c|Reading: colour", GEL));
    String master = master("E9", first);
    String power = key(master, "Reading: power");
    String second =
        edition(
            "Light E9",
            "maker-number-0009",
            of(
                "b|Reading: power",
                POWER + "<p>Second.</p>",
                "a|Reading: lenses",
                LENS,
                "z|Reading: colour",
                GEL));
    take(master, second);
    assertThat(html(master, "Reading: power")).contains("Second.");
    assertThat(html(master, "Reading: lenses")).isEqualTo(LENS);
    coordinator.post(merge(master, second) + "/finish", "");
    String third =
        edition(
            "Light E9",
            "maker-number-0009",
            of(
                "b|Reading: power",
                POWER + "<p>Third.</p>",
                "a|Reading: lenses",
                LENS + "<p>Third too.</p>",
                "z|Reading: colour",
                GEL));
    take(master, third);
    assertThat(html(master, "Reading: power")).contains("Third.").doesNotContain("Second.");
    assertThat(html(master, "Reading: lenses")).contains("Third too.");
    assertThat(html(master, "Reading: colour")).isEqualTo(GEL);
    assertThat(titles(master)).filteredOn(t -> t.startsWith("Reading")).hasSize(3);
    assertThat(key(master, "Reading: power")).isEqualTo(power);
    assertThat(coordinator.get(merge(master, third)).json().path("changes").valueStream())
        .noneMatch(c -> c.path("what").asString().equals("TAKE"));
  }

  @Test
  void whatWasNotTakenOfAnEditionStaysOpenThoughTheMasterIsBuiltOnIt() throws Exception {
    sections("lgt-eda");
    String number = "maker-number-0010";
    String first =
        edition("Light EA", number, of("a|Reading: power", POWER, "b|Reading: lenses", LENS));
    String master = master("EA", first);
    String second =
        edition(
            "Light EA",
            number,
            of(
                "a|Reading: power",
                POWER + "<p>Second.</p>",
                "b|Reading: lenses",
                LENS + "<p>Second too.</p>",
                "c|Reading: colour",
                GEL));
    String only = "{\"keys\":[\"" + key(master, "Reading: power") + "\"]}";
    assertThat(coordinator.post(merge(master, second) + "/take", only).status()).isEqualTo(200);
    coordinator.post(merge(master, second) + "/finish", "");
    assertThat(html(master, "Reading: lenses")).isEqualTo(LENS);
    String third =
        edition(
            "Light EA",
            number,
            of(
                "a|Reading: power",
                POWER + "<p>Second.</p>",
                "b|Reading: lenses",
                LENS + "<p>Second too.</p>",
                "c|Reading: colour",
                GEL,
                "d|Reading: haze",
                "<p>Haze shows the beam.</p>"));
    JsonNode view = coordinator.get(merge(master, third)).json();
    assertThat(change(view, "Reading: power").path("what").asString()).isEqualTo("SAME");
    assertThat(change(view, "Reading: lenses").path("what").asString()).isEqualTo("TAKE");
    assertThat(change(view, "Reading: colour").path("what").asString()).isEqualTo("ADD");
    take(master, third);
    assertThat(html(master, "Reading: lenses")).contains("Second too.");
    assertThat(titles(master))
        .containsExactly("Reading: power", "Reading: lenses", "Reading: colour", "Reading: haze");
  }

  private void take(String master, String edition) {
    Caller.Answer taken = coordinator.post(merge(master, edition) + "/take", "{}");
    assertThat(taken.status()).as(taken.text()).isEqualTo(200);
    assertThat(taken.json().path("left").asInt()).isZero();
  }
}
