package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.zephyrmist.server.db.Tables.ACCESS_TOKEN;
import static org.zephyrmist.server.db.Tables.EVENT;
import static org.zephyrmist.server.db.Tables.SIGN_IN_FAILURE;

import java.time.OffsetDateTime;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.people.Role;

/** Signing in, with a password or a token, and what ends it. */
class SignInIT extends ServerIT {
  @AfterEach
  void forget() {
    db.deleteFrom(SIGN_IN_FAILURE).execute();
  }

  private Caller.Answer attempt(String email, String password) {
    Caller c = new Caller(port);
    c.get("/api/ready");
    return c.form("/api/sign-in", "username=" + email + "&password=" + password);
  }

  @Test
  void guessingIsSlowedDownForKnownAndUnknownAddressesAlike() {
    another("guessed@x.example", Role.DESIGNER);
    for (String email : new String[] {"guessed@x.example", "unknown@x.example"}) {
      for (int i = 0; i < 5; i++) {
        assertThat(attempt(email, "wrong-password").status()).isEqualTo(401);
      }
      Caller.Answer a = attempt(email, PASSWORD);
      assertThat(a.status()).as(email).isEqualTo(429);
      assertThat(a.json().path("remedy").asString()).contains("second");
    }
    assertThat(attempt("coordinator@x.example", PASSWORD).status()).isEqualTo(204);
  }

  @Test
  void aChangedPasswordEndsTheOtherSessions() {
    Caller here = another("change@x.example", Role.DESIGNER);
    Caller there = new Caller(port).signIn("change@x.example", PASSWORD);
    String wrong = "{\"old\":\"not-the-password\",\"password\":\"a-newer-password\"}";
    assertThat(here.post("/api/me/password", wrong).status()).isEqualTo(422);
    assertThat(there.get("/api/me").status()).isEqualTo(200);
    String right = "{\"old\":\"" + PASSWORD + "\",\"password\":\"a-newer-password\"}";
    assertThat(here.post("/api/me/password", right).status()).isEqualTo(204);
    assertThat(here.get("/api/me").status()).isEqualTo(200);
    assertThat(there.get("/api/me").status()).isEqualTo(401);
    assertThat(attempt("change@x.example", "a-newer-password").status()).isEqualTo(204);
  }

  @Test
  void aPasswordThatTheHashWouldCutIsRefused() {
    String body =
        "{\"name\":\"L\",\"email\":\"long@x.example\",\"role\":\"DESIGNER\",\"password\":\"%s\"}"
            .formatted("ö".repeat(40));
    assertThat(administrator.post("/api/people", body).status()).isEqualTo(422);
  }

  private String token(Caller who, String scopes) {
    return who.post("/api/me/tokens", "{\"name\":\"t\",\"scopes\":[" + scopes + "],\"days\":5}")
        .json()
        .path("token")
        .asString();
  }

  @Test
  void aTokenSignsInWithoutASessionUntilItExpiresOrIsEnded() {
    Caller who = another("scripts@x.example", Role.COORDINATOR);
    String text = token(who, "\"READ\"");
    Caller script = new Caller(port).bearer(text);
    assertThat(script.get("/api/me").json().path("email").asString())
        .isEqualTo("scripts@x.example");
    assertThat(script.cookies()).isEmpty();
    assertThat(who.get("/api/me/tokens").text()).doesNotContain(text.substring(11));
    db.update(ACCESS_TOKEN)
        .set(ACCESS_TOKEN.MADE_AT, OffsetDateTime.now().minusDays(9))
        .set(ACCESS_TOKEN.EXPIRES_AT, OffsetDateTime.now().minusDays(1))
        .where(
            ACCESS_TOKEN.ID.eq(
                UUID.fromString(who.get("/api/me/tokens").json().get(0).path("id").asString())))
        .execute();
    assertThat(script.get("/api/me").status()).isEqualTo(401);
    String second = token(who, "\"READ\"");
    String id = who.get("/api/me/tokens").json().get(0).path("id").asString();
    assertThat(who.delete("/api/me/tokens/" + id).status()).isEqualTo(204);
    assertThat(new Caller(port).bearer(second).get("/api/me").status()).isEqualTo(401);
  }

  @Test
  void aCookieDoesNotCountBesideAFalseToken() {
    Caller both = another("both2@x.example", Role.COORDINATOR).bearer("zephyrmist_false");
    assertThat(both.get("/api/me").status()).isEqualTo(401);
  }

  @Test
  void aPasswordSetByAnAdministratorEndsSessionsAndTokens() {
    Caller who = another("reset@x.example", Role.DESIGNER);
    Caller script = new Caller(port).bearer(token(who, "\"READ\""));
    UUID id = people.loadUserByUsername("reset@x.example").id();
    String body = "{\"password\":\"set-by-another\"}";
    assertThat(administrator.post("/api/people/" + id + "/password", body).status()).isEqualTo(204);
    assertThat(who.get("/api/me").status()).isEqualTo(401);
    assertThat(script.get("/api/me").status()).isEqualTo(401);
  }

  @Test
  void pagesAndAnswersCarryStrictHeaders() {
    for (String path : new String[] {"/", "/api/me", "/coverage"}) {
      String policy = coordinator.header(path, "Content-Security-Policy");
      assertThat(policy).contains("default-src 'none'").doesNotContain("unsafe");
      assertThat(coordinator.header(path, "X-Content-Type-Options")).isEqualTo("nosniff");
      assertThat(coordinator.header(path, "X-Frame-Options")).isEqualTo("SAMEORIGIN");
      assertThat(coordinator.header(path, "Permissions-Policy")).contains("camera=()");
      assertThat(coordinator.header(path, "Referrer-Policy")).isEqualTo("same-origin");
    }
  }

  @Test
  void theRecordTellsWhoDidWhatAndCannotBeChanged() {
    another("recorded@x.example", Role.DESIGNER);
    Caller.Answer a = administrator.get("/api/record?q=signed%20in");
    assertThat(a.json().get(0).path("what").asString()).isEqualTo("signed in");
    assertThatThrownBy(() -> db.deleteFrom(EVENT).execute())
        .hasMessageContaining("only ever added");
    assertThatThrownBy(() -> db.truncate(EVENT).execute()).hasMessageContaining("only ever added");
    assertThatThrownBy(() -> db.update(EVENT).set(EVENT.WHAT, "x").execute())
        .hasMessageContaining("only ever added");
  }

  @Test
  void theRecordLeadsToWhatItTellsOf() throws Exception {
    List<UUID> to = sections("lgt-rec1");
    String master = masterOfItsOwn("ZRQ");
    String delivery = deliver(master, 1, to).path("delivery").path("id").asString();
    assertThat(administrator.get("/api/record?q=ZRQ").json())
        .extracting(e -> e.path("what").asString() + " " + e.path("leadsTo").asString())
        .startsWith(
            "confirmed delivery of /deliveries/" + delivery,
            "froze /sources/masters/" + master,
            "made master /sources/masters/" + master)
        .last()
        .asString()
        .startsWith("took in /sources/editions/");
  }
}
