/** Who signs in, as what, and how far they may see and act. */
package org.zephyrmist.server.people;
