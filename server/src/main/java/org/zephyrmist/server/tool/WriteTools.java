package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TOOL_WRITE;

import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.PlatformGateway.ToolData;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.platform.Turns;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/**
 * Writes credentials into shells, many in a call. A server that dies in between leaves them to be
 * written again, which changes nothing; one shell that is refused does not hold the others.
 */
@Component
class WriteTools implements Job {
  static final String NAME = "write-tools";
  private static final Duration LONGEST = Duration.ofMinutes(10);
  private final DSLContext db;
  private final ToolConnections connections;
  private final ToolSections sections;
  private final Sightings sightings;
  private final Platforms platforms;
  private final Turns turns;
  private final Settings settings;
  private final TransactionTemplate transaction;

  WriteTools(
      DSLContext db,
      ToolConnections connections,
      ToolSections sections,
      Sightings sightings,
      Platforms platforms,
      Turns turns,
      Settings settings,
      TransactionTemplate transaction) {
    this.db = db;
    this.connections = connections;
    this.sections = sections;
    this.sightings = sightings;
    this.platforms = platforms;
    this.turns = turns;
    this.settings = settings;
    this.transaction = transaction;
  }

  /** One thing to write. */
  private record Wanted(
      UUID section,
      String host,
      UUID connection,
      int generation,
      OffsetDateTime asked,
      int tries,
      ToolData data) {}

  @Override
  public String name() {
    return NAME;
  }

  @Override
  public Collection<UUID> strays() {
    return db.selectDistinct(SECTION.PLATFORM_ID)
        .from(TOOL_WRITE)
        .join(SECTION)
        .on(SECTION.ID.eq(TOOL_WRITE.SECTION_ID))
        .where(TOOL_WRITE.TROUBLE.eq(""))
        .and(SECTION.PLATFORM_ID.isNotNull())
        .fetch(SECTION.PLATFORM_ID);
  }

  @Override
  public Outcome run(UUID platform) {
    List<Wanted> next = next(platform);
    if (next.isEmpty()) {
      return Outcome.ENDED;
    }
    if (!turns.begin(platform)) {
      return Outcome.NOT_NOW;
    }
    try {
      return write(platforms.gateway(platform), next);
    } finally {
      turns.end(platform);
    }
  }

  private List<Wanted> next(UUID platform) {
    var rows =
        db.select(TOOL_WRITE.fields())
            .from(TOOL_WRITE)
            .join(SECTION)
            .on(SECTION.ID.eq(TOOL_WRITE.SECTION_ID))
            .where(SECTION.PLATFORM_ID.eq(platform))
            .and(TOOL_WRITE.TROUBLE.eq(""))
            .orderBy(TOOL_WRITE.TRIES, TOOL_WRITE.SECTION_ID, TOOL_WRITE.HOST)
            .limit(PlatformGateway.MOST_AT_ONCE)
            .fetchInto(TOOL_WRITE);
    Map<UUID, ToolSection> at = new HashMap<>();
    sections.where(SECTION.ID.in(rows.map(r -> r.getSectionId()))).forEach(s -> at.put(s.id(), s));
    Map<UUID, KnownConnection> known = new HashMap<>();
    Map<UUID, String> secrets = new HashMap<>();
    for (KnownConnection c : connections.all()) {
      known.put(UUID.fromString(c.connection().id()), c);
    }
    List<Wanted> all = new ArrayList<>();
    for (var r : rows) {
      KnownConnection c = known.get(r.getConnectionId());
      ToolSection s = at.get(r.getSectionId());
      String secret = secrets.computeIfAbsent(r.getConnectionId(), connections::secret);
      Signer signer = Signer.of(c, secret, s);
      all.add(
          new Wanted(
              s.id(),
              r.getHost(),
              r.getConnectionId(),
              c.generation(),
              r.getAskedAt(),
              r.getTries(),
              new ToolData(
                  s.shell().orElseThrow(),
                  r.getHost(),
                  signer.key(),
                  signer.secret(),
                  signer.registration(),
                  Optional.ofNullable(r.getCourse()))));
    }
    return all;
  }

  private Outcome write(PlatformGateway gateway, List<Wanted> next) {
    try {
      gateway.connect(next.stream().map(Wanted::data).toList());
      ended(next);
      return Outcome.after(Duration.ZERO);
    } catch (PlatformException e) {
      if (e.kind() != PlatformException.Kind.LASTING) {
        return later(next, e);
      }
    }
    for (Wanted w : next) { // one of them is refused: which?
      try {
        gateway.connect(List.of(w.data()));
        ended(List.of(w));
      } catch (PlatformException e) {
        if (e.kind() != PlatformException.Kind.LASTING) {
          return later(List.of(w), e);
        }
        db.update(TOOL_WRITE)
            .set(TOOL_WRITE.TROUBLE, e.getMessage())
            .set(TOOL_WRITE.REMEDY, e.remedy())
            .where(TOOL_WRITE.SECTION_ID.eq(w.section()))
            .and(TOOL_WRITE.HOST.eq(w.host()))
            .execute();
      }
    }
    return Outcome.after(Duration.ZERO);
  }

  private void ended(List<Wanted> all) {
    transaction.executeWithoutResult(
        t -> {
          sightings.written(
              all.stream().map(Wanted::section).toList(),
              all.stream().map(Wanted::host).toList(),
              all.stream().map(Wanted::connection).toList(),
              all.stream().map(Wanted::generation).toList());
          db.batch(
                  all.stream()
                      .map(
                          w ->
                              db.deleteFrom(TOOL_WRITE)
                                  .where(TOOL_WRITE.SECTION_ID.eq(w.section()))
                                  .and(TOOL_WRITE.HOST.eq(w.host()))
                                  .and(TOOL_WRITE.ASKED_AT.eq(w.asked())))
                      .toList())
              .execute();
          sightings.want(all.stream().map(Wanted::section).distinct().toList());
        });
  }

  private Outcome later(List<Wanted> all, PlatformException e) {
    db.batch(
            all.stream()
                .map(
                    w ->
                        db.update(TOOL_WRITE)
                            .set(TOOL_WRITE.TRIES, TOOL_WRITE.TRIES.plus(1))
                            .where(TOOL_WRITE.SECTION_ID.eq(w.section()))
                            .and(TOOL_WRITE.HOST.eq(w.host())))
                .toList())
        .execute();
    int tries = all.stream().mapToInt(Wanted::tries).min().orElse(0);
    Duration pause = settings.firstPause().multipliedBy(1L << Math.min(tries, 8));
    Duration longest = pause.compareTo(LONGEST) > 0 ? LONGEST : pause;
    return Outcome.after(e.pause().compareTo(longest) > 0 ? e.pause() : longest);
  }
}
