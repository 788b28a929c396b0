package org.zephyrmist.core.delivery;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Deque;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Needs.Because;
import org.zephyrmist.core.delivery.Needs.Need;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * What a delivery would do in many sections, as far as the ledger tells, before any shell is read.
 * Sections that hold the same are looked at together, so that it follows each change of a choice.
 *
 * @param items of the version in outline order, then those that are no longer meant for sections
 *     that have them
 * @param totals steps of all sections by kind, without modules
 */
public record Forecast(List<OfItem> items, Map<StepKind, Integer> totals) {

  /**
   * What becomes of an item.
   *
   * @param meant false for what is no longer meant for sections that have it
   * @param chosen in so many sections
   * @param along in so many sections it comes with something chosen
   * @param because what brings it along
   * @param leftOut whether the choice leaves it out
   * @param missed what is brought and needs it, though it is left out
   * @param steps sections by the kind of step; nothing for those where it is not brought
   */
  public record OfItem(
      ItemKey key,
      Kind kind,
      String title,
      boolean meant,
      int chosen,
      int along,
      Optional<Because> because,
      boolean leftOut,
      Optional<Because> missed,
      Map<StepKind, Integer> steps) {}

  /**
   * Sections that hold the same of an item.
   *
   * @param here as last seen there; none if it is gone
   * @param sections by their places
   */
  public record Holds(Base base, Optional<Fingerprints> here, BitSet sections) {}

  /** The sections, by their places, and what they hold of one master. */
  public record Sections(List<SectionFacts> facts, List<Holds> holds) {
    /** Wordings that both a section and the version moved. */
    public Set<Merges.Three> merges(Tree version) {
      Set<Merges.Three> all = new HashSet<>();
      for (Holds h : holds) {
        version
            .get(h.base().key())
            .flatMap(n -> h.here().flatMap(here -> Merges.wanted(n, h.base(), here)))
            .ifPresent(all::add);
      }
      return all;
    }
  }

  public static Forecast of(
      Tree version,
      Needs needs,
      PartsChoice parts,
      Choices choices,
      Sections sections,
      Merges merges) {
    return new Run(version, needs, parts, choices, sections, merges).forecast();
  }

  private static final class Run {
    private final Tree version;
    private final Needs needs;
    private final PartsChoice parts;
    private final Choices choices;
    private final Merges merges;
    private final int size;
    private final Meant meant;
    private final Predicate<ItemKey> leftOut;
    private final Map<ItemKey, List<Holds>> holds = new LinkedHashMap<>();
    private final BitSet emptied;
    private final Map<ItemKey, BitSet> applies = new HashMap<>();
    private final Map<ItemKey, BitSet> chosen = new HashMap<>();
    private final Map<ItemKey, BitSet> along = new HashMap<>();
    private final Map<ItemKey, Because> because = new HashMap<>();

    Run(Tree version, Needs needs, PartsChoice parts, Choices choices, Sections s, Merges merges) {
      this.merges = merges;
      this.version = version;
      this.needs = needs;
      this.parts = parts;
      this.choices = choices;
      this.size = s.facts().size();
      this.meant = new Meant(version, Parts.EVERYTHING);
      this.leftOut = parts.leftOut(version);
      this.emptied = emptied(s);
      for (Holds h : s.holds()) {
        Holds now = anew(h);
        if (!now.sections().isEmpty()) {
          holds.computeIfAbsent(h.base().key(), k -> new ArrayList<>()).add(now);
        }
      }
      applies(s.facts());
    }

    private static BitSet emptied(Sections s) {
      int[] given = new int[s.facts().size()];
      int[] gone = new int[given.length];
      for (Holds h : s.holds()) {
        if (h.base().kind() != Kind.MODULE) {
          h.sections().stream()
              .forEach(
                  i -> {
                    given[i]++;
                    gone[i] += h.here().isPresent() ? 0 : 1;
                  });
        }
      }
      BitSet all = new BitSet();
      for (int i = 0; i < given.length; i++) {
        all.set(i, Emptied.is(given[i], gone[i]));
      }
      return all;
    }

    /** What is gone from an emptied shell was never there, where it is delivered anew. */
    private Holds anew(Holds h) {
      if (choices.emptied() != Choices.EmptiedShell.ANEW || h.here().isPresent()) {
        return h;
      }
      BitSet in = (BitSet) h.sections().clone();
      in.andNot(emptied);
      return new Holds(h.base(), h.here(), in);
    }

    private void applies(List<SectionFacts> facts) {
      Map<SectionFacts, BitSet> alike = new LinkedHashMap<>();
      for (int i = 0; i < facts.size(); i++) {
        alike.computeIfAbsent(facts.get(i), f -> new BitSet()).set(i);
      }
      alike.forEach(
          (f, bits) ->
              Meant.of(version, Parts.EVERYTHING, f)
                  .items()
                  .nodes()
                  .forEach(n -> applies.computeIfAbsent(n.key(), k -> new BitSet()).or(bits)));
    }

    private BitSet applies(ItemKey key) {
      return (BitSet) applies.getOrDefault(key, new BitSet()).clone();
    }

    /** Sections that were given the item and have it. */
    private BitSet there(ItemKey key) {
      BitSet all = new BitSet();
      holds.getOrDefault(key, List.of()).stream()
          .filter(h -> h.here().isPresent())
          .forEach(h -> all.or(h.sections()));
      return all;
    }

    private BitSet given(ItemKey key) {
      BitSet all = new BitSet();
      holds.getOrDefault(key, List.of()).forEach(h -> all.or(h.sections()));
      return all;
    }

    Forecast forecast() {
      choose();
      alongs();
      List<OfItem> items = new ArrayList<>();
      Map<StepKind, Integer> totals = new EnumMap<>(StepKind.class);
      Map<ItemKey, Because> missed =
          needs.missed(
              version.nodes().stream().map(Node::key).filter(k -> !brought(k).isEmpty()).toList(),
              leftOut);
      for (Node n : version.nodes()) {
        Map<StepKind, Integer> steps = steps(n);
        if (n.kind() != Kind.MODULE) {
          steps.forEach((k, c) -> totals.merge(k, c, Integer::sum));
        }
        items.add(
            new OfItem(
                n.key(),
                n.kind(),
                n.title(),
                true,
                bits(chosen, n.key()).cardinality(),
                bits(along, n.key()).cardinality(),
                Optional.ofNullable(because.get(n.key())),
                leftOut.test(n.key()),
                Optional.ofNullable(missed.get(n.key())),
                steps));
      }
      if (parts.what() != PartsChoice.What.SOME) {
        gone(items, totals);
      }
      return new Forecast(items, totals);
    }

    private void choose() {
      Set<ItemKey> wanted = parts.chosen(version, Map.of());
      for (Node n : version.nodes()) {
        BitSet in = applies(n.key());
        if (!wanted.contains(n.key())) {
          in.clear();
        } else if (parts.what() == PartsChoice.What.CHANGED) {
          holds.getOrDefault(n.key(), List.of()).stream()
              .filter(h -> !PartsChoice.moved(n, h.base()))
              .forEach(h -> in.andNot(h.sections()));
        }
        chosen.put(n.key(), in);
      }
    }

    /** Each item is looked at again whenever it comes to more sections than before. */
    private void alongs() {
      Deque<ItemKey> open = new ArrayDeque<>();
      version.nodes().stream().map(Node::key).filter(needs.of()::containsKey).forEach(open::add);
      while (!open.isEmpty()) {
        ItemKey by = open.poll();
        for (Need n : needs.of().getOrDefault(by, List.of())) {
          if (leftOut.test(n.item())) {
            continue;
          }
          BitSet more = brought(by);
          more.and(applies(n.item()));
          if (!n.why().part()) {
            more.andNot(there(n.item()));
          }
          more.andNot(brought(n.item()));
          if (!more.isEmpty()) {
            bits(along, n.item()).or(more);
            because.putIfAbsent(n.item(), new Because(by, n.why()));
            open.add(n.item());
          }
        }
      }
    }

    private static BitSet bits(Map<ItemKey, BitSet> of, ItemKey key) {
      return of.computeIfAbsent(key, k -> new BitSet());
    }

    private BitSet brought(ItemKey key) {
      BitSet all = (BitSet) bits(chosen, key).clone();
      all.or(bits(along, key));
      return all;
    }

    /** A module is brought wherever something in it is. */
    private BitSet wanted(Node n) {
      if (n.kind() != Kind.MODULE) {
        return brought(n.key());
      }
      BitSet below = new BitSet(size);
      for (Node x : version.subtree(n.key())) {
        if (x.kind() != Kind.MODULE) {
          below.or(brought(x.key()));
        }
      }
      return below;
    }

    private Map<StepKind, Integer> steps(Node n) {
      Map<StepKind, Integer> steps = new EnumMap<>(StepKind.class);
      BitSet wanted = wanted(n);
      if (choices.emptied() != Choices.EmptiedShell.ANEW) {
        BitSet left = (BitSet) wanted.clone();
        left.and(emptied);
        if (!left.isEmpty()) {
          steps.put(StepKind.KEEP, left.cardinality());
          wanted.andNot(emptied);
        }
      }
      for (Holds h : holds.getOrDefault(n.key(), List.of())) {
        BitSet in = (BitSet) h.sections().clone();
        in.and(wanted);
        if (!in.isEmpty()) {
          StepKind kind = Planner.one(meant, n, h.base(), held(h), choices, merges).kind();
          steps.merge(kind, in.cardinality(), Integer::sum);
        }
      }
      wanted.andNot(given(n.key()));
      if (!wanted.isEmpty()) {
        steps.merge(StepKind.ADD, wanted.cardinality(), Integer::sum);
      }
      return steps;
    }

    private static Optional<Held> held(Holds h) {
      Base b = h.base();
      return h.here()
          .map(here -> new Held(b.id(), b.kind(), b.title(), Optional.empty(), here, false, false));
    }

    /** What is no longer in the version, or not meant for a section that has it. */
    private void gone(List<OfItem> items, Map<StepKind, Integer> totals) {
      holds.forEach(
          (key, all) -> {
            Kind kind = all.get(0).base().kind();
            if (leftOut.test(key) || parts.without().says(kind, all.get(0).base().title())) {
              return;
            }
            Map<StepKind, Integer> steps = new EnumMap<>(StepKind.class);
            for (Holds h : all) {
              BitSet in = (BitSet) h.sections().clone();
              in.andNot(applies(key));
              if (choices.emptied() != Choices.EmptiedShell.ANEW) {
                in.andNot(emptied);
              }
              if (!in.isEmpty() && h.here().isPresent()) {
                boolean own = !h.here().get().equals(h.base().shown());
                steps.merge(own ? StepKind.KEEP : StepKind.RETIRE, in.cardinality(), Integer::sum);
              }
            }
            if (kind != Kind.MODULE) {
              steps.forEach((k, c) -> totals.merge(k, c, Integer::sum));
            }
            if (!steps.isEmpty()) {
              int sections = steps.values().stream().mapToInt(Integer::intValue).sum();
              items.add(
                  new OfItem(
                      key,
                      kind,
                      all.get(0).base().title(),
                      false,
                      sections,
                      0,
                      Optional.empty(),
                      false,
                      Optional.empty(),
                      steps));
            }
          });
    }
  }
}
