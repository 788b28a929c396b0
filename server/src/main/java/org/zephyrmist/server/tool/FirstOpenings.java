package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.VERSION_LINK;

import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
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
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.Pairing;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.ledger.HeldVersions;
import org.zephyrmist.server.mail.Mails;
import org.zephyrmist.server.people.Events;
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
  private final Mails mails;
  private final Events events;
  private final Settings settings;
  private final Clock clock;

  FirstOpenings(
      DSLContext db,
      ToolHosts hosts,
      ToolSections sections,
      HeldVersions held,
      Mails mails,
      Events events,
      Settings settings,
      Clock clock) {
    this.db = db;
    this.hosts = hosts;
    this.sections = sections;
    this.held = held;
    this.mails = mails;
    this.events = events;
    this.settings = settings;
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
    List<ToolSection> all = sections.where(which);
    ToolHosts.Picture picture = hosts.of(all);
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

  /**
   * Writes to the instructors of sections what is theirs to open, one mail to each.
   *
   * @return how many were written to; not those who got it today already
   */
  @Transactional
  public int write(List<UUID> asked, SignedIn who) {
    List<OpeningApi.Opening> all = of(SECTION.ID.in(asked));
    Map<UUID, List<OpeningApi.Opening>> byPerson = new HashMap<>();
    Map<UUID, List<UUID>> people =
        db.select(SECTION_INSTRUCTOR.SECTION_ID, SECTION_INSTRUCTOR.PERSON_ID)
            .from(SECTION_INSTRUCTOR)
            .join(PERSON)
            .on(PERSON.ID.eq(SECTION_INSTRUCTOR.PERSON_ID))
            .where(SECTION_INSTRUCTOR.SECTION_ID.in(asked))
            .and(PERSON.EMAIL.isNotNull())
            .fetchGroups(SECTION_INSTRUCTOR.SECTION_ID, SECTION_INSTRUCTOR.PERSON_ID);
    for (OpeningApi.Opening o : all) {
      for (UUID p : people.getOrDefault(o.section(), List.of())) {
        byPerson.computeIfAbsent(p, x -> new ArrayList<>()).add(o);
      }
    }
    String about = "first openings " + OffsetDateTime.now(clock).toLocalDate();
    int written = 0;
    for (Map.Entry<UUID, List<OpeningApi.Opening>> e : byPerson.entrySet()) {
      written +=
          mails.put(
              about, List.of(e.getKey()), "Please open your tools once", body(e.getValue(), who));
    }
    if (written > 0) {
      events.add(
          who.id(), "asked for first openings", all.size() + " openings", written + " people");
    }
    return written;
  }

  private String body(List<OpeningApi.Opening> all, SignedIn who) {
    StringBuilder b = new StringBuilder();
    b.append(who.name()).append(" asks you to open these once, so that students can:\n");
    for (OpeningApi.Opening o : all) {
      b.append("\n").append(o.code()).append(", ").append(o.tool()).append("\n");
      if (o.link() != null) {
        b.append(o.link()).append("\n");
      }
      if (o.answers()) {
        b.append("When it asks which course: a new copy, for this section alone.\n");
      }
    }
    return b.append("\n").append(settings.address()).append("/sections\n").toString();
  }
}
