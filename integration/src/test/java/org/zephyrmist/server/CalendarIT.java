package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Calendars, and what patterns of a master become by them in the shells of sections. */
class CalendarIT extends ServerIT {
  private static final String FOUNDERS =
      "{\"name\":\"Founders' Day\",\"first\":\"2026-10-05\",\"last\":\"2026-10-05\"}";

  @BeforeEach
  @AfterEach
  void noCalendars() {
    db.execute("delete from calendar");
    db.execute("delete from section_meeting");
    db.execute("delete from section_date");
  }

  private String term() {
    return db.fetchSingle("select id::text from term where sourced_id = 't1'").get(0, String.class);
  }

  static String entry(String name, String first, String last, String more) {
    return """
        {"name":"%s","first":"%s","last":"%s","zone":"America/Chicago","weeks":"CALENDAR",
         "weekdays":[1,2,3,4,5],"fit":"SHARE_SAME_WEEKDAY"%s}"""
        .formatted(name, first, last, more.contains("\"off\"") ? more : more + ",\"off\":[]");
  }

  private static String whole(String more) {
    return entry("Whole term", "2026-09-07", "2026-12-18", more);
  }

  private Caller.Answer put(String id, String entry) {
    return coordinator.put("/api/calendars/" + id, entry);
  }

  private void kept(Caller.Answer a) {
    assertThat(a.status()).as(a.text()).isBetween(200, 204);
  }

  private JsonNode calendars() {
    return coordinator.get("/api/calendars?term=" + term()).json();
  }

  private String due(String shell, String title) throws Exception {
    return Practice.item(shell, title).path("timing").path("due").asString();
  }

  private JsonNode ribbonDate(UUID section, String master, String item) {
    for (JsonNode row : ribbon().path("rows")) {
      if (row.path("sections").toString().contains(section.toString())) {
        for (JsonNode d : row.path("dates")) {
          if (d.path("master").asString().equals(master)
              && d.path("title").asString().equals(item)) {
            return d;
          }
        }
      }
    }
    throw new AssertionError("Not in the ribbon: " + item);
  }

  /** Sections whose shells have it so. */
  private static int there(JsonNode date) {
    return date.path("sections").asInt() - date.path("waiting").asInt();
  }

  private JsonNode ribbon() {
    return coordinator.get("/api/calendars/ribbon?term=" + term()).json();
  }

  @Test
  void aTermHasACalendarFromTheRosterUntilSomebodySaysMore() throws Exception {
    sections("lgt-cala1");
    JsonNode plain = calendars().get(0);
    assertThat(plain.path("whole").asBoolean()).isTrue();
    assertThat(plain.path("says").path("first").asString()).isEqualTo("2026-09-07");
    kept(
        put(
            term(),
            whole(
                ",\"off\":["
                    + FOUNDERS
                    + "],\"finalsFirst\":\"2026-12-21\",\"finalsLast\":\"2026-12-23\"")));
    JsonNode now = calendars().get(0);
    assertThat(now.path("teachingDays").asInt()).isEqualTo(plain.path("teachingDays").asInt() - 1);
    assertThat(now.path("mondays").get(4).asString()).isEqualTo("2026-10-05");
  }

  @Test
  void calendarsThatCannotBeAreRefusedAndNothingIsKept() throws Exception {
    sections("lgt-cala1");
    Map<String, String> wrong =
        Map.of(
            entry("W", "2026-12-18", "2026-09-07", ""),
            "is before the first",
            whole(
                ",\"off\":[{\"name\":\"Storm\",\"first\":\"2026-09-01\",\"last\":\"2026-12-30\"}]"),
            "nobody would teach",
            whole("").replace("America/Chicago", "Mars/Olympus"),
            "Nobody knows the time zone",
            whole(",\"finalsFirst\":\"2026-12-01\",\"finalsLast\":\"2026-12-23\""),
            "before teaching has ended",
            whole(",\"finalsFirst\":\"2026-12-21\""),
            "one day is said");
    wrong.forEach(
        (e, says) -> {
          Caller.Answer a = put(term(), e);
          assertThat(a.status()).as(a.text()).isEqualTo(422);
          assertThat(a.text()).contains(says);
        });
    kept(
        coordinator.post(
            "/api/calendars?term=" + term(), entry("Half", "2026-10-19", "2026-12-18", "")));
    assertThat(
            coordinator
                .post(
                    "/api/calendars?term=" + term(), entry("Half", "2026-10-19", "2026-12-18", ""))
                .status())
        .isEqualTo(409);
    assertThat(calendars()).hasSize(2);
  }

  @Test
  void whatCannotBeKeptIsRefusedBeforeItIs() throws Exception {
    UUID to = sections("lgt-cali1").get(0);
    String master = master("CALI");
    String far = "+999999999-01-01";
    String meets =
        "{\"sections\":[\""
            + to
            + "\"],\"weekly\":[{\"weekday\":1,\"begins\":\"08:00\",\"ends\":\"09:00\"},%s],\"cancelled\":[%s]}";
    String again = "{\"weekday\":1,\"begins\":\"08:00\",\"ends\":\"10:00\"}";
    String tuesday = again.replace(":1,", ":2,");
    String set = "{\"master\":\"" + master + "\",\"sections\":[\"" + to + "\"],\"dates\":[%s]}";
    String date = "{\"item\":\"%s\",\"point\":\"DUE\",\"at\":\"%sT10:00\",\"byPattern\":false}";
    String twice =
        FOUNDERS + "," + FOUNDERS.replace("\"last\":\"2026-10-05", "\"last\":\"2026-10-06");
    for (Caller.Answer a :
        List.of(
            put(term(), entry("W", far, far, "")),
            put(term(), whole(",\"off\":[" + twice + "]")),
            coordinator.put("/api/calendars/meetings", meets.formatted(again, "")),
            coordinator.put("/api/calendars/meetings", meets.formatted(tuesday, "\"" + far + "\"")),
            coordinator.put("/api/calendars/dates", set.formatted(date.formatted("k", far))),
            coordinator.put(
                "/api/calendars/dates",
                set.formatted(
                    date.formatted("k", "2026-10-01") + "," + date.formatted("k", "2026-10-02"))),
            coordinator.put(
                "/api/calendars/dates", set.formatted(date.formatted("no key", "2026-10-01"))))) {
      assertThat(a.status()).as(a.text()).isBetween(400, 422);
    }
    kept(coordinator.put("/api/calendars/meetings", meets.formatted(tuesday, "\"2026-10-06\"")));
  }

  @Test
  void daysOffComeFromACalendarFileAndAreShownBeforeTheyAreKept() throws Exception {
    sections("lgt-cala1");
    String file =
        "BEGIN:VCALENDAR\\r\\nVERSION:2.0\\r\\nBEGIN:VEVENT\\r\\nUID:1\\r\\nSUMMARY:Harvest break\\r\\n"
            + "DTSTART;VALUE=DATE:20261012\\r\\nDTEND;VALUE=DATE:20261015\\r\\nEND:VEVENT\\r\\nEND:VCALENDAR";
    Caller.Answer a =
        coordinator.post("/api/calendars/" + term() + "/file", "{\"text\":\"" + file + "\"}");
    kept(a);
    assertThat(a.json().path("off").toString())
        .isEqualTo(
            "[{\"name\":\"Harvest break\",\"first\":\"2026-10-12\",\"last\":\"2026-10-14\"}]");
    assertThat(calendars().get(0).path("says").path("off")).isEmpty();
    assertThat(
            coordinator
                .post("/api/calendars/" + term() + "/file", "{\"text\":\"Monday off\"}")
                .text())
        .contains("no calendar file");
  }

  @Test
  void eachSectionGetsItsOwnDatesByItsCalendarAndItsMeetings() throws Exception {
    List<UUID> to = sections("lgt-calb1", "lgt-calb2", "lgt-calb3");
    String master = master("CALB");
    kept(put(term(), whole(",\"off\":[" + FOUNDERS + "]")));
    String half =
        coordinator
            .post("/api/calendars?term=" + term(), entry("Half", "2026-10-19", "2026-12-18", ""))
            .json()
            .path("id")
            .asString();
    kept(
        coordinator.put(
            "/api/calendars/" + half + "/sections", "{\"sections\":[\"" + to.get(1) + "\"]}"));
    kept(
        coordinator.put(
            "/api/calendars/meetings",
            "{\"sections\":[\""
                + to.get(2)
                + "\"],\"weekly\":[{\"weekday\":3,\"begins\":\"18:30\",\"ends\":\"21:00\"}],\"cancelled\":[\"2026-09-09\"]}"));
    edit(master, "Paper plot", "{\"due\":\"week 5 Mon 18:00\"}");
    edit(master, "Checklist", "{\"opens\":\"meeting 2\"}");
    freeze(master, "with patterns");
    deliver(master, 2, to);
    assertThat(due("lgt-calb1", "Paper plot")).as("Monday is off").isEqualTo("2026-10-06T18:00");
    assertThat(due("lgt-calb2", "Paper plot"))
        .as("a Monday of the half, by the share of teaching days")
        .isEqualTo("2026-11-02T18:00");
    assertThat(Practice.item("lgt-calb3", "Checklist").path("timing").path("opens").asString())
        .as("when its second meeting begins; the first was cancelled")
        .isEqualTo("2026-09-23T18:30");
    assertThat(Practice.item("lgt-calb1", "Checklist").path("timing").path("opens").asString())
        .as("it meets on no day that is known")
        .isEmpty();
    JsonNode again = deliver(master, 2, to).path("lines").get(0);
    assertThat(again.path("activity").asString()).contains("nothing to do");
    JsonNode date = ribbonDate(to.get(0), master, "Paper plot");
    assertThat(date.path("pattern").asString()).isEqualTo("week 5 Mon 18:00");
    assertThat(date.path("said").asString()).isEqualTo("2026-10-05");
    assertThat(date.path("remarks").toString()).contains("MOVED_OFF_DAY");
    assertThat(date.path("off").asString()).isEqualTo("Founders' Day");
    assertThat(there(date)).as("of all that are expected to hold it").isEqualTo(1);
  }

  @Test
  void aDayOffInMidTermMovesTheDateAndWhatASectionHasSetStays() throws Exception {
    List<UUID> to = sections("lgt-calc1", "lgt-calc2");
    String master = master("CALC");
    edit(master, "Paper plot", "{\"due\":\"week 5 Mon 18:00\"}");
    freeze(master, "with a pattern");
    deliver(master, 2, to);
    assertThat(due("lgt-calc1", "Paper plot")).isEqualTo("2026-10-05T18:00");
    Practice.form("lgt-calc2", "Paper plot", "due", Map.of("due", "2026-10-09T12:00"));
    deliver(master, 2, to.subList(1, 2)); // which reads it
    kept(put(term(), whole(",\"off\":[" + FOUNDERS + "]")));
    JsonNode date = ribbonDate(to.get(0), master, "Paper plot");
    assertThat(date.path("due").asString()).startsWith("2026-10-06T18:00");
    assertThat(there(date)).as("both shells have the day before").isZero();
    assertThat(date.path("own").get(0).path("due").asString()).startsWith("2026-10-09T12:00");
    String order =
        "{\"version\":\"%s\",\"sections\":[\"%s\",\"%s\"],\"choices\":{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\"}}"
            .formatted(version(master, 2), to.get(0), to.get(1));
    JsonNode forecast = coordinator.post("/api/deliveries/forecast", order).json();
    assertThat(forecast.path("totals").path("UPDATE").asInt()).isEqualTo(1);
    assertThat(forecast.path("totals").path("CLASH").asInt()).isEqualTo(1);
    deliver(master, 2, to);
    assertThat(due("lgt-calc1", "Paper plot")).isEqualTo("2026-10-06T18:00");
    assertThat(due("lgt-calc2", "Paper plot")).isEqualTo("2026-10-09T12:00");
  }

  @Test
  void whatDaysOffDoToDatesIsFrozenWithTheVersion() throws Exception {
    List<UUID> to = sections("lgt-calf1");
    String master = master("CALF");
    edit(master, "Paper plot", "{\"due\":\"week 5 Mon 18:00\"}");
    freeze(master, "with a pattern");
    kept(put(term(), whole(",\"off\":[" + FOUNDERS + "]")));
    deliver(master, 2, to);
    assertThat(due("lgt-calf1", "Paper plot")).isEqualTo("2026-10-06T18:00");
    String before = "{\"rule\":\"TEACHING_DAY_BEFORE\",\"byKind\":{}}";
    kept(coordinator.put("/api/masters/" + master + "/dates/off", before));
    deliver(master, 2, to);
    assertThat(due("lgt-calf1", "Paper plot")).isEqualTo("2026-10-06T18:00");
    freeze(master, "Dates go before days off");
    deliver(master, 3, to);
    assertThat(due("lgt-calf1", "Paper plot")).isEqualTo("2026-10-02T18:00");
  }

  @Test
  void aDateOfChosenSectionsReachesTheirShellsAloneAndIsTakenAlong() throws Exception {
    List<UUID> to = sections("lgt-calg1", "lgt-calg2");
    String master = master("CALG");
    edit(master, "Paper plot", "{\"due\":\"week 5 Mon 18:00\"}");
    freeze(master, "with a pattern");
    String own =
        "{\"master\":\"%s\",\"sections\":[\"%s\"],\"dates\":[{\"item\":\"%s\",\"point\":\"DUE\",%s}]}";
    String item = key(master, "Paper plot");
    kept(
        coordinator.put(
            "/api/calendars/dates",
            own.formatted(
                master, to.get(1), item, "\"at\":\"2026-10-08T12:00\",\"byPattern\":false")));
    deliver(master, 2, to);
    assertThat(due("lgt-calg1", "Paper plot")).isEqualTo("2026-10-05T18:00");
    assertThat(due("lgt-calg2", "Paper plot")).isEqualTo("2026-10-08T12:00");
    String file = "/api/calendars/due/file?term=" + term() + "&section=" + to.get(1) + "&format=";
    assertThat(coordinator.get(file + "ICS").text())
        .contains("SUMMARY:Paper plot")
        .contains("DTSTART:20261008T");
    assertThat(coordinator.get(file + "CSV").text())
        .contains("LGT 110,lgt-calg2,Paper plot,assignment,,2026-10-08 12:00");
    kept(
        coordinator.put(
            "/api/calendars/dates", own.formatted(master, to.get(1), item, "\"byPattern\":true")));
    deliver(master, 2, to);
    assertThat(due("lgt-calg2", "Paper plot")).isEqualTo("2026-10-05T18:00");
  }

  @Test
  void realDatesBecomePatternsMoveAndComeBack() throws Exception {
    sections("lgt-cald1");
    String master = master("CALD");
    edit(master, "Paper plot", "{\"due\":\"2026-10-16T23:59\"}");
    String real = "{\"calendar\":\"" + term() + "\",\"by\":\"WEEK\",\"really\":%s}";
    String dates = "/api/masters/" + master + "/dates";
    JsonNode shown = coordinator.post(dates + "/patterns", real.formatted("false")).json();
    assertThat(shown.get(0).path("pattern").asString()).isEqualTo("week 6 Fri 23:59");
    assertThat(draftDue(master)).isEqualTo("2026-10-16T23:59");
    kept(coordinator.post(dates + "/patterns", real.formatted("true")));
    assertThat(draftDue(master)).isEqualTo("week 6 Fri 23:59");
    String move = "{\"items\":[\"" + key(master, "Paper plot") + "\"],\"days\":3}";
    assertThat(coordinator.post(dates + "/move", move).json().path("items").asInt()).isEqualTo(1);
    assertThat(draftDue(master)).isEqualTo("week 7 Mon 23:59");
    kept(coordinator.post("/api/masters/" + master + "/draft/undo", ""));
    assertThat(draftDue(master)).isEqualTo("week 6 Fri 23:59");
    Caller.Answer far = coordinator.post(dates + "/move", move.replace(":3}", ":-90}"));
    assertThat(far.status()).isEqualTo(422);
    assertThat(far.text()).contains("cannot be moved by -90 days");
    kept(
        coordinator.put(
            dates + "/off", "{\"rule\":\"TEACHING_DAY_BEFORE\",\"byKind\":{\"QUIZ\":\"LEAVE\"}}"));
    assertThat(coordinator.get(dates + "/off").json().path("byKind").path("QUIZ").asString())
        .isEqualTo("LEAVE");
  }

  private String draftDue(String master) {
    return coordinator
        .get("/api/masters/" + master + "/versions/0/items/" + key(master, "Paper plot"))
        .json()
        .path("due")
        .asString();
  }

  @Test
  void whatAClosureMovesIsShownBeforeAndWhatIsPastCanStay() throws Exception {
    List<UUID> to = sections("lgt-calj1");
    String master = master("CALJ");
    edit(master, "Paper plot", "{\"due\":\"week 2 Tue 18:00\"}");
    edit(master, "Checklist", "{\"opens\":\"week 2 Tue 8:00\"}");
    freeze(master, "with patterns");
    db.execute(
        "update term set first_day = first_day - 3650, last_day = last_day - 3650 where sourced_id = 't1'");
    try {
      String flood = "{\"name\":\"Flood\",\"first\":\"%s\",\"last\":\"%s\"}";
      String first =
          db.fetchSingle("select first_day from term where sourced_id = 't1'").get(0) + "";
      String tuesday =
          java.time.LocalDate.parse(first).with(java.time.DayOfWeek.MONDAY).plusDays(8) + "";
      String last = db.fetchSingle("select last_day from term where sourced_id = 't1'").get(0) + "";
      String entry =
          entry("Whole term", first, last, ",\"off\":[" + flood.formatted(tuesday, tuesday) + "]");
      JsonNode moves = coordinator.post("/api/calendars/" + term() + "/moves", entry).json();
      JsonNode mine =
          moves
              .valueStream()
              .filter(m -> m.path("title").asString().equals("Paper plot"))
              .findFirst()
              .orElseThrow();
      assertThat(mine.path("from").asString()).startsWith(tuesday + "T18:00");
      assertThat(mine.path("past").asBoolean()).isTrue();
      assertThat(calendars().get(0).path("says").path("off")).as("only shown").isEmpty();
      kept(coordinator.put("/api/calendars/" + term() + "?keepPast=true", entry));
      deliver(master, 2, to);
      assertThat(due("lgt-calj1", "Paper plot"))
          .as("it was due then")
          .isEqualTo(tuesday + "T18:00");
    } finally {
      db.execute(
          "update term set first_day = first_day + 3650, last_day = last_day + 3650 where sourced_id = 't1'");
    }
  }

  @Test
  void whatStudentsHaveHandedInKeepsItsDateWhenADayIsTakenOff() throws Exception {
    List<UUID> to = sections("lgt-calk1", "lgt-calk2");
    String master = master("CALK");
    edit(master, "Paper plot", "{\"due\":\"week 3 Tue 18:00\"}");
    freeze(master, "with a pattern");
    db.execute(
        "update term set first_day = first_day + 3650, last_day = last_day + 3650 where sourced_id = 't1'");
    try {
      deliver(master, 2, to);
      String was = due("lgt-calk1", "Paper plot");
      String day = was.substring(0, 10);
      Practice.form("lgt-calk2", "Paper plot", "work", Map.of());
      readShells(to);
      var term = db.fetchSingle("select first_day, last_day from term where sourced_id = 't1'");
      String flood =
          ",\"off\":[{\"name\":\"Flood\",\"first\":\"%s\",\"last\":\"%s\"}]".formatted(day, day);
      String entry = entry("Whole term", term.get(0) + "", term.get(1) + "", flood);
      List<JsonNode> mine =
          coordinator
              .post("/api/calendars/" + term() + "/moves", entry)
              .json()
              .valueStream()
              .filter(m -> m.path("title").asString().equals("Paper plot"))
              .filter(m -> m.path("from").asString().startsWith(day))
              .toList();
      assertThat(mine).noneMatch(m -> m.path("past").asBoolean());
      assertThat(mine).extracting(m -> m.path("handedIn").asBoolean()).contains(true, false);
      kept(coordinator.put("/api/calendars/" + term() + "?keepPast=true", entry));
      deliver(master, 2, to);
      assertThat(due("lgt-calk1", "Paper plot")).isGreaterThan(was);
      assertThat(due("lgt-calk2", "Paper plot")).as("somebody has handed it in").isEqualTo(was);
    } finally {
      db.execute(
          "update term set first_day = first_day - 3650, last_day = last_day - 3650 where sourced_id = 't1'");
    }
  }

  @Test
  void whatEachWeekOfAPartWouldHoldIsToldBeforeItIsMade() throws Exception {
    List<UUID> to = sections("lgt-calm1");
    String master = master("CALM");
    edit(master, "Paper plot", "{\"due\":\"week 12 Tue 18:00\"}");
    String part = entry("First half", "2026-09-07", "2026-10-30", "");
    String body = "{\"calendar\":%s,\"whole\":false,\"sections\":[\"%s\"]}";
    String path = "/api/calendars/load?term=" + term();
    Caller.Answer a = coordinator.post(path, body.formatted(part, to.get(0)));
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    JsonNode mine =
        a.json()
            .valueStream()
            .filter(l -> l.path("master").asString().equals(master))
            .findFirst()
            .orElseThrow();
    List<Integer> due = mine.path("weeks").valueStream().map(w -> w.path("due").asInt()).toList();
    assertThat(due).as("week 12 of 15 is week 7 of 8").containsExactly(0, 0, 0, 0, 0, 0, 1, 0);
    assertThat(calendars()).as("nothing is kept").hasSize(1);
    String odd = entry("First half", "2026-10-30", "2026-09-07", "");
    assertThat(coordinator.post(path, body.formatted(odd, to.get(0))).status()).isEqualTo(422);
  }

  @Test
  void aCalendarProgramFindsWhatIsDueAtAnAddressUntilItIsEnded() throws Exception {
    List<UUID> to = sections("lgt-call1");
    String master = master("CALL");
    edit(master, "Paper plot", "{\"due\":\"week 3 Tue 18:00\"}");
    freeze(master, "with a pattern");
    deliver(master, 2, to);
    String body = "{\"term\":\"%s\",\"section\":\"%s\"}".formatted(term(), to.get(0));
    Caller.Answer made = coordinator.post("/api/calendars/due/addresses", body);
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    String path = made.json().path("path").asString();
    assertThat(new Caller(port).get(path).text()).contains("BEGIN:VCALENDAR", "SUMMARY:Paper plot");
    JsonNode mine = coordinator.get("/api/calendars/due/addresses").json().get(0);
    assertThat(mine.path("about").asString()).startsWith("lgt-call1, ");
    assertThat(mine.toString()).doesNotContain(path.split("/")[3]);
    assertThat(administrator.get("/api/calendars/due/addresses").json()).isEmpty();
    String id = mine.path("id").asString();
    assertThat(administrator.delete("/api/calendars/due/addresses/" + id).status()).isEqualTo(404);
    kept(coordinator.delete("/api/calendars/due/addresses/" + id));
    assertThat(new Caller(port).get(path).status()).isEqualTo(404);
    Caller sound = another("call-sound@x.example", Role.COORDINATOR, "sound");
    assertThat(sound.post("/api/calendars/due/addresses", body).status()).isEqualTo(404);
    String reset =
        coordinator.post("/api/calendars/due/addresses", body).json().path("path").asString();
    UUID ines = people.loadUserByUsername("coordinator@x.example").id();
    kept(
        administrator.post(
            "/api/people/" + ines + "/password", "{\"password\":\"" + PASSWORD + "\"}"));
    assertThat(new Caller(port).get(reset).status()).as("ended for good").isEqualTo(404);
    coordinator.signIn("coordinator@x.example", PASSWORD);
  }

  @Test
  void aMasterFromAShellHasTheDatesOfItsTermAsPatterns() throws Exception {
    List<UUID> to = sections("lgt-calh1");
    String master = master("CALH");
    edit(master, "Paper plot", "{\"due\":\"2026-10-05T18:00\"}");
    freeze(master, "with a date");
    deliver(master, 2, to);
    Caller.Answer made =
        coordinator.post(
            "/api/masters/shells/" + to.get(0),
            "{\"code\":\"CALS\",\"title\":\"From a shell\",\"courses\":[]}");
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    assertThat(draftDue(made.json().path("id").asString())).isEqualTo("week 5 Mon 18:00");
  }

  @Test
  void datesThatWouldFollowEachOtherInACircleAndNonsenseAreRefused() throws Exception {
    sections("lgt-cale1");
    String master = master("CALE");
    String plot = key(master, "Paper plot");
    String list = key(master, "Checklist");
    edit(master, "Paper plot", "{\"due\":\"2 days after " + list + " opens\"}");
    String item = "/api/masters/" + master + "/draft/items/";
    Caller.Answer circle =
        coordinator.patch(item + list, "{\"opens\":\"1 day after " + plot + " due\"}");
    assertThat(circle.status()).as(circle.text()).isEqualTo(422);
    assertThat(circle.text()).contains("in a circle").contains("Checklist");
    assertThat(coordinator.patch(item + plot, "{\"due\":\"soon\"}").text())
        .contains("“soon” is no day and time.");
    assertThat(coordinator.patch(item + plot, "{\"due\":\"1 day after nothing due\"}").status())
        .isEqualTo(422);
  }

  @Test
  void aSectionThatWouldNeverMeetIsTold() throws Exception {
    List<UUID> to = sections("lgt-calf1");
    kept(put(term(), entry("Whole term", "2026-09-08", "2026-09-11", "")));
    Caller.Answer a =
        coordinator.put(
            "/api/calendars/meetings",
            "{\"sections\":[\""
                + to.get(0)
                + "\"],\"weekly\":[{\"weekday\":1,\"begins\":\"08:00\",\"ends\":\"09:00\"}],\"cancelled\":[]}");
    assertThat(a.status()).isEqualTo(422);
    assertThat(a.text()).contains("would never meet");
  }
}
