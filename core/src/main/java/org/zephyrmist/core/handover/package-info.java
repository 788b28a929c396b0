/** Hand-overs: what another person has to do before the work goes on. */
package org.zephyrmist.core.handover;
