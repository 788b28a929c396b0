/**
 * What a shell holds, as something a master can be made of ({@link
 * org.zephyrmist.core.shell.FromShell}). It knows nothing of platforms.
 */
package org.zephyrmist.core.shell;
