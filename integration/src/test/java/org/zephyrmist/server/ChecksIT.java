package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** What checks find in shells, and what puts it right. */
class ChecksIT extends ServerIT {
  private String term() {
    return db.fetchSingle("select id from term where sourced_id = 't1'").get(0, String.class);
  }

  private static String quoted(List<UUID> ids) {
    return ids.stream().map(i -> "\"" + i + "\"").collect(Collectors.joining(",", "[", "]"));
  }

  /** Reads the shells again and waits until they were looked at. */
  private JsonNode looked(List<UUID> sections) {
    Caller.Answer a =
        coordinator.post("/api/deliveries/readings", "{\"sections\":" + quoted(sections) + "}");
    assertThat(a.status()).as(a.text()).isLessThan(300);
    await(
        () ->
            db.fetchSingle(
                    "select count(*)::int from section_checked c join shell_reading r using"
                        + " (section_id) where section_id = any(?::uuid[]) and c.at > r.read_at and"
                        + " not exists (select 1 from scheduled_tasks t where t.task_name ="
                        + " 'read-section' and t.task_instance = section_id::text)",
                    (Object) sections.toArray(UUID[]::new))
                .get(0, Integer.class),
        n -> n == sections.size());
    return coordinator.get("/api/checks?term=" + term()).json();
  }

  /** A row of the board that is about any of these sections. */
  private static JsonNode row(JsonNode board, String check, String words) {
    for (JsonNode g : board.path("groups")) {
      for (JsonNode r : g.path("rows")) {
        if (r.path("check").asString().equals(check)
            && r.path("words").asString().contains(words)) {
          return r;
        }
      }
    }
    throw new AssertionError("No " + check + " with " + words + " in " + board.path("groups"));
  }

  private static List<String> found(JsonNode board, UUID section) {
    int at = 0;
    for (JsonNode s : board.path("sections")) {
      if (s.path("id").asString().equals(section.toString())) {
        break;
      }
      at++;
    }
    int place = at;
    return board
        .path("groups")
        .valueStream()
        .flatMap(g -> g.path("rows").valueStream())
        .filter(r -> r.path("sections").valueStream().anyMatch(n -> n.asInt() == place))
        .map(r -> r.path("check").asString())
        .toList();
  }

  private List<String> mend(JsonNode row, List<UUID> sections, String more) {
    Caller.Answer a =
        coordinator.post(
            "/api/checks/" + row.path("check").asString() + "/mend",
            "{\"subject\":\"%s\",\"sections\":%s%s}"
                .formatted(row.path("subject").asString(), quoted(sections), more));
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    List<String> made = a.json().path("deliveries").valueStream().map(JsonNode::asString).toList();
    made.forEach(d -> rest(d, "PLANNING"));
    return made;
  }

  @Test
  void aBuilderNoteIsFoundTakenOutInAllShellsAndTakenBack() throws Exception {
    List<UUID> to = sections("lgt-kca1", "lgt-kca2");
    deliver(master("KCA"), 1, to);
    String note = "<p>Welcome.</p><p>For the builder: put your studio here.</p>";
    for (String shell : List.of("lgt-kca1", "lgt-kca2")) {
      Practice.addPage(shell, "Hello KCA", note);
    }
    JsonNode board = looked(to);
    JsonNode row = row(board, "BUILDER_NOTE", "Hello KCA");
    assertThat(row.path("sections")).hasSize(2);
    assertThat(row.path("weight").asString()).isEqualTo("HARM");
    JsonNode seen =
        coordinator
            .get(
                "/api/checks/BUILDER_NOTE?term=%s&subject=%s"
                    .formatted(term(), encoded(row.path("subject").asString())))
            .json();
    assertThat(seen.get(0).path("evidence").asString()).contains("For the builder");

    String delivery = mend(row, to, "").get(0);
    JsonNode plan = coordinator.get("/api/deliveries/" + delivery + "/plan").json();
    assertThat(plan.path("rows")).as("one row for what is one item in both shells").hasSize(1);
    assertThat(
            coordinator
                .get("/api/deliveries/" + delivery)
                .json()
                .path("delivery")
                .path("edit")
                .asString())
        .isEqualTo("Take out builder notes");
    JsonNode run = confirm(delivery);
    assertThat(run.path("lines").get(0).path("activity").asString())
        .as(run.toString())
        .isEqualTo("done in 1 item");
    assertThat(Practice.html("lgt-kca1", "Hello KCA")).isEqualTo("<p>Welcome.</p>");
    await(() -> found(looked(to), to.get(0)), f -> !f.contains("BUILDER_NOTE"));

    Practice.form(
        "lgt-kca2", "Hello KCA", "text", Map.of("title", "Hello KCA", "html", "<p>Mine.</p>"));
    Caller.Answer back = coordinator.post("/api/deliveries/" + delivery + "/take-back", "{}");
    String taken = back.json().path("id").asString();
    rest(taken, "PLANNING");
    JsonNode undone = confirm(taken);
    assertThat(Practice.html("lgt-kca1", "Hello KCA")).contains("For the builder");
    assertThat(Practice.html("lgt-kca2", "Hello KCA")).isEqualTo("<p>Mine.</p>");
    assertThat(undone.path("lines").get(1).path("activity").asString())
        .contains("1 item left as it is");
  }

  private static String encoded(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8);
  }

  @Test
  void whatWasTakenOutIsMissingAndComesAgainWithTheLedgerKnowing() throws Exception {
    List<UUID> to = sections("lgt-kcb1");
    String master = master("KCB");
    deliver(master, 1, to);
    Practice.form("lgt-kcb1", "Checklist", "delete", Map.of());
    JsonNode board = looked(to);
    assertThat(found(board, to.get(0))).contains("MISSING", "DEAD_LINK");
    confirm(mend(row(board, "MISSING", "Checklist"), to, "").get(0));
    assertThat(Practice.titles("lgt-kcb1")).contains("Checklist");
    JsonNode then = looked(to);
    assertThat(found(then, to.get(0))).doesNotContain("MISSING").contains("DEAD_LINK");
    confirm(mend(row(then, "DEAD_LINK", "Reading: loads"), to, "").get(0));
    assertThat(Practice.html("lgt-kcb1", "Reading: loads"))
        .as("its link leads to the one that came again")
        .contains("/items/" + Practice.item("lgt-kcb1", "Checklist").path("id").asString());
    assertThat(found(looked(to), to.get(0))).doesNotContain("MISSING", "DEAD_LINK");
  }

  @Test
  void whatIsRightAsItIsIsAskedNoMoreUntilItIsOtherwise() throws Exception {
    List<UUID> to = sections("lgt-kcc1");
    deliver(master("KCC"), 1, to);
    Practice.form("lgt-kcc1", "Paper plot", "due", Map.of("due", "2027-03-01T12:00"));
    JsonNode row = row(looked(to), "OUTSIDE_TERM", "Paper plot");
    String body =
        "{\"subject\":\"%s\",\"sections\":%s,\"reason\":\"Agreed with the dean\"}"
            .formatted(row.path("subject").asString(), quoted(to));
    assertThat(
            coordinator
                .post("/api/checks/OUTSIDE_TERM/right", body)
                .json()
                .path("sections")
                .asInt())
        .isEqualTo(1);
    assertThat(found(looked(to), to.get(0))).doesNotContain("OUTSIDE_TERM");
    JsonNode right = coordinator.get("/api/checks/right?term=" + term()).json();
    assertThat(right.toString()).contains("Agreed with the dean");
    Practice.form("lgt-kcc1", "Paper plot", "due", Map.of("due", "2027-04-01T12:00"));
    assertThat(found(looked(to), to.get(0))).contains("OUTSIDE_TERM");
    Caller.Answer none = coordinator.post("/api/checks/DOUBLED/right", body);
    assertThat(none.status()).isEqualTo(422);
    assertThat(none.text()).contains("not found in any of these sections any more");
  }

  @Test
  void aDateOfTheSectionsOwnIsPutBackAndTheTextItChangedStays() throws Exception {
    List<UUID> to = sections("lgt-kcd1");
    String master = master("KCD");
    edit(master, "Paper plot", "{\"due\":\"2026-10-05T23:59\"}");
    freeze(master, "Dated");
    deliver(master, 2, to);
    Practice.form("lgt-kcd1", "Paper plot", "due", Map.of("due", "2027-03-01T12:00"));
    Practice.form(
        "lgt-kcd1", "Paper plot", "text", Map.of("title", "Paper plot", "html", "<p>Mine.</p>"));
    JsonNode row = row(looked(to), "OUTSIDE_TERM", "Paper plot");
    confirm(mend(row, to, "").get(0));
    JsonNode now = Practice.item("lgt-kcd1", "Paper plot");
    assertThat(now.path("timing").path("due").asString()).startsWith("2026-10-05T23:59");
    assertThat(now.path("wording").path("html").asString()).isEqualTo("<p>Mine.</p>");
    assertThat(found(looked(to), to.get(0))).doesNotContain("OUTSIDE_TERM");
  }

  @Test
  void aPatternThatTheSectionsCalendarCannotKeepIsFoundUntilItCan() throws Exception {
    List<UUID> to = sections("lgt-kcj1");
    String master = master("KCJ");
    edit(master, "Paper plot", "{\"due\":\"meeting 2\"}");
    freeze(master, "By meetings");
    deliver(master, 2, to);
    JsonNode row = row(looked(to), "NO_DATE", "Paper plot");
    assertThat(row.path("mend").asString()).isEqualTo("CALENDAR");
    String meets =
        "{\"sections\":%s,\"weekly\":[{\"weekday\":3,\"begins\":\"18:30\",\"ends\":\"21:00\"}],\"cancelled\":[]}";
    assertThat(coordinator.put("/api/calendars/meetings", meets.formatted(quoted(to))).status())
        .isBetween(200, 204);
    assertThat(found(looked(to), to.get(0))).doesNotContain("NO_DATE");
  }

  @Test
  void aWrapperIsTakenAwayWithItsItemsKeptAndComesAgainWhenTakenBack() throws Exception {
    List<UUID> to = sections("lgt-kce1");
    String master = master("KCE");
    deliver(master, 1, to);
    String week = "ours " + master + " " + key(master, "Week 3");
    Caller.Answer made =
        coordinator.post(
            "/api/deliveries/edits",
            "{\"what\":\"UNWRAP\",\"sections\":%s,\"about\":[\"%s\"]}".formatted(quoted(to), week));
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    String delivery = made.json().path("id").asString();
    rest(delivery, "PLANNING");
    confirm(delivery);
    assertThat(Practice.titles("lgt-kce1")).doesNotContain("Week 3").contains("Checklist");
    assertThat(Practice.item("lgt-kce1", "Checklist").path("parent").asString("")).isEmpty();

    String back =
        coordinator
            .post("/api/deliveries/" + delivery + "/take-back", "{}")
            .json()
            .path("id")
            .asString();
    rest(back, "PLANNING");
    confirm(back);
    String module = Practice.item("lgt-kce1", "Week 3").path("id").asString();
    assertThat(Practice.item("lgt-kce1", "Checklist").path("parent").asString()).isEqualTo(module);
    String again = plan(master, 1, to);
    assertThat(
            coordinator
                .get("/api/deliveries/" + again)
                .json()
                .path("lines")
                .get(0)
                .path("steps")
                .asInt())
        .as("what came again is ours as it was")
        .isZero();
  }

  @Test
  void itemsAreHiddenAndOpenedFromADayOnInManyShells() throws Exception {
    List<UUID> to = sections("lgt-kcf1", "lgt-kcf2");
    String master = master("KCF");
    deliver(master, 1, to);
    String page = "ours " + master + " " + key(master, "Checklist");
    edited("{\"what\":\"HIDE\",\"sections\":%s,\"about\":[\"%s\"]}".formatted(quoted(to), page));
    assertThat(seen(to.get(0), "2026-11-28")).doesNotContain("Checklist");
    edited(
        "{\"what\":\"OPEN_FROM\",\"sections\":%s,\"about\":[\"%s\"],\"from\":\"2026-12-01T08:00\"}"
            .formatted(quoted(to), page));
    assertThat(seen(to.get(1), "2026-11-28"))
        .contains("Checklist [\"opens Tuesday 1 December, 08:00\"]");
    assertThat(seen(to.get(1), "2026-12-01")).contains("Checklist");
    assertThat(
            coordinator
                .get(
                    "/api/sections/%s/seen/%s"
                        .formatted(
                            to.get(0),
                            Practice.item("lgt-kcf1", "Checklist").path("id").asString()))
                .text())
        .contains("<p>Gloves.</p>");
    assertThat(
            coordinator
                .post(
                    "/api/deliveries/edits", "{\"what\":\"HIDE\",\"sections\":" + quoted(to) + "}")
                .text())
        .contains("No item is named.");
  }

  @Test
  void whatTwoMastersEachBroughtIsChangedTwice() throws Exception {
    List<UUID> to = sections("lgt-kcx1");
    deliver(master("KCH1"), 1, to);
    deliver(master("KCH2"), 1, to);
    String edit = "{\"what\":\"REPLACE\",\"sections\":%s,\"find\":\"%s\",\"put\":\"%s\"}";
    List<String> before = Practice.titles("lgt-kcx1");
    assertThat(before).filteredOn("Checklist"::equals).hasSize(2);
    edited(edit.formatted(quoted(to), "Checklist", "Walk round"));
    assertThat(Practice.titles("lgt-kcx1")).doesNotContain("Checklist");
    edited(edit.formatted(quoted(to), "Walk round", "Checklist"));
    assertThat(Practice.titles("lgt-kcx1")).isEqualTo(before);
  }

  private void edited(String body) {
    Caller.Answer made = coordinator.post("/api/deliveries/edits", body);
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    String id = made.json().path("id").asString();
    rest(id, "PLANNING");
    confirm(id);
  }

  private List<String> seen(UUID section, String on) {
    return coordinator
        .get("/api/sections/" + section + "/seen?on=" + on)
        .json()
        .path("lines")
        .valueStream()
        .map(
            l ->
                l.path("title").asString()
                    + (l.path("closed").isEmpty() ? "" : " " + l.path("closed")))
        .toList();
  }

  @Test
  void shellsAreOpenedOnADayAndInstructorsAskedForWhatIsLeft() throws Exception {
    List<UUID> to = sections("lgt-kcg1");
    deliver(master("KCG"), 1, to);
    LocalDate later = LocalDate.now().plusDays(3);
    Caller.Answer a =
        coordinator.post(
            "/api/checks/open", "{\"sections\":%s,\"opens\":\"%s\"}".formatted(quoted(to), later));
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    await(() -> page("lgt-kcg1"), p -> p.contains("opens on " + later));
    assertThat(found(looked(to), to.get(0))).contains("CLOSED");
    JsonNode row = row(looked(to), "NO_FRONT_PAGE", "");
    coordinator.post(
        "/api/checks/NO_FRONT_PAGE/ask",
        "{\"subject\":\"shell\",\"sections\":%s,\"note\":\"By Friday, please\"}"
            .formatted(quoted(to)));
    assertThat(row.path("whose").asString()).isEqualTo("COORDINATOR");
    String waiting = coordinator.get("/api/hand-overs?term=" + term()).text();
    assertThat(waiting).contains("PUT_RIGHT", "No front page");
    assertThat(
            coordinator
                .post(
                    "/api/checks/open",
                    "{\"sections\":%s,\"opens\":\"2026-12-02\",\"closes\":\"2026-12-01\"}"
                        .formatted(quoted(to)))
                .status())
        .isEqualTo(422);
  }

  @Test
  void aNoteToInstructorsIsNoLeftover() throws Exception {
    List<UUID> to = sections("lgt-kci1");
    String master = master("KCI");
    edit(
        master,
        "Checklist",
        "{\"html\":\"<p>Gloves.</p><aside class='z-instructor'><p>Count them.</p></aside>\"}");
    freeze(master, "With a note");
    deliver(master, 2, to);
    assertThat(Practice.titles("lgt-kci1")).contains("For instructors: Checklist");
    assertThat(found(looked(to), to.get(0))).doesNotContain("SURPLUS");
  }

  private static String page(String shell) {
    try {
      return Practice.page("/shells/" + shell);
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }

  @Test
  void aCheckThatIsNotLookedAtFindsNothingAndOthersKeepToTheirSections() throws Exception {
    List<UUID> to = sections("lgt-kch1");
    deliver(master("KCH"), 1, to);
    assertThat(found(looked(to), to.get(0))).contains("NO_FRONT_PAGE");
    assertThat(
            administrator
                .put("/api/checks/choices/NO_FRONT_PAGE", "{\"looked\":false,\"weight\":\"WRONG\"}")
                .status())
        .isEqualTo(200);
    assertThat(found(looked(to), to.get(0))).doesNotContain("NO_FRONT_PAGE");
    administrator.put(
        "/api/checks/choices/NO_FRONT_PAGE", "{\"looked\":true,\"weight\":\"WRONG\"}");
    Caller sound = another("kch-sound@x.example", Role.COORDINATOR, "sound");
    assertThat(sound.get("/api/checks?term=" + term()).text()).doesNotContain(to.get(0).toString());
    assertThat(
            sound
                .post(
                    "/api/checks/NO_FRONT_PAGE/right",
                    "{\"subject\":\"shell\",\"sections\":%s,\"reason\":\"x\"}"
                        .formatted(quoted(to)))
                .status())
        .isEqualTo(404);
  }
}
