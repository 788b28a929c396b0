package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.FILE;
import static org.zephyrmist.server.db.Tables.PLATFORM;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.server.people.Role;
import tools.jackson.databind.JsonNode;

/** Every call, every role, somebody else's objects: as docs/security.md says. */
class MatrixIT extends ServerIT {
  private static final Pattern ROW =
      Pattern.compile("\\| `(\\w+) ([^`]+)` \\|([^|]+)\\|([^|]+)\\|([^|]+)\\|([^|]+)\\|([^|]+)\\|");
  private static final List<String> ORDER = List.of("GET", "PUT", "POST", "PATCH", "DELETE");
  private static final List<String> SCOPES = List.of("READ", "SOURCES", "DELIVER", "COLLEGE");
  private final Map<String, String> values = new HashMap<>();
  private final List<String> wrong = new ArrayList<>();
  private int n;
  private static int round;

  /** A row of the table. */
  private record Call(String method, String path, Map<String, String> cells, String scope) {}

  private static List<Call> table() throws Exception {
    List<Call> calls = new ArrayList<>();
    for (String line :
        Files.readAllLines(Path.of(System.getProperty("root"), "docs/security.md"))) {
      Matcher m = ROW.matcher(line);
      if (m.matches()) {
        Map<String, String> cells = new LinkedHashMap<>();
        cells.put("coordinator", m.group(3).strip());
        cells.put("designer", m.group(4).strip());
        cells.put("instructor", m.group(5).strip());
        cells.put("administrator", m.group(6).strip());
        calls.add(new Call(m.group(1), m.group(2), cells, m.group(7).strip()));
      }
    }
    calls.sort(Comparator.comparing(c -> ORDER.indexOf(c.method())));
    return calls;
  }

  @Test
  void everyCallOfTheApiStandsInTheTable() throws Exception {
    Set<String> described = new TreeSet<>();
    coordinator
        .get("/api/openapi")
        .json()
        .path("paths")
        .properties()
        .forEach(
            p ->
                p.getValue()
                    .propertyNames()
                    .forEach(m -> described.add(m.toUpperCase(Locale.ROOT) + " " + p.getKey())));
    described.removeAll(List.of("GET /api/ready", "POST /api/first-person"));
    Set<String> written = new TreeSet<>();
    table().forEach(c -> written.add(c.method() + " " + c.path()));
    assertThat(written).isEqualTo(described);
  }

  /** Objects of lighting, made by Ines, for people of sound to try their hands on. */
  private void foreignObjects() throws Exception {
    List<UUID> ids = sections("lgt-ma" + round, "snd-ma" + round, "lgt-pkm" + round);
    String master = master("MA" + round++);
    deliver(master, 1, ids.subList(0, 1));
    edit(master, "Checklist", "{\"html\":\"<p>Boots.</p>\"}");
    freeze(master, "Second");
    values.put(
        "delivery", deliver(master, 2, ids.subList(0, 1)).path("delivery").path("id").asString());
    JsonNode packaged = deliver(master, 1, ids.subList(2, 3)); // its package waits from now on
    values.put("waits", packaged.path("delivery").path("id").asString());
    values.put("packaged", ids.get(2).toString());
    String delivery = plan(master, 1, ids.subList(0, 1));
    JsonNode detail = coordinator.get("/api/deliveries/" + delivery).json();
    String intake = takeIn(Samples.cartridge("Matrix " + round), "m.imscc");
    String edition = read(intake).path("edition").asString();
    String token =
        coordinator
            .post("/api/me/tokens", "{\"name\":\"t\",\"scopes\":[\"READ\"],\"days\":9}")
            .text();
    assertThat(token).contains("zephyrmist_");
    values.put(
        "course",
        db.select(COURSE.ID).from(COURSE).where(COURSE.CODE.eq("LGT 110")).fetchSingle().value1()
            + "");
    values.put("masters", master);
    values.put("master", master);
    values.put("deliveries", delivery);
    values.put("sections", ids.get(0).toString());
    values.put("intakes", intake);
    values.put("editions", edition);
    values.put("edition", edition);
    values.put("tokens", coordinator.get("/api/me/tokens").json().get(0).path("id").asString());
    values.put(
        "platforms",
        db.select(PLATFORM.ID)
                .from(PLATFORM)
                .where(PLATFORM.NAME.eq("Practice"))
                .fetchSingle()
                .value1()
            + "");
    values.put("platform", values.get("platforms"));
    another("ma-x" + round + "@x.example", Role.DESIGNER);
    values.put("people", people.loadUserByUsername("ma-x" + round + "@x.example").id().toString());
    values.put(
        "roster",
        coordinator
            .upload("/api/roster", Samples.roster("lgt-ma" + round))
            .json()
            .path("id")
            .asString());
    values.put("line", detail.path("lines").get(0).path("id").asString());
    values.put("key", key(master, "Checklist"));
    values.put("other", key(master, "Manual"));
    values.put("number", "0");
    values.put("version", version(master, 1));
    values.put(
        "sha256",
        Fingerprint.of(db.select(FILE.SHA256).from(FILE).limit(1).fetchSingle().value1()).hex());
    values.put("name", "x.txt");
    values.put("section", ids.get(0).toString());
    values.put("package", UUID.randomUUID().toString());
    values.put("pick", UUID.randomUUID().toString());
    values.put("set", coordinator.post("/api/coverage/sets", set()).json().path("id").asString());
    values.put(
        "partSet",
        coordinator.post("/api/deliveries/part-sets", partSet()).json().path("id").asString());
    values.put(
        "rule", coordinator.post("/api/coverage/rules", rule()).json().path("id").asString());
    values.put("value", "night-desk");
    values.put("host", "film.example.org");
    values.put(
        "cartridge",
        coordinator.get("/api/cartridges/editions/" + edition).json().path("cartridge").asString());
    values.put("term", coordinator.get("/api/coverage/terms").json().get(0).path("id").asString());
    values.put("calendar", values.get("term"));
    db.execute(
        "insert into term (id, sourced_id, title, first_day, last_day) values"
            + " (gen_random_uuid(), 't0', 'Long ago', '1990-09-03', '1990-12-14')"
            + " on conflict do nothing");
    values.put(
        "itsTerm",
        db.fetchSingle("select term_id from section where id = ?::uuid", values.get("sections"))
                .get(0)
            + "");
    values.put("before", db.fetchSingle("select id from term where sourced_id = 't0'").get(0) + "");
    values.put("check", "NO_FRONT_PAGE");
    values.put("address", UUID.randomUUID().toString());
    values.put("item", Practice.items("lgt-ma" + (round - 1)).get(0).path("id").asString());
  }

  /** A platform that may be given up; the others serve the tests that come after this. */
  private String spare() {
    UUID id = UUID.randomUUID();
    db.insertInto(PLATFORM).set(PLATFORM.ID, id).set(PLATFORM.NAME, "Spare " + id).execute();
    return "/api/platforms/" + id;
  }

  private String address(Call c) {
    if (c.method().equals("DELETE") && c.path().equals("/api/platforms/{id}")) {
      return spare();
    }
    String path = c.path();
    if (path.contains("/editions/{id}/items/")) {
      String first =
          coordinator
              .get("/api/cartridges/editions/" + values.get("editions") + "/outline")
              .json()
              .get(1)
              .path("key")
              .asString();
      path = path.replace("{key}", first);
    }
    if (path.startsWith("/api/packages/{section}")) {
      path = path.replace("{section}", values.get("packaged"));
    }
    if (path.startsWith("/api/tools/connections/{id}")) {
      path = path.replace("{id}", connection());
    }
    if (path.contains("{relink}")) {
      path =
          path.replace(
              "{relink}",
              administrator.post("/api/tools/rules", relink()).json().path("id").asString());
    }
    if (path.contains("{request}")) {
      path = path.replace("{request}", request());
    }
    if (path.contains("{recipe}")) {
      String made =
          coordinator.post("/api/deliveries/recipes", recipe()).json().path("id").asString();
      path = path.replace("{recipe}", made);
    }
    for (String kind :
        List.of(
            "masters",
            "deliveries",
            "sections",
            "intakes",
            "editions",
            "tokens",
            "platforms",
            "people",
            "roster")) {
      path = path.replace("/" + kind + "/{id}", "/" + kind + "/" + values.get(kind));
    }
    for (String name :
        List.of(
            "line",
            "key",
            "number",
            "sha256",
            "name",
            "master",
            "cartridge",
            "host",
            "edition",
            "value",
            "set",
            "partSet",
            "rule",
            "section",
            "package",
            "pick",
            "platform",
            "calendar",
            "check",
            "item",
            "address",
            "delivery")) {
      path = path.replace("{" + name + "}", values.get(name));
    }
    return switch (c.path()) {
      case "/api/coverage/masters/{id}/drift",
          "/api/coverage/masters/{id}/added",
          "/api/coverage/masters/{id}/items/{key}" ->
          path + "?term=" + values.get("term");
      case "/api/ledger/receipts/file" -> path + "?format=CSV";
      case "/api/calendars/due/file" -> path + "?format=CSV&term=" + values.get("term");
      case "/api/deliveries/{id}/plan/file" -> path + "?format=XLSX";
      case "/api/coverage/sets", "/api/coverage/sets/{set}/sections", "/api/coverage/rules" ->
          c.method().equals("GET") ? path + "?term=" + values.get("term") : path;
      case "/api/packages", "/api/packages/all" -> path + "?delivery=" + values.get("waits");
      case "/api/packages/{section}/export" -> path + "?fileName=x";
      case "/api/search" -> path + "?q=MA";
      case "/api/deliveries/recipes" -> path + "?master=" + values.get("masters");
      case "/api/hand-overs" ->
          c.method().equals("GET") ? path + "?term=" + values.get("term") : path;
      case "/api/coverage/next-term",
          "/api/coverage/next-term/pairs",
          "/api/coverage/next-term/masters",
          "/api/coverage/next-term/texts" ->
          path + "?from=" + values.get("itsTerm") + "&to=" + values.get("before");
      case "/api/checks/{check}" -> path + "?subject=shell&term=" + values.get("term");
      case "/api/coverage",
          "/api/checks",
          "/api/checks/right",
          "/api/tools",
          "/api/tools/rules/try",
          "/api/calendars",
          "/api/calendars/load",
          "/api/calendars/ribbon" ->
          path + "?term=" + values.get("term");
      case "/api/tools/sections/{section}/links" -> path + "?host=m.example";
      case "/api/tools/tasks" -> path + "?host=m.example&term=" + values.get("term");
      case "/api/cartridges/intakes" -> path + "?fileName=x";
      case "/api/masters/{id}/versions/{number}/package",
          "/api/masters/{id}/versions/{number}/package/losses" ->
          path + "?format=CC_1_3";
      case "/api/library/beside" ->
          path
              + "?left=master:%s:0&right=master:%s:1"
                  .formatted(values.get("masters"), values.get("masters"));
      case "/api/masters/{id}/draft/files" -> path + "?fileName=x";
      case "/api/masters/{id}/changes", "/api/masters/{id}/changes/{key}" -> path + "?from=1&to=0";
      default -> path;
    };
  }

  private static String calendar(String name) {
    return """
        {"name":"%s","first":"2026-09-07","last":"2026-12-18","zone":"UTC","weeks":"CALENDAR",
         "weekdays":[1,2,3,4,5],"fit":"AS_SAID","off":[]}"""
        .formatted(name);
  }

  private String entry() {
    return """
        {"name":"Matrix %d-%d","hosts":["matrix.example"],"way":"KEY_AND_SECRET","level":"COLLEGE",
         "scopeOf":"","stages":["CREDENTIALS"],"pairing":"BY_RULE","words":"","waitMinutes":0,
         "sendsName":true,"sendsMail":false,"grades":false,"dates":"SENT_ONCE","owner":"",
         "key":"k","secret":"s","approved":false,"terms":[],"course":"","mastersCourses":[]}"""
        .formatted(round, n++);
  }

  private String relink() {
    return """
        {"from":"//m%d-%d.example{*rest}","to":"https://n.example{*rest}","parameters":{},
         "masters":["%s"],"terms":[],"campuses":[]}"""
        .formatted(round, n++, values.get("masters"));
  }

  /** A connection that may be ended. */
  private String connection() {
    return administrator.post("/api/tools/connections", entry()).json().path("id").asString();
  }

  private String asked() {
    return "{\"host\":\"m%d-%d.example\",\"reason\":\"r\"}".formatted(round, n++);
  }

  private String request() {
    return coordinator.post("/api/tools/requests", asked()).json().path("id").asString();
  }

  private String recipe() {
    return "{\"master\":\"%s\",\"name\":\"r%d\",\"choices\":{\"clash\":\"KEEP_SECTION\",\"twin\":\"ADOPT\"}}"
        .formatted(values.get("masters"), n++);
  }

  private String set() {
    return "{\"name\":\"Matrix %d-%d\",\"sections\":[\"%s\"]}"
        .formatted(round, n++, values.get("sections"));
  }

  private String partSet() {
    return "{\"name\":\"Matrix %d-%d\",\"kinds\":[\"PAGE\"],\"titles\":[]}".formatted(round, n++);
  }

  private String itsProgram() {
    return db.fetchSingle("select program_id from master where id = ?::uuid", values.get("masters"))
            .get(0)
        + "";
  }

  private String rule() {
    return "{\"master\":\"%s\"}".formatted(values.get("masters"));
  }

  private String body(Call c) {
    String sections = "\"sections\":[\"" + values.get("sections") + "\"]";
    return switch (c.method() + " " + c.path()) {
      case "PUT /api/coverage/next-term/pairs" ->
          "{\"section\":\"" + values.get("sections") + "\",\"propose\":true}";
      case "PUT /api/coverage/next-term/masters" ->
          "{\"master\":\"" + values.get("masters") + "\",\"leftOut\":false}";
      case "PUT /api/coverage/next-term/texts" ->
          "{\"master\":\"%s\",\"item\":\"%s\",\"onward\":\"DROPPED\"}"
              .formatted(values.get("masters"), values.get("key"));
      case "POST /api/calendars/load" ->
          "{\"calendar\":" + calendar("Whole term") + ",\"whole\":true," + sections + "}";
      case "POST /api/calendars" -> calendar("Matrix " + round + "-" + n++);
      case "PUT /api/calendars/{calendar}", "POST /api/calendars/{calendar}/moves" ->
          calendar("Whole term");
      case "PUT /api/calendars/{calendar}/sections" -> "{" + sections + "}";
      case "PUT /api/calendars/meetings" -> "{" + sections + ",\"weekly\":[],\"cancelled\":[]}";
      case "PUT /api/calendars/dates" ->
          """
          {"master":"%s",%s,"dates":[{"item":"%s","point":"DUE","byPattern":true}]}"""
              .formatted(values.get("master"), sections, values.get("key"));
      case "POST /api/calendars/{calendar}/file" -> "{\"text\":\"\"}";
      case "PUT /api/masters/{id}" ->
          "{\"code\":\"MX%d-%d\",\"title\":\"Light\",\"program\":\"%s\"}"
              .formatted(round, n++, itsProgram());
      case "PUT /api/masters/{id}/keepers" -> "{\"people\":[]}";
      case "PUT /api/masters/{id}/dates/off" -> "{\"rule\":\"LEAVE\",\"byKind\":{}}";
      case "POST /api/masters/{id}/dates/patterns" ->
          "{\"calendar\":\"%s\",\"by\":\"WEEK\",\"really\":false}".formatted(values.get("term"));
      case "POST /api/masters/{id}/dates/move" ->
          "{\"items\":[\"" + values.get("key") + "\"],\"days\":1}";
      case "PUT /api/checks/choices/{check}" -> "{\"looked\":true,\"weight\":\"WRONG\"}";
      case "POST /api/checks/{check}/mend", "POST /api/checks/{check}/again" ->
          "{\"subject\":\"shell\"," + sections + "}";
      case "POST /api/checks/{check}/right" ->
          "{\"subject\":\"shell\",\"reason\":\"r\"," + sections + "}";
      case "POST /api/checks/{check}/ask" ->
          "{\"subject\":\"shell\",\"note\":\"\"," + sections + "}";
      case "POST /api/calendars/due/addresses" -> "{\"term\":\"" + values.get("term") + "\"}";
      case "POST /api/checks/open" -> "{" + sections + "}";
      case "POST /api/deliveries/edits" -> "{\"what\":\"REMOVE_EMPTY\"," + sections + "}";
      case "POST /api/deliveries/recipes" -> recipe();
      case "POST /api/tools/look" -> "{" + sections + "}";
      case "POST /api/hand-overs/remind" ->
          "{\"kind\":\"OPEN_ONCE\",\"host\":\"\"," + sections + "}";
      case "PUT /api/hand-overs" ->
          "{\"kind\":\"CLEAR_SHELL\",\"host\":\"\",\"owner\":\"\",\"note\":\"\"," + sections + "}";
      case "PUT /api/hand-overs/steps" ->
          "{\"kind\":\"CREATE_SHELL\",\"host\":\"\",\"steps\":\"Ask.\",\"contact\":\"\"}";
      case "POST /api/tools/done" ->
          "{" + sections + ",\"host\":\"matrix.example\",\"stage\":\"SUPPORT\"}";
      case "POST /api/tools/tests" -> "{" + sections + ",\"host\":\"matrix.example\"}";
      case "POST /api/tools/rules/{relink}/draft" ->
          "{\"master\":\"" + values.get("master") + "\"}";
      case "POST /api/tools/sections/{section}/links/test" ->
          "{\"host\":\"m.example\",\"item\":\"x\"}";
      case "POST /api/tools/tasks/take" ->
          """
          {"term":"%s","host":"m.example","master":"%s","key":"k","differs":"POINTS","there":"1"}"""
              .formatted(values.get("term"), values.get("master"));
      case "POST /api/tools/ties" -> "{" + sections + ",\"host\":\"m.example\"}";
      case "POST /api/tools/connections", "PUT /api/tools/connections/{id}" -> entry();
      case "POST /api/tools/connections/try" ->
          "{\"host\":\"matrix.invalid\",\"way\":\"OPEN\",\"key\":\"\"}";
      case "POST /api/tools/connections/{id}/apply" -> "{" + sections + ",\"really\":false}";
      case "POST /api/tools/requests" -> asked();
      case "POST /api/tools/rules", "POST /api/tools/rules/try" -> relink();
      case "PUT /api/tools/requests/{request}" -> "{\"approved\":true,\"conditions\":\"\"}";
      case "POST /api/platforms/by-packages" -> "{\"name\":\"Q\",\"campuses\":[\"nowhere\"]}";
      case "POST /api/shells" ->
          "{\"platform\":\"%s\",\"shell\":\"lgt-ma%d\",\"purpose\":\"SHARED\",\"course\":\"%s\"}"
              .formatted(values.get("platforms"), round - 1, values.get("course"));
      case "POST /api/packages/brought-in" -> "{" + sections + "}";
      case "PUT /api/platforms/{id}/sheet" ->
          "{\"version\":\"\",\"where\":\"w\",\"avoid\":\"\",\"untick\":\"\",\"takes\":\"\",\"ends\":\"\"}";
      case "PUT /api/deliveries/second-word" -> "{\"removes\":false}";
      case "POST /api/coverage/sets", "PUT /api/coverage/sets/{set}" -> set();
      case "POST /api/coverage/rules" -> rule();
      case "POST /api/deliveries/part-sets", "PUT /api/deliveries/part-sets/{partSet}" -> partSet();
      case "PUT /api/deliveries/{id}/lines/{line}/steps/{key}/decision" ->
          "{\"take\":\"VERSION\",\"everywhere\":false}";
      case "POST /api/deliveries/{id}/take-back" -> "{}";
      case "PUT /api/deliveries/{id}/name" -> "{\"name\":\"Named\"}";
      case "POST /api/coverage/masters/{id}/items/{key}/accept" -> "{" + sections + "}";
      case "POST /api/masters/{id}/draft/items/{key}/from-section" ->
          "{\"section\":\"" + values.get("sections") + "\",\"aspects\":[\"WORDING\"]}";
      case "POST /api/me/password" -> "{\"old\":\"not it\",\"password\":\"another-long-one\"}";
      case "POST /api/me/tokens" -> "{\"name\":\"t\",\"scopes\":[\"READ\"],\"days\":9}";
      case "POST /api/people" ->
          "{\"name\":\"N\",\"email\":\"n%d-%d@x.example\",\"role\":\"DESIGNER\",\"password\":\"%s\"}"
              .formatted(round, n++, PASSWORD);
      case "PUT /api/people/{id}" ->
          "{\"name\":\"Somebody\",\"role\":\"DESIGNER\",\"programs\":[]}";
      case "POST /api/people/{id}/password" -> "{\"password\":\"%s\"}".formatted(PASSWORD);
      case "PUT /api/platforms/{id}/token" -> "{\"token\":\"practice-token\"}";
      case "POST /api/platforms" ->
          "{\"name\":\"P\",\"address\":\"http://127.0.0.1:1\",\"token\":\"t\"}";
      case "POST /api/masters" ->
          "{\"code\":\"MX%d-%d\",\"title\":\"t\",\"courses\":[]}".formatted(round, n++);
      case "POST /api/masters/{id}/versions" -> "{\"note\":\"n\"}";
      case "POST /api/masters/{id}/draft/picks" -> "{\"connection\":\"" + UUID.randomUUID() + "\"}";
      case "POST /api/masters/{id}/draft/items" -> "{\"kind\":\"PAGE\",\"title\":\"x\"}";
      case "PATCH /api/masters/{id}/draft/items/{key}" -> "{\"title\":\"x\"}";
      case "PUT /api/values/{value}" -> "{\"words\":\"night desk\",\"text\":\"5550\"}";
      case "POST /api/masters/shells/{section}" ->
          "{\"code\":\"MS%d-%d\",\"title\":\"t\",\"courses\":[]}".formatted(round, n++);
      case "POST /api/masters/{id}/packages" ->
          "{\"version\":0,\"format\":\"CC_1_3\",\"parameters\":true,\"grading\":true,"
              + "\"instructorsOnly\":true,\"parts\":[]}";
      case "PUT /api/platforms/{id}/advice" -> "{\"advice\":\"Take 1.2.\"}";
      case "PUT /api/masters/{id}/guard" -> "{\"most\":{}}";
      case "PUT /api/masters/{id}/draft/items/{key}/questions" -> "{\"asked\":{\"parts\":[]}}";
      case "POST /api/masters/{id}/draft/tie" ->
          "{\"keys\":[\"" + values.get("key") + "\"],\"together\":false}";
      case "POST /api/masters/{id}/draft/here" -> "{\"key\":\"\",\"writing\":false}";
      case "POST /api/masters/{id}/draft/restore" -> "{\"version\":1}";
      case "POST /api/masters/{id}/draft/move" -> "{\"keys\":[\"" + values.get("key") + "\"]}";
      case "POST /api/masters/{id}/draft/take-out" ->
          "{\"keys\":[\"" + values.get("other") + "\"]}";
      case "POST /api/masters/{id}/draft/take-over" ->
          "{\"master\":\"%s\",\"version\":0,\"keys\":[\"%s\"]}"
              .formatted(values.get("masters"), values.get("key"));
      case "POST /api/deliveries", "POST /api/deliveries/forecast" ->
          "{\"version\":\"" + values.get("version") + "\"," + sections + "}";
      case "POST /api/deliveries/readings", "POST /api/deliveries/readings/left" ->
          "{" + sections + "}";
      case "PUT /api/deliveries/{id}/choices" -> "{\"clash\":\"TAKE_VERSION\",\"twin\":\"ADD\"}";
      default -> "{}";
    };
  }

  private Caller.Answer call(Caller who, Call c) {
    return call(who, c, address(c));
  }

  private Caller.Answer call(Caller who, Call c, String address) {
    boolean file =
        c.method().equals("POST")
            && (c.path().equals("/api/roster")
                || c.path().equals("/api/masters/{id}/draft/files")
                || c.path().equals("/api/archives")
                || c.path().equals("/api/packages/{section}/export")
                || c.path().equals("/api/cartridges/intakes"));
    return file
        ? who.upload(address, new byte[] {1})
        : who.call(c.method(), address, c.method().equals("GET") ? null : body(c));
  }

  private void expect(String who, Call c, String cell, Caller.Answer a) {
    boolean right =
        switch (cell) {
          case "yes" -> !Set.of(401, 403, 404, 500).contains(a.status());
          case "no", "alone" -> a.status() == 403;
          case "reach", "own" -> a.status() == 404;
          case "part" ->
              a.status() / 100 == 2 && (who.equals("administrator") || nothingForeign(a));
          default -> false;
        };
    if (!right) {
      wrong.add(who + " " + c.method() + " " + c.path() + ": " + cell + ", but " + a);
    }
  }

  private boolean nothingForeign(Caller.Answer a) {
    return !a.text().contains(values.get("masters"))
        && !a.text().contains(values.get("sections"))
        && !a.text().contains(values.get("deliveries"));
  }

  @Test
  void everyRoleMayWhatTheTableSaysAndNoMore() throws Exception {
    foreignObjects();
    Map<String, Caller> roles = new LinkedHashMap<>();
    roles.put("coordinator", another("ma-c@x.example", Role.COORDINATOR, "sound"));
    roles.put("designer", another("ma-d@x.example", Role.DESIGNER, "sound"));
    roles.put("instructor", another("ma-i@x.example", Role.INSTRUCTOR));
    roles.put("administrator", administrator);
    Caller nobody = new Caller(port);
    nobody.get("/api/ready");
    for (Call c : table()) {
      if (call(nobody, c).status() != 401) {
        wrong.add("nobody " + c.method() + " " + c.path());
      }
      roles.forEach((role, who) -> expect(role, c, c.cells().get(role), call(who, c)));
    }
    assertThat(wrong).isEmpty();
  }

  /** What nobody has is answered like what is not one's own. */
  @Test
  void anIdThatNothingHasIsNotFound() throws Exception {
    foreignObjects();
    for (Call c : table()) {
      String address = address(c);
      int at = c.path().indexOf('{');
      String named = at < 0 ? "" : address.substring(at).replaceAll("[/?].*", "");
      if (named.length() != 36 || c.cells().get("administrator").equals("own")) {
        continue;
      }
      String random = address.replace(named, UUID.randomUUID().toString());
      Caller.Answer a = call(administrator, c, random);
      if (a.status() != 404) {
        wrong.add(c.method() + " " + c.path() + ": " + a);
      }
    }
    assertThat(wrong).isEmpty();
  }

  @Test
  void aTokenMayWhatItsScopeSaysAndNoMore() throws Exception {
    foreignObjects();
    for (Call c : table()) {
      List<String> others = new ArrayList<>(SCOPES);
      others.remove(c.scope());
      Caller.Answer a = call(bearer(others), c);
      if (a.status() != 403) {
        wrong.add("without " + c.scope() + " " + c.method() + " " + c.path() + ": " + a);
      }
      if (!c.scope().equals("none")) {
        Caller.Answer b = call(bearer(List.of(c.scope())), c);
        if (Set.of(401, 403, 500).contains(b.status())) {
          wrong.add("with " + c.scope() + " " + c.method() + " " + c.path() + ": " + b);
        }
      }
    }
    assertThat(wrong).isEmpty();
  }

  private final Map<List<String>, Caller> bearers = new HashMap<>();

  private Caller bearer(List<String> scopes) {
    return bearers.computeIfAbsent(
        scopes,
        s -> {
          String names = "\"" + String.join("\",\"", s) + "\"";
          Caller.Answer a =
              administrator.post(
                  "/api/me/tokens", "{\"name\":\"t\",\"scopes\":[" + names + "],\"days\":9}");
          return new Caller(port).bearer(a.json().path("token").asString());
        });
  }
}
