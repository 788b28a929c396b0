/** Secrets as they are stored. It must not know whose they are or what they open. */
package org.zephyrmist.server.secret;
