/**
 * Shells whose platform has no interface: a package out for each section, with a sheet saying what
 * to do with it, and an exported package back in. Knows lines, shells and platforms; is known to
 * none of them.
 */
package org.zephyrmist.server.packages;
