package org.zephyrmist.core.delivery;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Mentions;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.tree.Tree;

/**
 * What the items of a version need to be whole.
 *
 * @param of each item's needs, in the order in which they are told
 */
public record Needs(Map<ItemKey, List<Need>> of) {
  public static final Needs NONE = new Needs(Map.of());

  public Needs {
    of = Map.copyOf(of);
  }

  /** Why an item is needed. */
  public enum Why {
    /** A quiz draws its questions from it. */
    BANK(true),
    /** Work is graded by it. */
    RUBRIC(true),
    /** Work counts into it. */
    CATEGORY(true),
    /** Its groups do the work. */
    GROUPS(true),
    /** A line of a rubric shows it. */
    OUTCOME(true),
    /** A text leads to this file. */
    FILE(true),
    /** Notes to instructors, which stand beside their item. */
    NOTE(true),
    /** It must be done before an item opens. */
    CONDITION(false),
    /** A menu or a front page leads to it. */
    ENTRY(false),
    /** A text leads to it. */
    LINK(false);

    private final boolean part;

    Why(boolean part) {
      this.part = part;
    }

    /** Whether it is a part of what needs it, and so is brought up to date with it. */
    public boolean part() {
      return part;
    }
  }

  /** An item that is needed. */
  public record Need(ItemKey item, Why why) {}

  /** What brought an item along. */
  public record Because(ItemKey by, Why why) {}

  /**
   * @param items of the version
   * @param questions of its quizzes
   * @param banks by what the quizzes call them
   */
  public static Needs of(
      Tree version,
      List<Item> items,
      Map<ItemKey, QuestionSet> questions,
      Map<String, ItemKey> banks) {
    Map<ItemKey, List<Need>> all = new HashMap<>();
    for (Item i : items) {
      List<Need> needs = new ArrayList<>();
      if (questions.containsKey(i.key())) {
        drawn(questions.get(i.key())).stream()
            .filter(banks::containsKey)
            .forEach(b -> needs.add(new Need(banks.get(b), Why.BANK)));
      }
      for (Mentions.Mention m : Mentions.of(i)) {
        version
            .get(m.to())
            .filter(n -> n.kind() != Kind.MODULE && !n.key().equals(i.key()))
            .ifPresent(n -> needs.add(new Need(m.to(), why(m.why(), n.kind()))));
      }
      if (!needs.isEmpty()) {
        all.put(i.key(), needs.stream().distinct().toList());
      }
    }
    return new Needs(all);
  }

  /** The same with the notes of items, in the tree that has them. */
  public Needs withNotes(Tree section) {
    Map<ItemKey, List<Need>> all = new HashMap<>(of);
    section
        .nodes()
        .forEach(
            n -> {
              ItemKey note = InSection.noteOf(n.key());
              if (section.has(note)) {
                List<Need> needs = new ArrayList<>(all.getOrDefault(n.key(), List.of()));
                needs.add(new Need(note, Why.NOTE));
                all.put(n.key(), needs);
              }
            });
    return new Needs(all);
  }

  private static List<String> drawn(QuestionSet set) {
    return set.parts().stream()
        .filter(QuestionSet.Group.class::isInstance)
        .flatMap(p -> ((QuestionSet.Group) p).bank().stream())
        .toList();
  }

  private static Why why(Mentions.Why why, Kind to) {
    return switch (why) {
      case RUBRIC -> Why.RUBRIC;
      case CATEGORY -> Why.CATEGORY;
      case GROUPS -> Why.GROUPS;
      case OUTCOME -> Why.OUTCOME;
      case CONDITION -> Why.CONDITION;
      case ENTRY -> Why.ENTRY;
      case LINK -> to == Kind.FILE ? Why.FILE : Why.LINK;
    };
  }

  /**
   * What comes along with chosen items, and what that needs in turn; in the order in which it is
   * found.
   *
   * @param chosen in outline order
   * @param leftOut what never comes along
   * @param there what the section has already: of it only parts of what needs it come along
   */
  public Map<ItemKey, Because> along(
      Collection<ItemKey> chosen, Predicate<ItemKey> leftOut, Predicate<ItemKey> there) {
    Map<ItemKey, Because> along = new LinkedHashMap<>();
    Set<ItemKey> have = new HashSet<>(chosen);
    Deque<ItemKey> open = new ArrayDeque<>(chosen);
    while (!open.isEmpty()) {
      ItemKey by = open.poll();
      for (Need n : of.getOrDefault(by, List.of())) {
        boolean comes = !leftOut.test(n.item()) && (n.why().part() || !there.test(n.item()));
        if (comes && have.add(n.item())) {
          along.put(n.item(), new Because(by, n.why()));
          open.add(n.item());
        }
      }
    }
    return along;
  }

  /** Needs of chosen items that are left out all the same, each with what needs it. */
  public Map<ItemKey, Because> missed(Collection<ItemKey> brought, Predicate<ItemKey> leftOut) {
    Map<ItemKey, Because> missed = new LinkedHashMap<>();
    for (ItemKey by : brought) {
      for (Need n : of.getOrDefault(by, List.of())) {
        if (n.why().part() && leftOut.test(n.item())) {
          missed.putIfAbsent(n.item(), new Because(by, n.why()));
        }
      }
    }
    return missed;
  }
}
