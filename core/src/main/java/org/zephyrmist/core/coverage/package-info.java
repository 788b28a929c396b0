/**
 * Which sections a saved choice names, and which are expected to hold which master at which
 * version: {@link org.zephyrmist.core.coverage.SectionFilter} and {@link
 * org.zephyrmist.core.coverage.Expectation}. Knows nothing of what sections really hold.
 */
package org.zephyrmist.core.coverage;
