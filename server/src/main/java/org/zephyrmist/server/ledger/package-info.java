/**
 * What sections hold and how it came: receipts, which are only ever added, and what follows from
 * them, holdings and standings. Nobody else touches these tables.
 */
package org.zephyrmist.server.ledger;
