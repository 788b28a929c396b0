/**
 * The one way out: every call that leaves the server goes through {@link
 * org.zephyrmist.server.outgoing.GuardedClient}. It must not know what is said to whom.
 */
package org.zephyrmist.server.outgoing;
