/**
 * The persistent queue in PostgreSQL: whatever goes on in the background, of whatever subject.
 * Subjects bring {@link org.zephyrmist.server.queue.Job}s; this package knows none of them.
 */
package org.zephyrmist.server.queue;
