package org.zephyrmist.core.edition;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.edition.EditionMerge.Change;
import org.zephyrmist.core.edition.EditionMerge.What;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

class EditionMergeTest {
  private static Node node(
      String key, Kind kind, Optional<String> parent, String rank, Map<Aspect, String> forms) {
    Fingerprints f =
        Sample.aspects(forms, "same").with(Aspect.PLACE, Fingerprint.of(parent + rank));
    return new Node(
        new ItemKey(key),
        kind,
        key,
        parent.map(ItemKey::new),
        rank,
        EditRule.ADAPTABLE,
        Visibility.SHOWN,
        AppliesTo.EVERY_SECTION,
        f);
  }

  private static Node page(String key, String parent, int rank, String text) {
    return node(key, Kind.PAGE, Optional.of(parent), Rank.nth(rank), Map.of(Aspect.WORDING, text));
  }

  private static Node module(String key, int rank) {
    return node(key, Kind.MODULE, Optional.empty(), Rank.nth(rank), Map.of());
  }

  /** Two editions that name their items alike. */
  private static Pairing byKey(Tree older, Tree newer) {
    List<Pair> pairs = new ArrayList<>();
    List<ItemKey> gone = new ArrayList<>();
    for (Node n : older.nodes()) {
      if (newer.has(n.key())) {
        pairs.add(
            new Pair(n.key(), n.key(), new Evidence(true, true, 1, 1, 1, 1), Pair.Certainty.SURE));
      } else {
        gone.add(n.key());
      }
    }
    List<ItemKey> fresh = newer.nodes().stream().map(Node::key).filter(k -> !older.has(k)).toList();
    return new Pairing(pairs, gone, fresh);
  }

  private record Merged(EditionMerge merge, Tree result) {
    Change of(String key) {
      return merge.changes().stream()
          .filter(c -> c.key().value().equals(key))
          .findFirst()
          .orElseThrow();
    }
  }

  private static Merged all(
      Tree older, Tree newer, Tree master, Map<ItemKey, Taking.Side> decided) {
    Pairing pairing = byKey(older, newer);
    Set<ItemKey> taken =
        master.nodes().stream()
            .map(Node::key)
            .filter(k -> newer.has(k) && !older.has(k))
            .collect(Collectors.toSet());
    Keys keys = Keys.of(older, newer, master, pairing, taken, "e2");
    EditionMerge merge = EditionMerge.of(older, newer, master, pairing, keys);
    Set<ItemKey> chosen = merge.changes().stream().map(Change::key).collect(Collectors.toSet());
    Taking t = Taking.of(merge, newer, master, keys, chosen, decided);
    return new Merged(merge, applied(t, newer, master));
  }

  static Tree applied(Taking t, Tree newer, Tree master) {
    Map<ItemKey, Node> nodes = new LinkedHashMap<>();
    master.nodes().forEach(n -> nodes.put(n.key(), n));
    t.gone().forEach(nodes::remove);
    for (Taking.Put p : t.puts()) {
      Node n = newer.get(p.newer()).orElseThrow();
      Node m = nodes.getOrDefault(p.key(), n);
      Fingerprints f = m.aspects().with(p.theirs(), n.aspects());
      Place place = p.place().orElse(new Place(m.parent().map(ItemKey::value), m.rank()));
      nodes.put(
          p.key(),
          new Node(
              p.key(),
              m.kind(),
              p.theirs().contains(Aspect.WORDING) ? n.title() : m.title(),
              place.parent().map(ItemKey::new),
              place.rank(),
              m.rule(),
              m.visibility(),
              m.appliesTo(),
              f));
    }
    return Tree.of(nodes.values());
  }

  private static Tree tree(Node... nodes) {
    return Tree.of(List.of(nodes));
  }

  private static List<String> outline(Tree t) {
    return t.nodes().stream().map(n -> "  ".repeat(t.depth(n.key())) + n.key()).toList();
  }

  /** One module with three pages that say this. */
  private static Tree pages(String a, String b, String c) {
    return tree(module("m", 0), page("a", "m", 0, a), page("b", "m", 1, b), page("c", "m", 2, c));
  }

  private static final Tree OLD = pages("a1", "b1", "c1");

  @Test
  void whatOnlyTheEditionChangedIsTakenAndWhatOnlyOursChangedStays() {
    Tree newer = pages("a2", "b1", "c1");
    Tree master = pages("a1", "ours", "c1");
    Merged r = all(OLD, newer, master, Map.of());
    assertThat(r.of("a").what()).isEqualTo(What.TAKE);
    assertThat(r.of("b").what()).isEqualTo(What.SAME);
    assertThat(r.result().get(new ItemKey("a")).orElseThrow().aspects().get(Aspect.WORDING))
        .isEqualTo(Fingerprint.of("a2"));
    assertThat(r.result().get(new ItemKey("b")).orElseThrow().aspects().get(Aspect.WORDING))
        .isEqualTo(Fingerprint.of("ours"));
  }

  @Test
  void whatBothChangedIsAskedAndStaysOursUntilThen() {
    Tree newer = pages("a2", "b1", "c1");
    Tree master = pages("ours", "b1", "c1");
    assertThat(all(OLD, newer, master, Map.of()).of("a").what()).isEqualTo(What.CLASH);
    ItemKey a = new ItemKey("a");
    assertThat(all(OLD, newer, master, Map.of()).result())
        .extracting(t -> t.get(a).orElseThrow().aspects().get(Aspect.WORDING))
        .isEqualTo(Fingerprint.of("ours"));
    assertThat(all(OLD, newer, master, Map.of(a, Taking.Side.THEIRS)).result())
        .extracting(t -> t.get(a).orElseThrow().aspects().get(Aspect.WORDING))
        .isEqualTo(Fingerprint.of("a2"));
  }

  @Test
  void whatBothChangedAlikeIsNoClash() {
    Tree changed = pages("a2", "b1", "c1");
    assertThat(all(OLD, changed, changed, Map.of()).of("a").what()).isEqualTo(What.SAME);
  }

  @Test
  void whatIsGoneGoesUnlessOursChangedIt() {
    Tree newer = tree(module("m", 0), page("b", "m", 0, "b1"));
    Tree master = pages("a1", "b1", "ours");
    Merged r = all(OLD, newer, master, Map.of());
    assertThat(r.of("a").what()).isEqualTo(What.RETIRE);
    assertThat(r.of("c").what()).isEqualTo(What.STAYS);
    assertThat(outline(r.result())).containsExactly("m", "  b", "  c");
  }

  @Test
  void aModuleThatIsGoneStaysWhileItHoldsSomethingOfOurs() {
    Tree newer = tree(module("n", 0), page("x", "n", 0, "x"));
    Tree master =
        tree(
            module("m", 0),
            page("a", "m", 0, "a1"),
            page("b", "m", 1, "b1"),
            page("c", "m", 2, "c1"),
            page("own", "m", 3, "o"));
    Merged r = all(OLD, newer, master, Map.of());
    assertThat(outline(r.result())).containsExactly("n", "  x", "m", "  own");
  }

  @Test
  void whatTheMasterTookOutIsNotPutBack() {
    Tree newer = pages("a2", "b1", "c1");
    Tree master = tree(module("m", 0), page("b", "m", 1, "b1"), page("c", "m", 2, "c1"));
    Merged r = all(OLD, newer, master, Map.of());
    assertThat(r.of("a").what()).isEqualTo(What.TAKEN_OUT);
    assertThat(r.result().has(new ItemKey("a"))).isFalse();
  }

  @Test
  void somethingPutInFrontMovesNothing() {
    Tree newer =
        tree(
            module("m", 0),
            page("x", "m", 0, "x"),
            page("a", "m", 1, "a1"),
            page("b", "m", 2, "b1"),
            page("c", "m", 3, "c1"));
    Merged r = all(OLD, newer, OLD, Map.of());
    assertThat(r.merge().changes())
        .extracting(Change::what)
        .containsExactly(What.SAME, What.ADD, What.SAME, What.SAME, What.SAME);
    assertThat(outline(r.result())).containsExactly("m", "  x", "  a", "  b", "  c");
  }

  @Test
  void anIdentifierUsedForSomethingElseGetsAKeyOfItsOwn() {
    Tree newer = tree(module("m", 0), page("a", "m", 0, "else"));
    Pairing pairing =
        new Pairing(
            List.of(
                new Pair(
                    new ItemKey("m"),
                    new ItemKey("m"),
                    new Evidence(true, true, 1, 1, 1, 1),
                    Pair.Certainty.SURE)),
            List.of(new ItemKey("a"), new ItemKey("b"), new ItemKey("c")),
            List.of(new ItemKey("a")));
    Keys keys = Keys.of(OLD, newer, OLD, pairing, Set.of(), "e2");
    assertThat(keys.of(new ItemKey("a"))).isNotEqualTo(new ItemKey("a"));
    assertThat(keys.same()).isFalse();
  }

  /** An edition with some items changed, moved, taken out and added. */
  private static Tree changed(Tree of, Random r, String name) {
    Map<ItemKey, Node> nodes = new LinkedHashMap<>();
    List<ItemKey> modules =
        of.nodes().stream().filter(n -> n.kind() == Kind.MODULE).map(Node::key).toList();
    Set<ItemKey> out = new HashSet<>();
    for (Node n : of.nodes()) {
      boolean gone = n.parent().filter(out::contains).isPresent() || r.nextInt(8) == 0;
      if (gone) {
        out.add(n.key());
        continue;
      }
      Map<Aspect, String> forms = new EnumMap<>(Aspect.class);
      Fingerprints f = n.aspects();
      for (Aspect a : Aspect.values()) {
        if (a != Aspect.PLACE && r.nextInt(6) == 0) {
          forms.put(a, name + a + n.key());
          f = f.with(a, Fingerprint.of(forms.get(a)));
        }
      }
      Optional<ItemKey> parent = n.parent();
      String rank = n.rank();
      if (n.kind() != Kind.MODULE && r.nextInt(5) == 0) {
        parent = Optional.of(modules.get(r.nextInt(modules.size()))).filter(p -> !out.contains(p));
        rank = Rank.between(Rank.nth(r.nextInt(30)), "");
      }
      f = f.with(Aspect.PLACE, Fingerprint.of(parent.map(ItemKey::value) + rank));
      nodes.put(
          n.key(),
          new Node(
              n.key(),
              n.kind(),
              n.title(),
              parent,
              rank,
              n.rule(),
              n.visibility(),
              n.appliesTo(),
              f));
    }
    nodes.values().removeIf(n -> n.parent().filter(p -> !nodes.containsKey(p)).isPresent());
    List<ItemKey> left =
        nodes.values().stream().filter(n -> n.kind() == Kind.MODULE).map(Node::key).toList();
    for (int i = r.nextInt(4); i > 0 && !left.isEmpty(); i--) {
      ItemKey at = left.get(r.nextInt(left.size()));
      Node n = page("own" + name + i, at.value(), 40 + i, name + i);
      nodes.put(n.key(), n);
    }
    return Tree.of(nodes.values());
  }

  private static Tree drawn(Random r) {
    List<Node> nodes = new ArrayList<>();
    for (int m = 0; m < 3; m++) {
      nodes.add(module("m" + m, m));
      for (int i = 0; i < 1 + r.nextInt(5); i++) {
        nodes.add(page("m" + m + "i" + i, "m" + m, i, "t" + m + i));
      }
    }
    return Tree.of(nodes);
  }

  @Test
  void intoAnUnchangedMasterTheWholeEditionIsTaken() {
    Laws.hold(
        r -> {
          Tree older = drawn(r);
          Tree newer = changed(older, r, "n");
          Tree result = all(older, newer, older, Map.of()).result();
          assertThat(outline(result)).containsExactlyElementsOf(outline(newer));
          for (Node n : newer.nodes()) {
            Set<Aspect> differ = result.get(n.key()).orElseThrow().aspects().differing(n.aspects());
            differ.remove(Aspect.PLACE);
            assertThat(differ).isEmpty();
          }
        });
  }

  @Test
  void nothingIsToBeTakenFromTheSameEdition() {
    Laws.hold(
        r -> {
          Tree older = drawn(r);
          Tree master = changed(older, r, "m");
          Merged merged = all(older, older, master, Map.of());
          assertThat(merged.merge().changes()).allMatch(c -> !c.open());
          assertThat(outline(merged.result())).isEqualTo(outline(master));
        });
  }

  @Test
  void nothingOfOnesOwnIsLost() {
    Laws.hold(
        r -> {
          Tree older = drawn(r);
          Tree newer = changed(older, r, "n");
          Tree master = changed(older, r, "m");
          Tree result = all(older, newer, master, Map.of()).result();
          for (Node m : master.nodes()) {
            Optional<Node> o = older.get(m.key());
            Optional<Node> now = result.get(m.key());
            if (o.isEmpty()) {
              assertThat(now).isPresent();
              continue;
            }
            Set<Aspect> ours = m.aspects().differing(o.get().aspects());
            ours.remove(Aspect.PLACE);
            if (!ours.isEmpty()) {
              assertThat(now).isPresent();
            }
            Map<Aspect, Fingerprint> kept = new HashMap<>();
            ours.forEach(a -> kept.put(a, m.aspects().get(a)));
            kept.forEach((a, f) -> assertThat(now.orElseThrow().aspects().get(a)).isEqualTo(f));
          }
        });
  }

  @Test
  void takingAgainChangesNothing() {
    Laws.hold(
        r -> {
          Tree older = drawn(r);
          Tree newer = changed(older, r, "n");
          Tree once = all(older, newer, older, Map.of()).result();
          Merged twice = all(older, newer, once, Map.of());
          assertThat(twice.merge().changes().stream().filter(Change::open)).isEmpty();
        });
  }
}
