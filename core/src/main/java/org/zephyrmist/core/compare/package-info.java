/** What differs between two trees of items, by item key and aspect. */
package org.zephyrmist.core.compare;
