/** Which sections hold which version of which master, from the ledger. */
package org.zephyrmist.server.coverage;
