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
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.term.Successors;
import org.zephyrmist.core.term.TermSection;
import org.zephyrmist.server.coverage.Rules;
import org.zephyrmist.server.ledger.OwnWords;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** What of a term goes into the next one, as a proposal; made anew whenever it is looked at. */
@Component
class NextTerms {
  private final DSLContext db;
  private final Reach reach;
  private final Rules rules;
  private final Standings standings;
  private final OwnWords ownWords;
  private final Versions versions;
  private final KeptTerms kept;

  NextTerms(
      DSLContext db,
      Reach reach,
      Rules rules,
      Standings standings,
      OwnWords ownWords,
      Versions versions,
      KeptTerms kept) {
    this.kept = kept;
    this.db = db;
    this.reach = reach;
    this.rules = rules;
    this.standings = standings;
    this.ownWords = ownWords;
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
      Set<UUID> open) {}

  /**
   * A text that sections have made their own.
   *
   * @param starter whether it is the section's own by its rule, such as who teaches it
   * @param into sections of the next term that are still to get its master, and that the same
   *     instructor teaches
   * @param carried whether it is carried into those
   */
  record OwnText(
      UUID master,
      String code,
      ItemKey item,
      String title,
      boolean starter,
      Set<UUID> sections,
      Set<UUID> into,
      boolean carried) {}

  /**
   * All of it.
   *
   * @param sections of both terms, by id
   * @param follows which section each of the next term follows
   */
  record Proposal(
      Map<UUID, TermSection> sections,
      Successors.Paired paired,
      Map<UUID, UUID> follows,
      List<Coming> masters,
      List<OwnText> texts) {}

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
    return new Proposal(all, paired, follows, masters, texts(t, all, follows, masters));
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
    List<Coming> all = new ArrayList<>();
    db
        .select(MASTER.ID, MASTER.CODE, MASTER.TITLE)
        .from(MASTER)
        .where(MASTER.ID.in(numbers.keySet()))
        .and(reach.masters(who))
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
                      open));
            });
    return all;
  }

  /** Starters go along where the same person teaches; all else where somebody says so. */
  private List<OwnText> texts(
      Terms t, Map<UUID, TermSection> sections, Map<UUID, UUID> follows, List<Coming> masters) {
    Map<UUID, Coming> coming = new HashMap<>();
    masters.stream().filter(m -> !m.leftOut()).forEach(m -> coming.put(m.master(), m));
    Set<UUID> fresh =
        db.select(MASTER.ID).from(MASTER).where(MASTER.FRESH_EACH_TERM).fetchSet(MASTER.ID);
    Map<UUID, UUID> next = new HashMap<>();
    follows.forEach((b, a) -> next.put(a, b));
    Map<String, Boolean> carried = kept.texts(t);
    Map<String, OwnText> all = new LinkedHashMap<>();
    for (OwnWords.OwnWord w : ownWords.of(next.keySet())) {
      Coming c = coming.get(w.master());
      if (c == null || fresh.contains(w.master())) {
        continue;
      }
      String name = w.master() + " " + w.item();
      boolean starter =
          versions
              .get(c.version())
              .tree()
              .get(w.item())
              .filter(n -> n.rule() == EditRule.STARTER)
              .isPresent();
      OwnText x =
          all.computeIfAbsent(
              name,
              k ->
                  new OwnText(
                      w.master(),
                      c.code(),
                      w.item(),
                      w.title(),
                      starter,
                      new HashSet<>(),
                      new HashSet<>(),
                      carried.getOrDefault(name, starter)));
      x.sections().add(w.section());
      UUID b = next.get(w.section());
      if (c.open().contains(b) && same(sections.get(w.section()), sections.get(b))) {
        x.into().add(b);
      }
    }
    return all.values().stream()
        .sorted(
            Comparator.comparing((OwnText x) -> -x.sections().size()).thenComparing(OwnText::title))
        .toList();
  }

  private static boolean same(TermSection a, TermSection b) {
    return a.instructors().stream().anyMatch(b.instructors()::contains);
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
