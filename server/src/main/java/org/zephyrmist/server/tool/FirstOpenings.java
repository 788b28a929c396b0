package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.VERSION_LINK;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.tool.Pairing;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.server.ledger.HeldVersions;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/** What instructors still have to open, with a link to do it by and what to answer there. */
@Component
class FirstOpenings {
  private final DSLContext db;
  private final ToolHosts hosts;
  private final ToolSections sections;
  private final HeldVersions held;
  private final Clock clock;

  FirstOpenings(
      DSLContext db, ToolHosts hosts, ToolSections sections, HeldVersions held, Clock clock) {
    this.db = db;
    this.hosts = hosts;
    this.sections = sections;
    this.held = held;
    this.clock = clock;
  }

  /** Of a person's own sections in terms that have not ended; those whose term begins first. */
  List<OpeningApi.Opening> mine(SignedIn who) {
    return of(
        SECTION
            .ID
            .in(
                org.jooq
                    .impl
                    .DSL
                    .select(SECTION_INSTRUCTOR.SECTION_ID)
                    .from(SECTION_INSTRUCTOR)
                    .where(SECTION_INSTRUCTOR.PERSON_ID.eq(who.id())))
            .and(TERM.LAST_DAY.ge(LocalDate.now(clock))));
  }

  private List<OpeningApi.Opening> of(Condition which) {
    return of(hosts.of(sections.where(which)));
  }

  /** What is open in a picture of some sections. */
  List<OpeningApi.Opening> of(ToolHosts.Picture picture) {
    Map<String, KnownConnection> known = new HashMap<>();
    picture.connections().forEach(c -> known.put(c.connection().id(), c));
    List<ToolHosts.Cell> open =
        picture.cells().stream().filter(c -> c.state().whose() == Stage.Whose.INSTRUCTOR).toList();
    Map<String, String> links = links(open);
    return open.stream()
        .map(c -> opening(c, known, links))
        .sorted(Comparator.comparing(OpeningApi.Opening::code))
        .toList();
  }

  private static OpeningApi.Opening opening(
      ToolHosts.Cell c, Map<String, KnownConnection> known, Map<String, String> links) {
    KnownConnection k = known.get(c.state().connection().orElseThrow().id());
    boolean answers =
        k.connection().pairing() == Pairing.BY_ANSWER
            && k.connection().stages().contains(Stage.PAIRING);
    return new OpeningApi.Opening(
        c.section().id(),
        c.section().code(),
        c.section().title(),
        c.host(),
        k.connection().name(),
        c.state().reason(),
        links.get(c.section().id() + c.host()),
        answers);
  }

  /** For each section and host, where one of its links is found on the platform. */
  private Map<String, String> links(List<ToolHosts.Cell> open) {
    Set<String> wanted = new HashSet<>();
    Set<String> names = new HashSet<>();
    Map<UUID, ToolSection> at = new HashMap<>();
    open.forEach(
        c -> {
          wanted.add(c.section().id() + c.host());
          names.add(c.host());
          at.put(c.section().id(), c.section());
        });
    Map<UUID, String> addresses =
        db.select(PLATFORM.ID, PLATFORM.ADDRESS)
            .from(PLATFORM)
            .fetchMap(PLATFORM.ID, PLATFORM.ADDRESS);
    Map<String, String> hostOf = new HashMap<>();
    Set<String> items = new HashSet<>();
    db.selectFrom(VERSION_LINK)
        .where(VERSION_LINK.TOOL.isTrue())
        .and(VERSION_LINK.HOST.in(names))
        .forEach(
            l -> {
              hostOf.put(l.getVersionId() + l.getItemKey(), l.getHost());
              items.add(l.getItemKey());
            });
    Map<String, String> all = new HashMap<>();
    for (HeldVersions.Held h : held.of(at.keySet().toArray(UUID[]::new), items)) {
      String host = hostOf.get(h.version() + h.item());
      h.in()
          .forEach(
              (s, in) -> {
                if (host != null && wanted.contains(s + host)) {
                  link(at.get(s), addresses, in.platformItem())
                      .ifPresent(l -> all.merge(s + host, l, first()));
                }
              });
    }
    return all;
  }

  private static java.util.function.BinaryOperator<String> first() {
    return (a, b) -> a.compareTo(b) <= 0 ? a : b;
  }

  private static Optional<String> link(ToolSection s, Map<UUID, String> addresses, String item) {
    return s.platform()
        .map(addresses::get)
        .flatMap(p -> Platforms.item(p, s.shell().orElseThrow(), item));
  }
}
