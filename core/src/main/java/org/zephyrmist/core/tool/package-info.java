/**
 * External tools: how the links of a section come to work. {@link Connection}s say what a host asks
 * for, {@link Resolution} says of each link and section what state it is in, why, and whose the
 * next step is; {@link RelinkRules} say where links lead that were written for another address;
 * {@link OAuthSignature} signs launches of LTI 1.1. Nothing here calls a tool or keeps a secret.
 */
package org.zephyrmist.core.tool;
