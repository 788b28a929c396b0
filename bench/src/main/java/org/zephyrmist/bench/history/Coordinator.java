package org.zephyrmist.bench.history;

import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.databind.JsonNode;

/** Deliveries, take backs and changes in all shells. */
final class Coordinator {
  /** Which own words may go by what a person said or a rule says. */
  interface Goes {
    /**
     * @param item by the platform's id, in which the word was written
     */
    boolean may(String item, String word);
  }

  static final Goes NOTHING_GOES = (item, word) -> false;
  private final Turn of;
  private final Designers designers;
  private final SomeDecisions decisions;
  private final LedgerSays ledger;
  private final List<String> deliveries = new ArrayList<>();

  Coordinator(Turn of, Designers designers) {
    this.of = of;
    this.designers = designers;
    this.decisions = new SomeDecisions(of);
    this.ledger = new LedgerSays(of);
  }

  private String newest() {
    JsonNode versions = of.stage().designer().get("/api/masters/" + of.master()).path("versions");
    return versions.get(versions.size() - 1).path("id").asString();
  }

  private List<Integer> some() {
    List<Integer> all = new ArrayList<>();
    for (int i = 0; i < of.shells().size(); i++) {
      if (of.random().nextInt(3) > 0) {
        all.add(i);
      }
    }
    return all.isEmpty() ? List.of(of.random().nextInt(of.shells().size())) : all;
  }

  String deliver() throws SQLException {
    if (of.random().nextBoolean()) {
      designers.freeze();
    }
    List<Integer> to = some();
    String clash =
        of.any(List.of("KEEP_SECTION", "KEEP_SECTION", "KEEP_SECTION", "TAKE_VERSION", "PUT_BACK"));
    String onto =
        of.random().nextInt(10) == 0
            ? "CLEAN"
            : of.random().nextInt(12) == 0 ? "IF_EMPTY" : "UP_TO_DATE";
    Map<String, Object> choices = new HashMap<>();
    choices.put("clash", clash);
    choices.put("twin", of.any(List.of("ADOPT", "ADD", "LEAVE")));
    choices.put("onto", onto);
    choices.put("emptied", of.any(List.of("ANEW", "LEAVE")));
    choices.put("arrival", of.any(List.of("AS_IN_MASTER", "AS_IN_MASTER", "HIDDEN")));
    choices.put("dates", of.any(List.of("ALONG", "ALONG", "LEFT", "AWAY")));
    int what = of.random().nextInt(8);
    if (what == 0) {
      choices.put("parts", Map.of("what", "CHANGED"));
    } else if (what == 1) {
      List<String> keys =
          designers.draftItems("PAGE").stream().map(n -> n.path("key").asString()).toList();
      if (!keys.isEmpty()) {
        choices.put("parts", Map.of("what", "SOME", "items", List.of(of.any(keys))));
      }
    }
    String id =
        of.stage()
            .coordinator()
            .post(
                "/api/deliveries",
                Map.of(
                    "version", newest(),
                    "sections", to.stream().map(of.sections()::get).toList(),
                    "choices", choices))
            .path("id")
            .asString();
    of.stage().college().awaitLeaves(id, "PLANNING");
    boolean dropped = decisions.some(id);
    boolean any = dropped || !clash.equals("KEEP_SECTION") || onto.equals("CLEAN");
    String told = of.note("delivered", to + " " + choices + (dropped ? ", decided" : ""));
    Set<String> fixed = ledger.called(to, designers.fixed());
    carry(id, null, to, (item, word) -> any || fixed.contains(item));
    if (choices.get("arrival").equals("AS_IN_MASTER")
        && choices.get("dates").equals("ALONG")
        && onto.equals("UP_TO_DATE")
        && !choices.containsKey("parts")
        && of.random().nextInt(3) == 0) {
      again(to);
    }
    return told;
  }

  /** Confirms it, waits for its end, and looks whether all holds in the shells. */
  void carry(String id, String back, List<Integer> to, Goes mayGo) throws SQLException {
    Map<Integer, ShellSeen> before = new HashMap<>();
    to.forEach(i -> before.put(i, ShellSeen.read(of.stage().practice(), of.shells().get(i))));
    of.stage().college().confirm(id);
    JsonNode end = of.stage().college().awaitLeaves(id, "RUNNING");
    for (JsonNode line : end.path("lines")) {
      String state = line.path("state").asString();
      if (!state.equals("DONE")) {
        of.stage().coordinator().post("/api/deliveries/" + id + "/stop", null);
        of.log()
            .add(
                of.step()
                    + "   "
                    + line.path("code").asString()
                    + " "
                    + state
                    + ": "
                    + line.path("reason").asString(""));
      }
    }
    deliveries.add(id);
    of.log().add(of.step() + "   was " + id.substring(0, 4));
    for (JsonNode line : end.path("lines")) {
      int at = of.sections().indexOf(line.path("section").asString());
      if (!line.path("state").asString().equals("DONE")) {
        continue;
      }
      ShellSeen after = ShellSeen.read(of.stage().practice(), of.shells().get(at));
      of.oracle().delivered(of.shells().get(at), id, back, before.get(at), after, mayGo);
      ledger.agrees(at, after);
    }
  }

  /** Delivered again, nothing would move. */
  private void again(List<Integer> to) {
    String id =
        of.stage()
            .coordinator()
            .post(
                "/api/deliveries",
                Map.of(
                    "version", newest(), "sections", to.stream().map(of.sections()::get).toList()))
            .path("id")
            .asString();
    JsonNode d = of.stage().college().awaitLeaves(id, "PLANNING");
    for (JsonNode line : d.path("lines")) {
      if (line.path("steps").asInt() > 0) {
        throw new Oracle.Broken(
            "delivered again, something moves: " + line.path("code") + " " + line.path("counts"));
      }
    }
  }

  String takeBack() throws SQLException {
    if (deliveries.isEmpty()) {
      return of.note("nothing to take back", "");
    }
    String back =
        deliveries.get(
            deliveries.size()
                - 1
                - Math.min(of.random().nextInt(4), of.random().nextInt(deliveries.size())));
    String id =
        of.stage()
            .coordinator()
            .post("/api/deliveries/" + back + "/take-back", Map.of())
            .path("id")
            .asString();
    JsonNode d = of.stage().college().awaitLeaves(id, "PLANNING");
    List<Integer> to = new ArrayList<>();
    d.path("lines").forEach(l -> to.add(of.sections().indexOf(l.path("section").asString())));
    String told = of.note("taken back", "step of " + back.substring(0, 4) + " in " + to);
    carry(id, back, to, NOTHING_GOES);
    return told;
  }

  String editAll() throws SQLException {
    List<Integer> to = some();
    Map<String, Object> edit =
        Map.of(
            "what", "REPLACE",
            "sections", to.stream().map(of.sections()::get).toList(),
            "find", of.any(List.of("lantern", "Gloves", "watts", "grid")),
            "put", of.any(List.of("lamp", "gloves", "watt", "bridge")));
    String id = of.stage().coordinator().post("/api/deliveries/edits", edit).path("id").asString();
    of.stage().college().awaitLeaves(id, "PLANNING");
    to.forEach(
        i ->
            ShellSeen.read(of.stage().practice(), of.shells().get(i))
                .items()
                .keySet()
                .forEach(item -> of.oracle().touched(of.shells().get(i), item)));
    String told = of.note("changed in all shells", edit.toString());
    carry(id, null, to, NOTHING_GOES);
    return told;
  }
}
