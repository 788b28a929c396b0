/**
 * What must be known of a ZIP archive before anything of it is opened. It must not know what the
 * archive holds.
 */
package org.zephyrmist.core.archive;
