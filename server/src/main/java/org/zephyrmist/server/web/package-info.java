/** What all web calls share: refusals as problem details, and the page itself. */
package org.zephyrmist.server.web;
