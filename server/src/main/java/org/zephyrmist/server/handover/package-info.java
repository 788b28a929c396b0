/** Hand-overs of all sorts as one list: whose they are, when they are due, who was reminded. */
package org.zephyrmist.server.handover;
