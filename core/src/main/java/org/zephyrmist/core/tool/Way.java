package org.zephyrmist.core.tool;

/** How a tool knows who launches it. */
public enum Way {
  /** A consumer key and a shared secret (LTI 1.1, section 4). */
  KEY_AND_SECRET,
  /** A registration with client and deployments (LTI 1.3 core, section 3.1). */
  REGISTRATION,
  /** It asks for nothing. */
  OPEN
}
