package org.zephyrmist.bench.history;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What must hold of shells after each step of a history, by a model of its own: the words that
 * instructors wrote, what students left, who touched what since when. It knows nothing of plans.
 */
final class Oracle {
  /** A word that an instructor wrote, and where. */
  private record Own(String word, String item) {}

  /** What a delivery did to the words of a shell. */
  private static final class Done {
    final Map<String, ShellSeen> before = new HashMap<>();
    final Map<String, ShellSeen> after = new HashMap<>();
    final Map<String, List<Own>> dropped = new HashMap<>();
    final Map<String, Integer> at = new HashMap<>();
  }

  private final Map<String, Map<String, Own>> words = new HashMap<>();
  private final Map<String, Map<String, Integer>> left = new HashMap<>();
  private final Map<String, Integer> touched = new HashMap<>();
  private final Map<String, Integer> touchedShell = new HashMap<>();
  private final Map<String, Integer> delivered = new HashMap<>();
  private final Map<String, Done> deliveries = new LinkedHashMap<>();
  private final Set<String> everTouched = new HashSet<>();
  private int now;

  /** What does not hold, in a sentence. */
  static final class Broken extends RuntimeException {
    private static final long serialVersionUID = 1;

    Broken(String what) {
      super(what);
    }
  }

  void wrote(String shell, String item, String word) {
    words.computeIfAbsent(shell, k -> new LinkedHashMap<>()).put(word, new Own(word, item));
    touched(shell, item);
  }

  void touched(String shell, String item) {
    touched.put(item, ++now);
    touchedShell.put(shell, now);
    everTouched.add(item);
  }

  /** The instructor took it out, with all that was said in it. */
  void deleted(String shell, ShellSeen.Thing item) {
    touched(shell, item.id());
    words.getOrDefault(shell, Map.of()).values().removeIf(o -> item.says(o.word()));
  }

  void handedIn(String shell, String item) {
    left.computeIfAbsent(shell, k -> new HashMap<>()).merge(item, 1, Integer::sum);
    touchedShell.put(shell, ++now);
  }

  boolean hasWork(String shell, String item) {
    return left.getOrDefault(shell, Map.of()).containsKey(item);
  }

  boolean wasTouched(String item) {
    return everTouched.contains(item);
  }

  /**
   * A shell after a delivery, a change in all shells or a take back.
   *
   * @param of the delivery that it was
   * @param back the one that it takes back; null if none
   * @param mayGo whose own words may go, by a person's choice or a rule
   */
  void delivered(
      String shell,
      String of,
      String back,
      ShellSeen before,
      ShellSeen after,
      Coordinator.Goes mayGo) {
    Done d = deliveries.computeIfAbsent(of, k -> new Done());
    d.before.put(shell, before);
    d.after.put(shell, after);
    students(shell, after);
    if (!after.twice().isEmpty()) {
      throw new Broken("is twice in " + shell + ": " + after.twice());
    }
    Done taken = back == null ? null : deliveries.get(back);
    List<Own> cameBack = new ArrayList<>();
    if (taken != null && taken.at.containsKey(shell)) {
      for (Own o : taken.dropped.getOrDefault(shell, List.of())) {
        boolean since = touched.getOrDefault(o.item(), 0) > taken.at.get(shell);
        if (after.says(o.word())) {
          cameBack.add(o);
        } else if (!since && latest(shell, back)) {
          throw new Broken(o.word() + " in " + shell + " did not come back with the take back");
        }
      }
      wholeAgain(shell, back, taken, after);
    }
    for (Own o : List.copyOf(words.getOrDefault(shell, Map.of()).values())) {
      if (!after.says(o.word())) {
        boolean restoredByIt = taken != null && !taken.before.get(shell).says(o.word());
        if (!mayGo.may(o.item(), o.word()) && !restoredByIt) {
          throw new Broken("the instructor's word " + o.word() + " is lost in " + shell);
        }
        words.get(shell).remove(o.word());
        d.dropped.computeIfAbsent(shell, k -> new ArrayList<>()).add(o);
      }
    }
    cameBack.forEach(
        o -> words.computeIfAbsent(shell, k -> new LinkedHashMap<>()).put(o.word(), o));
    d.at.put(shell, ++now);
    delivered.put(shell, now);
  }

  private boolean latest(String shell, String delivery) {
    return deliveries.get(delivery).at.get(shell).equals(delivered.get(shell));
  }

  /** Taken back at once, with nobody there in between, the shell is as it was. */
  private void wholeAgain(String shell, String back, Done taken, ShellSeen after) {
    boolean quiet = touchedShell.getOrDefault(shell, 0) < taken.at.get(shell);
    if (!quiet || !latest(shell, back)) {
      return;
    }
    Map<String, Integer> was = taken.before.get(shell).contents();
    Map<String, Integer> is = after.contents();
    if (!was.equals(is)) {
      throw new Broken(
          "a take back in "
              + shell
              + " left\n  "
              + less(is, was)
              + "\n  in the place of\n  "
              + less(was, is));
    }
  }

  private static Map<String, Integer> less(Map<String, Integer> all, Map<String, Integer> but) {
    Map<String, Integer> rest = new LinkedHashMap<>(all);
    but.forEach((k, n) -> rest.computeIfPresent(k, (x, m) -> m > n ? m - n : null));
    return rest;
  }

  private void students(String shell, ShellSeen after) {
    left.getOrDefault(shell, Map.of())
        .forEach(
            (item, n) -> {
              ShellSeen.Thing t = after.items().get(item);
              if (t == null || t.left() < n) {
                throw new Broken(
                    "what students left is gone from " + shell + ": " + item + " " + t);
              }
            });
  }

  /** Own words that stand in an item. */
  List<String> in(String shell, ShellSeen.Thing item) {
    return words.getOrDefault(shell, Map.of()).keySet().stream().filter(item::says).toList();
  }
}
