package org.zephyrmist.core.tool;

/** Who leads in the dates of a tool's tasks. */
public enum DateMode {
  /** They are sent once, and then each side has its own. */
  SENT_ONCE,
  SHELL_LEADS,
  TOOL_LEADS
}
