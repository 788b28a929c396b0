package org.zephyrmist.core.delivery;

import java.time.LocalDate;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.edition.Entry;
import org.zephyrmist.core.edition.Evidence;
import org.zephyrmist.core.edition.Pair;
import org.zephyrmist.core.edition.Pairing;

/**
 * What of a shell is alike to items of a version in what it says, whatever it is called.
 *
 * @param matches by the version's item
 * @param earlierTerm whether the shell was filled from an earlier term
 */
public record Twins(Map<ItemKey, Match> matches, boolean earlierTerm) {
  public static final Twins NONE = new Twins(Map.of(), false);

  /** So many of ten dates before the first day: they are an earlier term's. */
  private static final int OF_TEN = 9;

  /** From here two texts are near: title and place do not make up for another text. */
  private static final double NEAR = 0.3;

  public Twins {
    matches = Map.copyOf(matches);
  }

  /**
   * @param there how the item of the shell is named, see {@link CleanStart#own}
   * @param evidence none of setups: each subject has one
   * @param sure false: a person is asked
   */
  public record Match(ItemKey there, Optional<Evidence> evidence, boolean sure) {}

  /**
   * Between items that were never delivered and those of a shell that no master brought, both in
   * outline order.
   *
   * @param shell named as by {@link CleanStart#own}
   */
  public static Twins among(List<Entry> meant, List<Entry> shell, boolean earlierTerm) {
    Map<ItemKey, Kind> kinds = new HashMap<>();
    meant.forEach(e -> kinds.put(e.key(), e.kind()));
    Map<ItemKey, Match> all = new HashMap<>();
    for (Pair p : Pairing.of(meant, shell, Pairing.Decided.NOTHING).pairs()) {
      boolean near =
          kinds.get(p.older()) == Kind.MODULE
              || p.evidence().equal()
              || p.evidence().text() >= NEAR;
      boolean sure = near && p.certainty() == Pair.Certainty.SURE;
      all.put(p.older(), new Match(p.newer(), Optional.of(p.evidence()), sure));
    }
    return new Twins(all, earlierTerm);
  }

  /**
   * The same with setups of a shell, each of which is about what one of the version is about. A
   * front page is a text, and is found by what it says.
   *
   * @param shell named as by {@link CleanStart#own}
   */
  public Twins withSetups(Map<ItemKey, SetupSubject> meant, Map<ItemKey, SetupSubject> shell) {
    Map<ItemKey, Match> all = new HashMap<>(matches);
    meant.forEach(
        (key, s) -> all.computeIfPresent(key, (k, m) -> s == shell.get(m.there()) ? m : null));
    Map<SetupSubject, ItemKey> there = new EnumMap<>(SetupSubject.class);
    shell.forEach(
        (key, subject) -> there.merge(subject, key, (a, b) -> a.compareTo(b) < 0 ? a : b));
    meant.forEach(
        (key, subject) ->
            Optional.ofNullable(there.get(subject))
                .filter(t -> subject != SetupSubject.FRONT_PAGE)
                .ifPresent(t -> all.put(key, new Match(t, Optional.empty(), true))));
    return new Twins(all, earlierTerm);
  }

  /**
   * Whether a shell was filled from an earlier term: nearly all its dates are before the term.
   *
   * @param begins first day of the section's term
   */
  public static boolean ofEarlierTerm(Collection<Timing> dated, LocalDate begins) {
    int all = 0;
    int before = 0;
    for (Timing t : dated) {
      Optional<LocalDate> last =
          Stream.of(t.closes(), t.due(), t.opens())
              .flatMap(Optional::stream)
              .findFirst()
              .map(d -> d.toLocalDate());
      all += last.isPresent() ? 1 : 0;
      before += last.filter(begins::isAfter).isPresent() ? 1 : 0;
    }
    return all > 0 && before * 10 >= all * OF_TEN;
  }

  /** The item of the shell that is alike to one of the version. */
  Optional<Match> of(ItemKey item) {
    return Optional.ofNullable(matches.get(item));
  }
}
