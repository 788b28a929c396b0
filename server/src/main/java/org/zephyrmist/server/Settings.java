package org.zephyrmist.server;

import java.time.Duration;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * Settings of the application; docs/limits.md lists them.
 *
 * @param secret from which the key for stored tokens is derived
 * @param demo load the demo data into an empty database
 * @param uploadMostBytes largest file that is taken in
 * @param linesAtOnce sections written at the same time by one server
 * @param stepsPerCall steps sent to a platform in one call
 * @param tries how often a failing line is tried before it waits for a person
 * @param firstPause before the second try; doubled for each further one
 * @param callTimeout how long a platform may take for an answer
 * @param heartbeat how often a server says of its work that it is alive; after four missed ones
 *     another server takes the work over
 */
@ConfigurationProperties("zephyrmist")
public record Settings(
    String secret,
    boolean demo,
    String practiceAddress,
    String practiceToken,
    long uploadMostBytes,
    int linesAtOnce,
    int stepsPerCall,
    int tries,
    Duration firstPause,
    Duration callTimeout,
    Duration heartbeat) {}
