/** The college as its roster gives it: campuses, programs, terms, courses, sections, people. */
package org.zephyrmist.server.roster;
