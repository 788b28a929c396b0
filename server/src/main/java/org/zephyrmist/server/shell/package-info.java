/**
 * Reading section shells and translating between their terms and ours: keys and item ids,
 * references and addresses, order at the top. What an address looks like is the gateway's business.
 */
package org.zephyrmist.server.shell;
