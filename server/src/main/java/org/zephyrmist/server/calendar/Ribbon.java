package org.zephyrmist.server.calendar;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.calendar.Dated;
import org.zephyrmist.core.calendar.DatedTree;
import org.zephyrmist.core.calendar.OffDays;
import org.zephyrmist.core.calendar.OwnDates;
import org.zephyrmist.core.calendar.Remark;
import org.zephyrmist.core.calendar.Undated;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.When;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.coverage.Rules;
import org.zephyrmist.server.ledger.HeldDates;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;

/** What is due in a term each day, as the drafts of its masters say it now. */
@Component
class Ribbon {
  private static final Set<Kind> WORK = EnumSet.of(Kind.ASSIGNMENT, Kind.QUIZ, Kind.DISCUSSION);
  private static final LocalTime EVENING = LocalTime.of(17, 0);
  private final DSLContext db;
  private final Reach reach;
  private final Calendars calendars;
  private final Dating dating;
  private final Trees trees;
  private final Bodies bodies;
  private final Rules rules;
  private final HeldDates held;

  Ribbon(
      DSLContext db,
      Reach reach,
      Calendars calendars,
      Dating dating,
      Trees trees,
      Bodies bodies,
      Rules rules,
      HeldDates held) {
    this.db = db;
    this.reach = reach;
    this.calendars = calendars;
    this.dating = dating;
    this.trees = trees;
    this.bodies = bodies;
    this.rules = rules;
    this.held = held;
  }

  record Seen(
      List<RibbonApi.MasterOfRibbon> masters, List<RibbonApi.RibbonRow> rows, int undated) {}

  record At(UUID id, String code, String course, String title, String campus) {}

  /**
   * A master's draft, before it has dates of a section.
   *
   * @param own dates that sections have of their own
   */
  record Draft(UUID id, Tree tree, List<Undated> items, OffDays off, Map<UUID, OwnDates> own) {}

  record Group(String course, Calendars.Goes goes) {}

  /**
   * What a term holds or ought to hold, before it is laid on days.
   *
   * @param masters by their id, the sections that hold or ought to hold them
   */
  record Term(
      List<Draft> drafts,
      List<RibbonApi.MasterOfRibbon> shown,
      Map<UUID, Set<UUID>> masters,
      Map<Group, List<At>> groups) {
    /** Of a group, the sections with a master. */
    List<At> with(Draft d, List<At> sections) {
      Set<UUID> of = masters.get(d.id());
      return sections.stream().filter(s -> of.contains(s.id())).toList();
    }
  }

  /** Within reach. */
  Term term(UUID term, SignedIn who) {
    Condition which = SECTION.TERM_ID.eq(term).and(reach.sections(who));
    List<At> sections = sections(which);
    List<UUID> ids = sections.stream().map(At::id).toList();
    Map<UUID, Set<UUID>> masters = held.masters(ids);
    rules
        .expecting(which)
        .forEach((m, s) -> masters.computeIfAbsent(m, k -> new HashSet<>()).addAll(s));
    List<RibbonApi.MasterOfRibbon> shown = new ArrayList<>();
    List<Draft> drafts = drafts(masters.keySet(), ids, who, shown);
    Map<UUID, Calendars.Goes> goes = calendars.sections(ids);
    Map<Group, List<At>> groups = new LinkedHashMap<>();
    sections.forEach(
        s ->
            groups
                .computeIfAbsent(new Group(s.course(), goes.get(s.id())), k -> new ArrayList<>())
                .add(s));
    return new Term(drafts, shown, masters, groups);
  }

  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public Seen of(UUID term, SignedIn who) {
    Term t = term(term, who);
    List<UUID> ids = t.groups().values().stream().flatMap(List::stream).map(At::id).toList();
    Shells shells = shells(ids, t.drafts());
    List<RibbonApi.RibbonRow> rows = new ArrayList<>();
    t.groups().forEach((g, of) -> rows.add(row(g, of, t, shells)));
    int undated =
        t.drafts().stream()
            .mapToInt(
                d ->
                    (int)
                        d.items().stream()
                            .filter(i -> WORK.contains(i.kind()) && i.timing().undated())
                            .count())
            .sum();
    return new Seen(t.shown(), rows, undated);
  }

  private List<At> sections(Condition which) {
    return db.select(SECTION.ID, SECTION.CODE, COURSE.CODE, COURSE.TITLE, CAMPUS.SOURCED_ID)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .where(which)
        .orderBy(COURSE.CODE, SECTION.CODE, SECTION.ID)
        .fetch(r -> new At(r.value1(), r.value2(), r.value3(), r.value4(), r.value5()));
  }

  private List<Draft> drafts(
      Collection<UUID> masters,
      List<UUID> sections,
      SignedIn who,
      List<RibbonApi.MasterOfRibbon> shown) {
    List<Draft> all = new ArrayList<>();
    db.selectFrom(MASTER)
        .where(MASTER.ID.in(masters))
        .and(reach.masters(who))
        .orderBy(MASTER.CODE, MASTER.ID)
        .forEach(
            m -> {
              Tree tree = trees.tree(m.getDraftTreeId());
              all.add(
                  new Draft(
                      m.getId(),
                      tree,
                      DatedTree.undated(tree, bodies.get(DatedTree.timings(tree))),
                      dating.off(m.getId()),
                      dating.own(m.getId(), sections)));
              shown.add(new RibbonApi.MasterOfRibbon(m.getId(), m.getCode(), m.getTitle()));
            });
    return all;
  }

  /** What shells have, by section and item. */
  private record Shells(Map<String, HeldDates.HeldDate> held, Map<Fingerprint, String> forms) {
    Optional<HeldDates.HeldDate> at(UUID section, UUID master, ItemKey item) {
      return Optional.ofNullable(held.get(section + "" + master + item));
    }
  }

  private Shells shells(List<UUID> sections, List<Draft> drafts) {
    List<ItemKey> dated = new ArrayList<>();
    drafts.forEach(
        d ->
            d.items().stream().filter(i -> !i.timing().undated()).forEach(i -> dated.add(i.key())));
    Map<String, HeldDates.HeldDate> all = new HashMap<>();
    Set<Fingerprint> own = new HashSet<>();
    for (HeldDates.HeldDate h : held.of(sections, dated)) {
      all.put(h.section() + "" + h.master() + h.item(), h);
      h.own().ifPresent(own::add);
    }
    return new Shells(all, bodies.get(own));
  }

  private RibbonApi.RibbonRow row(Group g, List<At> sections, Term t, Shells shells) {
    List<RibbonApi.DueDate> dates = new ArrayList<>();
    for (Draft d : t.drafts()) {
      List<At> of = t.with(d, sections);
      if (!of.isEmpty()) {
        dates(d, g.goes(), of, shells, dates);
      }
    }
    List<Integer> meets =
        g.goes().meetings().weekly().stream()
            .map(w -> w.day().getValue())
            .distinct()
            .sorted()
            .toList();
    boolean evenings =
        !meets.isEmpty()
            && g.goes().meetings().weekly().stream().allMatch(w -> !w.begins().isBefore(EVENING));
    return new RibbonApi.RibbonRow(
        g.course(),
        sections.get(0).title(),
        g.goes().calendar(),
        meets,
        evenings,
        sections.stream().map(At::id).toList(),
        dates);
  }

  private void dates(
      Draft d, Calendars.Goes goes, List<At> of, Shells shells, List<RibbonApi.DueDate> all) {
    Map<ItemKey, Dated> dates = goes.days().dates(d.items(), d.off());
    Map<ItemKey, Timing> patterns = new HashMap<>();
    d.items().forEach(i -> patterns.put(i.key(), i.timing()));
    for (Node n : d.tree().nodes()) {
      Dated at = dates.get(n.key());
      Optional<LocalDateTime> due = at.timing().due();
      if (due.isEmpty() || n.appliesTo().nobody()) {
        continue;
      }
      List<At> meant =
          of.stream().filter(s -> n.appliesTo().covers(s.campus(), "", Set.of())).toList();
      Fingerprint asSaid = print(at.timing());
      List<RibbonApi.OwnDue> own = new ArrayList<>();
      int waiting = 0;
      for (At s : meant) {
        Timing here = d.own().getOrDefault(s.id(), OwnDates.NONE).on(n.key(), at.timing());
        Fingerprint meantHere = here.equals(at.timing()) ? asSaid : print(here);
        Optional<HeldDates.HeldDate> h = shells.at(s.id(), d.id(), n.key());
        Optional<Timing> theirs =
            h.flatMap(HeldDates.HeldDate::own).map(f -> AspectForms.timing(shells.forms().get(f)));
        Timing is = theirs.orElse(here);
        if (!is.due().equals(due)) {
          own.add(new RibbonApi.OwnDue(s.id(), s.code(), is.due().orElse(null)));
        }
        if (h.isEmpty() || !h.get().sent().equals(meantHere)) {
          waiting++;
        }
      }
      if (!meant.isEmpty()) {
        all.add(of(d, n, at, patterns.get(n.key()), meant.size(), own, waiting));
      }
    }
  }

  private static Fingerprint print(Timing t) {
    return Fingerprint.of(AspectForms.form(t));
  }

  private static RibbonApi.DueDate of(
      Draft d,
      Node n,
      Dated at,
      Timing says,
      int sections,
      List<RibbonApi.OwnDue> own,
      int waiting) {
    LocalDateTime due = at.timing().due().orElseThrow();
    List<Remark> remarks = at.remarks().stream().filter(r -> r.point() == Point.DUE).toList();
    return new RibbonApi.DueDate(
        d.id(),
        n.key().value(),
        n.kind(),
        n.title(),
        says.patterns().due().map(When::text).orElse(null),
        due,
        remarks.stream().map(Remark::said).findFirst().orElse(due.toLocalDate()),
        at.remarks().stream().map(Remark::kind).distinct().toList(),
        remarks.stream().map(Remark::off).filter(o -> !o.isEmpty()).findFirst().orElse(""),
        sections,
        own,
        waiting);
  }
}
