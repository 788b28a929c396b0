package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.RELINK_RULE;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.IntStream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.jooq.impl.DSL;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.AddressPattern;
import org.zephyrmist.core.tool.RelinkRule;
import org.zephyrmist.core.tool.RelinkRules;
import org.zephyrmist.core.tool.Template;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Enters relink rules and ends them. */
@Component
class RelinkEdits {
  private static final int MOST = 200;
  private final DSLContext db;
  private final Reach reach;
  private final Events events;
  private final JsonMapper json;
  private final Clock clock;

  RelinkEdits(DSLContext db, Reach reach, Events events, JsonMapper json, Clock clock) {
    this.db = db;
    this.reach = reach;
    this.events = events;
    this.json = json;
    this.clock = clock;
  }

  List<RelinkApi.RelinkView> list() {
    return list(DSL.noCondition());
  }

  /** Those for the whole college, and those for a master within reach. */
  List<RelinkApi.RelinkView> list(SignedIn who) {
    UUID[] reached =
        db.select(MASTER.ID).from(MASTER).where(reach.masters(who)).fetchArray(MASTER.ID);
    return list(
        DSL.cardinality(RELINK_RULE.MASTERS)
            .eq(0)
            .or(DSL.arrayOverlap(RELINK_RULE.MASTERS, reached)));
  }

  private List<RelinkApi.RelinkView> list(Condition which) {
    return db.select(RELINK_RULE.fields())
        .select(PERSON.NAME)
        .from(RELINK_RULE)
        .join(PERSON)
        .on(PERSON.ID.eq(RELINK_RULE.MADE_BY))
        .where(which)
        .orderBy(RELINK_RULE.PLACE)
        .fetch(
            r -> {
              var rule = r.into(RELINK_RULE);
              return new RelinkApi.RelinkView(
                  rule.getId(),
                  new RelinkApi.RelinkEntry(
                      rule.getFromPattern(),
                      rule.getToTemplate(),
                      json.readValue(
                          rule.getParameters().data(),
                          new TypeReference<TreeMap<String, String>>() {}),
                      Set.of(rule.getMasters()),
                      Set.of(rule.getTerms()),
                      Set.of(rule.getCampuses()),
                      rule.getFromDay(),
                      rule.getUntilDay()),
                  r.get(PERSON.NAME));
            });
  }

  /**
   * The rule as it counts.
   *
   * @throws Refusal with what is wrong with it
   */
  RelinkRule rule(UUID id, RelinkApi.RelinkEntry e) {
    if (e.fromDay() != null && e.untilDay() != null && e.untilDay().isBefore(e.fromDay())) {
      throw Refusal.bad("The rule ends before it begins.", "Correct one of the two days.");
    }
    try {
      Map<String, Optional<Template>> parameters = new TreeMap<>();
      e.parameters()
          .forEach(
              (n, v) ->
                  parameters.put(n, v.isEmpty() ? Optional.empty() : Optional.of(new Template(v))));
      return new RelinkRule(
          id.toString(),
          new AddressPattern(e.from()),
          new Template(e.to().strip()),
          parameters,
          new RelinkRule.Limits(
              texts(e.masters()),
              texts(e.terms()),
              e.campuses(),
              Optional.ofNullable(e.fromDay()),
              Optional.ofNullable(e.untilDay())));
    } catch (IllegalArgumentException wrong) {
      throw Refusal.bad(wrong.getMessage(), "Correct the rule, then try it out.");
    }
  }

  private static Set<String> texts(Set<UUID> ids) {
    return ids.stream().map(UUID::toString).collect(java.util.stream.Collectors.toSet());
  }

  @Transactional
  public UUID add(RelinkApi.RelinkEntry e, SignedIn who) {
    UUID id = UUID.randomUUID();
    RelinkRule rule = rule(id, e);
    mayBe(e, who);
    // a rule whose own result it is about would never come to rest
    String sample = e.to().replaceAll("\\{\\*[^}]*}", "/x").replaceAll("\\{[^}]*}", "x");
    if (rule.from().parts(sample).isPresent()) {
      throw Refusal.bad(
          "The rule is about its own results: what it writes looks like what it looks for.",
          "Say more closely which addresses it is about.");
    }
    List<RelinkRule> others = list().stream().map(v -> rule(v.id(), v.rule())).toList();
    new RelinkRules(others)
        .chain(rule)
        .ifPresent(
            other -> {
              throw new Refusal(
                  HttpStatus.CONFLICT,
                  "With the rule for “"
                      + other.from().text()
                      + "” it would make a chain: what one writes is what the other looks for, so"
                      + " links would stay as they are.",
                  "Say in one rule where the links lead in the end, or end the other.");
            });
    if (db.fetchCount(RELINK_RULE) >= MOST) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "There are " + MOST + " rules.",
          "End one that is no longer needed.");
    }
    db.insertInto(RELINK_RULE)
        .set(RELINK_RULE.ID, id)
        .set(
            RELINK_RULE.PLACE,
            DSL.select(DSL.coalesce(DSL.max(RELINK_RULE.PLACE), 0).plus(1)).from(RELINK_RULE))
        .set(RELINK_RULE.FROM_PATTERN, rule.from().text())
        .set(RELINK_RULE.TO_TEMPLATE, e.to().strip())
        .set(RELINK_RULE.PARAMETERS, JSONB.valueOf(json.writeValueAsString(e.parameters())))
        .set(RELINK_RULE.MASTERS, e.masters().toArray(UUID[]::new))
        .set(RELINK_RULE.TERMS, e.terms().toArray(UUID[]::new))
        .set(RELINK_RULE.CAMPUSES, e.campuses().toArray(String[]::new))
        .set(RELINK_RULE.FROM_DAY, e.fromDay())
        .set(RELINK_RULE.UNTIL_DAY, e.untilDay())
        .set(RELINK_RULE.MADE_BY, who.id())
        .set(RELINK_RULE.MADE_AT, OffsetDateTime.now(clock))
        .execute();
    events.add(
        who.id(), "made the relink rule", rule.from().text(), "to " + e.to(), "/tools/rules");
    return id;
  }

  /** A rule for all masters is for the whole college; others are for those who reach them. */
  private void mayBe(RelinkApi.RelinkEntry e, SignedIn who) {
    if (e.masters().isEmpty() && who.role() != Role.ADMINISTRATOR) {
      throw new Refusal(
          HttpStatus.FORBIDDEN,
          "A rule for every master is an administrator's to make.",
          "Limit it to masters of yours.");
    }
    int reached = db.fetchCount(MASTER, MASTER.ID.in(e.masters()).and(reach.masters(who)));
    if (reached < e.masters().size()) {
      throw Refusal.notFound("master");
    }
    int changed = db.fetchCount(MASTER, MASTER.ID.in(e.masters()).and(reach.changes(who)));
    if (changed < e.masters().size()) {
      throw new Refusal(
          HttpStatus.FORBIDDEN,
          "One of these masters is the whole college's.",
          "An administrator makes rules for it, or names you among those who change it.");
    }
  }

  /**
   * Changes places with the rule before it, which has to be within reach as well; the first stays.
   */
  @Transactional
  public void sooner(UUID id, SignedIn who) {
    db.fetch("select pg_advisory_xact_lock(hashtext('relink_rule'))");
    List<RelinkApi.RelinkView> all = list();
    int at = place(all, id);
    mayBe(all.get(at).rule(), who);
    if (at == 0) {
      return;
    }
    RelinkApi.RelinkView before = all.get(at - 1);
    mayBe(before.rule(), who);
    db.query(
            "update relink_rule r set place = o.place from relink_rule o where r.id in (?, ?) and"
                + " o.id in (?, ?) and o.id <> r.id",
            id,
            before.id(),
            id,
            before.id())
        .execute();
    events.add(
        who.id(),
        "put a relink rule before another",
        all.get(at).rule().from(),
        "before " + before.rule().from(),
        "/tools/rules");
  }

  /** The id of a rule that there is. */
  UUID known(UUID id) {
    List<RelinkApi.RelinkView> all = list();
    return all.get(place(all, id)).id();
  }

  private static int place(List<RelinkApi.RelinkView> all, UUID id) {
    return IntStream.range(0, all.size())
        .filter(i -> all.get(i).id().equals(id))
        .findFirst()
        .orElseThrow(() -> Refusal.notFound("rule"));
  }

  @Transactional
  public void end(UUID id, SignedIn who) {
    List<RelinkApi.RelinkView> all = list();
    RelinkApi.RelinkView rule = all.get(place(all, id));
    mayBe(rule.rule(), who);
    db.deleteFrom(RELINK_RULE).where(RELINK_RULE.ID.eq(id)).execute();
    events.add(who.id(), "ended the relink rule", rule.rule().from(), "to " + rule.rule().to());
  }
}
