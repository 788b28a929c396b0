/** Sections: who teaches them, and for one section what it got, down to the item. */
package org.zephyrmist.server.section;
