package org.zephyrmist.standins.platform;

import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** The practice tools are not found under the names of their hosts. */
@Component
class ToolAddresses {
  private final String practiceTools;

  ToolAddresses(@Value("${practice.tools}") String practiceTools) {
    this.practiceTools = practiceTools;
  }

  /** Where an address of a tool is found. */
  String to(String address) {
    String host = ShellTools.host(address);
    return practiceTools.isEmpty() || !host.endsWith(".example")
        ? address
        : practiceTools + "/at/" + host + address.replaceFirst("^https?://[^/?#]+", "");
  }
}
