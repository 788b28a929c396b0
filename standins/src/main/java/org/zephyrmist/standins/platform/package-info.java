/**
 * The practice platform: shells with items, an HTTP API for programs ({@link
 * org.zephyrmist.standins.platform.ShellApi}) and a page per shell for people ({@link
 * org.zephyrmist.standins.platform.ShellPages}).
 */
package org.zephyrmist.standins.platform;
