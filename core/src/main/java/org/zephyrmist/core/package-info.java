/** Rules and computation of Zephyrmist, by subject. No web, no database, no network. */
package org.zephyrmist.core;
