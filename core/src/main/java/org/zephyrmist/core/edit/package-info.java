/**
 * Edits: one change that is made alike in the shells of many sections, as an ordinary plan ({@link
 * org.zephyrmist.core.edit.Edits}), and what takes it back ({@link
 * org.zephyrmist.core.edit.EditBack}). What the ledger says of the items stays: an edit counts as
 * the section's own. It knows nothing of why an edit is made.
 */
package org.zephyrmist.core.edit;
