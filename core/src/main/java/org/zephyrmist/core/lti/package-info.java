/**
 * LTI 1.3 and LTI Advantage as a platform speaks it: logins, signed messages, picks of a tool's
 * resources, scores; and Basic Outcomes of LTI 1.1. Names of claims and errors are those of the
 * standards.
 */
package org.zephyrmist.core.lti;
