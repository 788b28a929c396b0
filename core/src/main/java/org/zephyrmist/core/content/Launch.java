package org.zephyrmist.core.content;

import java.util.SortedMap;
import java.util.TreeMap;

/**
 * Where a link leads.
 *
 * @param address empty for kinds that are no links
 * @param parameters of a tool's launch
 */
public record Launch(String address, boolean newWindow, SortedMap<String, String> parameters) {
  public static final Launch NOWHERE = new Launch("", false, new TreeMap<>());

  /** The same but for its address. */
  public Launch withAddress(String to) {
    return new Launch(to, newWindow, parameters);
  }
}
