package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Items of a master written where they stand, and what is looked at before a version is frozen. */
class WritingIT extends ServerIT {
  private static final String VALUE =
      "<data class='z-value' value='%s'>%s</data>".replace('\'', '"');

  private String at(String master, String path) {
    return "/api/masters/" + master + path;
  }

  private String add(String master, String kind, String title) {
    Caller.Answer a =
        coordinator.post(
            at(master, "/draft/items"),
            "{\"kind\":\"" + kind + "\",\"title\":\"" + title + "\",\"address\":\"\"}");
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    return a.json().path("key").asString();
  }

  private JsonNode item(String master, String key) {
    return coordinator.get(at(master, "/versions/0/items/" + key)).json();
  }

  private Caller.Answer change(String master, String key, String body) {
    return coordinator.patch(at(master, "/draft/items/" + key), body);
  }

  private void changed(String master, String key, String body) {
    Caller.Answer a = change(master, key, body);
    assertThat(a.status()).as(a.text()).isEqualTo(200);
  }

  private List<String> rules(String master) {
    return coordinator
        .get(at(master, "/ready"))
        .json()
        .valueStream()
        .map(r -> r.path("rule").asString())
        .toList();
  }

  private static String quoted(String text) {
    return "\"" + text.replace("\"", "\\\"") + "\"";
  }

  @Test
  void everythingThatAnAssignmentHasCanBeWritten() throws Exception {
    sections("lgt-wa1");
    String master = masterOfItsOwn("WA");
    String rubric = add(master, "RUBRIC", "How a plot is graded");
    changed(master, rubric, "{\"criteria\":[{\"text\":\"Legible\",\"points\":\"4\"}]}");
    String labs = add(master, "GRADE_CATEGORY", "Labs");
    changed(master, labs, "{\"weight\":\"40\"}");
    String plot = key(master, "Paper plot");
    changed(
        master,
        plot,
        ("{\"category\":\"%s\",\"rubric\":\"%s\",\"attempts\":\"3\",\"handIn\":{\"ways\":[\"file\"],"
                + "\"endings\":[\"pdf\"],\"checked\":true},\"appliesTo\":{\"campuses\":[\"quay\"],"
                + "\"modes\":[],\"tags\":[\"evening\"],\"nobody\":false},\"conditions\":[{\"what\":\"READ\","
                + "\"item\":\"%s\"}]}")
            .formatted(labs, rubric, key(master, "Checklist")));
    JsonNode i = item(master, plot);
    assertThat(i.path("category").asString()).isEqualTo(labs);
    assertThat(i.path("attempts").asInt()).isEqualTo(3);
    assertThat(i.path("handIn").path("checked").asBoolean()).isTrue();
    assertThat(i.path("own").path("appliesTo").path("tags").get(0).asString()).isEqualTo("evening");
    assertThat(i.path("own").path("origin").asString()).isEqualTo("Light WA, edition 1");
    assertThat(i.path("conditions").get(0).path("what").asString()).isEqualTo("READ");
    assertThat(rules(master)).contains("WEIGHTS").doesNotContain("GONE", "CONDITION");
    changed(master, plot, "{\"attempts\":\"\",\"rubric\":\"\"}");
    assertThat(
            item(master, plot).path("attempts").isMissingNode()
                || item(master, plot).path("attempts").isNull())
        .isTrue();
    assertThat(change(master, plot, "{\"attempts\":\"-2\"}").status()).isEqualTo(422);
    assertThat(change(master, rubric, "{\"points\":\"4\"}").status()).isEqualTo(422);
    coordinator.post(at(master, "/draft/undo"), "");
    assertThat(item(master, plot).path("attempts").asInt()).isEqualTo(3);
  }

  @Test
  void aPictureIsSentNamedInATextAndShown() throws Exception {
    sections("lgt-wb1");
    String master = master("WB");
    byte[] png = "not really a picture".getBytes(StandardCharsets.UTF_8);
    JsonNode f = coordinator.upload(at(master, "/draft/files?fileName=plot.png"), png).json();
    assertThat(f.path("mediaType").asString()).isEqualTo("image/png");
    String sha = f.path("sha256").asString();
    String page = key(master, "Checklist");
    changed(
        master,
        page,
        "{\"html\":"
            + quoted("<p><img src=\"zref:file/" + sha + "/plot.png\" alt=\"Plot\"></p>")
            + "}");
    assertThat(coordinator.get(at(master, "/versions/0/items/" + page + "/page")).text())
        .contains("/api/files/" + sha + "/plot.png");
    assertThat(coordinator.download("/api/files/" + sha + "/plot.png")).isEqualTo(png);
    for (String odd : List.of("100%25%20sure.png", "a%3Bb.png", "%2525.png")) {
      assertThat(coordinator.download("/api/files/" + sha + "/" + odd)).as(odd).isEqualTo(png);
    }
    assertThat(coordinator.get("/api/files/" + sha + "/x;y=1").status()).isEqualTo(400);
    assertThat(coordinator.get("/api/files/%2e%2e%3B/people").status()).isEqualTo(400);
    Caller.Answer made =
        coordinator.post(
            at(master, "/draft/items"),
            "{\"kind\":\"FILE\",\"title\":\"Plot\",\"file\":{\"sha256\":\"%s\",\"name\":\"plot.png\"}}"
                .formatted(sha));
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    assertThat(
            change(
                    master,
                    key(master, "Paper plot"),
                    "{\"attached\":[{\"sha256\":\"" + "0".repeat(64) + "\",\"name\":\"x\"}]}")
                .json()
                .path("detail")
                .asString())
        .isEqualTo("“x” is not here.");
  }

  private static String question(String id, String html, String points) {
    return ("{\"id\":\"%s\",\"title\":\"\",\"type\":\"MULTIPLE_CHOICE\",\"html\":%s,\"answers\":["
            + "{\"id\":\"a\",\"html\":\"<p>15 A</p>\",\"percent\":\"100\",\"feedback\":\"\",\"exactCase\":false},"
            + "{\"id\":\"b\",\"html\":\"<p>99 A</p>\",\"percent\":\"0\",\"feedback\":\"\",\"exactCase\":false}],"
            + "\"points\":\"%s\",\"category\":\"\",\"shuffled\":true,\"notes\":{\"always\":\"\",\"right\":\"\","
            + "\"wrong\":\"\",\"hint\":\"\",\"solution\":\"\"},\"kept\":false}")
        .formatted(id, quoted(html), points);
  }

  @Test
  void questionsAreWrittenOneByOneAndThePointsFollow() throws Exception {
    sections("lgt-wc1");
    String master = master("WC");
    String quiz = add(master, "QUIZ", "Loads");
    String bank = add(master, "QUESTION_BANK", "Bank of loads");
    assertThat(rules(master)).contains("NO_BANK");
    String path = at(master, "/draft/items/" + quiz + "/questions");
    String both =
        "{\"asked\":{\"parts\":[{\"questions\":["
            + question("q1", "<p>How much?</p>", "2")
            + ","
            + question("q2", "<p>And now?</p>", "1.5")
            + "]}]}}";
    assertThat(coordinator.put(path, both).status()).isEqualTo(200);
    JsonNode i = item(master, quiz);
    assertThat(i.path("questions").asInt()).isEqualTo(2);
    assertThat(i.path("points").asString()).isEqualTo("3.5");
    String ident =
        coordinator
            .get(at(master, "/versions/0/items/" + quiz + "/questions"))
            .json()
            .path("banks")
            .get(0)
            .path("ident")
            .asString();
    coordinator.put(at(master, "/draft/items/" + bank + "/questions"), both);
    String drawn =
        "{\"asked\":{\"parts\":[{\"group\":{\"id\":\"g\",\"title\":\"Draw\",\"draw\":1,\"pointsEach\":\"2\","
            + "\"bank\":\"%s\"},\"questions\":[]}]}}";
    assertThat(coordinator.put(path, drawn.formatted(ident)).status()).isEqualTo(200);
    assertThat(rules(master)).doesNotContain("NO_BANK");
    assertThat(item(master, quiz).path("points").asString()).isEqualTo("2");
    assertThat(coordinator.put(path, drawn.formatted("away")).status()).isEqualTo(200);
    assertThat(rules(master)).contains("NO_BANK");
    Caller.Answer wrong =
        coordinator.put(path, both.replace("\"percent\":\"100\"", "\"percent\":\"0\""));
    assertThat(wrong.status()).isEqualTo(422);
    assertThat(wrong.json().path("detail").asString())
        .isEqualTo("Question 1: No answer earns all points.");
    String seen = item(master, quiz).path("aspects").path("WORDING").asString();
    coordinator.put(path, both);
    Caller.Answer late =
        coordinator.put(
            path, drawn.formatted(ident).replaceFirst("\\{", "{\"seen\":\"" + seen + "\","));
    assertThat(late.status()).as("somebody wrote meanwhile").isEqualTo(409);
  }

  @Test
  void aPictureInAQuestionIsFoundWhereThePlatformHasIt() throws Exception {
    List<UUID> to = sections("lgt-wq1");
    String master = master("WQ");
    byte[] png = "a picture of a load".getBytes(StandardCharsets.UTF_8);
    String sha =
        coordinator
            .upload(at(master, "/draft/files?fileName=load.png"), png)
            .json()
            .path("sha256")
            .asString();
    String quiz = add(master, "QUIZ", "Loads");
    String html = "<p><img src=\"zref:file/" + sha + "/load.png\" alt=\"Load\"> How much?</p>";
    Caller.Answer written =
        coordinator.put(
            at(master, "/draft/items/" + quiz + "/questions"),
            "{\"asked\":{\"parts\":[{\"questions\":[" + question("q1", html, "2") + "]}]}}");
    assertThat(written.status()).as(written.text()).isEqualTo(200);
    freeze(master, "pictures");
    deliver(master, 2, to);
    JsonNode file = Practice.item("lgt-wq1", "Loads").path("wording").path("more").path("file");
    String sent = file.path("sha256").asString();
    assertThat(Practice.page("/files/" + sent + "/q.xml?work=true"))
        .contains("/files/" + sha + "/load.png")
        .doesNotContain("zref:");
    assertThat(Practice.bytes("/files/" + sha + "/load.png")).isEqualTo(png);
    assertThat(deliver(master, 2, to).path("lines").get(0).path("activity").asString())
        .isEqualTo("nothing to do: it holds version 2");
  }

  @Test
  void valuesAreFilledInForEachSectionAndNotesStay() throws Exception {
    List<UUID> to = sections("lgt-wd1", "lgt-wd2");
    String master = master("WD");
    administrator.put("/api/values/help-desk", "{\"words\":\"help desk\",\"text\":\"555 010\"}");
    String html =
        "<p>"
            + VALUE.formatted("section-code", "section code")
            + ", call "
            + VALUE.formatted("help-desk", "help desk")
            + ", hours <span class=\"z-blank\">office hours</span></p>"
            + "<aside class=\"z-builder\"><p>Ask Quay.</p></aside>"
            + "<aside class=\"z-instructor\"><p>Key in the booth.</p></aside>";
    edit(master, "Checklist", "{\"html\":" + quoted(html) + "}");
    String mine = add(master, "PAGE", "What is left to do");
    changed(
        master,
        mine,
        "{\"html\":\"<p>Ours.</p>\",\"appliesTo\":{\"campuses\":[],\"modes\":[],\"tags\":[],\"nobody\":true}}");
    freeze(master, "values");
    deliver(master, 2, to);
    String code = coordinator.get("/api/sections/" + to.get(1)).json().path("code").asString();
    assertThat(Practice.html("lgt-wd2", "Checklist"))
        .isEqualTo("<p>" + code + ", call 555 010, hours [office hours]</p>");
    JsonNode note = Practice.item("lgt-wd2", "For instructors: Checklist");
    assertThat(note.path("wording").path("html").asString()).isEqualTo("<p>Key in the booth.</p>");
    assertThat(note.path("visibility").path("instructorsOnly").asBoolean()).isTrue();
    JsonNode held = coordinator.get("/api/sections/" + to.get(1)).json().path("masters").get(0);
    assertThat(held.path("held").asInt()).isEqualTo(held.path("expected").asInt());
    assertThat(Practice.titles("lgt-wd1")).doesNotContain("What is left to do");
    assertThat(deliver(master, 2, to).path("lines").get(0).path("activity").asString())
        .isEqualTo("nothing to do: it holds version 2");
    administrator.put("/api/values/help-desk", "{\"words\":\"help desk\",\"text\":\"555 020\"}");
    deliver(master, 2, to);
    assertThat(Practice.html("lgt-wd1", "Checklist")).contains("call 555 020");
    String page =
        coordinator
            .get(
                at(master, "/versions/2/items/" + key(master, "Checklist") + "/page?section=")
                    + to.get(0))
            .text();
    assertThat(page).contains("555 020").doesNotContain("Ask Quay");
    byte[] file =
        coordinator.download(at(master, "/versions/2/package?format=CC_1_3&section=" + to.get(0)));
    String edition = read(takeIn(file, "section.imscc")).path("edition").asString();
    assertThat(
            coordinator
                .get("/api/cartridges/editions/" + edition + "/outline")
                .json()
                .valueStream()
                .map(n -> n.path("title").asString()))
        .contains("For instructors: Checklist")
        .doesNotContain("What is left to do");
  }

  @Test
  void whatAnItemNamesIsNamedInTheShellByTheShellsOwnIdsAndComesBackEqual() throws Exception {
    List<UUID> to = sections("lgt-wm1");
    String master = master("WM");
    String labs = add(master, "GRADE_CATEGORY", "Labs");
    changed(master, labs, "{\"weight\":\"100\"}");
    String rubric = add(master, "RUBRIC", "How a plot is graded");
    String outcome = add(master, "OUTCOME", "Draws to scale");
    String crews = add(master, "GROUP_SET", "Crews");
    changed(master, crews, "{\"groups\":[\"North crew\",\"South crew\"]}");
    changed(
        master,
        rubric,
        "{\"criteria\":[{\"text\":\"Legible\",\"points\":\"4\",\"outcome\":\"%s\"}]}"
            .formatted(outcome));
    byte[] pdf = "a load table".getBytes(StandardCharsets.UTF_8);
    String sha =
        coordinator
            .upload(at(master, "/draft/files?fileName=loads.pdf"), pdf)
            .json()
            .path("sha256")
            .asString();
    changed(
        master,
        key(master, "Paper plot"),
        ("{\"category\":\"%s\",\"rubric\":\"%s\",\"groupSet\":\"%s\",\"conditions\":[{\"what\":\"READ\",\"item\":\"%s\"}],"
                + "\"attached\":[{\"sha256\":\"%s\",\"name\":\"loads.pdf\"}]}")
            .formatted(labs, rubric, crews, key(master, "Checklist"), sha));
    String menu = add(master, "SETUP", "Menu");
    changed(
        master,
        menu,
        ("{\"subject\":\"MENU\",\"entries\":[{\"label\":\"Plot\",\"value\":\"zref:item/%s\"},"
                + "{\"label\":\"Library\",\"value\":\"https://library.larkmoor.example/\"}]}")
            .formatted(key(master, "Paper plot")));
    freeze(master, "graded");
    deliver(master, 2, to);
    JsonNode plot = Practice.item("lgt-wm1", "Paper plot");
    assertThat(plot.path("grading").path("category").asString())
        .isEqualTo(Practice.item("lgt-wm1", "Labs").path("id").asString());
    assertThat(plot.path("grading").path("rubric").asString())
        .isEqualTo(Practice.item("lgt-wm1", "How a plot is graded").path("id").asString());
    assertThat(plot.path("grading").path("groupSet").asString())
        .isEqualTo(Practice.item("lgt-wm1", "Crews").path("id").asString());
    assertThat(
            Practice.item("lgt-wm1", "How a plot is graded")
                .path("wording")
                .path("more")
                .path("criteria")
                .get(0)
                .path("outcome")
                .asString())
        .isEqualTo(Practice.item("lgt-wm1", "Draws to scale").path("id").asString());
    assertThat(plot.path("visibility").path("conditions").get(0).path("item").asString())
        .isEqualTo(Practice.item("lgt-wm1", "Checklist").path("id").asString());
    JsonNode entries =
        Practice.item("lgt-wm1", "Menu").path("wording").path("more").path("entries");
    assertThat(entries.get(0).path("value").asString())
        .isEqualTo("/shells/lgt-wm1/items/" + plot.path("id").asString());
    assertThat(entries.get(1).path("value").asString()).startsWith("https://library");
    assertThat(Practice.bytes("/files/" + sha + "/loads.pdf")).isEqualTo(pdf);
    String page = "/shells/lgt-wm1?item=" + plot.path("id").asString();
    assertThat(Practice.page(page)).contains("after reading").doesNotContain("loads.pdf");
    Practice.page(
        "/shells/lgt-wm1?item=" + Practice.item("lgt-wm1", "Checklist").path("id").asString());
    assertThat(Practice.page(page))
        .contains(
            "loads.pdf", "after reading", "Counts into", "Labs", "Done by groups of", "Crews");
    assertThat(deliver(master, 2, to).path("lines").get(0).path("activity").asString())
        .isEqualTo("nothing to do: it holds version 2");
    JsonNode look = coordinator.get("/api/masters/shells/" + to.get(0)).json();
    assertThat(look.path("known").asInt()).isEqualTo(look.path("items").asInt());
  }

  @Test
  void aMasterThatIsLimitedIsNotFrozenWithMore() throws Exception {
    sections("lgt-we1");
    String master = master("WE");
    coordinator.put(at(master, "/guard"), "{\"most\":{\"PAGE\":1,\"ASSIGNMENT\":1}}");
    assertThat(rules(master)).contains("GUARD");
    edit(master, "Checklist", "{\"title\":\"Safety list\"}");
    Caller.Answer refused = freeze(master, "more");
    assertThat(refused.status()).isEqualTo(422);
    assertThat(refused.json().path("detail").asString()).contains("not meant to hold");
    coordinator.put(at(master, "/guard"), "{\"most\":{}}");
    assertThat(freeze(master, "more").status()).isEqualTo(201);
  }

  @Test
  void aVersionThatWasUsedStaysAndAnotherCanBeDeleted() throws Exception {
    List<UUID> to = sections("lgt-wf1");
    String master = master("WF");
    edit(master, "Checklist", "{\"html\":\"<p>One word.</p><p>Stays.</p>\"}");
    freeze(master, "two");
    deliver(master, 1, to);
    assertThat(coordinator.delete(at(master, "/versions/1")).status()).isEqualTo(409);
    edit(master, "Checklist", "{\"html\":\"<p>Two words.</p><p>Stays.</p>\"}");
    JsonNode text =
        coordinator
            .get(at(master, "/changes/" + key(master, "Checklist") + "?from=2&to=0"))
            .json()
            .path("blocks");
    assertThat(text).hasSize(2);
    assertThat(text.get(0).path("same").asBoolean()).isFalse();
    assertThat(text.get(0).path("after").path("words").toString())
        .contains("{\"text\":\"Two words.\",\"only\":true}");
    assertThat(text.get(1).path("same").asBoolean()).isTrue();
    assertThat(coordinator.delete(at(master, "/versions/2")).status()).isEqualTo(200);
    assertThat(freeze(master, "three").status()).isEqualTo(201);
    assertThat(coordinator.get(at(master, "")).json().path("versions")).hasSize(2);
  }

  @Test
  void tiedItemsAreNamedAndWhoIsAtADraftIsSeen() throws Exception {
    sections("lgt-wg1");
    String master = master("WG");
    String a = key(master, "Checklist");
    String b = key(master, "Paper plot");
    coordinator.post(
        at(master, "/draft/tie"), "{\"keys\":[\"%s\",\"%s\"],\"together\":true}".formatted(a, b));
    assertThat(item(master, a).path("own").path("goesWith").get(0).asString()).isEqualTo(b);
    coordinator.post(at(master, "/draft/tie"), "{\"keys\":[\"" + a + "\"],\"together\":false}");
    assertThat(item(master, b).path("own").path("goesWith")).isEmpty();
    Caller other = another("wg@x.example", Role.DESIGNER, "light");
    String here = "{\"key\":\"" + a + "\",\"writing\":true}";
    assertThat(other.post(at(master, "/draft/here"), here).json()).isEmpty();
    JsonNode seen = coordinator.post(at(master, "/draft/here"), here).json();
    assertThat(seen.get(0).path("name").asString()).isEqualTo("wg@x.example");
    assertThat(seen.get(0).path("writing").asBoolean()).isTrue();
  }
}
