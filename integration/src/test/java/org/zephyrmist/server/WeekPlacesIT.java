package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * The version needs more places for weeks than a shell has: they are added, or the week does not
 * come.
 */
class WeekPlacesIT extends ServerIT {
  private static List<String> places(String shell) throws Exception {
    return Practice.item(shell, "Week places")
        .path("wording")
        .path("more")
        .path("entries")
        .values()
        .stream()
        .map(e -> e.path("label").asString())
        .toList();
  }

  private static List<String> modulesAtTheTop(String shell) throws Exception {
    return Practice.items(shell).stream()
        .filter(i -> i.path("kind").asString().equals("MODULE"))
        .filter(i -> i.path("parent").asString("").isEmpty())
        .map(i -> i.path("wording").path("title").asString())
        .toList();
  }

  private String add(String master, String body) {
    Caller.Answer a = coordinator.post("/api/masters/" + master + "/draft/items", body);
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    return a.json().path("key").asString();
  }

  @Test
  void placesAreAddedAndNothingIsPiledIntoTheLastOne() throws Exception {
    List<UUID> to = sections("lgt-weeks1", "lgt-weeks2");
    Practice.weeks("lgt-weeks1", 2);
    String master = master("WEEKSA");
    String plan = plan(master, 1, to, "");
    assertThat(places("lgt-weeks1")).as("nothing moves before it is confirmed").hasSize(2);
    JsonNode run = confirm(plan);
    assertThat(places("lgt-weeks1")).startsWith("Week 1", "Week 2", "Week 3");
    assertThat(modulesAtTheTop("lgt-weeks1")).containsAll(modulesAtTheTop("lgt-weeks2"));
    assertThat(Practice.titles("lgt-weeks2")).doesNotContain("Week places");
    assertThat(run.path("lines").get(0).path("activity").asString()).contains("all as meant");

    JsonNode again = confirm(plan(master, 1, to, ""));
    assertThat(again.path("lines").get(0).path("activity").asString()).contains("nothing to do");
  }

  @Test
  void elseWeeksWithoutAPlaceDoNotComeAndComeOnceThereIsOne() throws Exception {
    List<UUID> to = sections("lgt-weeks3");
    Practice.weeks("lgt-weeks3", 2);
    String master = master("WEEKSB");
    String week = add(master, "{\"kind\":\"MODULE\",\"title\":\"Week 1\"}");
    add(master, "{\"kind\":\"PAGE\",\"title\":\"Ropes\",\"parent\":\"" + week + "\"}");
    freeze(master, "Two weeks");
    JsonNode run = confirm(plan(master, 2, to, "\"weeks\":\"LEAVE_OUT\""));
    assertThat(places("lgt-weeks3")).hasSize(2);
    assertThat(modulesAtTheTop("lgt-weeks3")).contains("Week 1").doesNotContain("Week 3");
    assertThat(run.path("lines").get(0).path("activity").asString())
        .contains("too few places for weeks");

    Practice.weeks("lgt-weeks3", 20);
    confirm(plan(master, 2, to, "\"weeks\":\"LEAVE_OUT\""));
    assertThat(modulesAtTheTop("lgt-weeks3")).contains("Week 3");
    assertThat(places("lgt-weeks3")).as("the section's own are left").hasSize(20);
  }
}
