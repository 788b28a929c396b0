package org.zephyrmist.core.tool;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.tool.RelinkRule.Link;

/**
 * Rules in their order. The first that changes a link counts, and no other after it: where another
 * rule, or the same, would change the result once more, the link stays as it was and that is told.
 * So relinking twice is relinking once, and no rules make a chain or a loop.
 */
public record RelinkRules(List<RelinkRule> rules) {
  public static final RelinkRules NONE = new RelinkRules(List.of());

  public RelinkRules {
    rules = List.copyOf(rules);
  }

  /** Hosts that they are about; other links they never change. */
  public Set<String> hosts() {
    return rules.stream().map(r -> r.from().host()).collect(Collectors.toSet());
  }

  /**
   * What becomes of a link.
   *
   * @param rule that changed it, or would
   * @param leadsOn the rule that would change the result once more, so that nothing is done
   */
  public record Relinked(Link link, Optional<RelinkRule> rule, Optional<RelinkRule> leadsOn) {
    /** Whether it is written otherwise. */
    public boolean changed() {
      return rule.isPresent() && leadsOn.isEmpty();
    }
  }

  /**
   * @param master id of the source that the link came from
   */
  public Relinked of(Link link, String master, SectionPlace section, LocalDate day) {
    List<RelinkRule> here =
        rules.stream().filter(r -> r.limits().cover(master, section, day)).toList();
    for (RelinkRule r : here) {
      Optional<Link> becomes = r.of(link, section);
      if (becomes.isPresent()) {
        Optional<RelinkRule> on =
            here.stream().filter(x -> x.of(becomes.get(), section).isPresent()).findFirst();
        return new Relinked(on.isPresent() ? link : becomes.get(), Optional.of(r), on);
      }
    }
    return new Relinked(link, Optional.empty(), Optional.empty());
  }
}
