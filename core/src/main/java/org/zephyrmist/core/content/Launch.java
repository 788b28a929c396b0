package org.zephyrmist.core.content;

import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * Where a link leads.
 *
 * @param address empty for kinds that are no links
 * @param parameters of a tool's launch
 * @param tool what a tool link says besides
 */
public record Launch(
    String address, boolean newWindow, SortedMap<String, String> parameters, Optional<Tool> tool) {
  public static final Launch NOWHERE = new Launch("", false, new TreeMap<>());

  /**
   * What a tool link says of its tool (LTI 1.1, basic LTI link); each may be empty.
   *
   * @param plain launch address without encryption, where both are given
   * @param icon address of a picture
   * @param vendor code of who makes the tool
   * @param vendorName their name
   */
  public record Tool(String plain, String icon, String vendor, String vendorName) {}

  public Launch(String address, boolean newWindow, SortedMap<String, String> parameters) {
    this(address, newWindow, parameters, Optional.empty());
  }

  /** The same but for what is sent along. */
  public Launch withParameters(SortedMap<String, String> to) {
    return new Launch(address, newWindow, to, tool);
  }

  /** The same but for whether it opens a window of its own. */
  public Launch withNewWindow(boolean to) {
    return new Launch(address, to, parameters, tool);
  }

  /** The same but for its address. */
  public Launch withAddress(String to) {
    return new Launch(to, newWindow, parameters, tool);
  }
}
