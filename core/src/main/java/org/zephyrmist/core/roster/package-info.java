/**
 * Reads OneRoster 1.1 and 1.2 CSV bundles: who teaches which section of which course, where and in
 * which term. Must not know what is stored already.
 */
package org.zephyrmist.core.roster;
