/**
 * The heart: what a delivery would do to one section, item by item and aspect by aspect. {@link
 * org.zephyrmist.core.delivery.Planner} is a pure function of what the version means ({@link
 * org.zephyrmist.core.delivery.Meant}), what the shell holds ({@link
 * org.zephyrmist.core.delivery.Held}), what was delivered before ({@link
 * org.zephyrmist.core.delivery.Base}) and the {@link org.zephyrmist.core.delivery.Choices}. It must
 * not know storage, platforms or people.
 */
package org.zephyrmist.core.delivery;
