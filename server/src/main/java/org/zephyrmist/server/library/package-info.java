/** All sources at once: what their items say, searched and counted by what is known of them. */
package org.zephyrmist.server.library;
