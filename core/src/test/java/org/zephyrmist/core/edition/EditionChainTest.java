package org.zephyrmist.core.edition;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.Predicate;
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
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.edition.EditionMerge.What;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * Editions one after the other, whose publisher keeps, renames, exchanges and reuses identifiers.
 */
class EditionChainTest {
  /**
   * An item as its publisher knows it.
   *
   * @param id by which it is the same through all editions, whatever its identifier
   */
  private record Work(int id, boolean module, int in, String says) {}

  /** An edition: its works in order, and under which identifier each went into the package. */
  private record Edition(List<Work> works, Map<Integer, ItemKey> keys) {
    Tree tree() {
      List<Node> nodes = new ArrayList<>();
      for (Work w : works) {
        Optional<ItemKey> in = Optional.ofNullable(keys.get(w.in()));
        String rank = Rank.nth(nodes.size());
        Fingerprints f =
            Sample.aspects(Map.of(Aspect.WORDING, w.says()), "same")
                .with(Aspect.PLACE, Fingerprint.of(in + rank));
        nodes.add(
            new Node(
                keys.get(w.id()),
                w.module() ? Kind.MODULE : Kind.PAGE,
                w.says(),
                in,
                rank,
                EditRule.ADAPTABLE,
                Visibility.SHOWN,
                AppliesTo.EVERY_SECTION,
                f));
      }
      return Tree.of(nodes);
    }

    List<String> outline() {
      return works.stream().map(w -> w.in() + " " + w.says()).toList();
    }
  }

  private static final class Publisher {
    private final Random random;
    private List<Work> works = new ArrayList<>();
    private Map<Integer, ItemKey> keys = new HashMap<>();
    private int next = 1;
    private int texts;

    Publisher(Random random) {
      this.random = random;
      for (int m = 0; m < 2; m++) {
        works.add(work(true, 0));
        for (int i = 0; i < 3; i++) {
          works.add(work(false, module()));
        }
      }
      works.forEach(w -> keys.put(w.id(), new ItemKey("k" + w.id())));
    }

    private Work work(boolean module, int in) {
      return new Work(next++, module, in, "text " + texts++);
    }

    private int module() {
      List<Work> modules = works.stream().filter(Work::module).toList();
      return modules.get(random.nextInt(modules.size())).id();
    }

    Edition edition() {
      List<Work> sorted = new ArrayList<>();
      works.stream()
          .filter(Work::module)
          .forEach(
              m -> {
                sorted.add(m);
                works.stream().filter(w -> w.in() == m.id()).forEach(sorted::add);
              });
      works = sorted;
      return new Edition(List.copyOf(works), Map.copyOf(keys));
    }

    void revise() {
      List<Work> now = new ArrayList<>();
      Set<ItemKey> free = new HashSet<>();
      for (Work w : works) {
        int what = random.nextInt(10);
        if (what == 0 && !w.module()) {
          free.add(keys.remove(w.id()));
        } else if (what < 4) {
          now.add(new Work(w.id(), w.module(), w.in(), "text " + texts++));
        } else if (what == 4 && !w.module()) {
          now.add(new Work(w.id(), false, module(), w.says()));
        } else {
          now.add(w);
        }
      }
      works = now;
      for (int i = random.nextInt(3); i > 0; i--) {
        Work w = work(false, module());
        works.add(random.nextInt(works.size() + 1), w);
        boolean reused = !free.isEmpty() && random.nextBoolean();
        ItemKey key = reused ? free.iterator().next() : new ItemKey("k" + w.id());
        free.remove(key);
        keys.put(w.id(), key);
      }
      switch (random.nextInt(3)) {
        case 0 -> {
          List<Integer> ids = new ArrayList<>(keys.keySet());
          int a = ids.get(random.nextInt(ids.size()));
          int b = ids.get(random.nextInt(ids.size()));
          ItemKey of = keys.get(a);
          keys.put(a, keys.get(b));
          keys.put(b, of);
        }
        case 1 -> keys.replaceAll((id, k) -> new ItemKey("r" + texts + "x" + id));
        default -> {}
      }
    }
  }

  /** As whoever knows the works would pair them. */
  private static Pairing pairing(Edition older, Edition newer) {
    List<Pair> pairs = new ArrayList<>();
    List<ItemKey> gone = new ArrayList<>();
    for (Work w : older.works()) {
      ItemKey was = older.keys().get(w.id());
      ItemKey is = newer.keys().get(w.id());
      if (is == null) {
        gone.add(was);
      } else {
        pairs.add(new Pair(was, is, new Evidence(true, true, 1, 1, 1, 1), Pair.Certainty.SURE));
      }
    }
    List<ItemKey> fresh =
        newer.works().stream()
            .filter(w -> !older.keys().containsKey(w.id()))
            .map(w -> newer.keys().get(w.id()))
            .toList();
    return new Pairing(pairs, gone, fresh);
  }

  private static final class Master {
    private Tree tree;
    private Edition on;
    private Lineage lineage = Lineage.FIRST;
    private Optional<Tree> brought = Optional.empty();
    private final Set<ItemKey> fromNewer = new HashSet<>();

    Master(Edition first) {
      on = first;
      tree = first.tree();
    }

    EditionMerge merge(Edition newer) {
      return EditionMerge.of(older(), newer.tree(), tree, pairing(newer), keys(newer));
    }

    private Tree older() {
      return brought.orElseGet(() -> lineage.of(on.tree()));
    }

    private Pairing pairing(Edition newer) {
      return Brought.pairing(lineage.of(EditionChainTest.pairing(on, newer)), older());
    }

    private Keys keys(Edition newer) {
      return Keys.of(
          older(), newer.tree(), tree, pairing(newer), fromNewer, "e" + newer.hashCode());
    }

    void takeAll(Edition newer) {
      take(newer, c -> true);
    }

    void take(Edition newer, Predicate<EditionMerge.Change> some) {
      EditionMerge merge = merge(newer);
      Keys keys = keys(newer);
      Set<ItemKey> chosen =
          merge.changes().stream()
              .filter(some)
              .map(EditionMerge.Change::key)
              .collect(Collectors.toSet());
      Taking t = Taking.of(merge, newer.tree(), tree, keys, chosen, Map.of());
      tree = EditionMergeTest.applied(t, newer.tree(), tree);
      t.puts().stream().filter(Taking.Put::added).forEach(p -> fromNewer.add(p.key()));
    }

    void finish(Edition newer) {
      Tree older = older();
      Keys keys = keys(newer);
      List<Node> nodes = new ArrayList<>();
      for (Brought.Part p : Brought.after(merge(newer), older, newer.tree(), tree, keys).parts()) {
        Optional<Node> before = older.get(p.key());
        Node n = p.newer().flatMap(newer.tree()::get).orElseGet(before::orElseThrow);
        Node says = p.before().contains(Aspect.WORDING) ? before.orElseThrow() : n;
        nodes.add(
            new Node(
                p.key(),
                n.kind(),
                says.title(),
                p.parent(),
                p.rank(),
                n.rule(),
                n.visibility(),
                n.appliesTo(),
                before.map(b -> n.aspects().with(p.before(), b.aspects())).orElse(n.aspects())));
      }
      brought = Optional.of(Tree.of(nodes));
      lineage = Lineage.after(newer.tree(), keys);
      on = newer;
      fromNewer.clear();
    }

    /** Each item with the one that it stands in, by what they say. */
    List<String> outline() {
      return tree.nodes().stream()
          .map(n -> n.parent().flatMap(tree::get).map(Node::title).orElse("") + " > " + n.title())
          .toList();
    }
  }

  private static List<String> outline(Edition e) {
    return new Master(e).outline();
  }

  @Test
  void anUntouchedMasterThatTakesAllOfEachEditionEqualsTheNewest() {
    Laws.some(
        random -> {
          Publisher p = new Publisher(random);
          Edition first = p.edition();
          Master m = new Master(first);
          for (int i = 0; i < 4; i++) {
            p.revise();
            Edition next = p.edition();
            m.takeAll(next);
            assertThat(m.outline()).as("after edition " + (i + 2)).isEqualTo(outline(next));
            assertThat(m.merge(next).changes()).noneMatch(EditionMerge.Change::open);
            m.finish(next);
          }
        });
  }

  @Test
  void whatWasNotTakenStaysOpenUntilAnUntouchedMasterTakesAllOfTheNewest() {
    Laws.some(
        random -> {
          Publisher p = new Publisher(random);
          Master m = new Master(p.edition());
          for (int i = 0; i < 3; i++) {
            p.revise();
            Edition next = p.edition();
            m.take(next, c -> random.nextBoolean());
            m.finish(next);
          }
          p.revise();
          Edition newest = p.edition();
          m.takeAll(newest);
          if (m.merge(newest).changes().stream().anyMatch(c -> c.what() == What.DOUBT)) {
            return; // an identifier that is used again: a person says whether it is the same
          }
          assertThat(m.outline().stream().sorted().toList())
              .isEqualTo(outline(newest).stream().sorted().toList());
          assertThat(m.merge(newest).changes()).noneMatch(c -> c.open() && !onlyPlaces(c));
        });
  }

  /** What both put elsewhere is asked about. */
  private static boolean onlyPlaces(EditionMerge.Change c) {
    return Set.of(Aspect.PLACE).containsAll(c.theirs())
        && Set.of(Aspect.PLACE).containsAll(c.clash())
        && c.what() != What.ADD
        && c.what() != What.RETIRE;
  }

  @Test
  void nothingOfTheMastersOwnIsLostThroughAnyChain() {
    Laws.some(
        random -> {
          Publisher p = new Publisher(random);
          Edition first = p.edition();
          Master m = new Master(first);
          List<Node> pages =
              new ArrayList<>(m.tree.nodes().stream().filter(n -> n.kind() == Kind.PAGE).toList());
          Collections.shuffle(pages, random);
          Node mine = pages.get(0);
          Fingerprint own = Fingerprint.of("our own words");
          m.tree =
              Tree.of(
                  m.tree.nodes().stream()
                      .map(
                          n -> n == mine ? n.withAspects(n.aspects().with(Aspect.WORDING, own)) : n)
                      .toList());
          for (int i = 0; i < 4; i++) {
            p.revise();
            Edition next = p.edition();
            m.takeAll(next);
            m.finish(next);
            assertThat(m.tree.get(mine.key()).orElseThrow().aspects().get(Aspect.WORDING))
                .isEqualTo(own);
          }
        });
  }
}
