package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** Platforms that answer as none should. */
class OddPlatformIT extends ServerIT {
  private static final String SHELLS = "/api/shells?after=";
  private OddPlatform odd;

  @AfterEach
  void end() {
    if (odd != null) {
      odd.close();
      db.update(SECTION)
          .setNull(SECTION.PLATFORM_ID)
          .setNull(SECTION.SHELL)
          .where(
              SECTION.PLATFORM_ID.in(
                  db.select(PLATFORM.ID).from(PLATFORM).where(PLATFORM.NAME.startsWith("Odd"))))
          .execute();
      db.deleteFrom(PLATFORM).where(PLATFORM.NAME.startsWith("Odd")).execute();
    }
  }

  private static String platform(String address, String token) {
    return "{\"name\":\"Odd %s\",\"address\":\"%s\",\"token\":\"%s\"}"
        .formatted(UUID.randomUUID(), address, token);
  }

  private Caller.Answer name(OddPlatform p) {
    return administrator.post("/api/platforms", platform(p.address(), "t"));
  }

  private OddPlatform.Answer answer(String how) {
    return switch (how) {
      case "stall" -> OddPlatform.stall();
      case "drip" -> OddPlatform.drip();
      case "endless" -> OddPlatform.endless();
      case "repeat" -> OddPlatform.json("[{\"id\":\"b\",\"title\":\"B\"}]");
      case "no id" -> OddPlatform.json("[{\"title\":\"B\"}]");
      case "odd id" -> OddPlatform.json("[{\"id\":\"a\\u0000b\"}]");
      default -> throw new IllegalArgumentException(how);
    };
  }

  @ParameterizedTest
  @ValueSource(strings = {"stall", "drip", "endless", "repeat", "no id", "odd id"})
  void aPlatformThatNeverAnswersRightIsRefusedInAShortTime(String how) throws Exception {
    odd = new OddPlatform().at("/", answer(how));
    Instant start = Instant.now();
    Caller.Answer a = name(odd);
    assertThat(a.status()).as(a.text()).isEqualTo(422);
    assertThat(a.json().path("remedy").asString()).isNotBlank();
    assertThat(Duration.between(start, Instant.now())).isLessThan(Duration.ofSeconds(15));
  }

  /** Sections with shells on an odd platform, beside those of the practice platform. */
  private List<UUID> onOddPlatform(String... codes) throws Exception {
    administrator.roster(Samples.roster(codes));
    StringBuilder shells = new StringBuilder();
    for (String c : codes) {
      shells.append(shells.isEmpty() ? "" : ",").append("{\"id\":\"").append(c).append("\"}");
    }
    odd =
        new OddPlatform()
            .at(SHELLS, OddPlatform.json("[]"))
            .at(SHELLS + "&", OddPlatform.json("[]"));
    odd.at(
        "/api/shells?after=",
        x -> {
          boolean first = x.getRequestURI().getQuery().equals("after=");
          OddPlatform.json(first ? "[" + shells + "]" : "[]").to(x);
        });
    assertThat(name(odd).status()).isEqualTo(201);
    return db.select(SECTION.ID)
        .from(SECTION)
        .where(SECTION.SOURCED_ID.in(codes))
        .orderBy(SECTION.SOURCED_ID)
        .fetch(SECTION.ID);
  }

  @Test
  void whatIsWantedWhileALookIsUnderWayIsLookedAtOnceMore() throws Exception {
    UUID section = onOddPlatform("lgt-ol1").get(0);
    AtomicInteger looks = new AtomicInteger();
    String look = "{\"sections\":[\"" + section + "\"]}";
    odd.at(
        "/api/tools/look",
        x -> {
          if (looks.incrementAndGet() == 1) {
            assertThat(coordinator.post("/api/tools/look", look).status()).isEqualTo(200);
          }
          OddPlatform.json("[]").to(x);
        });
    coordinator.post("/api/tools/look", look);
    await(looks::get, n -> n == 2);
  }

  @Test
  void aLookThatBeganBeforeCredentialsWereEnteredSaysNothingOfThem() throws Exception {
    UUID section = onOddPlatform("lgt-ol2").get(0);
    String look = "{\"sections\":[\"" + section + "\"]}";
    String entered = "{\"sections\":[\"%s\"],\"host\":\"%s\",\"stage\":\"CREDENTIALS\"}";
    AtomicInteger looks = new AtomicInteger();
    odd.at(
        "/api/tools/look",
        x -> {
          if (looks.get() == 0) {
            for (String host : List.of("told.example", "untold.example")) {
              String done = entered.formatted(section, host);
              assertThat(coordinator.post("/api/tools/done", done).status()).isLessThan(300);
            }
          }
          OddPlatform.json("[{\"shell\":\"lgt-ol2\",\"host\":\"told.example\",\"by\":\"\"}]").to(x);
          looks.incrementAndGet();
        });
    coordinator.post("/api/tools/look", look);
    await(() -> stands(section), d -> looks.get() == 1 && !wanted(section));
    assertThat(stands(section)).containsExactly("told.example THERE", "untold.example THERE");
    coordinator.post("/api/tools/look", look);
    await(() -> stands(section), d -> d.equals(List.of("told.example NONE")));
  }

  private boolean wanted(UUID section) {
    return !db.fetch("select 1 from tool_look where wanted and section_id = ?", section).isEmpty();
  }

  private List<String> stands(UUID section) {
    return db.fetch("select host, data from section_tool where section_id = ? order by 1", section)
        .map(r -> r.get(0) + " " + r.get(1));
  }

  @Test
  void aPlatformThatStallsNeverTakesTheWorkersOfAnother() throws Exception {
    List<UUID> well = sections("lgt-oa1", "lgt-oa2");
    String[] codes = new String[12];
    for (int i = 0; i < codes.length; i++) {
      codes[i] = "lgt-ob%02d".formatted(i);
    }
    List<UUID> stalled = onOddPlatform(codes);
    odd.at("/api/shells/", OddPlatform.stall());
    String master = master("OA");
    List<UUID> all = new ArrayList<>(stalled);
    String slow =
        coordinator
            .post(
                "/api/deliveries",
                "{\"version\":\""
                    + version(master, 1)
                    + "\",\"sections\":[\""
                    + String.join("\",\"", all.stream().map(UUID::toString).toList())
                    + "\"]}")
            .json()
            .path("id")
            .asString();
    Thread.sleep(1_500); // its lines have taken all the workers they may
    Instant start = Instant.now();
    JsonNode done = deliver(master, 1, well);
    assertThat(done.path("lines")).allMatch(l -> l.path("state").asString().equals("DONE"));
    assertThat(Duration.between(start, Instant.now())).isLessThan(Duration.ofSeconds(15));
    assertThat(slow).isNotEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "[{\"id\":\"\",\"kind\":\"PAGE\"}] | odd",
        "[{\"id\":\"i\",\"kind\":\"PAGE\",\"grading\":{\"points\":1e-200000000}}] |",
        "[{\"id\":\"i\",\"kind\":\"PAGE\",\"timing\":{\"due\":{}}}] |",
        "{\"no\":\"list\"} |",
        "[{\"id\":\"i\",\"kind\":\"SEATING_PLAN\",\"wording\":{\"title\":\"x\"}}] |"
      })
  void anAnswerThatCannotBeReadMakesItsSectionWaitAndAnItemThatCannotHoldsNothing(
      String items, String reason) throws Exception {
    sections("lgt-oc0");
    List<UUID> to = onOddPlatform("lgt-oc1");
    odd.at("/api/shells/", OddPlatform.json(items));
    JsonNode line =
        coordinator
            .get(
                "/api/deliveries/"
                    + plan(master("OC" + Math.abs(items.hashCode() % 99_999)), 1, to))
            .json()
            .path("lines")
            .get(0);
    assertThat(line.path("state").asString())
        .isEqualTo(reason == null ? "PLANNED" : "NEEDS_PERSON");
    if (reason != null) {
      assertThat(line.path("reason").asString()).contains(reason);
      coordinator.post("/api/deliveries/readings", "{\"sections\":[\"" + to.get(0) + "\"]}");
      await(
          () ->
              db.fetchSingle(
                      "select count(*) from scheduled_tasks where task_name = 'read-section'")
                  .get(0, int.class),
          n -> n == 0);
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "http://127.0.0.1:1/?x=",
        "http://127.0.0.1:1/#",
        "http://user@127.0.0.1:1",
        "ftp://127.0.0.1",
        "http://",
        "http://a b",
        "javascript:alert(1)",
        "//127.0.0.1",
        "http://[::1"
      })
  void anAddressThatIsNoneOfAPlatformIsRefused(String address) {
    Caller.Answer a = administrator.post("/api/platforms", platform(address, "t"));
    assertThat(a.status()).isEqualTo(422);
    assertThat(a.json().path("detail").asString()).isEqualTo("This is no address of a platform.");
  }

  @ParameterizedTest
  @ValueSource(strings = {"a\\nb", "a\\u0000b", "ä", ""})
  void aTokenThatNoHeaderCanCarryIsRefused(String token) {
    assertThat(administrator.post("/api/platforms", platform("http://127.0.0.1:1", token)).status())
        .isEqualTo(400);
  }

  @Test
  void anAnswerOfAnotherPlaceIsNotShownToWhoNamedIt() throws Exception {
    odd =
        new OddPlatform()
            .at(
                "/",
                x -> {
                  byte[] secret = "<html>inner secret</html>".getBytes();
                  x.sendResponseHeaders(418, secret.length);
                  x.getResponseBody().write(secret);
                });
    assertThat(name(odd).text()).contains("error 418").doesNotContain("inner secret");
    odd.at(
        "/",
        x -> {
          x.getResponseHeaders().set("Location", Practice.address() + "/api/shells");
          x.sendResponseHeaders(302, -1);
        });
    assertThat(name(odd).status()).isEqualTo(422);
  }

  @Test
  void aPlatformsTokenIsRenewedAndAPlatformEnded() throws Exception {
    List<UUID> to = onOddPlatform("lgt-od1");
    odd.at(
        "/api/shells?after=",
        x -> {
          boolean right = "Bearer second".equals(x.getRequestHeaders().getFirst("Authorization"));
          if (right) {
            OddPlatform.json("[]").to(x);
          } else {
            x.sendResponseHeaders(401, -1);
          }
        });
    String id =
        db.select(PLATFORM.ID)
            .from(PLATFORM)
            .where(PLATFORM.NAME.startsWith("Odd"))
            .fetchSingle()
            .value1()
            .toString();
    assertThat(
            administrator.put("/api/platforms/" + id + "/token", "{\"token\":\"wrong\"}").status())
        .isEqualTo(422);
    assertThat(
            administrator.put("/api/platforms/" + id + "/token", "{\"token\":\"second\"}").status())
        .isEqualTo(204);
    assertThat(coordinator.post("/api/platforms/" + id + "/ties", "").status()).isEqualTo(200);
    assertThat(administrator.delete("/api/platforms/" + id).status()).isEqualTo(204);
    assertThat(
            coordinator
                .get("/api/sections/" + to.get(0))
                .json()
                .path("shellAddress")
                .isMissingNode())
        .isTrue();
    assertThat(administrator.get("/api/record?q=ended%20platform").json()).isNotEmpty();
  }
}
