package org.zephyrmist.bench.history;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/** Who brings out a cartridge in one edition after the other, and is not careful. */
final class Publisher {
  private static final List<String> ABOUT =
      List.of("bar", "desk", "trap", "fly", "wagon", "hem", "call", "cue", "rope", "gel");
  private static final int PAGES = 7;

  /**
   * A page as its publisher knows it.
   *
   * @param mark stands in its text through all editions, and in no other page
   */
  record Page(String mark, String title, String html) {}

  /**
   * An edition.
   *
   * @param identifiers under which pages went into the package, by mark
   */
  record Edition(List<Page> pages, Map<String, String> identifiers) {
    Page marked(String mark) {
      return pages.stream().filter(p -> p.mark().equals(mark)).findFirst().orElseThrow();
    }
  }

  private List<Page> pages = new ArrayList<>();
  private final Map<String, String> identifiers = new LinkedHashMap<>();
  private final List<String> free = new ArrayList<>();
  private int next = 1;

  Publisher() {
    for (int i = 0; i < PAGES; i++) {
      add();
    }
  }

  private void add() {
    int n = next++;
    String mark = "mark" + n + "m";
    String about = ABOUT.get(n % ABOUT.size());
    StringBuilder html = new StringBuilder();
    for (int i = 0; i < 4; i++) {
      String said = about + " " + ABOUT.get((n * 3 + i) % ABOUT.size()) + " " + n + "-" + i;
      html.append("<p>On the ").append(said).append(" nobody stands alone, ");
      html.append(i == 0 ? mark : "part " + n + i).append(".</p>");
    }
    pages.add(new Page(mark, "The " + about + " " + n, html.toString()));
    identifiers.put(mark, free.isEmpty() || n % 2 == 0 ? "id-" + n : free.remove(0));
  }

  Edition edition() {
    return new Edition(List.copyOf(pages), Map.copyOf(identifiers));
  }

  /** The next edition: each page changes at most in one way. */
  Edition next(Random random, int number) {
    List<Page> is = new ArrayList<>();
    for (Page p : pages) {
      switch (random.nextInt(8)) {
        case 0 ->
            is.add(
                new Page(
                    p.mark(), p.title(), p.html() + "<p>Since edition " + number + " more.</p>"));
        case 1 -> is.add(new Page(p.mark(), p.title().split(",")[0] + ", " + number, p.html()));
        case 2 -> {
          if (pages.size() > 4) {
            free.add(identifiers.remove(p.mark()));
          } else {
            is.add(p);
          }
        }
        default -> is.add(p);
      }
    }
    pages = is;
    if (random.nextInt(3) == 0) {
      exchange(random);
    }
    if (random.nextInt(3) == 0) {
      identifiers.put(any(random).mark(), "again-" + next++);
    }
    if (random.nextBoolean()) {
      add();
    }
    return edition();
  }

  private void exchange(Random random) {
    String one = any(random).mark();
    String other = any(random).mark();
    Map<String, String> was = new HashMap<>(identifiers);
    identifiers.put(one, was.get(other));
    identifiers.put(other, was.get(one));
  }

  private Page any(Random random) {
    return pages.get(random.nextInt(pages.size()));
  }
}
