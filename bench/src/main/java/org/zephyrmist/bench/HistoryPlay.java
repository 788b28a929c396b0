package org.zephyrmist.bench;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.zephyrmist.stage.Caller;
import tools.jackson.databind.JsonNode;

/**
 * One history: a master of its own and some shells, in which instructors, students, two designers
 * and a coordinator do what chance says. Each step has a seed of its own, so that a history with
 * some steps left out is the same history without them.
 */
final class HistoryPlay {
  private static final String TEXT =
      "<p>Write the load beside every lantern.</p><ul><li>Gloves on.</li><li>Count the lamps.</li></ul>"
          + "<table><tbody><tr><td>Circuit</td><td>2,400 watts</td></tr></tbody></table>"
          + "<p>Ask before you open the grid.</p>";

  private final HistoryStage stage;
  private final List<String> shells;
  private final List<String> sections;
  private final String master;
  private final List<String> deliveries = new ArrayList<>();
  private final Map<String, Boolean> drops = new HashMap<>();
  private final HistoryOracle oracle = new HistoryOracle();
  private final List<String> log = new ArrayList<>();
  private Random random;
  private int step;

  HistoryPlay(HistoryStage stage, List<String> shells, List<String> sections) {
    this.stage = stage;
    this.shells = shells;
    this.sections = sections;
    this.master = stage.master();
    items();
    freeze();
  }

  /** What was done, a line for each step. */
  List<String> log() {
    return log;
  }

  /**
   * Plays steps by their seeds.
   *
   * @throws HistoryOracle.Broken if something does not hold
   */
  void play(List<Long> seeds, Map<String, Integer> counts) throws SQLException {
    for (long seed : seeds) {
      random = new Random(seed);
      step++;
      String did;
      try {
        did = something();
      } catch (Caller.Failed e) {
        if (e.status >= 500 || e.status == 0) {
          throw new HistoryOracle.Broken("the server answers " + e.status + ": " + e.getMessage());
        }
        did = "refused";
        log.add(step + " refused: " + e.getMessage());
        if (Boolean.getBoolean("histories.told")) {
          System.out.println(log.get(log.size() - 1));
        }
      }
      counts.merge(did, 1, Integer::sum);
    }
    draftEnds();
  }

  private String something() throws SQLException {
    int n = random.nextInt(100);
    if (n < 34) {
      return instructor(random.nextInt(shells.size()));
    } else if (n < 42) {
      return student(random.nextInt(shells.size()));
    } else if (n < 60) {
      return designer();
    } else if (n < 86) {
      return deliver();
    } else if (n < 97) {
      return takeBack();
    }
    return editAll();
  }

  private <T> T any(List<T> of) {
    return of.get(random.nextInt(of.size()));
  }

  private String note(String what, String how) {
    log.add(step + " " + what + ": " + how);
    return what;
  }

  // --- instructors and students ---------------------------------------------------------------

  private String instructor(int at) {
    String shell = shells.get(at);
    HistoryShell is = HistoryShell.read(stage.practice(), shell);
    List<HistoryShell.Thing> written = is.written();
    if (written.isEmpty() || random.nextInt(8) == 0) {
      String word = word();
      form(shell, "/add", Map.of("title", "Own " + word, "html", "<p>Mine " + word + ".</p>"));
      HistoryShell.Thing page =
          HistoryShell.read(stage.practice(), shell).items().values().stream()
              .filter(i -> i.says(word))
              .findFirst()
              .orElseThrow();
      oracle.wrote(shell, page.id(), word);
      return note("own page", shell + " " + word);
    }
    HistoryShell.Thing item = any(written);
    switch (random.nextInt(10)) {
      case 0 -> {
        if (oracle.hasWork(shell, item.id())) {
          return note("left alone", shell);
        }
        form(shell, "/items/" + item.id() + "/delete", Map.of());
        oracle.deleted(shell, item);
        return note("deleted", shell + " " + item.title());
      }
      case 1 -> {
        form(
            shell,
            "/items/" + item.id() + "/due",
            Map.of("due", "2026-10-0" + (1 + random.nextInt(9)) + "T18:00"));
        oracle.touched(shell, item.id());
        return note("date", shell + " " + item.title());
      }
      case 2 -> {
        form(shell, "/items/" + item.id() + "/visibility", Map.of("shown", "" + !item.shown()));
        oracle.touched(shell, item.id());
        return note("hidden or shown", shell + " " + item.title());
      }
      case 3 -> {
        String word = word();
        text(shell, item, item.title() + " " + word, item.html());
        oracle.wrote(shell, item.id(), word);
        return note("title", shell + " " + item.title() + " " + word);
      }
      default -> {
        String word = word();
        text(shell, item, item.title(), within(item.html(), word));
        oracle.wrote(shell, item.id(), word);
        return note("words", shell + " " + item.title() + " " + word);
      }
    }
  }

  private String word() {
    return "own" + step + "x" + random.nextInt(1_000);
  }

  private void text(String shell, HistoryShell.Thing item, String title, String html) {
    form(shell, "/items/" + item.id() + "/text", Map.of("title", title, "html", html));
  }

  private void form(String shell, String path, Map<String, String> fields) {
    stage.practice().form("/shells/" + shell + path, fields);
  }

  /** A word somewhere in the middle of a text: in a paragraph, a list, a table. */
  private String within(String html, String word) {
    Document d = Jsoup.parseBodyFragment(html);
    d.outputSettings().prettyPrint(false);
    List<Element> blocks = d.body().select("p, li, td, h2");
    if (blocks.isEmpty()) {
      return html + "<p>" + word + "</p>";
    }
    Element e = any(blocks);
    switch (random.nextInt(3)) {
      case 0 -> e.appendText(" " + word);
      case 1 -> e.prependText(word + " ");
      default -> e.after("<" + e.normalName() + ">" + word + "</" + e.normalName() + ">");
    }
    return d.body().html();
  }

  private String student(int at) {
    String shell = shells.get(at);
    List<HistoryShell.Thing> open =
        HistoryShell.read(stage.practice(), shell).items().values().stream()
            .filter(i -> i.kind().equals("ASSIGNMENT") || i.kind().equals("DISCUSSION"))
            .filter(HistoryShell.Thing::shown)
            .toList();
    if (open.isEmpty()) {
      return note("nothing to hand in", shell);
    }
    HistoryShell.Thing item = any(open);
    boolean posts = item.kind().equals("DISCUSSION");
    form(shell, "/items/" + item.id() + (posts ? "/post" : "/work"), Map.of("student", "S" + step));
    oracle.handedIn(shell, item.id());
    return note(posts ? "post" : "work handed in", shell + " " + item.title());
  }

  // --- designers --------------------------------------------------------------------------------

  private void items() {
    String week = add("MODULE", "Week", "", null);
    for (int i = 0; i < 4; i++) {
      add("PAGE", "Reading " + i, TEXT, i < 2 ? week : null);
    }
    add("ASSIGNMENT", "Plot", TEXT, week);
    add("DISCUSSION", "Talk", TEXT, week);
  }

  private String add(String kind, String title, String html, String parent) {
    Map<String, Object> body = new HashMap<>(Map.of("kind", kind, "title", title));
    if (!html.isEmpty()) {
      body.put("html", html);
    }
    if (parent != null) {
      body.put("parent", parent);
    }
    return stage.designer().post(draft() + "/items", body).path("key").asString();
  }

  private String draft() {
    return "/api/masters/" + master + "/draft";
  }

  private List<JsonNode> draftItems(String... kinds) {
    List<String> wanted = List.of(kinds);
    return stage
        .designer()
        .get("/api/masters/" + master + "/versions/0/outline")
        .valueStream()
        .filter(n -> wanted.isEmpty() || wanted.contains(n.path("kind").asString()))
        .toList();
  }

  private String designer() {
    Caller who = random.nextBoolean() ? stage.designer() : stage.colleague();
    List<JsonNode> all = draftItems("PAGE", "ASSIGNMENT", "DISCUSSION");
    int n = random.nextInt(12);
    if (n == 0 || all.isEmpty()) {
      String title = "New " + step;
      who.post(draft() + "/items", Map.of("kind", "PAGE", "title", title, "html", TEXT));
      return note("item added", title);
    }
    JsonNode item = any(all);
    String title = item.path("title").asString();
    String key = item.path("key").asString();
    if (n == 1 && all.size() > 3) {
      who.post(draft() + "/take-out", Map.of("keys", List.of(key)));
      return note("item taken out", title);
    } else if (n == 2) {
      who.patch(draft() + "/items/" + key, Map.of("title", title.split(" of ")[0] + " of " + step));
      return note("item renamed", title);
    } else if (n < 5) {
      who.post(draft() + (n == 3 ? "/undo" : "/redo"), null);
      return note(n == 3 ? "undone" : "done again", "");
    } else if (n < 7) {
      freeze();
      return note("frozen", "");
    }
    String html =
        who.get("/api/masters/" + master + "/versions/0/items/" + key).path("html").asString();
    String word = "new" + step + "x" + random.nextInt(1_000);
    who.patch(
        draft() + "/items/" + key, Map.of("html", within(html.isEmpty() ? TEXT : html, word)));
    return note("text of the draft", title + " " + word);
  }

  private void freeze() {
    try {
      stage.designer().post("/api/masters/" + master + "/versions", Map.of("note", "Step " + step));
    } catch (Caller.Failed nothingNew) {
      if (nothingNew.status >= 500) {
        throw nothingNew;
      }
    }
  }

  /** Whatever was mixed, undoing ends, and nobody is stuck. */
  private void draftEnds() {
    for (Caller who : List.of(stage.designer(), stage.colleague())) {
      String last = "";
      for (int i = 0; ; i++) {
        try {
          who.post(draft() + "/undo", null);
        } catch (Caller.Failed e) {
          if (e.status == 422) {
            break;
          }
          if (e.status != 409 || e.getMessage().equals(last)) {
            throw new HistoryOracle.Broken("undo is stuck: " + e.getMessage());
          }
          last = e.getMessage();
        }
        if (i > 10 * (step + 20)) {
          throw new HistoryOracle.Broken("undo does not end");
        }
      }
    }
  }

  // --- deliveries
  // ---------------------------------------------------------------------------------

  private String newest() {
    JsonNode versions = stage.designer().get("/api/masters/" + master).path("versions");
    return versions.get(versions.size() - 1).path("id").asString();
  }

  private List<Integer> some() {
    List<Integer> all = new ArrayList<>();
    for (int i = 0; i < shells.size(); i++) {
      if (random.nextInt(3) > 0) {
        all.add(i);
      }
    }
    return all.isEmpty() ? List.of(random.nextInt(shells.size())) : all;
  }

  private String deliver() throws SQLException {
    if (random.nextBoolean()) {
      freeze();
    }
    List<Integer> to = some();
    String clash =
        any(List.of("KEEP_SECTION", "KEEP_SECTION", "KEEP_SECTION", "TAKE_VERSION", "PUT_BACK"));
    String onto =
        random.nextInt(10) == 0 ? "CLEAN" : random.nextInt(12) == 0 ? "IF_EMPTY" : "UP_TO_DATE";
    Map<String, Object> choices = new HashMap<>();
    choices.put("clash", clash);
    choices.put("twin", any(List.of("ADOPT", "ADD", "LEAVE")));
    choices.put("onto", onto);
    choices.put("emptied", any(List.of("ANEW", "LEAVE")));
    choices.put("arrival", any(List.of("AS_IN_MASTER", "AS_IN_MASTER", "HIDDEN")));
    choices.put("dates", any(List.of("ALONG", "ALONG", "LEFT", "AWAY")));
    int what = random.nextInt(8);
    if (what == 0) {
      choices.put("parts", Map.of("what", "CHANGED"));
    } else if (what == 1) {
      List<String> keys = draftItems("PAGE").stream().map(n -> n.path("key").asString()).toList();
      if (!keys.isEmpty()) {
        choices.put("parts", Map.of("what", "SOME", "items", List.of(any(keys))));
      }
    }
    String id =
        stage
            .coordinator()
            .post(
                "/api/deliveries",
                Map.of(
                    "version", newest(),
                    "sections", to.stream().map(sections::get).toList(),
                    "choices", choices))
            .path("id")
            .asString();
    stage.college().awaitLeaves(id, "PLANNING");
    boolean dropped = decide(id);
    boolean mayDrop = dropped || !clash.equals("KEEP_SECTION") || onto.equals("CLEAN");
    carry(id, null, to, mayDrop);
    String told = note("delivered", to + " " + choices + (dropped ? ", decided" : ""));
    if (choices.get("arrival").equals("AS_IN_MASTER")
        && choices.get("dates").equals("ALONG")
        && onto.equals("UP_TO_DATE")
        && !choices.containsKey("parts")
        && random.nextInt(3) == 0) {
      again(to);
    }
    return told;
  }

  /** Decides some of what is asked; whether words of a section's own may go by it. */
  private boolean decide(String id) {
    if (random.nextBoolean()) {
      return false;
    }
    JsonNode plan = stage.coordinator().get("/api/deliveries/" + id + "/plan");
    boolean drops = false;
    for (int l = 0; l < plan.path("lines").size(); l++) {
      JsonNode steps = plan.path("steps").get(l);
      for (int i = 0; i + 1 < steps.size(); i += 2) {
        JsonNode code = plan.path("codes").get(steps.get(i + 1).asInt());
        String kind = code.path("kind").asString();
        String reason = code.path("reason").asString();
        String take =
            kind.equals("CLASH") || reason.equals("MERGED")
                ? any(List.of("SECTION", "VERSION", "TOGETHER"))
                : kind.equals("TWIN") && !reason.equals("SUPPLIED")
                    ? any(List.of("ADOPT", "ADD", "LEAVE"))
                    : reason.equals("STUDENT_WORK")
                        ? any(List.of("LEAVE", "CHANGE_GRADING", "HIDE"))
                        : "";
        if (take.isEmpty() || random.nextInt(3) > 0) {
          continue;
        }
        String key = plan.path("rows").get(steps.get(i).asInt()).path("key").asString();
        String path =
            "/api/deliveries/"
                + id
                + "/lines/"
                + plan.path("lines").get(l).asString()
                + "/steps/"
                + key;
        try {
          stage
              .coordinator()
              .put(path + "/decision", Map.of("take", take, "everywhere", random.nextBoolean()));
          drops |= take.equals("VERSION") || take.equals("TOGETHER") || take.equals("ADOPT");
          stage.college().awaitLeaves(id, "PLANNING");
          log.add(step + "   decided " + take + " of " + key + " (" + kind + " " + reason + ")");
        } catch (Caller.Failed e) {
          if (e.status >= 500) {
            throw e;
          }
        }
      }
    }
    return drops;
  }

  /** Confirms it, waits for its end, and looks whether all holds in the shells. */
  private void carry(String id, String back, List<Integer> to, boolean mayDrop)
      throws SQLException {
    Map<Integer, HistoryShell> before = new HashMap<>();
    to.forEach(i -> before.put(i, HistoryShell.read(stage.practice(), shells.get(i))));
    stage.college().confirm(id);
    JsonNode end = stage.college().awaitLeaves(id, "RUNNING");
    for (JsonNode line : end.path("lines")) {
      String state = line.path("state").asString();
      if (!state.equals("DONE")) {
        stage.coordinator().post("/api/deliveries/" + id + "/stop", null);
        log.add(
            step
                + "   "
                + line.path("code").asString()
                + " "
                + state
                + ": "
                + line.path("reason").asString(""));
      }
    }
    deliveries.add(id);
    drops.put(id, mayDrop);
    for (JsonNode line : end.path("lines")) {
      int at = sections.indexOf(line.path("section").asString());
      if (!line.path("state").asString().equals("DONE")) {
        continue;
      }
      HistoryShell after = HistoryShell.read(stage.practice(), shells.get(at));
      oracle.delivered(shells.get(at), id, back, before.get(at), after, mayDrop);
      ledger(at, after);
    }
  }

  /** The ledger says of each item what the platform shows. */
  private void ledger(int at, HistoryShell is) throws SQLException {
    try (Connection db = stage.connect();
        var q =
            db.prepareStatement(
                "select platform_item, title, here is null, here is distinct from shown from holding"
                    + " where section_id = ?::uuid")) {
      q.setString(1, sections.get(at));
      try (ResultSet r = q.executeQuery()) {
        while (r.next()) {
          HistoryShell.Thing t = is.items().get(r.getString(1));
          String what = shells.get(at) + " “" + r.getString(2) + "”";
          if (r.getBoolean(3) != (t == null)) {
            throw new HistoryOracle.Broken("the ledger is wrong about what is there: " + what);
          }
          if (t != null && r.getBoolean(4) && !oracle.wasTouched(t.id())) {
            throw new HistoryOracle.Broken("untouched, and changed here by the ledger: " + what);
          }
          if (t != null && !r.getBoolean(4) && !oracle.in(shells.get(at), t).isEmpty()) {
            throw new HistoryOracle.Broken(
                "own words, and as delivered by the ledger: "
                    + what
                    + " "
                    + oracle.in(shells.get(at), t));
          }
        }
      }
    }
  }

  /** Delivered again, nothing would move. */
  private void again(List<Integer> to) {
    String id =
        stage
            .coordinator()
            .post(
                "/api/deliveries",
                Map.of("version", newest(), "sections", to.stream().map(sections::get).toList()))
            .path("id")
            .asString();
    JsonNode d = stage.college().awaitLeaves(id, "PLANNING");
    for (JsonNode line : d.path("lines")) {
      if (line.path("steps").asInt() > 0) {
        throw new HistoryOracle.Broken(
            "delivered again, something moves: " + line.path("code") + " " + line.path("counts"));
      }
    }
  }

  private String takeBack() throws SQLException {
    if (deliveries.isEmpty()) {
      return note("nothing to take back", "");
    }
    String of =
        deliveries.get(
            deliveries.size() - 1 - Math.min(random.nextInt(4), random.nextInt(deliveries.size())));
    String id =
        stage
            .coordinator()
            .post("/api/deliveries/" + of + "/take-back", Map.of())
            .path("id")
            .asString();
    JsonNode d = stage.college().awaitLeaves(id, "PLANNING");
    List<Integer> to = new ArrayList<>();
    d.path("lines").forEach(l -> to.add(sections.indexOf(l.path("section").asString())));
    carry(id, of, to, false);
    return note("taken back", "step of " + of.substring(0, 4) + " in " + to);
  }

  private String editAll() throws SQLException {
    List<Integer> to = some();
    Map<String, Object> edit =
        Map.of(
            "what", "REPLACE",
            "sections", to.stream().map(sections::get).toList(),
            "find", any(List.of("lantern", "Gloves", "watts", "grid")),
            "put", any(List.of("lamp", "gloves", "watt", "bridge")));
    String id = stage.coordinator().post("/api/deliveries/edits", edit).path("id").asString();
    stage.college().awaitLeaves(id, "PLANNING");
    to.forEach(
        i ->
            HistoryShell.read(stage.practice(), shells.get(i))
                .items()
                .keySet()
                .forEach(item -> oracle.touched(shells.get(i), item)));
    carry(id, null, to, false);
    return note("changed in all shells", edit.toString());
  }
}
