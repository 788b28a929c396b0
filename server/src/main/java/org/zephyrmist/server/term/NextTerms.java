package org.zephyrmist.server.term;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.term.Successors;
import org.zephyrmist.core.term.TermSection;
import org.zephyrmist.server.coverage.Rules;
import org.zephyrmist.server.delivery.Deliveries;
import org.zephyrmist.server.delivery.RecipeOrders;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.term.OwnTexts.OwnText;
import org.zephyrmist.server.web.Refusal;

/** What of a term goes into the next one, as a proposal; made anew whenever it is looked at. */
@Component
class NextTerms {
  private final DSLContext db;
  private final Reach reach;
  private final Rules rules;
  private final Standings standings;
  private final Versions versions;
  private final RecipeOrders recipes;
  private final OwnTexts texts;
  private final PartCalendars parts;
  private final Deliveries deliveries;
  private final KeptTerms kept;

  NextTerms(
      DSLContext db,
      Reach reach,
      Rules rules,
      Standings standings,
      Versions versions,
      RecipeOrders recipes,
      OwnTexts texts,
      PartCalendars parts,
      Deliveries deliveries,
      KeptTerms kept) {
    this.recipes = recipes;
    this.texts = texts;
    this.parts = parts;
    this.deliveries = deliveries;
    this.kept = kept;
    this.db = db;
    this.reach = reach;
    this.rules = rules;
    this.standings = standings;
    this.versions = versions;
  }

  /** From which term into which. */
  record Terms(UUID from, UUID to) {}

  /**
   * A master that comes.
   *
   * @param version that is brought: the pinned one, or the newest
   * @param sections of the next term that get it
   * @param open those of them that do not hold that version yet
   * @param recipes by which it can come
   * @param recipe by which it comes: the one that was chosen, or by which it came to most sections
   *     of the earlier term
   */
  record Coming(
      UUID master,
      String code,
      String title,
      UUID version,
      int number,
      int newest,
      boolean pinned,
      boolean leftOut,
      Set<UUID> sections,
      Set<UUID> open,
      List<RecipeOrders.Named> recipes,
      Optional<RecipeOrders.Named> recipe) {}

  /**
   * All of it.
   *
   * @param sections of both terms, by id
   * @param follows which section each of the next term follows
   * @param parts calendars of parts that sections of the next term are to go by
   * @param entered whether the next term has a calendar of its own
   * @param busy sections of the next term that another delivery is planned for or on its way to;
   *     they are left to it
   */
  record Proposal(
      Map<UUID, TermSection> sections,
      Successors.Paired paired,
      Map<UUID, UUID> follows,
      List<Coming> masters,
      List<OwnText> texts,
      List<PartCalendars.Part> parts,
      boolean entered,
      Set<UUID> busy) {
    /** Sections that something is brought to, with what, the frame first. */
    Map<UUID, List<Coming>> open() {
      Map<UUID, List<Coming>> all = new HashMap<>();
      masters.stream()
          .filter(m -> !m.leftOut())
          .forEach(
              m -> m.open().forEach(s -> all.computeIfAbsent(s, k -> new ArrayList<>()).add(m)));
      all.keySet().removeAll(busy);
      return all;
    }
  }

  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public Proposal of(Terms t, SignedIn who) {
    check(t);
    List<TermSection> from = sections(t.from(), who);
    List<TermSection> to = sections(t.to(), who);
    Map<UUID, TermSection> all = new LinkedHashMap<>();
    from.forEach(s -> all.put(UUID.fromString(s.id()), s));
    to.forEach(s -> all.put(UUID.fromString(s.id()), s));
    Successors.Paired paired = Successors.of(from, to, kept.pairs(t));
    Map<UUID, UUID> follows = new HashMap<>();
    paired.pairs().forEach(p -> follows.put(UUID.fromString(p.to()), UUID.fromString(p.from())));
    List<Coming> masters = masters(t, to, follows, who);
    Set<UUID> open = new HashSet<>();
    masters.stream().filter(m -> !m.leftOut()).forEach(m -> open.addAll(m.open()));
    return new Proposal(
        all,
        paired,
        follows,
        masters,
        texts.of(t, all, follows, masters),
        parts.of(t, follows),
        parts.entered(t.to()),
        deliveries.underWay(open));
  }

  /** Both terms are there, and are two. */
  void check(Terms t) {
    if (t.from().equals(t.to())) {
      throw Refusal.bad("A term does not follow itself.", "Choose another term to bring it into.");
    }
    if (db.fetchCount(TERM, TERM.ID.in(t.from(), t.to())) < 2) {
      throw Refusal.notFound("term");
    }
  }

  private List<TermSection> sections(UUID term, SignedIn who) {
    Map<UUID, Set<String>> teaching = new HashMap<>();
    db.select(SECTION_INSTRUCTOR.SECTION_ID, SECTION_INSTRUCTOR.PERSON_ID)
        .from(SECTION_INSTRUCTOR)
        .join(SECTION)
        .on(SECTION.ID.eq(SECTION_INSTRUCTOR.SECTION_ID))
        .where(SECTION.TERM_ID.eq(term))
        .forEach(
            r ->
                teaching
                    .computeIfAbsent(r.value1(), k -> new HashSet<>())
                    .add(r.value2().toString()));
    return db.select(SECTION.ID, SECTION.CODE, COURSE.CODE, CAMPUS.NAME)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .where(SECTION.TERM_ID.eq(term))
        .and(SECTION.IN_ROSTER)
        .and(reach.sections(who))
        .orderBy(SECTION.CODE, SECTION.ID)
        .fetch(
            r ->
                new TermSection(
                    r.value1().toString(),
                    r.value2(),
                    r.value3(),
                    r.value4(),
                    teaching.getOrDefault(r.value1(), Set.of())));
  }

  /** What the section before held, and what coverage rules expect; the frame first. */
  private List<Coming> masters(
      Terms t, List<TermSection> to, Map<UUID, UUID> follows, SignedIn who) {
    Map<UUID, Set<UUID>> wanted = new HashMap<>();
    rules
        .versions(SECTION.TERM_ID.eq(t.to()).and(reach.sections(who)))
        .forEach((m, of) -> wanted.computeIfAbsent(m, k -> new HashSet<>()).addAll(of.keySet()));
    Map<UUID, Map<UUID, UUID>> before = standings.versions(follows.values());
    follows.forEach(
        (b, a) ->
            before
                .getOrDefault(a, Map.of())
                .keySet()
                .forEach(m -> wanted.computeIfAbsent(m, k -> new HashSet<>()).add(b)));
    Map<UUID, Map<UUID, UUID>> held =
        standings.versions(to.stream().map(s -> UUID.fromString(s.id())).toList());
    Map<UUID, KeptTerms.Master> said = kept.masters(t);
    Map<UUID, String> letters = versions.letters();
    Map<UUID, Map<Integer, UUID>> numbers = new HashMap<>();
    db.select(VERSION.MASTER_ID, VERSION.NUMBER, VERSION.ID)
        .from(VERSION)
        .where(VERSION.MASTER_ID.in(wanted.keySet()))
        .forEach(
            r ->
                numbers
                    .computeIfAbsent(r.value1(), k -> new HashMap<>())
                    .put(r.value2(), r.value3()));
    Map<UUID, List<RecipeOrders.Named>> recipes = this.recipes.whole(wanted.keySet());
    Map<UUID, UUID> used = this.recipes.usedIn(t.from(), recipes);
    List<Coming> all = new ArrayList<>();
    db
        .select(MASTER.ID, MASTER.CODE, MASTER.TITLE)
        .from(MASTER)
        .where(MASTER.ID.in(numbers.keySet()))
        .and(reach.masters(who))
        .and(MASTER.RETIRED_AT.isNull())
        .fetch()
        .stream()
        .sorted(
            Comparator.comparing(
                    (org.jooq.Record3<UUID, String, String> r) -> letters.get(r.value1()))
                .thenComparing(r -> r.value2()))
        .forEach(
            r -> {
              UUID m = r.value1();
              KeptTerms.Master s = said.getOrDefault(m, KeptTerms.Master.AS_PROPOSED);
              int newest =
                  numbers.get(m).keySet().stream().max(Comparator.naturalOrder()).orElseThrow();
              int number = s.pinned().filter(numbers.get(m)::containsKey).orElse(newest);
              UUID version = numbers.get(m).get(number);
              Set<UUID> open = new HashSet<>(wanted.get(m));
              open.removeIf(b -> version.equals(held.getOrDefault(b, Map.of()).get(m)));
              all.add(
                  new Coming(
                      m,
                      r.value2(),
                      r.value3(),
                      version,
                      number,
                      newest,
                      s.pinned().isPresent(),
                      s.leftOut(),
                      wanted.get(m),
                      open,
                      recipes.getOrDefault(m, List.of()),
                      s.recipe(used.get(m))
                          .flatMap(
                              id -> RecipeOrders.named(recipes.getOrDefault(m, List.of()), id))));
            });
    return all;
  }

  /** Whether both sections are in these terms and within reach. */
  boolean reached(Terms t, UUID section, Optional<UUID> successor, SignedIn who) {
    return db.fetchExists(
            SECTION,
            SECTION.ID.eq(section).and(SECTION.TERM_ID.eq(t.from())).and(reach.sections(who)))
        && successor
            .map(
                s ->
                    db.fetchExists(
                        SECTION,
                        SECTION.ID.eq(s).and(SECTION.TERM_ID.eq(t.to())).and(reach.sections(who))))
            .orElse(true);
  }

  boolean masterReached(UUID master, SignedIn who) {
    return db.fetchExists(
        DSL.selectOne().from(MASTER).where(MASTER.ID.eq(master)).and(reach.masters(who)));
  }
}
