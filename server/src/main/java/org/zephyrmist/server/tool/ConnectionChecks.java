package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.TOOL_CONNECTION;

import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.HostName;
import org.zephyrmist.core.tool.Pairing;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.core.tool.Template;
import org.zephyrmist.core.tool.ToolWords;
import org.zephyrmist.core.tool.Way;
import org.zephyrmist.server.web.Refusal;

/** What can be wrong with a connection as it is entered, each told with what to do. */
@Component
class ConnectionChecks {
  private static final Set<String> VALUES =
      Set.of(
          "section",
          "section-code",
          "section-title",
          "course-code",
          "course-title",
          "campus",
          "term");
  private final DSLContext db;

  ConnectionChecks(DSLContext db) {
    this.db = db;
  }

  /** The hosts as they are kept. */
  Set<String> hosts(UUID id, ConnectionEntry e, boolean hasSecret) {
    Set<String> hosts = new TreeSet<>();
    for (String h : e.hosts()) {
      hosts.add(host(h));
    }
    if (db.fetchExists(
        TOOL_CONNECTION,
        TOOL_CONNECTION.NAME.eq(e.name().strip()).and(TOOL_CONNECTION.ID.ne(id)))) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "There is a connection " + e.name().strip() + ".",
          "Choose another name, or change that one.");
    }
    credentials(e, hasSecret);
    stages(e);
    scope(e);
    words(e.words());
    if (!e.terms().isEmpty() && db.fetchCount(TERM, TERM.ID.in(e.terms())) < e.terms().size()) {
      throw Refusal.notFound("term");
    }
    return hosts;
  }

  static String host(String given) {
    return HostName.of(given)
        .orElseThrow(
            () ->
                Refusal.bad(
                    "“" + given.strip() + "” is not the name of a host.",
                    "Write the host alone, such as tool.example.org, without https:// and path."));
  }

  /** What signs is used as it was entered, so that a blank around it would be part of it. */
  static void blanks(String what, String text) {
    if (!text.equals(text.strip())) {
      throw Refusal.bad(
          "The " + what + " has a blank before or after it.", "Take it away, then try again.");
    }
  }

  private static void credentials(ConnectionEntry e, boolean hasSecret) {
    blanks("key", e.key());
    blanks("secret", e.secret() == null ? "" : e.secret());
    boolean secret = e.secret() != null && !e.secret().isEmpty();
    if (e.way() == Way.REGISTRATION && secret) {
      throw Refusal.bad(
          "A registration has no shared secret.", "Leave it empty, or choose another way.");
    }
    if (e.way() != Way.REGISTRATION && e.registration() != null) {
      throw Refusal.bad(
          "A registration is entered for another way.", "Leave it out, or choose its way.");
    }
    if (e.way() == Way.OPEN && (secret || !e.key().isEmpty())) {
      throw Refusal.bad(
          "A tool that is open asks for no key and no secret.",
          "Leave both empty, or choose another way.");
    }
    if (e.way() == Way.KEY_AND_SECRET && e.key().isEmpty() && (secret || hasSecret)) {
      throw Refusal.bad("There is a secret without a key.", "Enter the key that it belongs to.");
    }
    Set<String> names = new TreeSet<>(new Template(e.key()).names());
    names.addAll(new Template(e.secret() == null ? "" : e.secret()).names());
    names.addAll(
        new Template(e.registration() == null ? "" : e.registration().deployment()).names());
    names.addAll(new Template(e.course()).names());
    values(names);
    if (e.course().isBlank() == (e.pairing() == Pairing.BY_PARAMETER)) {
      throw Refusal.bad(
          "A course is named where launches name it, and only there.",
          "Write a pattern such as {section}-{term}, or choose another way to the course.");
    }
  }

  static void values(Set<String> names) {
    Set<String> unknown = new TreeSet<>(names);
    unknown.removeAll(VALUES);
    if (!unknown.isEmpty()) {
      throw Refusal.bad(
          "{" + unknown.iterator().next() + "} is no value of a section.",
          "Use one of " + String.join(", ", new TreeSet<>(VALUES)) + ".");
    }
  }

  private static void stages(ConnectionEntry e) {
    if (Set.copyOf(e.stages()).size() < e.stages().size()) {
      throw Refusal.bad("A stage stands in it twice.", "Take one of the two away.");
    }
    if (e.way() == Way.OPEN && e.stages().contains(Stage.CREDENTIALS)) {
      throw Refusal.bad(
          "A tool that is open asks for no credentials.", "Take the stage away that says so.");
    }
    if (e.way() != Way.OPEN && !e.stages().contains(Stage.CREDENTIALS)) {
      throw Refusal.bad(
          "This way needs credentials, and no stage says so.", "Add the stage “credentials”.");
    }
  }

  private void scope(ConnectionEntry e) {
    boolean there =
        switch (e.level()) {
          case COLLEGE -> e.scopeOf().isEmpty();
          case CAMPUS -> db.fetchExists(CAMPUS, CAMPUS.SOURCED_ID.eq(e.scopeOf()));
          case COURSE -> db.fetchExists(COURSE, COURSE.CODE.eq(e.scopeOf()));
          case SECTION -> db.fetchExists(SECTION, SECTION.SOURCED_ID.eq(e.scopeOf()));
        };
    if (!there) {
      throw Refusal.bad(
          e.level() == org.zephyrmist.core.tool.Scope.Level.COLLEGE
              ? "A connection of the college is for all of it."
              : "The roster knows nothing of “" + e.scopeOf() + "”.",
          "Choose what it is for from the list.");
    }
  }

  private static void words(String words) {
    try {
      new ToolWords(words);
    } catch (IllegalArgumentException wrong) {
      throw Refusal.bad(
          wrong.getMessage(), "Write what the tool says, with {course} where it names the course.");
    }
  }
}
