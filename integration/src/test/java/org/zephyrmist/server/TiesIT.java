package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Sections that are tied to wrong courses on a tool's side, and how they come to their own. */
class TiesIT extends ToolsStage {
  private static final String CUEBENCH = "cuebench.example";

  @BeforeEach
  void tools() throws Exception {
    PracticeTools.start(POSTGRES, DATABASE);
    PracticeTools.key(CUEBENCH, "larkmoor", "practice");
  }

  /** Other tests have connections of their own for this host, and know of one term. */
  @AfterEach
  void end() {
    db.execute(
        "delete from tool_connection where id in (select connection_id from tool_host where host ="
            + " ?)",
        CUEBENCH);
    db.execute(
        "update section set term_id = (select id from term where sourced_id = 't1') where term_id in"
            + " (select id from term where sourced_id = 'ties-before')");
    db.execute("delete from term where sourced_id = 'ties-before'");
  }

  private UUID connected(String name, String pairing, String more, List<UUID> to) throws Exception {
    end();
    UUID c =
        add(
            connection(
                    name,
                    CUEBENCH,
                    "KEY_AND_SECRET",
                    "\"CREDENTIALS\",\"PAIRING\",\"FIRST_OPENING\"",
                    ",\"words\":\"Tied to course {course}\",\"key\":\"larkmoor\",\"secret\":\"practice\""
                        + more)
                .replace("\"BY_ANSWER\"", "\"" + pairing + "\""));
    for (UUID s : to) {
      await(() -> state(s, CUEBENCH), x -> !x.isEmpty());
    }
    apply(c, to, true);
    return c;
  }

  private Caller.Answer mend(List<UUID> to, String course) {
    String ids = to.stream().map(s -> "\"" + s + "\"").collect(Collectors.joining(","));
    return coordinator.post(
        "/api/tools/ties",
        "{\"sections\":[%s],\"host\":\"%s\"%s}"
            .formatted(ids, CUEBENCH, course == null ? "" : ",\"course\":\"" + course + "\""));
  }

  private void answered(String shell, UUID section, String course) throws Exception {
    String asked = PracticeTools.open(shell, "Open " + CUEBENCH);
    PracticeTools.answer(
        asked, "/answer/course", course.isEmpty() ? Map.of() : Map.of("course", course));
    look(section);
  }

  private String course(UUID section) {
    return db.fetchSingle(
            "select course from section_tool where section_id = ? and host = ?", section, CUEBENCH)
        .get(0, String.class);
  }

  @Test
  void aTieToAnotherTermIsFoundAndMendedByACourseThatLaunchesName() throws Exception {
    List<UUID> to = delivered("TLT1", new String[] {CUEBENCH}, "lgt-ty1", "lgt-ty2", "lgt-ty3");
    connected("CueBench ties", "BY_ANSWER", "", to);
    comes(to.get(0), CUEBENCH, "NOT_OPENED NOT_PAIRED");
    answered("lgt-ty1", to.get(0), "");
    comes(to.get(0), CUEBENCH, "WORKS WORKS");
    String old = course(to.get(0));
    inAnEarlierTerm(to.get(0));
    answered("lgt-ty2", to.get(1), old);
    comes(to.get(1), CUEBENCH, "TIED_WRONGLY OTHER_TERM");

    List<UUID> wrong = to.subList(1, 2);
    assertThat(mend(to.subList(1, 3), "spring").json().path("detail").asString())
        .contains("would both come to spring");
    assertThat(mend(wrong, old).json().path("detail").asString())
        .contains("is tied to " + old + " already");
    assertThat(mend(wrong, "{mode}").json().path("detail").asString())
        .contains("{mode} is no value of a section");
    assertThat(state(to.get(1), CUEBENCH)).isEqualTo("TIED_WRONGLY OTHER_TERM");

    assertThat(mend(wrong, "cu-{section}").json().path("sections").asInt()).isEqualTo(1);
    comes(to.get(1), CUEBENCH, "NOT_OPENED NEVER_OPENED");
    assertThat(course(to.get(1))).isEqualTo("cu-lgt-ty2");
    assertThat(PracticeTools.openAs("lgt-ty2", "Open " + CUEBENCH, "Bo"))
        .contains("Your instructor has to open this first.");
    assertThat(PracticeTools.open("lgt-ty2", "Open " + CUEBENCH)).contains("cu-lgt-ty2");
    look(to.get(1));
    comes(to.get(1), CUEBENCH, "WORKS WORKS");
  }

  private void inAnEarlierTerm(UUID section) {
    UUID term = UUID.randomUUID();
    db.insertInto(TERM)
        .set(TERM.ID, term)
        .set(TERM.SOURCED_ID, "ties-before")
        .set(TERM.TITLE, "Before")
        .set(TERM.FIRST_DAY, LocalDate.now().minusDays(200))
        .set(TERM.LAST_DAY, LocalDate.now().minusDays(100))
        .execute();
    db.update(SECTION).set(SECTION.TERM_ID, term).where(SECTION.ID.eq(section)).execute();
  }

  @Test
  void instructorsAnswerAnewAndWhatTheySaidBeforeDoesNotCount() throws Exception {
    List<UUID> to = delivered("TLT2", new String[] {CUEBENCH}, "lgt-tz1", "lgt-tz2");
    connected("CueBench anew", "BY_ANSWER", "", to);
    comes(to.get(1), CUEBENCH, "NOT_OPENED NOT_PAIRED");
    answered("lgt-tz1", to.get(0), "");
    comes(to.get(0), CUEBENCH, "WORKS WORKS");
    answered("lgt-tz2", to.get(1), course(to.get(0)));
    comes(to.get(1), CUEBENCH, "TIED_WRONGLY SHARED_COURSE");
    assertThat(mend(to.subList(1, 2), null).json().path("sections").asInt()).isEqualTo(1);
    assertThat(state(to.get(1), CUEBENCH)).isEqualTo("NOT_OPENED NOT_PAIRED");
    look(to.get(1));
    await(
        () ->
            db.fetchSingle("select wanted from tool_look where section_id = ?", to.get(1))
                .get(0, Boolean.class),
        wanted -> !wanted);
    assertThat(state(to.get(1), CUEBENCH)).as("said before").isEqualTo("NOT_OPENED NOT_PAIRED");
    String inside = PracticeTools.open("lgt-tz2", "Open " + CUEBENCH);
    String asked = PracticeTools.answer(inside, "/answer/anew");
    assertThat(asked).contains("Which course does");
    assertThat(PracticeTools.answer(asked, "/answer/course")).contains("Tied to course cu-");
    look(to.get(1));
    comes(to.get(1), CUEBENCH, "WORKS WORKS");
    assertThat(course(to.get(1))).isNotEqualTo(course(to.get(0)));
    assertThat(state(to.get(0), CUEBENCH)).isEqualTo("WORKS WORKS");
  }

  @Test
  void whereLaunchesNameTheCourseNobodyIsAsked() throws Exception {
    List<UUID> to = delivered("TLT3", new String[] {CUEBENCH}, "lgt-tx1", "lgt-tx2");
    connected("CueBench named", "BY_PARAMETER", ",\"course\":\"cu-{section}-{term}\"", to);
    comes(to.get(0), CUEBENCH, "NOT_OPENED NEVER_OPENED");
    assertThat(PracticeTools.open("lgt-tx1", "Open " + CUEBENCH)).contains("cu-lgt-tx1-");
    look(to.get(0));
    comes(to.get(0), CUEBENCH, "WORKS WORKS");
    assertThat(state(to.get(1), CUEBENCH)).isEqualTo("NOT_OPENED NEVER_OPENED");
  }

  @Test
  void theMastersOwnCourseIsNobodys() throws Exception {
    List<UUID> to = delivered("TLT4", new String[] {CUEBENCH}, "lgt-tw1");
    connected("CueBench master", "BY_ANSWER", "", to);
    comes(to.get(0), CUEBENCH, "NOT_OPENED NOT_PAIRED");
    answered("lgt-tw1", to.get(0), "");
    comes(to.get(0), CUEBENCH, "WORKS WORKS");
    connected(
        "CueBench master 2",
        "BY_ANSWER",
        ",\"mastersCourses\":[\"" + course(to.get(0)) + "\"]",
        to);
    comes(to.get(0), CUEBENCH, "TIED_WRONGLY MASTERS_COURSE");
  }

  @Test
  void aPatternAndTheWayToTheCourseBelongTogether() {
    JsonNode a =
        administrator
            .post(
                "/api/tools/connections",
                connection("Odd", "odd.example", "OPEN", "\"PAIRING\"", ",\"course\":\"x\""))
            .json();
    assertThat(a.path("detail").asString()).contains("A course is named where launches name it");
  }
}
