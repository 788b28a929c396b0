package org.zephyrmist.bench.history;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.zephyrmist.bench.College;
import tools.jackson.databind.JsonNode;

/**
 * A section whose platform has no interface: its instructor writes in the shell, brings packages in
 * and does what their sheets say, and uploads what was exported.
 */
final class HandPlay implements History {
  private static final int ROUNDS = 4;
  private final Turn of;
  private final InShells shells;
  private final Designers designers;
  private final String room;
  private final String section;

  HandPlay(Scene stage, String code, String section) {
    room = College.room(code);
    this.section = section;
    of = new Turn(stage, List.of(room), List.of(section));
    shells = new InShells(of);
    designers = new Designers(of);
    designers.items();
    designers.freeze();
  }

  @Override
  public Turn turn() {
    return of;
  }

  @Override
  public String step() throws Exception {
    int n = of.random().nextInt(10);
    if (n < 4) {
      return shells.instructor(0);
    } else if (n < 7) {
      return designers.designer();
    }
    return deliver();
  }

  private String deliver() throws Exception {
    designers.freeze();
    export();
    JsonNode versions = of.stage().designer().get("/api/masters/" + of.master()).path("versions");
    String version = versions.get(versions.size() - 1).path("id").asString();
    String id = of.stage().college().plan(version, List.of(section));
    Set<String> fixed = designers.fixedTitles();
    ShellSeen before = seen();
    of.stage().college().confirm(id);
    int carried = carried(id);
    ShellSeen after = seen();
    of.oracle()
        .delivered(
            room,
            id,
            null,
            before,
            after.withoutModules(),
            (item, word) -> before.says(word, i -> isCalled(i, fixed)));
    String again = of.stage().college().plan(version, List.of(section));
    JsonNode line = of.stage().coordinator().get("/api/deliveries/" + again).path("lines").get(0);
    if (line.path("steps").asInt() > 0) {
      throw new Oracle.Broken("delivered again, something moves: " + line.path("counts"));
    }
    return of.note("delivered by hand", carried + " packages");
  }

  /**
   * Instructors add to titles, and designers rename what is of something: what comes first stays.
   */
  private static boolean isCalled(ShellSeen.Thing item, Set<String> titles) {
    String first = Designers.first(item.title()) + " ";
    return titles.stream().anyMatch(t -> first.startsWith(t + " "));
  }

  /** Packages are brought in until none waits; gives how many. */
  private int carried(String delivery) throws Exception {
    for (int i = 0; ; i++) {
      JsonNode line = of.stage().college().awaitLeaves(delivery, "RUNNING").path("lines").get(0);
      if (line.path("state").asString().equals("DONE")) {
        return i;
      }
      if (i > ROUNDS || !line.path("waitsFor").asString().equals("PACKAGE")) {
        throw new Oracle.Broken("by hand it does not end: " + line);
      }
      bringIn();
      export();
      College.pause(300);
    }
  }

  /** What the sheet asks for is done. */
  private void bringIn() throws Exception {
    String packages = "/api/packages/" + section;
    Element sheet = Jsoup.parse(of.stage().coordinator().text(packages + "/sheet")).body();
    ShellSeen before = seen();
    of.stage().practice().bringIn(room, of.stage().coordinator().bytes(packages + "/package"));
    of.log().add(of.step() + "   sheet: " + sheet.select("h2 + ul").eachText());
    List<String> out = new ArrayList<>(titles(sheet, "These are there and come once more"));
    out.addAll(titles(sheet, "Take these out by hand"));
    Set<String> gone = new HashSet<>();
    for (String title : out) {
      before.items().values().stream()
          .filter(i -> i.title().equals(title) && !i.kind().equals("MODULE"))
          .filter(i -> gone.add(i.id()))
          .findFirst()
          .ifPresent(
              i ->
                  of.stage()
                      .practice()
                      .form("/shells/" + room + "/items/" + i.id() + "/delete", Map.of()));
    }
  }

  private static List<String> titles(Element sheet, String heading) {
    return sheet.select("h2").stream()
        .filter(h -> h.text().startsWith(heading))
        .flatMap(h -> h.nextElementSibling().select("li").eachText().stream())
        .toList();
  }

  private void export() throws Exception {
    byte[] exported = of.stage().practice().exported(room);
    of.stage()
        .coordinator()
        .upload("/api/packages/" + section + "/export?fileName=e.imscc", exported);
  }

  private ShellSeen seen() {
    return ShellSeen.read(of.stage().practice(), room);
  }
}
