package org.zephyrmist.core.merge;

import java.util.ArrayList;
import java.util.List;

/** Merges two sequences that came from a third. */
public final class Merge {
  private Merge() {}

  /** Whose a stretch of the result is. */
  public enum From {
    /** All three are the same here. */
    BASE,
    /** Only ours changed. */
    OURS,
    /** Only theirs changed. */
    THEIRS,
    /** Both changed it in the same way. */
    BOTH,
    /** Both changed it, each at other places within it; only texts are looked at so closely. */
    MERGED,
    /** Both changed it, each in another way. */
    CLASH
  }

  /**
   * A stretch of the three sequences.
   *
   * @param base as it was; ours and theirs as they are, each may be empty
   */
  public record Stretch<T>(From from, List<T> base, List<T> ours, List<T> theirs) {
    public Stretch {
      base = List.copyOf(base);
      ours = List.copyOf(ours);
      theirs = List.copyOf(theirs);
    }

    /** What goes into the result; of a clash, nothing is known. */
    public List<T> result() {
      return switch (from) {
        case BASE, OURS, BOTH -> ours;
        case THEIRS -> theirs;
        case MERGED, CLASH -> throw new IllegalStateException("A clash is decided by somebody");
      };
    }
  }

  /**
   * The stretches in their order (Khanna, Kunal and Pierce, A Formal Investigation of Diff3, 2007):
   * where both sides keep an element of the base, a stretch ends.
   */
  public static <T> List<Stretch<T>> of(List<T> base, List<T> ours, List<T> theirs) {
    int[] toOurs = Alignment.of(base, ours);
    int[] toTheirs = Alignment.of(base, theirs);
    List<Stretch<T>> all = new ArrayList<>();
    int b = 0;
    int o = 0;
    int t = 0;
    while (b < base.size() || o < ours.size() || t < theirs.size()) {
      int kept = b;
      while (kept < base.size() && (toOurs[kept] < 0 || toTheirs[kept] < 0)) {
        kept++;
      }
      int endO = kept < base.size() ? toOurs[kept] : ours.size();
      int endT = kept < base.size() ? toTheirs[kept] : theirs.size();
      if (kept > b || endO > o || endT > t) {
        all.add(stretch(base.subList(b, kept), ours.subList(o, endO), theirs.subList(t, endT)));
      }
      b = kept;
      o = endO;
      t = endT;
      int same = b;
      while (same < base.size()
          && toOurs[same] == o + (same - b)
          && toTheirs[same] == t + (same - b)) {
        same++;
      }
      if (same > b) {
        int n = same - b;
        all.add(
            new Stretch<>(
                From.BASE,
                base.subList(b, same),
                ours.subList(o, o + n),
                theirs.subList(t, t + n)));
        b += n;
        o += n;
        t += n;
      }
    }
    return List.copyOf(all);
  }

  private static <T> Stretch<T> stretch(List<T> base, List<T> ours, List<T> theirs) {
    From from =
        ours.equals(theirs)
            ? From.BOTH
            : ours.equals(base) ? From.THEIRS : theirs.equals(base) ? From.OURS : From.CLASH;
    return new Stretch<>(from, base, ours, theirs);
  }
}
