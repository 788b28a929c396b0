/**
 * Checks of shells: looking at what was read last of each section ({@link
 * org.zephyrmist.server.check.LookAtShells}), what was found ({@link
 * org.zephyrmist.server.check.Findings}), and what puts it right ({@link
 * org.zephyrmist.server.check.Mends}). The rules are in core. It never calls a platform, but for
 * opening shells.
 */
package org.zephyrmist.server.check;
