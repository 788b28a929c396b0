/**
 * Random histories against the running server and practice platform: {@link
 * org.zephyrmist.bench.history.Histories} plays them until a time is over, {@link
 * org.zephyrmist.bench.history.Oracle} says after each step what must hold. The oracle knows what
 * stands in shells and who wrote it, and nothing of plans.
 */
package org.zephyrmist.bench.history;
