/** Cartridges that were taken in: intakes, editions, their reports. */
package org.zephyrmist.server.cartridge;
