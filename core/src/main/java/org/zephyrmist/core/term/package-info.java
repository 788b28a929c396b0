/**
 * From one term to the next: which section follows which ({@link
 * org.zephyrmist.core.term.Successors}). It knows nothing of what is brought to them.
 */
package org.zephyrmist.core.term;
