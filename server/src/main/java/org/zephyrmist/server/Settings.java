package org.zephyrmist.server;

import java.time.Duration;
import java.util.Set;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * Settings of the application; docs/limits.md lists them.
 *
 * @param secret from which the key for stored tokens is derived
 * @param demo load the demo data into an empty database
 * @param uploadMostBytes largest file that is taken in
 * @param linesAtOnce sections written at the same time by one server
 * @param intakesAtOnce packages read at the same time by one server
 * @param stepsPerCall steps sent to a platform in one call
 * @param tries how often a failing line is tried before it waits for a person
 * @param firstPause before the second try; doubled for each further one
 * @param callTimeout how long a platform may take for an answer
 * @param heartbeat how often a server says of its work that it is alive; after four missed ones
 *     another server takes the work over
 * @param bodyMostBytes largest body of a call that is no file
 * @param bodyTimeout in which it has to come
 * @param callTotal in which a platform's answer has to have come whole; ten times that for a file
 * @param answerMostBytes largest answer of a platform
 * @param rosterAsksFrom share of the sections of its terms, from 0 to 1, from which a roster that
 *     ends or changes them has to be confirmed in so many words
 * @param itemTimeout how long the text of one item may be worked on
 * @param keepsRestorePoints how long it is kept what a shell held before a delivery changed it
 * @param readsEvery after which a shell is read again by itself if it has moved; 0: never
 * @param looksIfThere after which a platform that queues is asked again whether it is done
 * @param looksAround how often a server looks for work that is on nobody's list
 * @param looksIfEmpty after which a shell that is to be cleared is looked at again
 * @param mailFrom from whom mail comes; empty: none is sent
 * @param address where people find this application, for links in mail
 * @param practiceTools address of the practice tools, below which hosts that end in {@code
 *     .example} are found (RFC 2606: no real host does); empty: none are
 * @param toolTimeout how long a tool may take for the answer to a launch
 * @param toolTestsEvery after which the launches that work are tested again by themselves; 0: never
 * @param privateHosts hosts (or host:port) of platforms that may be on private or loopback
 *     addresses
 */
@ConfigurationProperties("zephyrmist")
public record Settings(
    String secret,
    boolean demo,
    String practiceAddress,
    String practiceToken,
    long uploadMostBytes,
    int linesAtOnce,
    int intakesAtOnce,
    int stepsPerCall,
    int tries,
    Duration firstPause,
    Duration callTimeout,
    Duration heartbeat,
    long bodyMostBytes,
    Duration bodyTimeout,
    Duration callTotal,
    long answerMostBytes,
    Set<String> privateHosts,
    Duration itemTimeout,
    double rosterAsksFrom,
    Duration keepsRestorePoints,
    Duration readsEvery,
    Duration looksIfThere,
    Duration looksAround,
    Duration looksIfEmpty,
    String mailFrom,
    String address,
    String practiceTools,
    Duration toolTimeout,
    Duration toolTestsEvery) {}
