/**
 * Merging of sequences and texts: {@link org.zephyrmist.core.merge.Alignment} of two sequences,
 * {@link org.zephyrmist.core.merge.Merge} of three, {@link org.zephyrmist.core.merge.TextMerge} of
 * three HTML texts paragraph by paragraph and within paragraphs word by word. Knows no items.
 */
package org.zephyrmist.core.merge;
