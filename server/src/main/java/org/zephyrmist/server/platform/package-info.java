/**
 * Learning platforms that hold the shells, behind {@link
 * org.zephyrmist.server.platform.PlatformGateway}. Everything a platform needs to be told in its
 * own terms (its item ids, its addresses) is translated here and nowhere else.
 */
package org.zephyrmist.server.platform;
