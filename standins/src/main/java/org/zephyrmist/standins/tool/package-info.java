/**
 * Practice tools, one for each way of working. They check strictly what comes, keep courses of
 * their own, and know nothing of the practice platform but what it sends.
 */
package org.zephyrmist.standins.tool;
