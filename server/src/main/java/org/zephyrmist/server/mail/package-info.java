/**
 * Mail that Zephyrmist sends: kept in the database until a mail server has taken it. This package
 * knows what came of deliveries, and nothing of how they are carried out.
 */
package org.zephyrmist.server.mail;
