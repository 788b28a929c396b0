package org.zephyrmist.core.merge;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Which elements of two sequences are the same, in an order that both keep. */
public final class Alignment {
  private Alignment() {}

  /**
   * For each element of the first the index of its partner in the second, or -1; partners rise. A
   * longest such alignment (Myers, An O(ND) Difference Algorithm, 1986); of very unlike sequences
   * one that is found in bounded time.
   */
  public static <T> int[] of(List<T> a, List<T> b) {
    int[] partner = new int[a.size()];
    Arrays.fill(partner, -1);
    int from = 0;
    int endA = a.size();
    int endB = b.size();
    while (from < endA && from < endB && a.get(from).equals(b.get(from))) {
      partner[from] = from++;
    }
    while (endA > from && endB > from && a.get(endA - 1).equals(b.get(endB - 1))) {
      partner[--endA] = --endB;
    }
    between(a.subList(from, endA), b.subList(from, endB), from, partner);
    return partner;
  }

  /** Differences that are looked for; sequences that differ in more are taken as wholly unlike. */
  private static final int MOST = 1_000;

  private static <T> void between(List<T> a, List<T> b, int offset, int[] partner) {
    int n = a.size();
    int m = b.size();
    if (n == 0 || m == 0) {
      return;
    }
    int most = Math.min(n + m, MOST);
    int[] furthest = new int[2 * most + 2];
    List<int[]> trail = new ArrayList<>();
    for (int d = 0; d <= most; d++) {
      trail.add(furthest.clone());
      for (int k = -d; k <= d; k += 2) {
        int at = k + most;
        boolean down = k == -d || k != d && furthest[Math.max(0, at - 1)] < furthest[at + 1];
        int x = down ? furthest[at + 1] : furthest[at - 1] + 1;
        int y = x - k;
        while (x < n && y >= 0 && y < m && a.get(x).equals(b.get(y))) {
          x++;
          y++;
        }
        furthest[at] = x;
        if (x >= n && y >= m) {
          back(trail, d, n, m, most, offset, partner);
          return;
        }
      }
    }
  }

  private static void back(
      List<int[]> trail, int d, int n, int m, int most, int offset, int[] partner) {
    int x = n;
    int y = m;
    for (int step = d; step > 0; step--) {
      int[] before = trail.get(step);
      int k = x - y;
      int at = k + most;
      boolean down = k == -step || k != step && before[Math.max(0, at - 1)] < before[at + 1];
      int fromK = down ? k + 1 : k - 1;
      int fromX = before[fromK + most];
      int fromY = fromX - fromK;
      while (x > fromX && y > fromY) {
        partner[offset + --x] = offset + --y;
      }
      x = fromX;
      y = fromY;
    }
    while (x > 0 && y > 0) {
      partner[offset + --x] = offset + --y;
    }
  }
}
