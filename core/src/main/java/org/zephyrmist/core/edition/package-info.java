/**
 * Editions of a source and what follows from them. {@link org.zephyrmist.core.edition.Pairing} says
 * which item of an older edition is which of a newer one, with evidence; {@link
 * org.zephyrmist.core.edition.EditionMerge} what a newer edition does to a master that was built
 * from the older. Both are pure; they know no storage and no packages.
 */
package org.zephyrmist.core.edition;
