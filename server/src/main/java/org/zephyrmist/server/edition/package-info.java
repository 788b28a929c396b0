/** Two editions of a cartridge beside each other, and what the newer does to a master. */
package org.zephyrmist.server.edition;
