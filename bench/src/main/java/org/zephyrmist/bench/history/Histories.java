package org.zephyrmist.bench.history;

import java.sql.Connection;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.zephyrmist.bench.College;
import org.zephyrmist.bench.Measuring;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Stage;

/**
 * Random histories against the real server and practice platform, one after the other until the
 * time is over; one that fails is shrunk to the shortest that still does.
 */
public final class Histories {
  private static final int SHELLS = 2;
  private static final int STEPS = 18;
  private static final Duration SHRINKING = Duration.ofMinutes(4);
  private final long seed;
  private final Duration time;
  private final int sections;
  private final Map<String, Integer> counts = new TreeMap<>();
  private Scene stage;
  private List<String> ids;
  private int used;
  private int byHand;
  private int played;

  public Histories(long seed, Duration time) {
    this.seed = seed;
    this.time = time;
    this.sections = 80 + (int) time.toSeconds();
  }

  /** What went wrong, and the steps that are left of it. */
  private record Failure(Kind kind, String what, List<Long> seeds, List<String> log) {}

  /** What is played, in turns. */
  private enum Kind {
    SHELLS,
    EDITIONS,
    BY_HAND;

    /** Of the history with this number. */
    static Kind of(int history) {
      return switch (history % 5) {
        case 2 -> EDITIONS;
        case 4 -> BY_HAND;
        default -> SHELLS;
      };
    }
  }

  /**
   * @return what was played, by kind
   * @throws IllegalStateException with the shortest history found that does not hold
   */
  public Map<String, Integer> run() throws Exception {
    try (Stage s = Measuring.stage()) {
      College college = College.found(sections, sections / 2, Folders.fresh("histories"));
      stage = Scene.of(college, s);
      try (Connection db = s.connect()) {
        ids = college.sections(db);
      }
      Random random = new Random(seed);
      Instant end = Instant.now().plus(time);
      while (Instant.now().isBefore(end) && left()) {
        List<Long> seeds = new ArrayList<>();
        for (int i = 0; i < STEPS; i++) {
          seeds.add(random.nextLong());
        }
        Failure f = play(Kind.of(played), seeds, counts);
        played++;
        if (f != null) {
          f = shrunk(f);
          throw new IllegalStateException(
              "With seed "
                  + seed
                  + ", history "
                  + played
                  + ": "
                  + f.what()
                  + "\n"
                  + String.join("\n", f.log()));
        }
      }
    }
    counts.put("histories", played);
    return counts;
  }

  private Failure play(Kind kind, List<Long> seeds, Map<String, Integer> into) throws Exception {
    History history = history(kind);
    try {
      Steps.play(history, seeds, into);
      return null;
    } catch (Oracle.Broken e) {
      return new Failure(kind, e.getMessage(), seeds, history.turn().log());
    }
  }

  private boolean left() {
    return used + SHELLS <= sections && byHand < stage.college().byHand.size();
  }

  private History history(Kind kind) throws Exception {
    switch (kind) {
      case EDITIONS:
        return new EditionPlay(stage);
      case BY_HAND:
        byHand++;
        return new HandPlay(
            stage,
            stage.college().byHand.get(byHand - 1),
            ids.get(stage.college().shells.size() + byHand - 1));
      default:
        used += SHELLS;
        return new Play(
            stage,
            stage.college().shells.subList(used - SHELLS, used),
            ids.subList(used - SHELLS, used));
    }
  }

  /** Steps are left out one after the other, as long as it still fails. */
  private Failure shrunk(Failure f) throws Exception {
    Instant end = Instant.now().plus(SHRINKING);
    Failure least = f;
    int at = least.seeds().size() - 1;
    while (at >= 0 && Instant.now().isBefore(end) && left()) {
      List<Long> fewer = new ArrayList<>(least.seeds());
      fewer.remove(at);
      Failure still = play(f.kind(), fewer, new TreeMap<>());
      if (still != null) {
        least = still;
      }
      at--;
    }
    return least;
  }
}
