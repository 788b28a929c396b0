/**
 * Readiness rules, and where they do not hold: what is to be looked at before a draft is frozen
 * ({@link org.zephyrmist.core.check.Readiness}), and what a master is limited to ({@link
 * org.zephyrmist.core.check.Guard}). It knows nothing of sections or of the interface.
 */
package org.zephyrmist.core.check;
