/** Masters: the draft one works on, the numbered versions, what differs between them. */
package org.zephyrmist.server.master;
