package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.RelinkRule;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.core.tool.RelinkRules;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/** Tries a rule on every link that sections of a term hold. */
@Component
class RelinkTrial {
  private static final int SHOWN = 100;
  private final Reach reach;
  private final ToolSections sections;
  private final KnownLinks links;
  private final Relinking relinking;

  RelinkTrial(Reach reach, ToolSections sections, KnownLinks links, Relinking relinking) {
    this.reach = reach;
    this.sections = sections;
    this.links = links;
    this.relinking = relinking;
  }

  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public RelinkApi.RelinkTried of(UUID term, RelinkRule rule, SignedIn who) {
    List<ToolSection> all = sections.where(SECTION.TERM_ID.eq(term).and(reach.sections(who)));
    Map<UUID, ToolSection> at = new HashMap<>();
    all.forEach(s -> at.put(s.id(), s));
    List<RelinkRule> rules = new ArrayList<>(relinking.rules().rules());
    rules.add(rule);
    Count count = new Count(new RelinkRules(rules), rule, relinking.today());
    links.ofSections(
        at.keySet().toArray(UUID[]::new), (section, l) -> count.add(at.get(section), l));
    return count.told();
  }

  /** What comes of link after link. */
  private static final class Count {
    private final RelinkRules rules;
    private final RelinkRule rule;
    private final LocalDate day;
    private final Set<String> hosts;
    private final Set<UUID> sections = new HashSet<>();
    private final List<RelinkApi.TriedLink> some = new ArrayList<>();
    private int links;
    private int changed;
    private int leadsOn;

    Count(RelinkRules rules, RelinkRule rule, LocalDate day) {
      this.rules = rules;
      this.rule = rule;
      this.day = day;
      this.hosts = rules.hosts();
    }

    void add(ToolSection s, KnownLinks.Linked l) {
      links++;
      if (!hosts.contains(l.host())) {
        return;
      }
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
