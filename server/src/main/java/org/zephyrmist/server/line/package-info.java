/**
 * Carrying out one line of a delivery: read the shell, plan, write, read back, enter what came of
 * it. {@link org.zephyrmist.server.line.LineRunner} is the way through it, {@link
 * org.zephyrmist.server.line.Settlement} what follows when it broke off. It knows nothing of how
 * people order deliveries and look at them.
 */
package org.zephyrmist.server.line;
