/**
 * What a source or a shell is made of: {@link org.zephyrmist.core.content.Item items} with six
 * {@link org.zephyrmist.core.content.Aspect aspects}, each with a canonical form and a {@link
 * org.zephyrmist.core.content.Fingerprint}. Two items are the same on an aspect exactly when their
 * fingerprints there are equal. Nothing here knows packages, shells, plans or storage.
 */
package org.zephyrmist.core.content;
