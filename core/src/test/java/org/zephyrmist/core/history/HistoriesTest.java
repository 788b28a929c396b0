package org.zephyrmist.core.history;

import static org.assertj.core.api.Assertions.fail;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;

/**
 * What a person wrote is never lost, whatever comes one after the other. {@code -Dhistories.seed=N}
 * plays the same again, {@code -Dhistories.many=N} so many.
 */
class HistoriesTest {
  private static final int LONGEST = 30;

  @Test
  void nothingIsLostThroughAnyHistory() {
    long seed = Long.getLong("histories.seed", System.nanoTime() % 1_000_000_000L);
    int many = Integer.getInteger("histories.many", 1_000);
    System.out.println("Histories are played with seed " + seed);
    for (int i = 0; i < many; i++) {
      long own = seed + i;
      Random random = new Random(own);
      List<Play> plays = new ArrayList<>();
      for (int n = 3 + random.nextInt(LONGEST); n > 0; n--) {
        plays.add(Play.any(random));
      }
      if (History.play(own, plays).isPresent()) {
        List<Play> few = shortest(own, plays);
        History.Broken b = History.play(own, few).orElseThrow();
        fail(
            "History %d of seed %d, in %d steps:%n%s%n%s",
            i, seed, few.size(), String.join("\n", b.told()), String.join("\n", b.what()));
      }
    }
  }

  /** The same without what it does not need to break. */
  private static List<Play> shortest(long seed, List<Play> plays) {
    List<Play> few = plays;
    for (int size = few.size() / 2; size > 0; size = size == 1 ? 0 : size / 2) {
      for (int at = 0; at + size <= few.size(); ) {
        List<Play> without = new ArrayList<>(few.subList(0, at));
        without.addAll(few.subList(at + size, few.size()));
        Optional<History.Broken> b = History.play(seed, without);
        if (b.isPresent()) {
          few = without;
        } else {
          at += size;
        }
      }
    }
    return few;
  }
}
