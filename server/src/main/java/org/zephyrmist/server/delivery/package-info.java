/**
 * Deliveries: one order of a version into sections. A line per section is planned, then run on a
 * persistent queue; the {@link org.zephyrmist.server.delivery.Ledger} keeps what came of it.
 */
package org.zephyrmist.server.delivery;
