/**
 * Checks, and where they do not hold: of a draft before it is frozen ({@link
 * org.zephyrmist.core.check.Readiness}), with what a master is limited to ({@link
 * org.zephyrmist.core.check.Guard}); and of a section's shell ({@link
 * org.zephyrmist.core.check.ShellChecks}), in the order in which people look. It knows nothing of
 * the interface, nor of how anything is kept.
 */
package org.zephyrmist.core.check;
