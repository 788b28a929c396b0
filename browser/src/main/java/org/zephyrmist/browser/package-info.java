/**
 * The browser that walks and measurements drive: Debian's headless Chromium. Apart from the stage,
 * since what drives it is large, and a first start of the product has no use for it.
 */
package org.zephyrmist.browser;
