package org.zephyrmist.server.tool;

import org.zephyrmist.core.tool.Template;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/** Key and secret as they count in a section. */
record Signer(String key, String secret) {
  /** From patterns; what is not known of the section stays as it stands. */
  static Signer of(String key, String secret, ToolSection s) {
    return new Signer(filled(key, s), filled(secret, s));
  }

  private static String filled(String pattern, ToolSection s) {
    return new Template(pattern).filled(s.place()::value).orElse(pattern);
  }

  @Override
  public String toString() {
    return "Signer[" + key + "]";
  }
}
