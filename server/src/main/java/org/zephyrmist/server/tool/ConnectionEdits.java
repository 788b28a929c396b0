package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.TOOL_CONNECTION;
import static org.zephyrmist.server.db.Tables.TOOL_HOST;
import static org.zephyrmist.server.db.Tables.TOOL_TERM;
import static org.zephyrmist.server.db.Tables.TOOL_WRITE;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.core.tool.Way;
import org.zephyrmist.server.db.tables.records.ToolConnectionRecord;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.secret.Secrets;
import org.zephyrmist.server.web.Refusal;

/** Enters connections, changes and ends them; what is wrong is told before anything is kept. */
@Component
public class ConnectionEdits {
  private static final Registration NONE = new Registration("", "", "", List.of(), "");
  private final DSLContext db;
  private final Secrets secrets;
  private final Events events;
  private final ToolConnections connections;
  private final ConnectionChecks checks;
  private final ToolWork work;
  private final Clock clock;

  ConnectionEdits(
      DSLContext db,
      Secrets secrets,
      Events events,
      ToolConnections connections,
      ConnectionChecks checks,
      ToolWork work,
      Clock clock) {
    this.db = db;
    this.secrets = secrets;
    this.events = events;
    this.connections = connections;
    this.checks = checks;
    this.work = work;
    this.clock = clock;
  }

  @Transactional
  public UUID add(ConnectionEntry e, SignedIn who) {
    UUID id = UUID.randomUUID();
    Set<String> hosts = checks.hosts(id, e, false);
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
    Set<String> hosts = checks.hosts(id, e, r.getSecret() != null);
    boolean secret = e.secret() != null && !e.secret().isEmpty();
    String before = written(r);
    String key = r.getConsumerKey();
    byte[] signs = r.getSecret();
    fill(r, e, who);
    boolean other = secret || !before.equals(written(r));
    if (other) {
      r.setGeneration(r.getGeneration() + 1);
      r.setKeyBefore(key);
      r.setSecretBefore(signs);
    }
    if (r.getBothUntil() == null || r.getSecret() == null) {
      r.setKeyBefore(null);
      r.setSecretBefore(null);
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
    if (!Objects.equals(e.expires(), r.getExpiresOn())) {
      r.setToldDays(null);
    }
    r.setExpiresOn(e.expires());
    r.setBothUntil(e.bothUntil());
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
}
