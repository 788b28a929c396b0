package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/**
 * What waits for others: listed by itself, given a day and an owner, reminded, and gone when done.
 */
class HandOversIT extends ToolsStage {
  private static final String HOST = "hand-over.example";

  private JsonNode handOver(UUID section, String kind) {
    return coordinator
        .get("/api/hand-overs?term=" + term())
        .json()
        .valueStream()
        .filter(h -> h.path("section").asString().equals("" + section))
        .filter(h -> h.path("kind").asString().equals(kind))
        .findFirst()
        .orElse(tools.jackson.databind.node.MissingNode.getInstance());
  }

  private Caller.Answer set(UUID section, String kind, String host, String more) {
    return coordinator.put(
        "/api/hand-overs",
        "{\"kind\":\"%s\",\"host\":\"%s\",\"sections\":[\"%s\"],%s}"
            .formatted(kind, host, section, more));
  }

  private int remind(List<UUID> sections, String kind, String host) {
    Caller.Answer a =
        coordinator.post(
            "/api/hand-overs/remind",
            "{\"kind\":\"%s\",\"host\":\"%s\",\"sections\":[%s]}"
                .formatted(
                    kind,
                    host,
                    sections.stream()
                        .map(s -> "\"" + s + "\"")
                        .collect(java.util.stream.Collectors.joining(","))));
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    return a.json().path("people").asInt();
  }

  @Test
  void peopleAreRemindedByItselfOfWhatSomebodyHasBegunToFollow() throws Exception {
    String host = "reminded.example";
    List<UUID> to = delivered("TLH4", new String[] {host}, "lgt-rm1", "lgt-rm2");
    another("rm-i@x.example", Role.INSTRUCTOR);
    db.execute(
        "insert into section_instructor (section_id, person_id) select s, p.id from"
            + " unnest(?::uuid[]) s, person p where p.email = 'rm-i@x.example'",
        (Object) to.toArray(UUID[]::new));
    add(connection("Reminded", host, "OPEN", "\"FIRST_OPENING\"", ""));
    comes(to.get(0), host, "NOT_OPENED NEVER_OPENED");
    set(
        to.get(0),
        "OPEN_ONCE",
        host,
        "\"due\":\"%s\",\"owner\":\"\",\"note\":\"\"".formatted(LocalDate.now().plusDays(5)));
    String ends = db.fetchSingle("select last_day from term where id = ?", term()).get(0) + "";
    lastDay(LocalDate.now().minusDays(1).toString());
    goesRound();
    assertThat(bodies("OPEN_ONCE " + host)).as("of a term that is over, nobody").isEmpty();
    lastDay(LocalDate.now().plusDays(30).toString());
    goesRound();
    List<String> sent = bodies("OPEN_ONCE " + host);
    assertThat(sent.stream().distinct().toList()).as("to each instructor of it").hasSize(1);
    assertThat(sent.get(0))
        .contains("It still waits for you to open Reminded once")
        .contains("lgt-rm1")
        .doesNotContain("lgt-rm2");
    assertThat(handOver(to.get(0), "OPEN_ONCE").path("reminded").asString()).isNotEmpty();
    goesRound();
    lastDay(ends);
    assertThat(bodies("OPEN_ONCE " + host)).as("once until its next day").hasSameSizeAs(sent);
  }

  private void lastDay(String day) {
    db.execute("update term set last_day = ?::date where id = ?", day, term());
  }

  /** Once more today. */
  private void goesRound() throws Exception {
    db.execute("update daily_round set went_on = null");
    await(
        () -> db.fetchSingle("select went_on is not null from daily_round").get(0, Boolean.class),
        b -> b);
  }

  private List<String> bodies(String about) {
    return db.fetch("select body from mail where about like ?", "hand-over " + about + "%")
        .map(r -> r.get(0, String.class));
  }

  @Test
  void aFirstOpeningIsHandedOverWithTheStepsOfTheCollegeAndEndsWhenItIsSeen() throws Exception {
    List<UUID> to = delivered("TLH1", new String[] {HOST}, "lgt-ho1", "lgt-ho2");
    another("ho-i@x.example", Role.INSTRUCTOR);
    db.execute(
        "insert into section_instructor (section_id, person_id) select ?, id from person where"
            + " email = 'ho-i@x.example'",
        to.get(0));
    add(connection("Handed over", HOST, "OPEN", "\"FIRST_OPENING\"", ""));
    comes(to.get(0), HOST, "NOT_OPENED NEVER_OPENED");
    assertThat(handOver(to.get(0), "OPEN_ONCE").path("who").asString()).isEqualTo("INSTRUCTORS");
    assertThat(
            coordinator
                .put(
                    "/api/hand-overs/steps",
                    "{\"kind\":\"OPEN_ONCE\",\"host\":\"hand-over.example\",\"steps\":\"Use"
                        + " Firefox.\",\"contact\":\"the help desk\"}")
                .status())
        .isEqualTo(200);
    set(
        to.get(0),
        "OPEN_ONCE",
        HOST,
        "\"due\":\"2020-01-05\",\"owner\":\"\",\"note\":\"Before week 1\"");
    JsonNode h = handOver(to.get(0), "OPEN_ONCE");
    assertThat(h.path("overdue").asBoolean()).isTrue();
    assertThat(h.path("steps").asString()).isEqualTo("Use Firefox.");
    assertThat(remind(to, "OPEN_ONCE", HOST)).isPositive();
    assertThat(remind(to, "OPEN_ONCE", HOST)).as("once a day").isZero();
    assertThat(bodies("OPEN_ONCE " + HOST))
        .anySatisfy(
            b ->
                assertThat(b)
                    .contains(
                        "lgt-ho1, Handed over, until 2020-01-05",
                        "Before week 1",
                        "Use Firefox.",
                        "Questions: the help desk"));
    assertThat(handOver(to.get(0), "OPEN_ONCE").path("reminded").asString()).isNotEmpty();
    coordinator.post(
        "/api/tools/done",
        "{\"sections\":[\"%s\"],\"host\":\"%s\",\"stage\":\"FIRST_OPENING\"}"
            .formatted(to.get(0), HOST));
    assertThat(handOver(to.get(0), "OPEN_ONCE").isMissingNode()).isTrue();
    assertThat(handOver(to.get(1), "OPEN_ONCE").isMissingNode()).isFalse();
  }

  @Test
  void whoeverIsNamedGetsTheMailAndAnAddressThatIsNobodysIsRefused() throws Exception {
    List<UUID> to = delivered("TLH2", new String[] {"ho-approve.example"}, "lgt-hp1");
    add(connection("To approve", "ho-approve.example", "OPEN", "\"APPROVAL\"", ""));
    comes(to.get(0), "ho-approve.example", "WAITS NOT_APPROVED");
    another("ho-owner@x.example", Role.DESIGNER);
    assertThat(
            set(
                    to.get(0),
                    "APPROVE",
                    "ho-approve.example",
                    "\"owner\":\"no@x.example\",\"note\":\"\"")
                .json()
                .path("detail")
                .asString())
        .isEqualTo("Nobody here has the address no@x.example.");
    assertThat(
            set(
                    to.get(0),
                    "APPROVE",
                    "ho-approve.example",
                    "\"owner\":\"HO-owner@x.example\",\"note\":\"\"")
                .status())
        .isEqualTo(200);
    JsonNode named = handOver(to.get(0), "APPROVE");
    assertThat(named.path("ownerMail").asString()).isEqualTo("ho-owner@x.example");
    assertThat(named.path("dueSet").asBoolean()).isFalse();
    assertThat(remind(to, "APPROVE", "ho-approve.example")).isEqualTo(1);
    assertThat(
            db.fetch("select address from mail where about like 'hand-over APPROVE ho-approve%'")
                .map(r -> r.get(0, String.class)))
        .containsExactly("ho-owner@x.example");
  }

  @Test
  void aSectionWhoseShellIsMissingIsToldUntilItIsThere() throws Exception {
    List<UUID> to = sections("lgt-hs1-pk");
    db.execute("update section set shell = null, platform_id = null where id = ?", to.get(0));
    JsonNode intake = read(takeIn(Samples.cartridge("Hand"), "h.imscc"));
    String id = master("TLH3", intake.path("edition").asString());
    deliver(id, 1, to);
    await(() -> handOver(to.get(0), "CREATE_SHELL"), h -> !h.isMissingNode());
    assertThat(handOver(to.get(0), "CREATE_SHELL").path("due").asString())
        .as("the day before the term")
        .isEqualTo(
            db.fetchSingle("select first_day from term where sourced_id = 't1'")
                .get(0, LocalDate.class)
                .minusDays(1)
                .toString());
  }
}
