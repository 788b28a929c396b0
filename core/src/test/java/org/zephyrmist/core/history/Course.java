package org.zephyrmist.core.history;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/** A master that a designer works on: its draft and its versions. */
final class Course {
  private static final List<String> TEXTS =
      List.of(
          "<p>The %s of a bar.</p><p>Read %s and %s first.</p>",
          "<p>Ask %s.</p><ul><li>one %s</li><li>two %s</li><li>three %s</li></ul>",
          "<p>See %s.</p><table><tbody><tr><td>load %s</td><td>%s</td></tr><tr><td>%s</td><td>kg</td></tr></tbody></table>",
          "<h2>On %s</h2><p>Never alone: <b>%s</b>.</p><p>Then %s.</p><p>And %s.</p>");

  private Random random;
  private final Texts texts;
  private final Map<ItemKey, Said> draft = new LinkedHashMap<>();
  private final Map<ItemKey, EditRule> rules = new LinkedHashMap<>();
  private final List<Tree> versions = new ArrayList<>();
  private int words;
  private int items;

  Course(Random random, Texts texts) {
    this.random = random;
    this.texts = texts;
    for (int i = 0; i < 2; i++) {
      draft.put(new ItemKey("week" + items), new Said(Kind.MODULE, week(), "", 0, 1, "", true));
      items++;
    }
    for (int i = 0; i < 4; i++) {
      add();
    }
    freeze();
  }

  private String week() {
    return "Week d" + words++;
  }

  private void add() {
    Kind kind = List.of(Kind.PAGE, Kind.ASSIGNMENT, Kind.DISCUSSION).get(random.nextInt(3));
    String html = TEXTS.get(random.nextInt(TEXTS.size()));
    while (html.contains("%s")) {
      html = html.replaceFirst("%s", "d" + words++);
    }
    ItemKey key = new ItemKey("item" + items++);
    draft.put(key, new Said(kind, "On d" + words++, html, 10, 1, module(), true).withHtml(html));
    int rule = random.nextInt(8);
    rules.put(key, rule == 0 ? EditRule.FIXED : rule == 1 ? EditRule.STARTER : EditRule.ADAPTABLE);
  }

  private String module() {
    List<String> modules =
        draft.entrySet().stream()
            .filter(e -> e.getValue().kind() == Kind.MODULE)
            .map(e -> e.getKey().value())
            .toList();
    int n = random.nextInt(modules.size() + 1);
    return n == modules.size() ? "" : modules.get(n);
  }

  /** Draws from now on. */
  Course by(Random other) {
    random = other;
    return this;
  }

  /** Something that a designer does. */
  void edit() {
    List<ItemKey> some =
        draft.keySet().stream().filter(k -> draft.get(k).kind() != Kind.MODULE).toList();
    ItemKey key = some.isEmpty() ? null : some.get(random.nextInt(some.size()));
    Said s = key == null ? null : draft.get(key);
    int what = random.nextInt(12);
    if (key == null || what == 0) {
      add();
    } else if (what == 1 && some.size() > 2) {
      draft.remove(key);
    } else if (what == 2) {
      draft.put(key, s.withTitle("On d" + words++));
    } else if (what == 3) {
      draft.put(key, s.withPoints(random.nextInt(100)));
    } else if (what == 4) {
      draft.put(key, s.withDue(random.nextInt(100)));
    } else if (what == 5) {
      draft.put(key, s.standingIn(module()));
    } else if (what == 6) {
      draft.put(key, s.withHtml(s.html() + "<p>More on d" + words++ + ".</p>"));
    } else if (what == 7) {
      draft.put(key, s.withHtml(s.html().replaceFirst("d\\d+", "d" + words++)));
    } else if (what == 8) {
      draft.put(key, s.withShown(!s.shown()));
    } else {
      draft.put(key, s.withWord(random, "d" + words++));
    }
  }

  void freeze() {
    List<Node> nodes = new ArrayList<>();
    draft.forEach(
        (key, s) -> {
          if (s.kind() == Kind.MODULE) {
            nodes.add(node(key, s));
            draft.forEach(
                (k, in) -> {
                  if (in.in().equals(key.value())) {
                    nodes.add(node(k, in));
                  }
                });
          } else if (s.in().isEmpty()) {
            nodes.add(node(key, s));
          }
        });
    versions.add(Sample.tree(nodes));
  }

  private Node node(ItemKey key, Said s) {
    return new Node(
        key,
        s.kind(),
        s.title(),
        s.in().isEmpty() ? Optional.empty() : Optional.of(new ItemKey(s.in())),
        Rank.nth(0),
        rules.getOrDefault(key, EditRule.ADAPTABLE),
        Visibility.SHOWN,
        AppliesTo.EVERY_SECTION,
        s.aspects(texts));
  }

  Tree newest() {
    return versions.get(versions.size() - 1);
  }

  /** Mostly the newest. */
  Tree some() {
    return random.nextInt(5) > 0 ? newest() : versions.get(random.nextInt(versions.size()));
  }
}
