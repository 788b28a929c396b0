/** Simulated outside parties. Knows nothing of the server. */
package org.zephyrmist.standins;
