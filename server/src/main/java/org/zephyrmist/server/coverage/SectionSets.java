package org.zephyrmist.server.coverage;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.COVERAGE_RULE;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_SET;
import static org.zephyrmist.server.db.Tables.SECTION_SET_MEMBER;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.jooq.impl.DSL;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.coverage.SectionFilter;
import org.zephyrmist.core.coverage.SectionWords;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.section.Instructors;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Saved choices of sections: by hand, or by what is said of them. */
@Component
public class SectionSets {
  private final DSLContext db;
  private final Reach reach;
  private final Instructors instructors;
  private final JsonMapper json;
  private final Clock clock;

  SectionSets(DSLContext db, Reach reach, Instructors instructors, JsonMapper json, Clock clock) {
    this.db = db;
    this.reach = reach;
    this.instructors = instructors;
    this.json = json;
    this.clock = clock;
  }

  /** A set as it is to be kept: either sections or a filter. */
  public record Wanted(
      String name, Optional<List<UUID>> sections, Optional<SectionFilter> filter) {}

  /** A section with what is said of it. */
  record Said(UUID id, UUID course, SectionWords words) {}

  /** What is said of sections, of which these are. */
  List<Said> said(Condition which) {
    Map<UUID, String> names = instructors.all();
    return db.select(
            SECTION.ID, SECTION.CODE, SECTION.TITLE, COURSE.CODE, CAMPUS.NAME, SECTION.COURSE_ID)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .where(which)
        .orderBy(SECTION.CODE, SECTION.ID)
        .fetch(
            r ->
                new Said(
                    r.value1(),
                    r.value6(),
                    new SectionWords(
                        r.value2(),
                        r.value3(),
                        r.value4(),
                        r.value5(),
                        List.of(names.getOrDefault(r.value1(), "").split(", ")))));
  }

  /** The sections of each set among these. */
  Map<UUID, List<UUID>> among(List<Said> sections) {
    Map<UUID, List<UUID>> all = new HashMap<>();
    Set<UUID> known = new HashSet<>();
    sections.forEach(s -> known.add(s.id()));
    db.select(SECTION_SET.ID, SECTION_SET.FILTER)
        .from(SECTION_SET)
        .forEach(
            r -> {
              List<UUID> of = new ArrayList<>();
              if (r.value2() != null) {
                SectionFilter filter = filter(r.value2());
                sections.stream()
                    .filter(s -> filter.covers(s.words()))
                    .forEach(s -> of.add(s.id()));
              }
              all.put(r.value1(), of);
            });
    db.selectFrom(SECTION_SET_MEMBER)
        .forEach(
            r -> {
              if (known.contains(r.getSectionId())) {
                all.get(r.getSetId()).add(r.getSectionId());
              }
            });
    return all;
  }

  private SectionFilter filter(JSONB stored) {
    return json.readValue(stored.data(), SectionFilter.class);
  }

  /** All sets, with how many sections of a term within reach each of them names. */
  List<SectionSetApi.SectionSet> list(UUID term, SignedIn who) {
    Map<UUID, List<UUID>> members = among(said(SECTION.TERM_ID.eq(term).and(reach.sections(who))));
    Map<UUID, Integer> rules =
        db.select(COVERAGE_RULE.SET_ID, DSL.count())
            .from(COVERAGE_RULE)
            .where(COVERAGE_RULE.SET_ID.isNotNull())
            .groupBy(COVERAGE_RULE.SET_ID)
            .fetchMap(COVERAGE_RULE.SET_ID, DSL.count());
    return db.select(SECTION_SET.fields())
        .select(PERSON.NAME)
        .from(SECTION_SET)
        .join(PERSON)
        .on(PERSON.ID.eq(SECTION_SET.MADE_BY))
        .orderBy(SECTION_SET.NAME)
        .fetch(
            r -> {
              UUID id = r.get(SECTION_SET.ID);
              return new SectionSetApi.SectionSet(
                  id,
                  r.get(SECTION_SET.NAME),
                  Optional.ofNullable(r.get(SECTION_SET.FILTER))
                      .map(this::filter)
                      .map(SectionSetApi.SaidOfSections::of)
                      .orElse(null),
                  members.getOrDefault(id, List.of()).size(),
                  rules.getOrDefault(id, 0),
                  r.get(PERSON.NAME),
                  who.role() == Role.ADMINISTRATOR || who.id().equals(r.get(SECTION_SET.MADE_BY)));
            });
  }

  /** Sections of a term within reach that a set names. */
  List<UUID> sections(UUID set, UUID term, SignedIn who) {
    return Optional.ofNullable(
            among(said(SECTION.TERM_ID.eq(term).and(reach.sections(who)))).get(set))
        .orElseThrow(() -> Refusal.notFound("set"));
  }

  @Transactional
  public UUID keep(Wanted w, SignedIn who) {
    UUID id = UUID.randomUUID();
    String name = name(w.name());
    try {
      db.insertInto(SECTION_SET)
          .set(SECTION_SET.ID, id)
          .set(SECTION_SET.NAME, name)
          .set(SECTION_SET.FILTER, what(w, who))
          .set(SECTION_SET.MADE_BY, who.id())
          .set(SECTION_SET.MADE_AT, OffsetDateTime.now(clock))
          .execute();
    } catch (DuplicateKeyException e) {
      throw taken(name);
    }
    members(id, w);
    return id;
  }

  /** Another name, and other sections or another filter. */
  @Transactional
  public void change(UUID set, Wanted w, SignedIn who) {
    own(set, who);
    String name = name(w.name());
    try {
      db.update(SECTION_SET)
          .set(SECTION_SET.NAME, name)
          .set(SECTION_SET.FILTER, what(w, who))
          .where(SECTION_SET.ID.eq(set))
          .execute();
    } catch (DuplicateKeyException e) {
      throw taken(name);
    }
    db.deleteFrom(SECTION_SET_MEMBER).where(SECTION_SET_MEMBER.SET_ID.eq(set)).execute();
    members(set, w);
  }

  @Transactional
  public void drop(UUID set, SignedIn who) {
    own(set, who);
    if (db.fetchExists(COVERAGE_RULE, COVERAGE_RULE.SET_ID.eq(set))) {
      throw new Refusal(
          HttpStatus.CONFLICT, "A coverage rule stands on this set.", "End the rule first.");
    }
    db.deleteFrom(SECTION_SET).where(SECTION_SET.ID.eq(set)).execute();
  }

  private void own(UUID set, SignedIn who) {
    Condition own =
        who.role() == Role.ADMINISTRATOR ? DSL.noCondition() : SECTION_SET.MADE_BY.eq(who.id());
    if (!db.fetchExists(SECTION_SET, SECTION_SET.ID.eq(set).and(own))) {
      throw Refusal.notFound("set");
    }
  }

  private static Refusal taken(String name) {
    return new Refusal(
        HttpStatus.CONFLICT, "There is a set “" + name + "”.", "Choose another name.");
  }

  private static String name(String given) {
    String name = Titles.clean(given);
    if (name.isBlank()) {
      throw Refusal.bad("A set needs a name.", "Say which sections these are.");
    }
    return name;
  }

  /** The filter of a set that stays current, or none for one by hand. */
  private JSONB what(Wanted w, SignedIn who) {
    if (w.filter().isPresent() == w.sections().isPresent()) {
      throw Refusal.bad(
          "A set is by hand or by a filter.", "Send either its sections or its filter.");
    }
    if (w.sections().isPresent()) {
      reached(w.sections().get(), who);
      return null;
    }
    SectionFilter filter = w.filter().orElseThrow();
    if (filter.everything()) {
      throw Refusal.bad(
          "This filter takes every section.", "Say which course, campus, instructor or words.");
    }
    if (said(reach.sections(who)).stream().noneMatch(s -> filter.covers(s.words()))) {
      throw Refusal.bad("No section is like this.", "Change the filter; nothing was kept.");
    }
    return JSONB.valueOf(json.writeValueAsString(filter));
  }

  private void reached(List<UUID> sections, SignedIn who) {
    if (sections.isEmpty()) {
      throw Refusal.bad("No section is chosen.", "Take sections in hand first.");
    }
    int known =
        db.fetchCount(
            db.selectOne().from(SECTION).where(SECTION.ID.in(sections)).and(reach.sections(who)));
    if (known < sections.stream().distinct().count()) {
      throw Refusal.notFound("section");
    }
  }

  private void members(UUID set, Wanted w) {
    w.sections()
        .ifPresent(
            sections ->
                db.query(
                        "insert into section_set_member (set_id, section_id)"
                            + " select distinct ?::uuid, unnest(?::uuid[])",
                        set,
                        sections.toArray(UUID[]::new))
                    .execute());
  }
}
