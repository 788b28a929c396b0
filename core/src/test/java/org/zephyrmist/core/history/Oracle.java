package org.zephyrmist.core.history;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Kind;

/** What must be in a shell, told from what people did and not from what our code says of it. */
final class Oracle {
  /** An instructor's words and where they stand, by the platform's ids. */
  private final Map<String, String> words = new HashMap<>();

  private final Map<String, Integer> work = new HashMap<>();

  void wrote(String word, String id) {
    words.put(word, id);
  }

  void left(String id) {
    work.merge(id, 1, Integer::sum);
  }

  /** The instructor took it out. */
  void tookOut(Said s) {
    words.keySet().removeAll(s.words());
  }

  boolean worked(String id) {
    return work.containsKey(id);
  }

  Set<String> words() {
    return Set.copyOf(words.keySet());
  }

  /** A person decided that what is missing now is to go. */
  void decided(Section s) {
    words.keySet().retainAll(there(s));
  }

  /** The same, but for what stands in these. */
  void decidedBut(Section s, Set<String> ids) {
    Set<String> there = there(s);
    words.entrySet().removeIf(e -> !there.contains(e.getKey()) && !ids.contains(e.getValue()));
  }

  /** They are there again. */
  void again(Set<String> before) {
    before.stream().filter(w -> w.startsWith("i")).forEach(w -> words.putIfAbsent(w, ""));
  }

  /** A person decided that of these what is missing now is to go. */
  void decided(Section s, Set<String> these) {
    Set<String> there = there(s);
    words.keySet().removeIf(w -> these.contains(w) && !there.contains(w));
  }

  /** What does not hold. */
  List<String> broken(Section s) {
    Set<String> there = there(s);
    List<String> all = new ArrayList<>();
    for (String w : words.keySet().stream().sorted().toList()) {
      if (!there.contains(w)) {
        all.add("the instructor’s word " + w + " is gone");
      }
    }
    work.forEach(
        (id, n) -> {
          if (!s.shell.containsKey(id)) {
            all.add("what students left on " + id + " is gone");
          }
        });
    Map<String, Integer> times = new HashMap<>();
    s.shell
        .values()
        .forEach(
            x -> {
              if (x.kind() != Kind.MODULE) {
                x.words().stream()
                    .filter(w -> w.startsWith("i"))
                    .forEach(w -> times.merge(w, 1, Integer::sum));
              }
            });
    times.forEach(
        (w, n) -> {
          if (n > 1 && !w.startsWith("item")) {
            all.add("the instructor’s word " + w + " is there " + n + " times");
          }
        });
    Map<String, Fingerprints> read = new HashMap<>();
    s.read().forEach(h -> read.put(h.id(), h.aspects()));
    s.shell.forEach(
        (id, x) ->
            s.base(id)
                .ifPresent(
                    b -> {
                      boolean own = x.words().stream().anyMatch(words::containsKey);
                      boolean told = !read.get(id).equals(b.shown());
                      if (own && !told) {
                        all.add("changed here is not told of " + x);
                      }
                    }));
    return all;
  }

  static Set<String> there(Section s) {
    Set<String> there = new HashSet<>();
    s.shell.values().forEach(x -> there.addAll(x.words()));
    return there;
  }
}
