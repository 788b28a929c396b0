package org.zephyrmist.bench.history;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import tools.jackson.databind.JsonNode;

/** The first section brought into the term after, where the second follows it. */
final class NextTerm {
  private final Turn of;
  private final Coordinator coordinator;
  private final LedgerSays ledger;
  private String terms;

  NextTerm(Turn of, Coordinator coordinator) {
    this.of = of;
    this.coordinator = coordinator;
    this.ledger = new LedgerSays(of);
  }

  /**
   * All that is proposed, with some texts of the section's own. What was said of a text in the
   * first section stands in the second as its own, if it comes there.
   */
  String bringForward() throws SQLException {
    if (terms == null) {
      terms = "?from=" + term(0) + "&to=" + term(1);
    }
    String path = "/api/coverage/next-term";
    JsonNode proposed = of.stage().coordinator().get(path + terms);
    leaveOutOthers(path, proposed);
    ShellSeen first = ShellSeen.read(of.stage().practice(), of.shells().get(0));
    ShellSeen second = ShellSeen.read(of.stage().practice(), of.shells().get(1));
    List<String> along = new ArrayList<>();
    for (JsonNode text : proposed.path("texts")) {
      String onward = of.random().nextBoolean() ? "AGAIN" : "DROPPED";
      String item = text.path("item").asString();
      of.stage()
          .coordinator()
          .put(
              path + "/texts" + terms,
              Map.of("master", text.path("master").asString(), "item", item, "onward", onward));
      of.log().add(of.step() + "   " + onward + " " + text.path("title").asString());
      if (onward.equals("AGAIN") && second.items().isEmpty()) {
        ledger
            .called(List.of(0), Set.of(item))
            .forEach(id -> along.addAll(of.oracle().in(of.shells().get(0), first.items().get(id))));
      }
    }
    JsonNode made = of.stage().coordinator().post(path + terms, null).path("deliveries");
    for (JsonNode d : made) {
      of.stage().college().awaitLeaves(d.asString(), "PLANNING");
    }
    String told = of.note("next term", made.size() + " deliveries");
    coordinator.carry(made.get(0).asString(), null, List.of(1), Coordinator.NOTHING_GOES);
    ShellSeen still = ShellSeen.read(of.stage().practice(), of.shells().get(0));
    if (!still.contents().equals(first.contents())) {
      throw new Oracle.Broken("the earlier term moved in " + of.shells().get(0));
    }
    came(along);
    return told;
  }

  /** Masters of other histories are no part of this one. */
  private void leaveOutOthers(String path, JsonNode proposed) {
    for (JsonNode m : proposed.path("masters")) {
      String master = m.path("master").asString();
      if (!master.equals(of.master())) {
        Object out = Map.of("master", master, "leftOut", true);
        of.stage().coordinator().put(path + "/masters" + terms, out);
      }
    }
  }

  /** Words that went along are the second section's own from now on. */
  private void came(List<String> words) {
    ShellSeen now = ShellSeen.read(of.stage().practice(), of.shells().get(1));
    for (String word : words) {
      String item =
          now.items().values().stream()
              .filter(i -> i.says(word))
              .findFirst()
              .orElseThrow(() -> new Oracle.Broken(word + " did not go along to the next term"))
              .id();
      of.oracle().wrote(of.shells().get(1), item, word);
    }
  }

  /**
   * A term for one of the sections alone, in which the same person teaches both, the second long
   * after the first.
   */
  private String term(int at) throws SQLException {
    String id = UUID.randomUUID().toString();
    try (Connection db = of.stage().connect();
        PreparedStatement make =
            db.prepareStatement(
                "insert into term (id, sourced_id, title, first_day, last_day) select ?::uuid, ?,"
                    + " ?, first_day + ?, last_day + ? from term where sourced_id = 't1'");
        PreparedStatement put =
            db.prepareStatement("update section set term_id = ?::uuid where id = ?::uuid");
        PreparedStatement teaches =
            db.prepareStatement(
                "insert into section_instructor (section_id, person_id)"
                    + " select ?::uuid, min(id::text)::uuid from person")) {
      make.setString(1, id);
      make.setString(2, id);
      make.setString(3, "Term " + id.substring(0, 6));
      make.setInt(4, at * 5_000);
      make.setInt(5, at * 5_000);
      make.execute();
      put.setString(1, id);
      put.setString(2, of.sections().get(at));
      put.execute();
      teaches.setString(1, of.sections().get(at));
      teaches.execute();
    }
    return id;
  }
}
