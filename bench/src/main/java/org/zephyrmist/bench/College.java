package org.zephyrmist.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.function.Supplier;
import org.zephyrmist.stage.Caller;
import org.zephyrmist.stage.Practice;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** Larkmoor on a stage: a coordinator, a platform, sections with empty shells, a master. */
public final class College {
  public static final String ADMINISTRATOR = "rosalind@larkmoor.example";
  public static final String COORDINATOR = "ines@larkmoor.example";
  public static final String PASSWORD = "only-for-measuring";
  public final Caller api;
  public final Practice practice = new Practice();
  public final List<String> shells = new ArrayList<>();
  public final List<String> byHand = new ArrayList<>();
  String master;
  private int made;

  private College(Caller api) {
    this.api = api;
  }

  /** The first person, the platform, and so many sections. */
  public static College found(int sections, Path folder) throws IOException {
    return found(sections, 0, folder);
  }

  /**
   * @param byHand so many more sections, whose platform has no interface: {@link #byHand}
   */
  public static College found(int sections, int byHand, Path folder) throws IOException {
    Caller api = new Caller(Stage.address(0));
    api.get("/api/ready");
    api.post("/api/first-person", person("Rosalind Ash", ADMINISTRATOR, "ADMINISTRATOR"));
    api.signIn(ADMINISTRATOR, PASSWORD);
    College c = new College(new Caller(Stage.address(0)));
    for (int i = 1; i <= sections; i++) {
      c.shells.add(String.format("lgt-%04d", i));
    }
    for (int from = 0; from < sections; from += 500) {
      c.practice.makeShells(c.shells.subList(from, Math.min(sections, from + 500)));
    }
    for (int i = 1; i <= byHand; i++) {
      c.byHand.add(String.format("out-%04d", i));
    }
    List<String> all = new ArrayList<>(c.shells);
    all.addAll(c.byHand);
    api.roster(Samples.roster(folder, all));
    if (byHand > 0) {
      c.practice.makeShells(c.byHand.stream().map(College::room).toList());
      Object south = Map.of("name", "South shells", "campuses", List.of("south"));
      api.post("/api/platforms/by-packages", south);
    }
    api.post(
        "/api/platforms",
        Map.of("name", "Practice", "address", Stage.practiceAddress(), "token", "practice-token"));
    api.post("/api/people", person("Ines Vole", COORDINATOR, "COORDINATOR"));
    c.api.signIn(COORDINATOR, PASSWORD);
    return c;
  }

  /** What its instructor calls the shell of a section whose platform has no interface. */
  public static String room(String section) {
    return "room." + section;
  }

  private static Map<String, String> person(String name, String email, String role) {
    return Map.of("name", name, "email", email, "role", role, "password", PASSWORD);
  }

  /** The sections' ids, in the order of their shells. */
  public List<String> sections(Connection db) throws SQLException {
    List<String> ids = new ArrayList<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("select id from section order by sourced_id")) {
      while (r.next()) {
        ids.add(r.getString(1));
      }
    }
    return ids;
  }

  /** Takes a package in and gives its edition. */
  public String takeIn(Path file) throws IOException {
    String intake =
        api.upload("/api/cartridges/intakes?fileName=measured.imscc", file).path("id").asString();
    JsonNode done =
        await(
            () -> api.get("/api/cartridges/intakes/" + intake),
            i -> !i.path("state").asString().equals("READING"),
            Duration.ofMinutes(30));
    if (!done.path("state").asString().equals("DONE")) {
      throw new IllegalStateException(done.toString());
    }
    return done.path("edition").asString();
  }

  /** A master from an edition, frozen as version 1; from now on {@link #master}. */
  String make(String edition) {
    String course = api.get("/api/courses").get(0).path("id").asString();
    master =
        api.post(
                "/api/masters",
                Map.of(
                    "code",
                    "LGT-" + ++made,
                    "title",
                    "Light",
                    "edition",
                    edition,
                    "courses",
                    List.of(course)))
            .path("id")
            .asString();
    freeze("First");
    return master;
  }

  /** A front page in the draft of a master. */
  void frontPage(String master, String html) {
    String items = "/api/masters/" + master + "/draft/items";
    Map<String, String> setup = Map.of("kind", "SETUP", "title", "Front page");
    String key = api.post(items, setup).path("key").asString();
    api.patch(items + "/" + key, Map.of("subject", "FRONT_PAGE", "html", html));
  }

  void freeze(String note) {
    freeze(master, note);
  }

  void freeze(String master, String note) {
    api.post("/api/masters/" + master + "/versions", Map.of("note", note));
  }

  String newest() {
    return newest(master);
  }

  String newest(String master) {
    JsonNode versions = api.get("/api/masters/" + master).path("versions");
    return versions.get(versions.size() - 1).path("id").asString();
  }

  public String plan(String version, List<String> sections) {
    String id =
        api.post("/api/deliveries", Map.of("version", version, "sections", sections))
            .path("id")
            .asString();
    awaitLeaves(id, "PLANNING");
    return id;
  }

  /** A plan that takes a delivery back. */
  String takeBack(String delivery) {
    String id =
        api.post("/api/deliveries/" + delivery + "/take-back", Map.of()).path("id").asString();
    awaitLeaves(id, "PLANNING");
    return id;
  }

  public void confirm(String delivery) {
    api.post("/api/deliveries/" + delivery + "/confirm", null);
  }

  /** Whether it has left a state within a time. */
  boolean leaves(String delivery, String state, Duration within) {
    Instant end = Instant.now().plus(within);
    while (Instant.now().isBefore(end)) {
      JsonNode d = api.get("/api/deliveries/" + delivery);
      if (!d.path("delivery").path("state").asString().equals(state)) {
        return true;
      }
      pause(250);
    }
    return false;
  }

  public JsonNode awaitLeaves(String delivery, String state) {
    return await(
        () -> api.get("/api/deliveries/" + delivery),
        d -> !d.path("delivery").path("state").asString().equals(state),
        Duration.ofMinutes(60));
  }

  static <T> T await(Supplier<T> look, Predicate<T> until, Duration atMost) {
    Instant end = Instant.now().plus(atMost);
    for (long looked = 1; ; looked++) {
      T seen = look.get();
      if (until.test(seen)) {
        return seen;
      }
      if (Instant.now().isAfter(end)) {
        throw new IllegalStateException("Still " + seen);
      }
      pause(Math.min(250, 50 * looked)); // looking costs the same machine as the work
    }
  }

  public static void pause(long millis) {
    try {
      Thread.sleep(millis);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
