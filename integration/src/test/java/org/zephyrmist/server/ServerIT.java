package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.awaitility.Awaitility;
import org.awaitility.pollinterval.PollInterval;
import org.jooq.DSLContext;
import org.junit.jupiter.api.BeforeEach;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.context.SpringBootTest.WebEnvironment;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.zephyrmist.server.db.Tables;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.people.Programs;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.stage.Postgres;
import tools.jackson.databind.JsonNode;

/** The server over HTTP, on a database of its own, with the real practice platform. */
@SpringBootTest(webEnvironment = WebEnvironment.RANDOM_PORT)
abstract class ServerIT {
  static final String PASSWORD = "a-long-password";
  static final Postgres POSTGRES = Postgres.shared();

  /** Of this process alone: another one runs other tests beside it. */
  static final String DATABASE = POSTGRES.fresh("zephyrmist_it" + System.getProperty("fork", ""));

  @LocalServerPort int port;
  @Autowired DSLContext db;
  @Autowired People people;
  @Autowired Programs programs;
  @Autowired Platforms platforms;
  private static SignedIn signedIn;
  private static String sample;
  Caller coordinator;
  Caller administrator;

  @DynamicPropertySource
  static void settings(DynamicPropertyRegistry r) {
    Practice.start(POSTGRES, DATABASE);
    r.add("spring.datasource.url", () -> DATABASE);
    r.add("spring.datasource.username", () -> Postgres.ROLE);
    r.add("spring.datasource.password", POSTGRES::password);
    r.add("zephyrmist.secret", () -> "only for tests, only for tests, only for tests");
    r.add("zephyrmist.password-cost", () -> "4");
    r.add("zephyrmist.describe", () -> "true");
    r.add("zephyrmist.practice-address", Practice::address);
    r.add("zephyrmist.private-hosts", () -> "127.0.0.1");
    r.add("zephyrmist.practice-tools", () -> PracticeTools.ADDRESS);
    r.add("zephyrmist.tool-timeout", () -> "3s");
    r.add("zephyrmist.tool-tests-every", () -> "0s");
    r.add("zephyrmist.call-timeout", () -> "4s");
    r.add("zephyrmist.call-total", () -> "6s");
    r.add("zephyrmist.body-timeout", () -> "4s");
    r.add("zephyrmist.first-pause", () -> "200ms");
    r.add("zephyrmist.tries", () -> "3");
    r.add("zephyrmist.looks-if-empty", () -> "1s");
    r.add("zephyrmist.reads-every", () -> "0s");
    r.add("zephyrmist.looks-if-there", () -> "1s");
    r.add("zephyrmist.looks-around", () -> "1s");
    r.add("zephyrmist.mail-from", () -> "zephyrmist@larkmoor.example");
    r.add("spring.mail.port", () -> Practice.SMTP_PORT);
  }

  @BeforeEach
  void people() {
    if (people.nobody()) {
      people.admit("admin@x.example", "Rosalind", Role.ADMINISTRATOR, PASSWORD);
      people.admit("coordinator@x.example", "Ines", Role.COORDINATOR, PASSWORD);
    }
    if (signedIn == null || signedIn.test != getClass()) {
      signedIn =
          new SignedIn(
              getClass(),
              new Caller(port).signIn("admin@x.example", PASSWORD),
              new Caller(port).signIn("coordinator@x.example", PASSWORD));
    }
    administrator = signedIn.administrator;
    coordinator = signedIn.coordinator;
  }

  /** Passwords are slow to check on purpose: once for a class. */
  private record SignedIn(Class<?> test, Caller administrator, Caller coordinator) {}

  /** Somebody else, who reaches these programs. */
  Caller another(String email, Role role, String... reached) {
    UUID id = people.admit(email, email, role, PASSWORD);
    programs.reach(id, List.of(reached));
    return new Caller(port).signIn(email, PASSWORD);
  }

  /** Sections with "-pk" have their shells on a platform without an interface. */
  private void quietCampus(String... codes) {
    boolean some = String.join(" ", codes).contains("-pk");
    if (some && !db.fetchExists(Tables.PLATFORM, Tables.PLATFORM.NAME.eq("South shells"))) {
      Caller.Answer named =
          administrator.post(
              "/api/platforms/by-packages", "{\"name\":\"South shells\",\"campuses\":[\"south\"]}");
      assertThat(named.status()).as(named.text()).isEqualTo(201);
    }
  }

  /** Sections with empty shells on the practice platform; gives their ids in the same order. */
  List<UUID> sections(String... codes) throws Exception {
    for (String c : codes) {
      if (!c.contains("-pk")) {
        Practice.makeShell(c);
      }
    }
    Caller.Answer a = administrator.roster(Samples.roster(codes));
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    if (!db.fetchExists(Tables.PLATFORM, Tables.PLATFORM.NAME.eq("Practice"))) {
      platforms.add("Practice", Practice.address(), "practice-token");
    }
    quietCampus(codes);
    platforms.tieAll();
    var person = people.loadUserByUsername("coordinator@x.example");
    programs.reachAll(person.id());
    List<UUID> ids = new ArrayList<>();
    for (String c : codes) {
      ids.add(
          db.select(org.zephyrmist.server.db.Tables.SECTION.ID)
              .from(org.zephyrmist.server.db.Tables.SECTION)
              .where(org.zephyrmist.server.db.Tables.SECTION.SOURCED_ID.eq(c))
              .fetchSingle()
              .value1());
    }
    return ids;
  }

  String takeIn(byte[] file, String name) {
    Caller.Answer begun = coordinator.upload("/api/cartridges/intakes?fileName=" + name, file);
    assertThat(begun.status()).as(begun.text()).isEqualTo(202);
    return begun.json().path("id").asString();
  }

  JsonNode read(String intake) {
    return await(
        () -> coordinator.get("/api/cartridges/intakes/" + intake).json(),
        i -> !i.path("state").asString().equals("READING"));
  }

  /** A master of LGT 110 from the sample cartridge, which is taken in once, frozen as version 1. */
  String master(String code) throws Exception {
    if (sample == null) {
      sample = read(takeIn(Samples.cartridge("Light"), "light.imscc")).path("edition").asString();
    }
    return master(code, sample);
  }

  /** The same from a cartridge of its own. */
  String masterOfItsOwn(String code) throws Exception {
    JsonNode intake = read(takeIn(Samples.cartridge("Light " + code), "light.imscc"));
    return master(code, intake.path("edition").asString());
  }

  /** A master of LGT 110 from an edition, frozen as version 1. */
  String master(String code, String edition) {
    String course =
        db.select(org.zephyrmist.server.db.Tables.COURSE.ID)
            .from(org.zephyrmist.server.db.Tables.COURSE)
            .where(org.zephyrmist.server.db.Tables.COURSE.CODE.eq("LGT 110"))
            .fetchSingle()
            .value1()
            .toString();
    Caller.Answer made =
        coordinator.post(
            "/api/masters",
            "{\"code\":\"%s\",\"title\":\"Light\",\"edition\":\"%s\",\"courses\":[\"%s\"]}"
                .formatted(code, edition, course));
    assertThat(made.status()).as(made.text()).isEqualTo(201);
    String id = made.json().path("id").asString();
    freeze(id, "First");
    return id;
  }

  /** Has shells read, and waits until they were. */
  void readShells(List<UUID> sections) {
    String ids = sections.stream().map(i -> "\"" + i + "\"").collect(Collectors.joining(","));
    String body = "{\"sections\":[" + ids + "]}";
    coordinator.post("/api/deliveries/readings", body);
    await(
        () -> coordinator.post("/api/deliveries/readings/left", body).json(),
        n -> n.path("sections").asInt() == 0);
  }

  Caller.Answer freeze(String master, String note) {
    return coordinator.post("/api/masters/" + master + "/versions", "{\"note\":\"" + note + "\"}");
  }

  /** The key of an item of the draft. */
  String key(String master, String title) {
    for (JsonNode n : coordinator.get("/api/masters/" + master + "/versions/0/outline").json()) {
      if (n.path("title").asString().equals(title)) {
        return n.path("key").asString();
      }
    }
    throw new AssertionError("No item " + title);
  }

  void edit(String master, String title, String change) {
    Caller.Answer a =
        coordinator.patch("/api/masters/" + master + "/draft/items/" + key(master, title), change);
    assertThat(a.status()).as(a.text()).isEqualTo(200);
  }

  String version(String master, int number) {
    return coordinator
        .get("/api/masters/" + master)
        .json()
        .path("versions")
        .get(number - 1)
        .path("id")
        .asString();
  }

  /** Plans, waits for the plan, gives the delivery's id. */
  String plan(String master, int number, List<UUID> sections) {
    return plan(master, number, sections, "");
  }

  /**
   * The same under choices.
   *
   * @param choices as members of an object; empty: as usual
   */
  String plan(String master, int number, List<UUID> sections, String choices) {
    StringBuilder ids = new StringBuilder();
    sections.forEach(s -> ids.append(ids.isEmpty() ? "" : ",").append('"').append(s).append('"'));
    Caller.Answer a =
        coordinator.post(
            "/api/deliveries",
            "{\"version\":\""
                + version(master, number)
                + "\",\"sections\":["
                + ids
                + "]"
                + (choices.isEmpty()
                    ? ""
                    : ",\"choices\":{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\","
                        + choices
                        + "}")
                + "}");
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    String id = a.json().path("id").asString();
    rest(id, "PLANNING");
    return id;
  }

  JsonNode deliver(String master, int number, List<UUID> sections) {
    return confirm(plan(master, number, sections));
  }

  /** Confirms a plan and waits until it has run. */
  JsonNode confirm(String delivery) {
    Caller.Answer a = coordinator.post("/api/deliveries/" + delivery + "/confirm", "");
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    return rest(delivery, "RUNNING");
  }

  /** Waits until the delivery has left a state. */
  JsonNode rest(String delivery, String state) {
    return await(
        () -> coordinator.get("/api/deliveries/" + delivery).json(),
        d -> !d.path("delivery").path("state").asString().equals(state));
  }

  /** What takes long is looked at less often: looking costs the same machine as the work. */
  private static final PollInterval SELDOMER =
      (count, before) -> Duration.ofMillis(Math.min(400, 30L * count));

  static <T> T await(Supplier<T> look, Predicate<T> until) {
    return Awaitility.await()
        .pollInSameThread()
        .pollDelay(Duration.ZERO)
        .pollInterval(SELDOMER)
        .atMost(Duration.ofSeconds(60))
        .until(look::get, until);
  }
}
