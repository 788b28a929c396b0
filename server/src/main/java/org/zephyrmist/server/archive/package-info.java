/**
 * Whole sources as archives to keep and to move: masters with all versions, cartridges with all
 * editions. What an archive is stands in {@code core.cartridge.WholeSource}.
 */
package org.zephyrmist.server.archive;
