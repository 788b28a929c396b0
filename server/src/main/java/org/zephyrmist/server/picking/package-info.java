/** Picks resources of a tool into a draft (LTI Deep Linking 2.0), as the platform that asks. */
package org.zephyrmist.server.picking;
