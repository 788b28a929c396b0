package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.EVENT;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PERSON_PROGRAM;
import static org.zephyrmist.server.db.Tables.SIGN_IN_FAILURE;

import java.util.List;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

class PeopleIT extends ServerIT {
  private static <T> List<T> atOnce(int n, Callable<T> call) throws Exception {
    ExecutorService pool = Executors.newFixedThreadPool(n);
    try {
      List<Future<T>> all = pool.invokeAll(IntStream.range(0, n).mapToObj(i -> call).toList());
      return all.stream()
          .map(
              f -> {
                try {
                  return f.get();
                } catch (Exception e) {
                  throw new IllegalStateException(e);
                }
              })
          .toList();
    } finally {
      pool.shutdown();
    }
  }

  private UUID id(String email) {
    return people.loadUserByUsername(email).id();
  }

  private String change(String name, String role, String programs) {
    return "{\"name\":\"%s\",\"role\":\"%s\",\"programs\":[%s]}".formatted(name, role, programs);
  }

  @Test
  void ofManyWhoBeginAtOnceOneBecomesTheFirstPerson() throws Exception {
    List<UUID> with =
        db.select(PERSON.ID).from(PERSON).where(PERSON.PASSWORD_HASH.isNotNull()).fetch(PERSON.ID);
    var hashes =
        db.selectFrom(PERSON).where(PERSON.ID.in(with)).fetchMap(PERSON.ID, PERSON.PASSWORD_HASH);
    db.update(PERSON).setNull(PERSON.PASSWORD_HASH).execute();
    try {
      int[] n = {0};
      List<Integer> answers =
          atOnce(
              12,
              () -> {
                int i;
                synchronized (n) {
                  i = n[0]++;
                }
                Caller c = new Caller(port);
                c.get("/api/ready");
                return c.post(
                        "/api/first-person",
                        "{\"name\":\"F\",\"email\":\"first%d@x.example\",\"role\":\"ADMINISTRATOR\",\"password\":\"%s\"}"
                            .formatted(i, PASSWORD))
                    .status();
              });
      assertThat(answers.stream().collect(Collectors.groupingBy(s -> s, Collectors.counting())))
          .containsEntry(201, 1L)
          .containsEntry(409, 11L);
    } finally {
      db.update(PERSON).setNull(PERSON.PASSWORD_HASH).execute();
      hashes.forEach(
          (id, h) ->
              db.update(PERSON).set(PERSON.PASSWORD_HASH, h).where(PERSON.ID.eq(id)).execute());
    }
  }

  @Test
  void manyTriesAtOnceCountEachAndEverySpellingOfTheAddress() throws Exception {
    another("hammered@x.example", Role.DESIGNER);
    db.deleteFrom(SIGN_IN_FAILURE).execute();
    List<Integer> answers =
        atOnce(
            40,
            () -> {
              Caller c = new Caller(port);
              c.get("/api/ready");
              return c.form("/api/%73ign-in", "username=hammered@x.example&password=wrong-one")
                  .status();
            });
    assertThat(answers.stream().filter(s -> s == 401).count()).isEqualTo(5);
    assertThat(answers.stream().filter(s -> s == 429).count()).isEqualTo(35);
    db.deleteFrom(SIGN_IN_FAILURE).execute();
  }

  @Test
  void rightPasswordsAtOnceAllSignIn() throws Exception {
    another("busy@x.example", Role.DESIGNER);
    for (int round = 0; round < 5; round++) {
      assertThat(
              atOnce(
                  5,
                  () ->
                      new Caller(port).signIn("busy@x.example", PASSWORD).get("/api/me").status()))
          .containsOnly(200);
    }
  }

  @Test
  void aTokenMayNotDoByAnotherSpellingWhatItMayNotDo() {
    Caller c = new Caller(port);
    String text =
        administrator
            .post("/api/me/tokens", "{\"name\":\"t\",\"scopes\":[\"READ\",\"COLLEGE\"],\"days\":5}")
            .json()
            .path("token")
            .asString();
    c.bearer(text);
    assertThat(
            c.post("/api/%6de/tokens", "{\"name\":\"t\",\"scopes\":[\"READ\"],\"days\":5}")
                .status())
        .isEqualTo(403);
    assertThat(c.get("/api/%6de/tokens").status()).isEqualTo(403);
    String admin =
        "{\"name\":\"N\",\"email\":\"bytoken@x.example\",\"role\":\"ADMINISTRATOR\",\"password\":\"%s\"}"
            .formatted(PASSWORD);
    assertThat(c.post("/api/people", admin).status()).isEqualTo(403);
    assertThat(
            c.post(
                    "/api/people/" + id("admin@x.example") + "/password",
                    "{\"password\":\"another-long-one\"}")
                .status())
        .isEqualTo(403);
  }

  @Test
  void aPasswordSetAnewWidensNothingAndAnAddressIsAdmittedOnce() throws Exception {
    sections("snd-pe1");
    another("narrow@x.example", Role.COORDINATOR, "sound");
    String again =
        "{\"name\":\"N\",\"email\":\"narrow@x.example\",\"role\":\"COORDINATOR\",\"password\":\"%s\"}"
            .formatted(PASSWORD);
    assertThat(administrator.post("/api/people", again).status()).isEqualTo(409);
    UUID id = id("narrow@x.example");
    assertThat(
            administrator
                .post("/api/people/" + id + "/password", "{\"password\":\"another-long-one\"}")
                .status())
        .isEqualTo(204);
    assertThat(db.fetchCount(PERSON_PROGRAM, PERSON_PROGRAM.PERSON_ID.eq(id))).isOne();
  }

  @Test
  void peopleAreListedChangedAndEndedWithARecordAndTheLastAdministratorStays() throws Exception {
    sections("snd-pe2");
    Caller who = another("going@x.example", Role.COORDINATOR, "sound");
    String token =
        who.post("/api/me/tokens", "{\"name\":\"t\",\"scopes\":[\"READ\"],\"days\":5}")
            .json()
            .path("token")
            .asString();
    UUID id = id("going@x.example");
    JsonNode list = administrator.get("/api/people?q=going").json();
    JsonNode line = list.path("people").get(0);
    assertThat(line.path("role").asString()).isEqualTo("COORDINATOR");
    assertThat(line.path("programs")).hasSize(1);
    assertThat(line.path("tokens").asInt()).isEqualTo(1);
    String light =
        list.path("programs")
            .valueStream()
            .filter(p -> p.path("name").asString().equals("Lighting"))
            .findFirst()
            .orElseThrow()
            .path("id")
            .asString();
    assertThat(
            administrator
                .put("/api/people/" + id, change("Gerd Going", "DESIGNER", "\"" + light + "\""))
                .status())
        .isEqualTo(204);
    assertThat(who.get("/api/me").status()).isEqualTo(401); // signed in with the old role
    JsonNode changed = administrator.get("/api/people?q=going").json().path("people").get(0);
    assertThat(changed.path("role").asString()).isEqualTo("DESIGNER");
    assertThat(changed.path("programs").get(0).asString()).isEqualTo(light);
    assertThat(administrator.delete("/api/people/" + id + "/access").status()).isEqualTo(204);
    assertThat(new Caller(port).bearer(token).get("/api/me").status()).isEqualTo(401);
    assertThat(administrator.get("/api/record?q=Gerd").json())
        .extracting(e -> e.path("what").asString())
        .contains("changed person", "ended access of");

    UUID last = id("admin@x.example");
    db.update(PERSON)
        .set(PERSON.ROLE, Role.DESIGNER)
        .where(PERSON.ROLE.eq(Role.ADMINISTRATOR))
        .and(PERSON.ID.ne(last))
        .execute();
    assertThat(administrator.put("/api/people/" + last, change("A", "DESIGNER", "")).status())
        .isEqualTo(409);
    assertThat(administrator.delete("/api/people/" + last + "/access").status()).isEqualTo(422);
  }

  @Test
  void theRecordKeepsNamesAsTheyWere() {
    another("renamed@x.example", Role.DESIGNER);
    UUID id = id("renamed@x.example");
    administrator.put("/api/people/" + id, change("Another Name", "DESIGNER", ""));
    assertThat(administrator.get("/api/record?q=renamed").json())
        .anyMatch(
            e ->
                e.path("what").asString().equals("signed in")
                    && e.path("person").asString().equals("renamed@x.example"));
  }

  @Test
  void whoIsNotSignedInLeavesNoRowsBehindWithoutBound() throws Exception {
    int sessions = count("select count(*) from spring_session");
    int events = db.fetchCount(EVENT);
    db.deleteFrom(SIGN_IN_FAILURE).execute();
    for (int i = 0; i < 120; i++) {
      Caller c = new Caller(port);
      c.get("/api/ready");
      c.get("/api/masters");
      c.form("/api/sign-in", "username=nobody" + i + "@x.example&password=wrong-one");
    }
    assertThat(count("select count(*) from spring_session")).isLessThanOrEqualTo(sessions);
    assertThat(db.fetchCount(EVENT) - events).isLessThan(50);
    assertThat(db.fetchCount(SIGN_IN_FAILURE)).isLessThan(100);
    db.deleteFrom(SIGN_IN_FAILURE).execute();
  }

  private int count(String query) {
    return db.fetchSingle(query).get(0, int.class);
  }

  @Test
  void aLongMailAddressSignsIn() {
    String email = "a".repeat(60) + "@" + "b".repeat(60) + ".example";
    another(email, Role.DESIGNER);
    assertThat(new Caller(port).signIn(email, PASSWORD).get("/api/me").status()).isEqualTo(200);
  }
}
