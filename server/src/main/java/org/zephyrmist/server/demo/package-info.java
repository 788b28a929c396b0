/**
 * The demo data: Larkmoor College of Stagecraft, an invented college. Made through the product's
 * own services and the practice platform, once, in an empty database. Nothing else may know this
 * package.
 */
package org.zephyrmist.server.demo;
