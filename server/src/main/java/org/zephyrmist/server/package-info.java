/** The server, by subject: web API, security, jobs, persistence, ways to platforms. */
package org.zephyrmist.server;
