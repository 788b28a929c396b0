package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.TOOL_CONNECTION;
import static org.zephyrmist.server.db.Tables.TOOL_HOST;
import static org.zephyrmist.server.db.Tables.TOOL_TERM;

import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.tool.Connection;
import org.zephyrmist.core.tool.Connection.Entered;
import org.zephyrmist.core.tool.Privacy;
import org.zephyrmist.core.tool.Scope;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.core.tool.Template;
import org.zephyrmist.core.tool.ToolWords;
import org.zephyrmist.core.tool.Way;
import org.zephyrmist.server.db.tables.records.ToolConnectionRecord;
import org.zephyrmist.server.secret.Secrets;
import org.zephyrmist.server.web.Refusal;

/** Connections as they are kept. */
@Component
class ToolConnections {
  private final DSLContext db;
  private final Secrets secrets;

  ToolConnections(DSLContext db, Secrets secrets) {
    this.db = db;
    this.secrets = secrets;
  }

  List<KnownConnection> all() {
    Map<UUID, Set<String>> hosts =
        db.selectFrom(TOOL_HOST)
            .collect(
                java.util.stream.Collectors.groupingBy(
                    r -> r.getConnectionId(),
                    java.util.stream.Collectors.mapping(
                        r -> r.getHost(), java.util.stream.Collectors.toSet())));
    Map<UUID, Set<String>> terms =
        db.selectFrom(TOOL_TERM)
            .collect(
                java.util.stream.Collectors.groupingBy(
                    r -> r.getConnectionId(),
                    java.util.stream.Collectors.mapping(
                        r -> r.getTermId().toString(), java.util.stream.Collectors.toSet())));
    return db.selectFrom(TOOL_CONNECTION)
        .orderBy(TOOL_CONNECTION.NAME)
        .fetch(
            r ->
                known(
                    r,
                    hosts.getOrDefault(r.getId(), Set.of()),
                    terms.getOrDefault(r.getId(), Set.of())));
  }

  KnownConnection get(UUID id) {
    return all().stream()
        .filter(c -> c.connection().id().equals(id.toString()))
        .findFirst()
        .orElseThrow(() -> Refusal.notFound("connection"));
  }

  /** To be written into a shell or to sign with, and for nothing else; empty if there is none. */
  String secret(UUID id) {
    return db.select(TOOL_CONNECTION.SECRET)
        .from(TOOL_CONNECTION)
        .where(TOOL_CONNECTION.ID.eq(id))
        .fetchOptional(TOOL_CONNECTION.SECRET)
        .map(secrets::open)
        .orElse("");
  }

  /** What shells have that were written before the last change, while its tool takes that too. */
  Optional<Signer> before(UUID id) {
    return db.select(TOOL_CONNECTION.KEY_BEFORE, TOOL_CONNECTION.SECRET_BEFORE)
        .from(TOOL_CONNECTION)
        .where(TOOL_CONNECTION.ID.eq(id))
        .and(TOOL_CONNECTION.SECRET_BEFORE.isNotNull())
        .fetchOptional(r -> new Signer(r.value1(), secrets.open(r.value2()), Optional.empty()));
  }

  private static KnownConnection known(
      ToolConnectionRecord r, Set<String> hosts, Set<String> terms) {
    Optional<Registration> registration =
        r.getWay() == Way.REGISTRATION && !r.getLogin().isEmpty()
            ? Optional.of(
                new Registration(
                    r.getConsumerKey(),
                    r.getDeployment(),
                    r.getLogin(),
                    List.of(r.getLaunches()),
                    r.getKeySet()))
            : Optional.empty();
    boolean entered =
        registration.isPresent() || r.getWay() == Way.KEY_AND_SECRET && r.getSecret() != null;
    return new KnownConnection(
        new Connection(
            r.getId().toString(),
            r.getName(),
            hosts,
            r.getWay(),
            new Scope(r.getLevel(), r.getScopeOf()),
            Arrays.stream(r.getStages()).map(Stage::valueOf).toList(),
            entered ? Entered.FOR_SHELLS : Entered.NOT_YET,
            r.getPairing(),
            r.getApprovedAt() != null,
            terms),
        new ToolWords(r.getWords()),
        Duration.ofMinutes(r.getWaitMinutes()),
        new Privacy(r.getSendsName(), r.getSendsMail()),
        r.getGrades(),
        r.getDateMode(),
        r.getOwner(),
        r.getConsumerKey(),
        r.getSecret() != null,
        r.getGeneration(),
        Optional.ofNullable(r.getExpiresOn()),
        Optional.ofNullable(r.getBothUntil()),
        r.getSecretBefore() != null,
        registration,
        new Template(r.getCoursePattern()),
        Set.of(r.getMastersCourses()));
  }
}
