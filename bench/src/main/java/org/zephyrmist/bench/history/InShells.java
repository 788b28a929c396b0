package org.zephyrmist.bench.history;

import java.util.List;
import java.util.Map;

/** What instructors and students do in their shells. */
final class InShells {
  private final Turn of;

  InShells(Turn of) {
    this.of = of;
  }

  String instructor(int at) {
    String shell = of.shells().get(at);
    ShellSeen is = ShellSeen.read(of.stage().practice(), shell);
    List<ShellSeen.Thing> written = is.written();
    if (written.isEmpty() || of.random().nextInt(8) == 0) {
      String word = word();
      form(shell, "/add", Map.of("title", "Own " + word, "html", "<p>Mine " + word + ".</p>"));
      ShellSeen.Thing page =
          ShellSeen.read(of.stage().practice(), shell).items().values().stream()
              .filter(i -> i.says(word))
              .findFirst()
              .orElseThrow();
      of.oracle().wrote(shell, page.id(), word);
      return of.note("own page", shell + " " + word);
    }
    ShellSeen.Thing item = of.any(written);
    switch (of.random().nextInt(10)) {
      case 0 -> {
        if (of.oracle().hasWork(shell, item.id())) {
          return of.note("left alone", shell);
        }
        form(shell, "/items/" + item.id() + "/delete", Map.of());
        of.oracle().deleted(shell, item);
        return of.note("deleted", shell + " " + item.title());
      }
      case 1 -> {
        form(
            shell,
            "/items/" + item.id() + "/due",
            Map.of("due", "2026-10-0" + (1 + of.random().nextInt(9)) + "T18:00"));
        of.oracle().touched(shell, item.id());
        return of.note("date", shell + " " + item.title());
      }
      case 2 -> {
        form(shell, "/items/" + item.id() + "/visibility", Map.of("shown", "" + !item.shown()));
        of.oracle().touched(shell, item.id());
        return of.note("hidden or shown", shell + " " + item.title());
      }
      case 3 -> {
        String word = word();
        text(shell, item, item.title() + " " + word, item.html());
        of.oracle().wrote(shell, item.id(), word);
        return of.note("title", shell + " " + item.title() + " " + word);
      }
      default -> {
        String word = word();
        text(shell, item, item.title(), Words.within(of, item.html(), word));
        of.oracle().wrote(shell, item.id(), word);
        return of.note("words", shell + " " + item.title() + " " + word);
      }
    }
  }

  private String word() {
    return "own" + of.step() + "x" + of.random().nextInt(1_000);
  }

  private void text(String shell, ShellSeen.Thing item, String title, String html) {
    form(shell, "/items/" + item.id() + "/text", Map.of("title", title, "html", html));
  }

  private void form(String shell, String path, Map<String, String> fields) {
    of.stage().practice().form("/shells/" + shell + path, fields);
  }

  String student(int at) {
    String shell = of.shells().get(at);
    List<ShellSeen.Thing> open =
        ShellSeen.read(of.stage().practice(), shell).items().values().stream()
            .filter(i -> i.kind().equals("ASSIGNMENT") || i.kind().equals("DISCUSSION"))
            .filter(ShellSeen.Thing::shown)
            .toList();
    if (open.isEmpty()) {
      return of.note("nothing to hand in", shell);
    }
    ShellSeen.Thing item = of.any(open);
    boolean posts = item.kind().equals("DISCUSSION");
    form(
        shell,
        "/items/" + item.id() + (posts ? "/post" : "/work"),
        Map.of("student", "S" + of.step()));
    of.oracle().handedIn(shell, item.id());
    return of.note(posts ? "post" : "work handed in", shell + " " + item.title());
  }
}
