/**
 * The product on a stage, for browser tests and measurements: servers and practice platform as
 * processes of their own on a fresh database, packages and rosters of any size. Knows the product
 * only from outside.
 */
package org.zephyrmist.stage;
