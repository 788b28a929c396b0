/**
 * Sections: who teaches them, and for one section what it got, down to the item; and shells that
 * are no section's.
 */
package org.zephyrmist.server.section;
