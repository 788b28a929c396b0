package org.zephyrmist.server.tool;

import java.time.Duration;
import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.tool.Connection;
import org.zephyrmist.core.tool.DateMode;
import org.zephyrmist.core.tool.Privacy;
import org.zephyrmist.core.tool.Template;
import org.zephyrmist.core.tool.ToolWords;

/**
 * A connection as it is kept, without its secret.
 *
 * @param words that the tool says when it is tied
 * @param takes how long it makes itself ready after its agreement
 * @param key as it was written: a pattern of the section's values
 * @param secret whether there is one
 * @param generation counts changes of key and secret
 * @param bothUntil last day on which the tool takes the secret before too
 * @param before whether that one is still kept here
 * @param course that launches name, a pattern; empty: they name none
 * @param masters courses that the tool keeps its masters in
 * @param registration whose client is the key, and whose deployment is a pattern too
 */
record KnownConnection(
    Connection connection,
    ToolWords words,
    Duration takes,
    Privacy privacy,
    boolean grades,
    DateMode dates,
    String owner,
    String key,
    boolean secret,
    int generation,
    Optional<LocalDate> expires,
    Optional<LocalDate> bothUntil,
    boolean before,
    Optional<Registration> registration,
    Template course,
    Set<String> masters) {}
