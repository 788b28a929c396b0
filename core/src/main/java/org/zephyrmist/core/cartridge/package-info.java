/**
 * Reads IMS Common Cartridges (1.0 to 1.3 and the thin profile) into items. {@link
 * org.zephyrmist.core.cartridge.CartridgeReader} reads, an {@link
 * org.zephyrmist.core.cartridge.Intake} takes items and files as they come, and a {@link
 * org.zephyrmist.core.cartridge.ReadingReport} tells what was found. Must not know where items and
 * files are kept.
 */
package org.zephyrmist.core.cartridge;
