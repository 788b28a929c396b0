package org.zephyrmist.server.tool;

import java.util.Optional;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.tool.Template;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/**
 * What a tool is launched by in a section: key and secret, or a registration.
 *
 * @param key of a registration: its client
 */
record Signer(String key, String secret, Optional<Registration> registration) {
  static Signer of(KnownConnection c, String secret, ToolSection s) {
    return new Signer(c.key(), secret, c.registration()).in(s);
  }

  /** From patterns; what is not known of the section stays as it stands. */
  Signer in(ToolSection s) {
    return new Signer(
        filled(key, s),
        filled(secret, s),
        registration.map(
            r ->
                new Registration(
                    filled(r.client(), s),
                    filled(r.deployment(), s),
                    r.login(),
                    r.launches(),
                    r.keySet())));
  }

  private static String filled(String pattern, ToolSection s) {
    return new Template(pattern).filled(s.place()::value).orElse(pattern);
  }

  @Override
  public String toString() {
    return "Signer[" + key + "]";
  }
}
