/**
 * External tools: connections and their credentials, where links to tools stand, what is known of
 * each host in each section, and what is written into shells. What follows from all this is
 * computed in {@code core.tool}; a secret is opened only to be written or to sign, and is never
 * given.
 */
package org.zephyrmist.server.tool;
