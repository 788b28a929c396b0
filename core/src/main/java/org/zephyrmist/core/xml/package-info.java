/** XML by local names: finding elements, writing them. Knows no standard. */
package org.zephyrmist.core.xml;
