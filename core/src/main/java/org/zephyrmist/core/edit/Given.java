package org.zephyrmist.core.edit;

import org.zephyrmist.core.content.ItemKey;

/** That an item of a shell is a master's. */
public record Given(String master, ItemKey key) {}
