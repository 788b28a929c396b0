package org.zephyrmist.server.tool;

import java.net.URI;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.server.Settings;

/** Where tools are found, and where they find this application. */
@Component
public class ToolAddresses {
  private static final String PRACTICE = ".example";
  private final Settings settings;

  ToolAddresses(Settings settings) {
    this.settings = settings;
  }

  /** Where tools send people back to; nobody goes there, what they say is in the address. */
  String back() {
    return settings.address() + "/tools/back";
  }

  /** By which tools know this application as a platform (LTI 1.3 core, section 3.1.3). */
  public String issuer() {
    return settings.address();
  }

  /** Where logins are answered (1EdTech Security Framework 1.0, section 5.1.1.2). */
  public String authorize() {
    return settings.address() + "/api/lti/authorize";
  }

  /** Where tools send what was picked. */
  public String picked() {
    return settings.address() + "/api/lti/picked";
  }

  /** The practice tools are not found under the names of their hosts. */
  public URI where(String address) {
    String host = Frames.host(address);
    return settings.practiceTools().isEmpty() || !host.endsWith(PRACTICE)
        ? URI.create(address)
        : URI.create(
            settings.practiceTools()
                + "/at/"
                + host
                + address.replaceFirst("^(?i:https?)://[^/?#]+", ""));
  }

  boolean isPractice(URI uri) {
    return !settings.practiceTools().isEmpty()
        && uri.toString().startsWith(settings.practiceTools() + "/");
  }
}
