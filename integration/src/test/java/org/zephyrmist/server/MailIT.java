package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.awaitility.Awaitility;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.zephyrmist.server.db.Tables;
import tools.jackson.databind.JsonNode;

/** What people are told by mail when a delivery has ended. */
class MailIT extends ServerIT {
  @AfterEach
  void open() throws Exception {
    Practice.mailbox(false);
  }

  private static List<JsonNode> mails(String subject) {
    try {
      List<JsonNode> some = new ArrayList<>();
      for (JsonNode m : Practice.get("/api/mailbox")) {
        if (m.path("subject").asString().contains(subject)) {
          some.add(m);
        }
      }
      return some;
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }

  private JsonNode begin(String delivery, String more) {
    Caller.Answer a =
        coordinator.post("/api/deliveries/" + delivery + "/confirm", "{" + more + "}");
    assertThat(a.status()).as(a.text()).isEqualTo(200);
    return rest(delivery, "RUNNING");
  }

  private JsonNode told(String delivery) {
    return coordinator.get("/api/deliveries/" + delivery).json().path("mail");
  }

  private void teaches(UUID section, String email) {
    UUID person =
        people.admit(email, "Jo " + email, org.zephyrmist.server.people.Role.INSTRUCTOR, PASSWORD);
    db.deleteFrom(Tables.SECTION_INSTRUCTOR)
        .where(Tables.SECTION_INSTRUCTOR.SECTION_ID.eq(section))
        .execute();
    db.insertInto(Tables.SECTION_INSTRUCTOR)
        .set(Tables.SECTION_INSTRUCTOR.SECTION_ID, section)
        .set(Tables.SECTION_INSTRUCTOR.PERSON_ID, person)
        .execute();
  }

  @Test
  void senderAndInstructorsAreToldOnceWhatCameAndWhy() throws Exception {
    List<UUID> to = sections("lgt-ya1");
    teaches(to.get(0), "ya1@x.example");
    String master = master("YA");
    String delivery = plan(master, 1, to);
    begin(delivery, "\"tell\":\"INSTRUCTORS\",\"note\":\"New load tables of this autumn.\"");
    await(() -> mails("YA Light"), m -> m.size() == 2);
    JsonNode instructor = mails("is in lgt-ya1").get(0);
    assertThat(instructor.path("recipient").asString()).isEqualTo("ya1@x.example");
    assertThat(instructor.path("body").asString())
        .contains("New load tables of this autumn.", "New (6):", "- Checklist", "/sections/");
    assertThat(mails("Delivered: YA").get(0).path("recipient").asString())
        .isEqualTo("coordinator@x.example");
    await(() -> told(delivery), t -> t.path("sent").asInt() == 2);
    coordinator.post("/api/deliveries/" + delivery + "/go-on", "");
    rest(delivery, "RUNNING");
    assertThat(mails("YA Light")).as("nothing is sent twice").hasSize(2);
  }

  @Test
  void aMailServerThatIsDownLosesNothing() throws Exception {
    List<UUID> to = sections("lgt-yb1");
    String master = master("YB");
    Practice.mailbox(true);
    String delivery = plan(master, 1, to);
    begin(delivery, "");
    await(() -> told(delivery), t -> t.path("made").asInt() == 1);
    Awaitility.await().during(Duration.ofMillis(1_500)).until(() -> mails("YB Light").isEmpty());
    Practice.mailbox(false);
    await(() -> mails("YB Light"), m -> m.size() == 1);
  }

  @Test
  void anAddressThatIsNotTakenIsTold() throws Exception {
    List<UUID> to = sections("lgt-yc1");
    teaches(to.get(0), "yc1@bounces.example");
    String master = master("YC");
    String delivery = plan(master, 1, to);
    begin(delivery, "\"tell\":\"INSTRUCTORS\"");
    JsonNode told = await(() -> told(delivery), t -> !t.path("problems").isEmpty());
    assertThat(told.path("problems").get(0).asString())
        .isEqualTo("yc1@bounces.example: the mail server does not take this address");
  }

  private String order(List<UUID> to, String first, String then) {
    Caller.Answer a =
        coordinator.post(
            "/api/deliveries",
            "{\"version\":\"%s\",\"sections\":%s,\"together\":[\"%s\",\"%s\"]}"
                .formatted(
                    version(first, 1),
                    to.stream().map(s -> "\"" + s + "\"").toList(),
                    version(first, 1),
                    version(then, 1)));
    assertThat(a.status()).as(a.text()).isEqualTo(201);
    String id = a.json().path("id").asString();
    await(
        () -> coordinator.get("/api/deliveries/" + id).json().path("together"),
        all -> all.valueStream().allMatch(d -> d.path("state").asString().equals("PLANNED")));
    return id;
  }

  @Test
  void anOrderOfSeveralMastersIsToldOnce() throws Exception {
    List<UUID> to = sections("lgt-ye1");
    teaches(to.get(0), "ye1@x.example");
    String delivery = order(to, master("YE"), master("YEE"));
    begin(delivery, "\"tell\":\"INSTRUCTORS\"");
    await(() -> mails("YE, version 1; YEE, version 1"), m -> m.size() == 2);
    JsonNode instructor = mails("is in lgt-ye1").get(0);
    assertThat(instructor.path("body").asString()).contains("New (7):", "YE, version 1; YEE");
    assertThat(mails("YEE")).as("none of a part alone").hasSize(2);
    await(() -> told(delivery), t -> t.path("sent").asInt() == 2);
  }

  @Test
  void whoSentAnOrderIsToldThatItsFirstPartNeedsThem() throws Exception {
    List<UUID> to = sections("lgt-yf1", "lgt-yf2");
    Practice.fault("lgt-yf1", "REFUSE", 1_000);
    String delivery = order(to, master("YF"), master("YFF"));
    Practice.noFaults();
    Practice.fault("lgt-yf1", "REFUSE", 1_000);
    begin(delivery, "");
    JsonNode mail = await(() -> mails("YF, version 1; YFF"), m -> m.size() == 1).get(0);
    assertThat(mail.path("subject").asString()).contains("1 of 2 sections");
    assertThat(mail.path("body").asString()).contains("1 needs you").doesNotContain("wait");
    Practice.noFaults();
  }

  @Test
  void nobodyIsToldIfSoChosen() throws Exception {
    List<UUID> to = sections("lgt-yd1");
    String master = master("YD");
    String delivery = plan(master, 1, to);
    begin(delivery, "\"tell\":\"NOBODY\"");
    assertThat(told(delivery).path("made").asInt()).isZero();
  }
}
