package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;
import static org.zephyrmist.server.db.Tables.VERSION_LINK;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.RelinkRule;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.core.tool.RelinkRules;
import org.zephyrmist.server.ledger.HeldVersions;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.ToolSections.ToolSection;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Tries a rule on every link that sections of a term hold. */
@Component
class RelinkTrial {
  private static final int SHOWN = 100;
  private static final TypeReference<TreeMap<String, String>> PARAMETERS = new TypeReference<>() {};
  private final DSLContext db;
  private final Reach reach;
  private final ToolSections sections;
  private final HeldVersions held;
  private final Relinking relinking;
  private final JsonMapper json;

  RelinkTrial(
      DSLContext db,
      Reach reach,
      ToolSections sections,
      HeldVersions held,
      Relinking relinking,
      JsonMapper json) {
    this.db = db;
    this.reach = reach;
    this.sections = sections;
    this.held = held;
    this.relinking = relinking;
    this.json = json;
  }

  /** A link of a version, and of which master. */
  private record Linked(String master, Link link) {}

  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public RelinkApi.RelinkTried of(UUID term, RelinkRule rule, SignedIn who) {
    List<ToolSection> all = sections.where(SECTION.TERM_ID.eq(term).and(reach.sections(who)));
    Map<UUID, ToolSection> at = new HashMap<>();
    all.forEach(s -> at.put(s.id(), s));
    Map<String, List<Linked>> byItem = new HashMap<>();
    Set<String> items = new HashSet<>();
    db.select(VERSION_LINK.fields())
        .select(VERSION.MASTER_ID)
        .from(VERSION_LINK)
        .join(VERSION)
        .on(VERSION.ID.eq(VERSION_LINK.VERSION_ID))
        .forEach(
            r -> {
              items.add(r.get(VERSION_LINK.ITEM_KEY));
              byItem
                  .computeIfAbsent(
                      r.get(VERSION_LINK.VERSION_ID) + r.get(VERSION_LINK.ITEM_KEY),
                      k -> new ArrayList<>())
                  .add(
                      new Linked(
                          r.get(VERSION.MASTER_ID).toString(),
                          new Link(
                              r.get(VERSION_LINK.ADDRESS),
                              json.readValue(r.get(VERSION_LINK.PARAMETERS).data(), PARAMETERS))));
            });
    List<RelinkRule> rules = new ArrayList<>(relinking.rules().rules());
    rules.add(rule);
    Count count = new Count(new RelinkRules(rules), rule, relinking.today());
    for (HeldVersions.Held h : held.of(at.keySet().toArray(UUID[]::new), items)) {
      for (Linked l : byItem.getOrDefault(h.version() + h.item(), List.of())) {
        h.in().keySet().forEach(s -> count.add(at.get(s), l));
      }
    }
    return count.told();
  }

  /** What comes of link after link. */
  private static final class Count {
    private final RelinkRules rules;
    private final RelinkRule rule;
    private final LocalDate day;
    private final Set<UUID> sections = new HashSet<>();
    private final List<RelinkApi.TriedLink> some = new ArrayList<>();
    private int links;
    private int changed;
    private int leadsOn;

    Count(RelinkRules rules, RelinkRule rule, LocalDate day) {
      this.rules = rules;
      this.rule = rule;
      this.day = day;
    }

    void add(ToolSection s, Linked l) {
      links++;
      RelinkRules.Relinked r = rules.of(l.link(), l.master(), s.place(), day);
      if (r.rule().filter(x -> x.id().equals(rule.id())).isEmpty()) {
        return;
      }
      if (r.changed()) {
        changed++;
        sections.add(s.id());
      } else {
        leadsOn++;
      }
      if (some.size() < SHOWN) {
        some.add(
            new RelinkApi.TriedLink(
                s.code(),
                s.title(),
                shown(l.link()),
                shown(r.link()),
                r.leadsOn().map(x -> x.from().text()).orElse(null)));
      }
    }

    private static String shown(Link l) {
      StringBuilder b = new StringBuilder(l.address());
      l.parameters().forEach((n, v) -> b.append("  ").append(n).append('=').append(v));
      return b.toString();
    }

    RelinkApi.RelinkTried told() {
      return new RelinkApi.RelinkTried(links, changed, leadsOn, sections.size(), some);
    }
  }
}
