/** One search over sections, masters and cartridges. */
package org.zephyrmist.server.search;
