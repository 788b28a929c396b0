package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.TOOL_CONNECTION;
import static org.zephyrmist.server.db.Tables.TOOL_HOST;
import static org.zephyrmist.server.db.Tables.TOOL_TERM;
import static org.zephyrmist.server.db.Tables.TOOL_WRITE;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.HostName;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.tool.Pairing;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.core.tool.Template;
import org.zephyrmist.core.tool.ToolWords;
import org.zephyrmist.core.tool.Way;
import org.zephyrmist.server.db.tables.records.ToolConnectionRecord;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.secret.Secrets;
import org.zephyrmist.server.web.Refusal;

/** Enters connections, changes and ends them; what is wrong is told before anything is kept. */
@Component
public class ConnectionEdits {
  private static final Set<String> VALUES =
      Set.of(
          "section",
          "section-code",
          "section-title",
          "course-code",
          "course-title",
          "campus",
          "term");
  private static final Registration NONE = new Registration("", "", "", List.of(), "");
  private final DSLContext db;
  private final Secrets secrets;
  private final Events events;
  private final ToolConnections connections;
  private final ToolWork work;
  private final Clock clock;

  ConnectionEdits(
      DSLContext db,
      Secrets secrets,
      Events events,
      ToolConnections connections,
      ToolWork work,
      Clock clock) {
    this.db = db;
    this.secrets = secrets;
    this.events = events;
    this.connections = connections;
    this.work = work;
    this.clock = clock;
  }

  @Transactional
  public UUID add(ConnectionEntry e, SignedIn who) {
    UUID id = UUID.randomUUID();
    Set<String> hosts = checked(id, e, false);
    ToolConnectionRecord r = db.newRecord(TOOL_CONNECTION);
    r.setId(id);
    r.setMadeAt(OffsetDateTime.now(clock));
    r.setGeneration(1);
    fill(r, e, who);
    if (r.getApprovedAt() == null && approved(hosts)) {
      r.setApprovedAt(OffsetDateTime.now(clock));
      r.setApprovedBy(who.id());
    }
    r.insert();
    tie(id, hosts, e.terms());
    events.add(who.id(), "entered the connection", e.name().strip(), String.join(", ", hosts));
    return id;
  }

  /** Whether each of the hosts was approved before anybody entered a connection of it. */
  private boolean approved(Set<String> hosts) {
    return db.fetchSingle(
                "select count(*)::int from unnest(?::text[]) h where (select r.decided from"
                    + " tool_request r where r.host = h and r.decided is not null"
                    + " order by r.decided_at desc limit 1) = 'APPROVED'",
                (Object) hosts.toArray(String[]::new))
            .get(0, Integer.class)
        == hosts.size();
  }

  @Transactional
  public void change(UUID id, ConnectionEntry e, SignedIn who) {
    ToolConnectionRecord r =
        db.selectFrom(TOOL_CONNECTION)
            .where(TOOL_CONNECTION.ID.eq(id))
            .forUpdate()
            .fetchOptional()
            .orElseThrow(() -> Refusal.notFound("connection"));
    Set<String> hosts = checked(id, e, r.getSecret() != null);
    boolean secret = e.secret() != null && !e.secret().isEmpty();
    String before = written(r);
    fill(r, e, who);
    boolean other = secret || !before.equals(written(r));
    if (other) {
      r.setGeneration(r.getGeneration() + 1);
    }
    r.update();
    if (r.getSecret() == null && r.getLogin().isEmpty()) { // nothing is left to be written
      db.deleteFrom(TOOL_WRITE).where(TOOL_WRITE.CONNECTION_ID.eq(id)).execute();
    }
    db.deleteFrom(TOOL_HOST).where(TOOL_HOST.CONNECTION_ID.eq(id)).execute();
    db.deleteFrom(TOOL_TERM).where(TOOL_TERM.CONNECTION_ID.eq(id)).execute();
    tie(id, hosts, e.terms());
    events.add(
        who.id(),
        other ? "changed key or secret of" : "changed the connection",
        e.name().strip(),
        String.join(", ", hosts));
    List<UUID> older = work.older(id, r.getGeneration());
    if (other && !older.isEmpty()) {
      work.apply(connections.get(id), older, true, who);
    }
  }

  /** What shells have of it, but for the secret. */
  private static String written(ToolConnectionRecord r) {
    return String.join(
        "\n",
        r.getConsumerKey(),
        r.getDeployment(),
        r.getLogin(),
        String.join(" ", r.getLaunches()),
        r.getKeySet());
  }

  @Transactional
  public void end(UUID id, SignedIn who) {
    String name = connections.get(id).connection().name();
    db.deleteFrom(TOOL_CONNECTION).where(TOOL_CONNECTION.ID.eq(id)).execute();
    events.add(who.id(), "ended the connection", name, "");
  }

  private void fill(ToolConnectionRecord r, ConnectionEntry e, SignedIn who) {
    r.setName(e.name().strip());
    r.setWay(e.way());
    r.setLevel(e.level());
    r.setScopeOf(e.scopeOf());
    r.setStages(e.stages().stream().map(Stage::name).toArray(String[]::new));
    r.setPairing(e.pairing());
    r.setWords(e.words().strip());
    r.setWaitMinutes(e.waitMinutes());
    r.setSendsName(e.sendsName());
    r.setSendsMail(e.sendsMail());
    r.setGrades(e.grades());
    r.setDateMode(e.dates());
    r.setOwner(e.owner().strip());
    r.setConsumerKey(e.key());
    r.setExpiresOn(e.expires());
    if (e.secret() != null && !e.secret().isEmpty()) {
      r.setSecret(secrets.close(e.secret()));
    }
    if (e.way() != Way.KEY_AND_SECRET) {
      r.setSecret(null);
    }
    boolean registered = e.way() == Way.REGISTRATION && e.registration() != null;
    Registration g = registered ? e.registration().of(e.key()) : NONE;
    r.setDeployment(g.deployment());
    r.setLogin(g.login());
    r.setLaunches(g.launches().toArray(String[]::new));
    r.setKeySet(g.keySet());
    r.setCoursePattern(e.course().strip());
    r.setMastersCourses(e.mastersCourses().stream().map(String::strip).toArray(String[]::new));
    if (e.approved() != (r.getApprovedAt() != null)) {
      r.setApprovedAt(e.approved() ? OffsetDateTime.now(clock) : null);
      r.setApprovedBy(e.approved() ? who.id() : null);
    }
  }

  private void tie(UUID id, Set<String> hosts, Set<UUID> terms) {
    db.batch(hosts.stream().map(h -> db.insertInto(TOOL_HOST).values(id, h)).toList()).execute();
    if (!terms.isEmpty()) {
      db.batch(terms.stream().map(t -> db.insertInto(TOOL_TERM).values(id, t)).toList()).execute();
    }
  }

  /** The hosts as they are kept. */
  private Set<String> checked(UUID id, ConnectionEntry e, boolean hasSecret) {
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
