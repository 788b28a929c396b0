package org.zephyrmist.core.tool;

/** How a section comes to its course on the tool's side. */
public enum Pairing {
  /** The tool makes one for each shell that it meets. */
  BY_RULE,
  /** The instructor answers inside the tool which one it is. */
  BY_ANSWER,
  /** The credentials carry it. */
  BY_CREDENTIALS,
  /** Each launch names it. */
  BY_PARAMETER
}
