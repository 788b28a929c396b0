package org.zephyrmist.core.content;

/** Who owns an item after delivery. */
public enum EditRule {
  /** Must equal the master; a local change is overwritten, and the plan says so. */
  FIXED,
  /** Updated aspect by aspect, unless the section changed that aspect. */
  ADAPTABLE,
  /** Delivered once, then the section's own. */
  STARTER
}
