/**
 * Measurements and the survival test, run against started servers. Figures are ratios against a raw
 * baseline in the same run. Knows the product only from outside: its HTTP interface and, to
 * compare, its tables.
 */
package org.zephyrmist.bench;
