package org.zephyrmist.bench.history;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import org.jsoup.Jsoup;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import tools.jackson.databind.JsonNode;

/**
 * A master built on a cartridge whose editions come one after the other, whole or in part, while
 * its designers write in it. A person who knows which page is which decides where that is asked.
 */
final class EditionPlay implements History {
  private final Turn of;
  private final Path folder = Folders.fresh("editions");
  private final String cartridge = "Cartridge " + UUID.randomUUID().toString().substring(0, 8);
  private final Publisher publisher = new Publisher();
  private final Map<String, String> words = new LinkedHashMap<>();
  private final Set<String> takenOut = new HashSet<>();
  private Publisher.Edition newest = publisher.edition();
  private String edition;
  private boolean open;
  private int number = 1;

  EditionPlay(Scene stage) throws Exception {
    edition = takeIn(stage);
    of = new Turn(stage, edition);
  }

  private String takeIn(Scene stage) throws Exception {
    Map<String, Samples.Page> pages = new LinkedHashMap<>();
    for (Publisher.Page p : newest.pages()) {
      pages.put(newest.identifiers().get(p.mark()), new Samples.Page(p.title(), p.html()));
    }
    return stage.college().takeIn(Samples.pages(folder, cartridge, pages));
  }

  @Override
  public Turn turn() {
    return of;
  }

  @Override
  public String step() throws Exception {
    int n = of.random().nextInt(10);
    if (n < 4) {
      return write();
    } else if (n < 7) {
      newest = publisher.next(of.random(), ++number);
      edition = takeIn(of.stage());
      open = true;
      return take("edition came and was taken");
    } else if (n < 9) {
      return open ? take("taken once more") : write();
    }
    return takeOut();
  }

  private String draft() {
    return "/api/masters/" + of.master() + "/draft";
  }

  /** What the draft says, by the marks of its pages, in its order. */
  private Map<String, Publisher.Page> says() {
    Map<String, Publisher.Page> all = new LinkedHashMap<>();
    String version = "/api/masters/" + of.master() + "/versions/0/";
    for (JsonNode n : of.stage().designer().get(version + "outline")) {
      String key = n.path("key").asString();
      String html = of.stage().designer().get(version + "items/" + key).path("html").asString();
      String title = n.path("title").asString();
      if (all.put(mark(title), new Publisher.Page(key, title, html)) != null) {
        throw new Oracle.Broken("is twice in the draft: " + title);
      }
    }
    return all;
  }

  /** Titles keep the number of the page. */
  private static String mark(String title) {
    String[] name = title.split(",")[0].split(" ");
    return "mark" + name[name.length - 1] + "m";
  }

  private String write() {
    Map<String, Publisher.Page> all = says();
    if (all.isEmpty()) {
      return of.note("nothing to write in", "");
    }
    String mark = of.any(new ArrayList<>(all.keySet()));
    Publisher.Page page = all.get(mark);
    String word = "mine" + of.step() + "x" + of.random().nextInt(1_000);
    of.stage()
        .designer()
        .patch(
            draft() + "/items/" + page.mark(), Map.of("html", Words.within(of, page.html(), word)));
    words.put(word, mark);
    return of.note("written in the draft", page.title() + " " + word);
  }

  private String takeOut() {
    Map<String, Publisher.Page> all = says();
    if (all.size() < 4) {
      return write();
    }
    String mark = of.any(new ArrayList<>(all.keySet()));
    Publisher.Page page = all.get(mark);
    of.stage().designer().post(draft() + "/take-out", Map.of("keys", List.of(page.mark())));
    takenOut.add(mark);
    words.values().removeIf(mark::equals);
    return of.note("taken out of the draft", page.title());
  }

  private String take(String what) {
    String path = "/api/masters/" + of.master() + "/editions/" + edition;
    JsonNode view = settled(path);
    boolean whole = of.random().nextInt(3) > 0;
    Map<String, Publisher.Page> before = says();
    Map<String, String> sides = new TreeMap<>();
    List<String> keys = new ArrayList<>();
    Set<String> theirs = new HashSet<>();
    for (JsonNode c : view.path("changes")) {
      String key = c.path("key").asString();
      if (whole || of.random().nextBoolean()) {
        keys.add(key);
      }
      if (c.path("what").asString().equals("CLASH") && of.random().nextInt(3) > 0) {
        String side = of.any(List.of("OURS", "THEIRS", "TOGETHER"));
        sides.put(key, side);
        if (side.equals("THEIRS")) {
          theirs.add(mark(c.path("title").asString()));
        }
      }
    }
    Map<String, Object> body = new HashMap<>(Map.of("sides", sides));
    if (!whole) {
      body.put("keys", keys);
    }
    of.note(what, "edition " + number + (whole ? " " : " in part ") + sides);
    of.stage().designer().post(path + "/take", body);
    look(whole, theirs);
    if (of.random().nextInt(5) == 0) {
      undone(before);
    }
    if (of.random().nextInt(4) > 0) {
      of.stage().designer().post(path + "/finish", null);
      of.log().add(of.step() + "   built on edition " + number);
      look(whole, theirs);
      open = false;
    }
    return what;
  }

  /** Says of each page which one it became; who brought it out knows. */
  private JsonNode settled(String path) {
    JsonNode view = of.stage().designer().get(path);
    Map<String, String> newer = new HashMap<>();
    view.path("newer")
        .forEach(n -> newer.put(mark(n.path("title").asString()), n.path("key").asString()));
    Map<String, String> paired = new HashMap<>();
    Set<String> doubted = new HashSet<>();
    for (JsonNode p : view.path("pairs")) {
      paired.put(p.path("older").asString(), p.path("newer").asString());
      if (p.path("certainty").asString().equals("DOUBTFUL")) {
        doubted.add(p.path("older").asString());
      }
    }
    for (JsonNode n : view.path("older")) {
      String key = n.path("key").asString();
      String truth = newer.get(mark(n.path("title").asString()));
      String said = paired.get(key);
      boolean same = truth == null ? said == null : truth.equals(said);
      if (!same || doubted.contains(key)) {
        Map<String, String> became = new HashMap<>();
        became.put("newer", truth);
        of.stage().designer().put(path + "/pairs/" + key, became);
        of.log().add(of.step() + "   decided what became of " + n.path("title").asString());
      }
    }
    return of.stage().designer().get(path);
  }

  /** Every own word stands; after all of an edition, what nobody wrote in is as it has it. */
  private void look(boolean whole, Set<String> theirs) {
    Map<String, Publisher.Page> now = says();
    for (Map.Entry<String, String> w : List.copyOf(words.entrySet())) {
      Publisher.Page page = now.get(w.getValue());
      if (page == null || !page.html().contains(w.getKey())) {
        if (!theirs.contains(w.getValue())) {
          throw new Oracle.Broken("the designer's word " + w.getKey() + " is lost");
        }
        words.remove(w.getKey());
      }
    }
    if (!whole) {
      return;
    }
    for (Publisher.Page p : newest.pages()) {
      Publisher.Page is = now.get(p.mark());
      boolean adapted = words.containsValue(p.mark()) || takenOut.contains(p.mark());
      if (!adapted && !theirs.contains(p.mark()) && !said(is).equals(said(p))) {
        throw new Oracle.Broken(
            "all was taken, and the master says\n  "
                + said(is)
                + "\n  and the edition\n  "
                + said(p));
      }
    }
    if (words.isEmpty() && takenOut.isEmpty() && theirs.isEmpty()) {
      List<String> ours = now.values().stream().map(Publisher.Page::title).toList();
      List<String> edition = newest.pages().stream().map(Publisher.Page::title).toList();
      if (!ours.equals(edition)) {
        throw new Oracle.Broken(
            "untouched, all was taken, and the master has\n  "
                + ours
                + "\n  and the edition\n  "
                + edition);
      }
    }
  }

  private static String said(Publisher.Page page) {
    return page == null ? "nothing" : page.title() + ": " + Jsoup.parse(page.html()).text();
  }

  /** Undone, the draft is as it was; done again, as it had become. */
  private void undone(Map<String, Publisher.Page> before) {
    Map<String, Publisher.Page> after = says();
    if (after.equals(before)) {
      return;
    }
    of.stage().designer().post(draft() + "/undo", null);
    if (!says().equals(before)) {
      throw new Oracle.Broken("a take of an edition undone left\n" + says() + "\n  for\n" + before);
    }
    of.stage().designer().post(draft() + "/redo", null);
    if (!says().equals(after)) {
      throw new Oracle.Broken("done again it became\n" + says() + "\n  for\n" + after);
    }
  }
}
