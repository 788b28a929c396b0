package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Clashes and twins of a plan, decided one by one and for all that are alike. */
class DecisionIT extends ServerIT {
  private static final String BEFORE =
      "<p>A circuit carries 2,400 watts.</p><p>Count each lamp.</p>";
  private static final String OURS = "<p>A circuit carries 1,920 watts.</p><p>Count each lamp.</p>";
  private static final String THEIRS =
      "<p>A circuit carries 2,300 watts.</p><p>Count each lamp.</p>";
  private static final String BESIDE =
      "<p>A circuit carries 2,400 watts.</p><p>Count each lamp, and the practicals.</p>";

  private String clashing(String code, List<UUID> to, List<String> shells) throws Exception {
    return changed(code, to, shells, THEIRS);
  }

  /** Version 3 is frozen after instructors changed a text of version 2. */
  private String changed(String code, List<UUID> to, List<String> shells, String theirs)
      throws Exception {
    String master = master(code);
    edit(master, "Checklist", "{\"html\":\"" + BEFORE + "\"}");
    freeze(master, "before");
    deliver(master, 2, to);
    for (String s : shells) {
      Practice.form(s, "Checklist", "text", Map.of("title", "Checklist", "html", theirs));
    }
    edit(master, "Checklist", "{\"html\":\"" + OURS + "\"}");
    freeze(master, "corrected");
    return master;
  }

  private JsonNode line(String delivery, int n) {
    return coordinator.get("/api/deliveries/" + delivery).json().path("lines").get(n);
  }

  private String step(String delivery, int line, String key) {
    return "/api/deliveries/%s/lines/%s/steps/%s"
        .formatted(delivery, line(delivery, line).path("id").asString(), key);
  }

  private int decide(String delivery, int line, String key, String body) {
    Caller.Answer a = coordinator.put(step(delivery, line, key) + "/decision", body);
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    rest(delivery, "PLANNING");
    return a.json().path("sections").asInt();
  }

  @Test
  void whatDoesNotMeetIsMergedByItselfInEachSectionWithItsOwnWords() throws Exception {
    List<UUID> to = sections("lgt-da1", "lgt-da2", "lgt-da3");
    List<String> shells = List.of("lgt-da1", "lgt-da2", "lgt-da3");
    String master = changed("QA", to, shells, BESIDE);
    Practice.form(
        "lgt-da3",
        "Checklist",
        "text",
        Map.of("title", "Checklist, Karl", "html", BESIDE + "<p>More.</p>"));
    String key = key(master, "Checklist");
    String delivery = plan(master, 3, to);
    JsonNode step = coordinator.get(step(delivery, 0, key)).json();
    assertThat(step.path("reason").asString()).isEqualTo("MERGED");
    assertThat(step.path("decide").path("clean").asBoolean()).isTrue();
    assertThat(step.path("decide").path("html").asString()).contains("1,920", "the practicals");
    coordinator.post("/api/deliveries/" + delivery + "/confirm", "");
    rest(delivery, "RUNNING");
    for (String shell : shells.subList(0, 2)) {
      assertThat(Practice.html(shell, "Checklist")).contains("1,920", "and the practicals");
    }
    assertThat(Practice.html("lgt-da3", "Checklist, Karl"))
        .contains("1,920", "and the practicals", "More.");
    assertThat(Practice.titles("lgt-da3")).contains("Checklist, Karl");
    assertThat(deliver(master, 3, to).path("lines").get(0).path("activity").asString())
        .isEqualTo("nothing to do: it holds version 3; 1 local change kept");
    edit(master, "Checklist", "{\"html\":\"<p>First sign.</p>" + OURS + "\"}");
    freeze(master, "once more");
    deliver(master, 4, to);
    assertThat(Practice.html("lgt-da3", "Checklist, Karl"))
        .contains("1,920", "and the practicals", "More.", "First sign.");
    assertThat(Practice.titles("lgt-da3")).contains("Checklist, Karl");
  }

  @Test
  void aTextOfBothIsWrittenWhereverTheSameClashes() throws Exception {
    List<UUID> to = sections("lgt-di1", "lgt-di2", "lgt-di3");
    String master = clashing("QGA", to, List.of("lgt-di1", "lgt-di2", "lgt-di3"));
    Practice.form(
        "lgt-di3",
        "Checklist",
        "text",
        Map.of("title", "Checklist", "html", THEIRS + "<p>More.</p>"));
    String key = key(master, "Checklist");
    String delivery = plan(master, 3, to);
    JsonNode open = coordinator.get(step(delivery, 0, key)).json().path("decide");
    assertThat(open.path("alike").asInt()).isEqualTo(2);
    assertThat(open.path("all").asInt()).isEqualTo(3);
    assertThat(open.path("clean").asBoolean()).isFalse();
    String both = "<p>A circuit carries 1,920 watts, here 2,300.</p><p>Count each lamp.</p>";
    String take = "{\"take\":\"TOGETHER\",\"everywhere\":false,\"html\":\"" + both + "\"}";
    assertThat(decide(delivery, 0, key, take)).isEqualTo(2);
    assertThat(
            coordinator.get(step(delivery, 1, key)).json().path("decide").path("take").asString())
        .isEqualTo("TOGETHER");
    coordinator.post("/api/deliveries/" + delivery + "/confirm", "");
    rest(delivery, "RUNNING");
    for (String shell : List.of("lgt-di1", "lgt-di2")) {
      assertThat(Practice.html(shell, "Checklist")).isEqualTo(both);
    }
    assertThat(Practice.html("lgt-di3", "Checklist")).contains("2,300", "More.");
    assertThat(deliver(master, 3, to).path("lines").get(0).path("activity").asString())
        .as("it is decided, and what stays is the section’s own")
        .isEqualTo("nothing to do: it holds version 3; 1 local change kept");
  }

  @Test
  void takingBothInAllSectionsIsARuleThatGivesEachItsOwnWords() throws Exception {
    List<UUID> to = sections("lgt-dh1", "lgt-dh2");
    String master = clashing("QH", to, List.of("lgt-dh1", "lgt-dh2"));
    Practice.form(
        "lgt-dh2",
        "Checklist",
        "text",
        Map.of("title", "Checklist", "html", THEIRS.replace("2,300", "2,200")));
    String key = key(master, "Checklist");
    String delivery = plan(master, 3, to);
    decide(delivery, 0, key, "{\"take\":\"TOGETHER\",\"everywhere\":true}");
    Practice.form(
        "lgt-dh2",
        "Checklist",
        "text",
        Map.of("title", "Checklist", "html", THEIRS.replace("2,300", "2,100")));
    coordinator.post("/api/deliveries/" + delivery + "/confirm", "");
    rest(delivery, "RUNNING");
    assertThat(Practice.html("lgt-dh1", "Checklist"))
        .contains("2,300", "1,920")
        .doesNotContain("2,200", "2,100");
    assertThat(Practice.html("lgt-dh2", "Checklist"))
        .as("edited after the decision")
        .contains("2,100", "1,920")
        .doesNotContain("2,300");
  }

  @Test
  void aDecisionForAllCountsEverywhereAndCanBeTakenBack() throws Exception {
    List<UUID> to = sections("lgt-db1", "lgt-db2");
    String master = clashing("QB", to, List.of("lgt-db1", "lgt-db2"));
    String key = key(master, "Checklist");
    String delivery = plan(master, 3, to);
    assertThat(decide(delivery, 0, key, "{\"take\":\"VERSION\",\"everywhere\":true}")).isEqualTo(2);
    assertThat(line(delivery, 1).path("steps").asInt()).isEqualTo(1);
    assertThat(decide(delivery, 0, key, "{\"everywhere\":true}")).isEqualTo(2);
    assertThat(line(delivery, 1).path("steps").asInt()).isZero();
    Caller.Answer wrong =
        coordinator.put(
            step(delivery, 0, key) + "/decision", "{\"take\":\"ADOPT\",\"everywhere\":false}");
    assertThat(wrong.status()).isEqualTo(422);
    assertThat(wrong.json().path("detail").asString()).isEqualTo("It has no twin here.");
  }

  @Test
  void aClashOfAKindIsDecidedForAllOfItAndThePlanCanBeChosenAnew() throws Exception {
    List<UUID> to = sections("lgt-dbk1");
    String master = clashing("QBK", to, List.of("lgt-dbk1"));
    String delivery = plan(master, 3, to);
    assertThat(line(delivery, 0).path("steps").asInt()).isZero();
    String choices =
        "{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\",\"byKind\":{\"clash\":{\"%s\":\"TAKE_VERSION\"},\"twin\":{}}}";
    for (String kind : List.of("QUIZ", "PAGE")) {
      Caller.Answer a =
          coordinator.put("/api/deliveries/" + delivery + "/choices", choices.formatted(kind));
      assertThat(a.status()).as(a.text()).isLessThan(300);
      JsonNode detail = rest(delivery, "PLANNING");
      assertThat(detail.path("delivery").path("byKind").path("clash").path(kind).asString())
          .isEqualTo("TAKE_VERSION");
      assertThat(line(delivery, 0).path("steps").asInt()).isEqualTo(kind.equals("PAGE") ? 1 : 0);
    }
    String half = choices.replace(",\"twin\":{}", "").formatted("PAGE");
    assertThat(coordinator.put("/api/deliveries/" + delivery + "/choices", half).status())
        .isEqualTo(400);
  }

  @Test
  void whatStudentsLeftIsNeverRemovedAndHiddenOnlyByAPersonsWord() throws Exception {
    List<UUID> to = sections("lgt-dw1", "lgt-dw2");
    String master = master("QW");
    deliver(master, 1, to);
    String key = key(master, "Paper plot");
    for (String shell : List.of("lgt-dw1", "lgt-dw2")) {
      Practice.form(shell, "Paper plot", "post", Map.of("student", "A", "text", "Which bar?"));
    }
    coordinator.delete("/api/masters/" + master + "/draft/items/" + key);
    freeze(master, "without");
    String delivery = plan(master, 2, to);
    JsonNode step = coordinator.get(step(delivery, 0, key)).json();
    assertThat(step.path("kind").asString()).isEqualTo("BLOCKED");
    assertThat(step.path("decide").path("all").asInt()).isEqualTo(2);
    Caller.Answer wrong =
        coordinator.put(
            step(delivery, 0, key) + "/decision",
            "{\"take\":\"CHANGE_GRADING\",\"everywhere\":false}");
    assertThat(wrong.status()).isEqualTo(422);
    decide(delivery, 0, key, "{\"take\":\"LEAVE\",\"everywhere\":true}");
    JsonNode left = coordinator.get(step(delivery, 1, key)).json();
    assertThat(left.path("kind").asString()).isEqualTo("KEEP");
    assertThat(left.path("decide").path("take").asString()).isEqualTo("LEAVE");
    decide(delivery, 0, key, "{\"everywhere\":true}");
    assertThat(coordinator.get(step(delivery, 1, key)).json().path("kind").asString())
        .as("taken back, it is asked again")
        .isEqualTo("BLOCKED");
    assertThat(decide(delivery, 0, key, "{\"take\":\"HIDE\",\"everywhere\":true}")).isEqualTo(2);
    coordinator.post("/api/deliveries/" + delivery + "/confirm", "");
    rest(delivery, "RUNNING");
    for (String shell : List.of("lgt-dw1", "lgt-dw2")) {
      assertThat(Practice.item(shell, "Paper plot").path("posts").asInt()).isEqualTo(1);
      assertThat(Practice.item(shell, "Paper plot").path("visibility").path("shown").asBoolean())
          .isFalse();
    }
    assertThat(deliver(master, 2, to).path("lines").get(0).path("steps").asInt())
        .as("nobody is asked again")
        .isZero();
    String back =
        coordinator
            .post("/api/deliveries/" + delivery + "/take-back", "{}")
            .json()
            .path("id")
            .asString();
    rest(back, "PLANNING");
    coordinator.post("/api/deliveries/" + back + "/confirm", "");
    rest(back, "RUNNING");
    assertThat(Practice.item("lgt-dw1", "Paper plot").path("visibility").path("shown").asBoolean())
        .isTrue();
  }

  @Test
  void gradingUnderWhichStudentsLeftSomethingChangesByAWordThatCanBeTakenBack() throws Exception {
    List<UUID> to = sections("lgt-dx1");
    String master = master("QX");
    deliver(master, 1, to);
    String key = key(master, "Paper plot");
    Practice.form("lgt-dx1", "Paper plot", "work", Map.of("student", "A", "text", "mine"));
    edit(master, "Paper plot", "{\"points\":\"33\"}");
    freeze(master, "more points");
    String delivery = plan(master, 2, to);
    decide(delivery, 0, key, "{\"take\":\"CHANGE_GRADING\",\"everywhere\":false}");
    JsonNode step = coordinator.get(step(delivery, 0, key)).json();
    assertThat(step.path("kind").asString()).isEqualTo("UPDATE");
    assertThat(step.path("decide").path("take").asString()).isEqualTo("CHANGE_GRADING");
    decide(delivery, 0, key, "{\"everywhere\":false}");
    assertThat(coordinator.get(step(delivery, 0, key)).json().path("kind").asString())
        .isEqualTo("BLOCKED");
  }

  @Test
  void whatTheSectionChangesAfterTheDecisionIsNotOverwritten() throws Exception {
    List<UUID> to = sections("lgt-dc1");
    String master = clashing("QC", to, List.of("lgt-dc1"));
    String key = key(master, "Checklist");
    String delivery = plan(master, 3, to);
    decide(delivery, 0, key, "{\"take\":\"VERSION\",\"everywhere\":false}");
    Practice.form(
        "lgt-dc1", "Checklist", "text", Map.of("title", "Checklist", "html", "<p>Anew.</p>"));
    coordinator.post("/api/deliveries/" + delivery + "/confirm", "");
    rest(delivery, "RUNNING");
    assertThat(Practice.html("lgt-dc1", "Checklist")).isEqualTo("<p>Anew.</p>");
  }

  @Test
  void aTwinIsLeftOrGetsOursBesideItOneByOne() throws Exception {
    List<UUID> to = sections("lgt-dd1", "lgt-dd2");
    String master = master("QD");
    for (String shell : List.of("lgt-dd1", "lgt-dd2")) {
      Practice.addPage(shell, "Checklist", "<p>Their own.</p>");
    }
    String key = key(master, "Checklist");
    String delivery = plan(master, 1, to);
    assertThat(decide(delivery, 0, key, "{\"take\":\"ADD\",\"everywhere\":true}")).isEqualTo(2);
    coordinator.post("/api/deliveries/" + delivery + "/confirm", "");
    rest(delivery, "RUNNING");
    assertThat(Practice.titles("lgt-dd2")).filteredOn("Checklist"::equals).hasSize(2);
  }

  @Test
  void anEmptiedShellStaysAsItIsUntilAPersonSaysThatAllIsDeliveredAnew() throws Exception {
    List<UUID> to = sections("lgt-de1", "lgt-de2");
    String master = master("QE");
    deliver(master, 1, to);
    while (!Practice.titles("lgt-de1").isEmpty()) {
      Practice.form("lgt-de1", Practice.titles("lgt-de1").get(0), "delete", Map.of());
    }
    edit(master, "Checklist", "{\"html\":\"<p>Gloves and a card.</p>\"}");
    freeze(master, "corrected");
    JsonNode left = deliver(master, 2, to);
    assertThat(left.path("lines").get(0).path("activity").asString())
        .isEqualTo("left as it is: this shell was emptied");
    assertThat(Practice.titles("lgt-de1")).isEmpty();
    assertThat(Practice.html("lgt-de2", "Checklist")).contains("a card");
    assertThat(
            coordinator
                .get("/api/sections/" + to.get(0))
                .json()
                .path("masters")
                .get(0)
                .path("number")
                .asInt())
        .as("it was not given version 2")
        .isEqualTo(1);
    String again = plan(master, 2, to);
    coordinator.put(
        "/api/deliveries/" + again + "/choices",
        "{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\",\"emptied\":\"ANEW\"}");
    rest(again, "PLANNING");
    coordinator.post("/api/deliveries/" + again + "/confirm", "");
    rest(again, "RUNNING");
    assertThat(Practice.titles("lgt-de1")).contains("Checklist", "Paper plot", "Week 3");
    assertThat(deliver(master, 2, to).path("lines").get(0).path("activity").asString())
        .isEqualTo("nothing to do: it holds version 2");
  }

  @Test
  void aTwinWithAnotherTitleIsAdoptedAndItsEvidenceShown() throws Exception {
    List<UUID> to = sections("lgt-df1");
    String text =
        "A circuit carries 2,400 watts. Count every lamp before you hang it, write the sum on the"
            + " paper plot, and let a second person check it.";
    String master = master("QF");
    edit(master, "Checklist", "{\"html\":\"<p>" + text + "</p>\"}");
    freeze(master, "Longer");
    Practice.addPage("lgt-df1", "Before the focus", "<p>" + text + " Ask me.</p>");
    String delivery = plan(master, 2, to);
    JsonNode sides = coordinator.get(step(delivery, 0, key(master, "Checklist"))).json();
    assertThat(sides.path("kind").asString()).isEqualTo("TWIN");
    assertThat(sides.path("evidence").path("text").asDouble()).isGreaterThan(0.8);
    confirm(delivery);
    assertThat(Practice.titles("lgt-df1")).contains("Before the focus").doesNotContain("Checklist");
    assertThat(deliver(master, 2, to).path("lines").get(0).path("steps").asInt()).isZero();
  }

  @Test
  void aTwinOfAnEarlierTermGetsTheVersionsDates() throws Exception {
    List<UUID> to = sections("lgt-dg1");
    String master = master("QG");
    Practice.addPage("lgt-dg1", "Checklist", "<p>Theirs, and it stays.</p>");
    Practice.form("lgt-dg1", "Checklist", "due", Map.of("due", "2026-03-02T23:59"));
    String delivery = plan(master, 1, to);
    String checklist = step(delivery, 0, key(master, "Checklist"));
    JsonNode sides = coordinator.get(checklist).json();
    assertThat(sides.path("reason").asString())
        .as("alike by title alone: asked, whatever was chosen for twins")
        .isEqualTo("ALIKE_DOUBTFUL");
    decide(delivery, 0, key(master, "Checklist"), "{\"take\":\"ADOPT\",\"everywhere\":false}");
    assertThat(coordinator.get(checklist).json().path("reason").asString())
        .isEqualTo("ALIKE_EARLIER_TERM");
    confirm(delivery);
    JsonNode item = Practice.item("lgt-dg1", "Checklist");
    assertThat(item.path("wording").path("html").asString()).contains("and it stays");
    assertThat(item.path("timing").path("due").isMissingNode()).isTrue();
  }
}
