package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** What can be found across sources. */
class LibraryIT extends ServerIT {
  private JsonNode search(Caller who, String q, String... facets) {
    StringBuilder address =
        new StringBuilder("/api/library?q=" + URLEncoder.encode(q, StandardCharsets.UTF_8));
    for (String f : facets) {
      address.append("&facet=").append(URLEncoder.encode(f, StandardCharsets.UTF_8));
    }
    Caller.Answer a = who.get(address.toString());
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    return a.json();
  }

  private static List<String> titles(JsonNode answer) {
    return answer.path("items").valueStream().map(i -> i.path("title").asString()).toList();
  }

  /** The words of a source are known some seconds after it came. */
  private JsonNode found(String q) {
    return await(() -> search(coordinator, q), a -> a.path("total").asInt() > 0);
  }

  @Test
  void anItemIsFoundByAnyFormOfAWordOfItsText() throws Exception {
    sections("lgt-li1");
    read(takeIn(Samples.cartridge("Library one", "<p>Wear welding gloves.</p>"), "l.imscc"));
    assertThat(titles(found("weld glove"))).contains("Checklist");
    assertThat(titles(search(coordinator, "Checklis")))
        .as("a part of a title")
        .contains("Checklist");
    assertThat(search(coordinator, "% _ ' \" & | ! ( <-> :*").path("total").asInt()).isZero();
  }

  @Test
  void facetsCountWhatIsFoundAndNarrowItDown() throws Exception {
    sections("lgt-li2");
    read(takeIn(Samples.cartridge("Library two", "<p>Sandbags everywhere.</p>"), "l.imscc"));
    found("sandbags");
    JsonNode one = search(coordinator, "", "SOURCE:Library two, edition 1");
    assertThat(one.path("total").asInt()).isEqualTo(5);
    assertThat(
            one.path("counts")
                .valueStream()
                .filter(c -> c.path("facet").asString().equals("KIND"))
                .map(c -> c.path("value").asString() + " " + c.path("items").asInt()))
        .contains("PAGE 2", "FILE 1", "WEB_LINK 1", "ASSIGNMENT 1");
    assertThat(titles(search(coordinator, "", "SOURCE:Library two, edition 1", "KIND:WEB_LINK")))
        .containsExactly("Manual");
    assertThat(titles(search(coordinator, "", "SOURCE:Library two, edition 1", "HOST:m.example")))
        .containsExactly("Manual");
    assertThat(coordinator.get("/api/library?facet=COLOUR:red").status()).isEqualTo(422);
  }

  @Test
  void aDraftIsFoundByWhatWasWrittenLastAndOnlyWithinReach() throws Exception {
    sections("lgt-li3");
    String master = master("LI");
    edit(master, "Checklist", "{\"html\":\"<p>Count the shackles.</p>\"}");
    assertThat(found("shackle").path("items").get(0).path("master").asString()).isEqualTo(master);
    Caller sound = another("li@x.example", Role.DESIGNER, "sound");
    assertThat(search(sound, "shackle").path("total").asInt()).isZero();
  }

  @Test
  void howManySectionsHoldAnItemStandsBesideIt() throws Exception {
    var ids = sections("lgt-li4", "lgt-li5");
    String master = masterOfItsOwn("LU");
    edit(master, "Checklist", "{\"html\":\"<p>Carabiners closed.</p>\"}");
    freeze(master, "second");
    deliver(master, 2, ids);
    JsonNode first = found("carabiner").path("items").get(0);
    assertThat(first.path("sections").asInt()).isEqualTo(2);
    assertThat(first.path("changed").asInt()).isZero();
  }
}
