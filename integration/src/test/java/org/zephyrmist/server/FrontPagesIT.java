package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Front pages of several masters that meet in one shell are one page there. */
class FrontPagesIT extends ServerIT {
  private String add(String master, String kind, String title, String html) {
    Caller.Answer a =
        coordinator.post(
            "/api/masters/" + master + "/draft/items",
            "{\"kind\":\"%s\",\"title\":\"%s\",\"html\":\"%s\"}".formatted(kind, title, html));
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    return a.json().path("key").asString();
  }

  /** A front page with a text, and an entry for each item of the master that is named. */
  private void front(String master, String title, String html, String... leads) throws Exception {
    add(master, "SETUP", title, "");
    StringBuilder entries = new StringBuilder();
    for (String l : leads) {
      entries
          .append(entries.isEmpty() ? "" : ",")
          .append("{\"label\":\"%s\",\"value\":\"zref:item/%s\"}".formatted(l, key(master, l)));
    }
    edit(
        master,
        title,
        "{\"subject\":\"FRONT_PAGE\",\"html\":\"%s\",\"entries\":[%s]}".formatted(html, entries));
  }

  private String frame(String code) throws Exception {
    Caller.Answer made =
        coordinator.post(
            "/api/masters", "{\"code\":\"" + code + "\",\"title\":\"Frame\",\"courses\":[]}");
    String frame = made.json().path("id").asString();
    add(frame, "PAGE", "Where to find help", "<p>Third door on the left.</p>");
    front(frame, "Front page", "<p>Welcome to the college</p>", "Where to find help");
    freeze(frame, "First");
    return frame;
  }

  private String course(String code) throws Exception {
    String course = master(code);
    add(course, "PAGE", "Where to find help", "<p>Third door on the left.</p>");
    front(course, "Start here", "<p>Stage Lighting</p>", "Checklist", "Where to find help");
    freeze(course, "With a front page");
    return course;
  }

  private static List<JsonNode> pages(String shell) throws Exception {
    return Practice.items(shell).stream()
        .filter(i -> i.path("kind").asString().equals("SETUP"))
        .toList();
  }

  private static String html(String shell) throws Exception {
    return pages(shell).get(0).path("wording").path("html").asString();
  }

  private static List<String> labels(String shell) throws Exception {
    assertThat(pages(shell)).hasSize(1);
    return pages(shell)
        .get(0)
        .path("wording")
        .path("more")
        .path("entries")
        .valueStream()
        .map(
            e -> {
              assertThat(e.path("value").asString()).isNotEqualTo("#");
              return e.path("label").asString();
            })
        .toList();
  }

  private JsonNode of(UUID section, String code) {
    return coordinator
        .get("/api/sections/" + section)
        .json()
        .path("masters")
        .valueStream()
        .filter(m -> m.path("code").asString().equals(code))
        .findFirst()
        .orElseThrow();
  }

  private void inStep(UUID section, String... codes) {
    for (String code : codes) {
      JsonNode m = of(section, code);
      assertThat(m.path("held").asInt()).as(code).isEqualTo(m.path("expected").asInt());
      assertThat(m.path("changed").asInt()).as(code + " changed here").isZero();
    }
  }

  @Test
  void theCoursesComesIntoTheFramesAndAllItsEntriesLeadToWhatArrived() throws Exception {
    List<UUID> to = sections("lgt-zfa1");
    String frame = frame("ZFAF");
    String course = course("ZFA");
    deliver(frame, 1, to);
    deliver(course, 2, to);
    assertThat(html("lgt-zfa1")).isEqualTo("<p>Welcome to the college</p><p>Stage Lighting</p>");
    assertThat(labels("lgt-zfa1")).containsExactly("Where to find help", "Checklist");
    inStep(to.get(0), "ZFAF", "ZFA");
    for (String m : List.of(frame, course)) {
      assertThat(
              deliver(m, m.equals(frame) ? 1 : 2, to)
                  .path("lines")
                  .get(0)
                  .path("activity")
                  .asString())
          .contains("nothing to do");
    }

    edit(frame, "Front page", "{\"html\":\"<p>Welcome again</p>\"}");
    freeze(frame, "Second");
    deliver(frame, 2, to);
    assertThat(html("lgt-zfa1")).isEqualTo("<p>Welcome again</p><p>Stage Lighting</p>");
    inStep(to.get(0), "ZFAF", "ZFA");

    coordinator.delete("/api/masters/" + course + "/draft/items/" + key(course, "Checklist"));
    freeze(course, "Third");
    deliver(course, 3, to);
    assertThat(labels("lgt-zfa1")).containsExactly("Where to find help");
    inStep(to.get(0), "ZFAF", "ZFA");
  }

  @Test
  void theFramesThatComesLaterTakesTheCoursesIn() throws Exception {
    List<UUID> to = sections("lgt-zfb1");
    String frame = frame("ZFBF");
    String course = course("ZFB");
    deliver(course, 2, to);
    assertThat(labels("lgt-zfb1")).containsExactly("Checklist", "Where to find help");
    deliver(frame, 1, to);
    assertThat(html("lgt-zfb1")).isEqualTo("<p>Welcome to the college</p><p>Stage Lighting</p>");
    inStep(to.get(0), "ZFBF", "ZFB");
    assertThat(deliver(course, 2, to).path("lines").get(0).path("activity").asString())
        .contains("nothing to do");
  }

  @Test
  void takenBackItSaysWhatTheFrameSaysAlone() throws Exception {
    List<UUID> to = sections("lgt-zfc1");
    String frame = frame("ZFCF");
    String course = course("ZFC");
    deliver(frame, 1, to);
    String id = deliver(course, 2, to).path("delivery").path("id").asString();
    Caller.Answer back = coordinator.post("/api/deliveries/" + id + "/take-back", "{}");
    assertThat(back.status()).as(back.text()).isEqualTo(201);
    String taken = back.json().path("id").asString();
    rest(taken, "PLANNING");
    confirm(taken);
    assertThat(html("lgt-zfc1")).isEqualTo("<p>Welcome to the college</p>");
    assertThat(labels("lgt-zfc1")).containsExactly("Where to find help");
    inStep(to.get(0), "ZFCF");
    deliver(frame, 1, to);
    assertThat(labels("lgt-zfc1")).containsExactly("Where to find help");
  }

  @Test
  void whatAnInstructorAddedToItIsAskedAboutAndNotOverwritten() throws Exception {
    List<UUID> to = sections("lgt-zfd1");
    String frame = frame("ZFDF");
    String course = course("ZFD");
    deliver(frame, 1, to);
    Practice.form(
        "lgt-zfd1",
        "Front page",
        "text",
        Map.of("title", "Front page", "html", "<p>Welcome to the college</p><p>Room 4 today</p>"));
    deliver(course, 2, to);
    assertThat(html("lgt-zfd1")).contains("Room 4 today");
    assertThat(of(to.get(0), "ZFD").path("changed").asInt()).isEqualTo(1);
  }
}
