/**
 * The next term: what one term's sections bring into those of another ({@link
 * org.zephyrmist.server.term.NextTerms}), and bringing it as ordinary deliveries ({@link
 * org.zephyrmist.server.term.BringForward}). Nothing of the earlier term is written.
 */
package org.zephyrmist.server.term;
