/**
 * Trees of items without their texts: order, subtrees and places ({@link
 * org.zephyrmist.core.tree.Tree}), several trees walked at once ({@link
 * org.zephyrmist.core.tree.Walk}), what differs between two ({@link
 * org.zephyrmist.core.tree.Comparison}) and what is alike in a shell ({@link
 * org.zephyrmist.core.tree.Likeness}). It must not know deliveries, packages or storage.
 */
package org.zephyrmist.core.tree;
