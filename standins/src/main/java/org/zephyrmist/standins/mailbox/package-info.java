/**
 * A practice mailbox: takes mail over SMTP and shows it on a page. It can be closed for a while,
 * and knows nobody at bounces.example.
 */
package org.zephyrmist.standins.mailbox;
