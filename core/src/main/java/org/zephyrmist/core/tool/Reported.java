package org.zephyrmist.core.tool;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * What a platform calls failed of something that it has taken.
 *
 * @param host to which it leads; empty if to none
 * @param said the platform's own words
 */
public record Reported(String title, String host, String said) {

  /**
   * What is behind it.
   *
   * @param toConnect by host, links that only wait for their tool to be connected
   * @param others what has another reason
   */
  public record Folded(SortedMap<String, Integer> toConnect, List<Reported> others) {
    public Folded {
      others = List.copyOf(others);
    }
  }

  /**
   * A link to a host that is not connected there did not fail: it waits for its tool.
   *
   * @param connected hosts whose credentials stand in the shell
   */
  public static Folded folded(List<Reported> all, Set<String> connected) {
    SortedMap<String, Integer> toConnect = new TreeMap<>();
    List<Reported> others = new ArrayList<>();
    for (Reported r : all) {
      if (r.host().isEmpty() || connected.contains(r.host())) {
        others.add(r);
      } else {
        toConnect.merge(r.host(), 1, Integer::sum);
      }
    }
    return new Folded(toConnect, others);
  }
}
